"""Whatever writes is killed, and files are changed at chance: a few by default, more with --long."""

from __future__ import annotations

from pathlib import Path

import pytest
from benchmarks.importers import fuzz
from benchmarks.kill import SHARES, kill


@pytest.mark.parametrize("what", SHARES)
def test_what_was_said_is_on_disk_once_and_every_copy_is_whole(what: str, tmp_path: Path, long: bool) -> None:
    said, lost, twice, bad = kill(what, 2 if long else 1, tmp_path, seed=3)
    assert said > 0
    assert (lost, twice, bad) == (0, 0, [])


def test_changed_files_are_taken_or_refused_in_a_sentence(long: bool) -> None:
    found = fuzz(5_000 if long else 1_000, seed=5)
    assert sum(tally["accepted"] for tally in found.values()) > 0
    for name, tally in found.items():
        assert set(tally) <= {"accepted", "refused"}, (name, tally)
