"""A window used for a long while leaves nothing behind; short by default, longer with --long."""

from __future__ import annotations

from pathlib import Path

from benchmarks.soak import soak


def test_rooms_sheets_jobs_and_edits_leave_nothing_behind(tmp_path: Path, long: bool, qapp) -> None:  # type: ignore[no-untyped-def]
    before, after = soak(tmp_path, 0.08 if long else 0.02)
    assert (after.widgets, after.threads, after.timers) == (before.widgets, before.threads, before.timers)
    assert after.memory < 1.1 * before.memory
