"""The window killed while it is typed into, and files changed at chance: a few by default, many with --long."""

from __future__ import annotations

import random
from pathlib import Path

from benchmarks.importers import fuzz
from benchmarks.kill import numbers_on_disk, one_life


def test_what_a_killed_window_called_kept_is_on_disk(tmp_path: Path, long: bool) -> None:
    rng = random.Random(3)
    path = tmp_path / "book.sqlite"
    confirmed: list[int] = []
    for life in range(12 if long else 2):
        confirmed += one_life(path, 10_000 * life, rng)
        found = numbers_on_disk(path)
        assert set(confirmed) <= set(found)
        assert len(found) == len(set(found))
    assert confirmed


def test_changed_files_are_taken_or_refused_in_a_sentence(long: bool) -> None:
    for name, tally in fuzz(10_000 if long else 1_000, seed=5).items():
        assert set(tally) <= {"accepted", "refused"}, (name, tally)
        assert tally["accepted"] > 0
        assert tally["refused"] > 0
