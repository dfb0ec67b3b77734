"""Honest from the first day: nothings are called nothing, gains are found."""

from __future__ import annotations

from benchmarks.honesty import rates


def test_null_pairs_and_true_gains() -> None:
    fooled, found = rates(1000, seed=11)
    assert fooled <= 0.05
    assert found >= 0.80
