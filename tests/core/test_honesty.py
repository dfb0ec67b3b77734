"""Nothings are called nothing, gains are found, mistakes are not kept. Few draws here, more with --long."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
import pytest
from benchmarks import honesty as h

from ventrix.core.model.kinds import School

FEW, MANY = 120, 200
Row = tuple[str, Callable[[int], float], float, float]
ROWS: tuple[Row, ...] = (
    *((f"one mount, {s}", lambda n, s=s: h.null_same_mount(n, 1, s), 0.0, 0.05) for s in School),  # type: ignore[misc]
    *((f"re-mounted, {s}", lambda n, s=s: h.null_remounted(n, 2, s), 0.0, 0.05) for s in School),  # type: ignore[misc]
    ("unknown benches", lambda n: h.null_unknown_benches(n, 3), 0.0, 0.05),
    ("3 % over a z test", lambda n: h.power_over_z(n, 5), 0.90, 1.1),
    ("coverage", lambda n: h.coverage(n, 6), 0.93, 0.97),
    ("dial", lambda n: h.kept_on_mistake(n, 7, dial=0.003 * h.INCH), 0.0, 0.05),
    ("factor", lambda n: h.kept_on_mistake(n, 8, factor=1.01), 0.0, 0.05),
    ("leak", lambda n: h.kept_on_mistake(n, 9, leak=h.CFM), 0.0, 0.05),
    ("shape of nothing", lambda n: h.shape_found(n, 10), 0.0, 0.01),
    ("shape of a dial", lambda n: h.shape_found(n, 11, dial=0.003 * h.INCH), 0.0, 0.01),
    ("shape at low lift", lambda n: h.shape_found(n, 12, factor=h.LOW_GAIN), 0.95, 1.0),
    ("shape through noise", lambda n: h.shape_found(n, 13, 0.006, factor=h.LOW_GAIN), 0.55, 0.85),
    ("one reading of nothing", lambda n: h.lone_named(n, 14), 0.0, 0.01),
    ("a slip of 8 %", lambda n: h.lone_named(n, 16, at=6, by=0.08), 0.85, 1.0),
    *((f"28 against {p}", lambda n, p=p: h.null_other_pressure(n, 17, p), 0.0, 0.05) for p in (10, 15, 20)),  # type: ignore[misc]
    ("out of breath", lambda n: h.null_out_of_breath(n, 18), 0.0, 0.05),
    ("transfer", lambda n: h.transfer_covers(n, 19), 0.93, 1.0),
    ("shape by single readings", lambda n: h.shape_by_study(n // 3, 22, h.Bench(), factor=h.LOW_GAIN), 0.90, 1.0),
    ("shape of mounts that tilt", lambda n: h.shape_by_study(n // 3, 24, h.Bench(tilt=0.015)), 0.0, 0.02),
    ("shape in steps of 5 CFM", lambda n: h.steps_seen(n, 25, "shape"), 0.0, 0.01),
    ("odd in steps of 5 CFM", lambda n: h.steps_seen(n, 26, "odd"), 0.0, 0.01),
    *((f"checked, {w}", lambda n, f=f: h.kept_plainly(n, 28, True, **f), 0.0, 0.05) for w, f in h.FAKES.items()),  # type: ignore[misc]
    ("checked, true 3 %", lambda n: h.kept_plainly(n, 29, True, 0.03), 0.68, 1.0),
    ("marks of eight nulls", lambda n: h.marked_in_a_row(max(n // 10, 40), 30), 0.0, 0.05),
    ("a row of ten", lambda n: h.null_row(max(n // 10, 40), 4), 0.05, 0.35),
)


@pytest.mark.parametrize("row", ROWS, ids=lambda r: r[0])
def test_rows_of_the_formula_book(row: Row, long: bool) -> None:
    """Formula book, "Checks, by simulation". With few draws a row may stray three standard deviations of its count."""
    _, found, least, most = row
    n = MANY if long else FEW
    rate = found(n)
    stray = (3.0 if not long else 2.0) * max(np.sqrt(most * (1 - min(most, 1.0)) / n), np.sqrt(least * (1 - least) / n))
    assert least - stray <= rate <= most + stray


def test_further_mounts_come_about_as_often_as_said(long: bool) -> None:
    even, sure = h.odds_of_further_mounts(400 if long else 150, 20)
    assert 0.3 <= even <= 0.75
    assert even <= sure + 0.1


def test_single_readings_of_many_mounts_need_no_assumed_spread() -> None:
    """A study of 21 mounts, one reading a lift, brings the band of a pair down by a third (tried: 4.0 to 2.7 CFM)."""
    assumed, known = (h.band_of_single_readings(40, 21, mounts) for mounts in (0, 21))
    assert known / assumed == pytest.approx(2.7 / 4.0, abs=0.08)


def test_a_small_gain_is_never_plainly_kept_without_a_check() -> None:
    bench, random = h.KNOWN_MOUNT, np.random.default_rng(1)
    pairs = [h.pair(random, bench, h.knows(bench), factor=1.03) for _ in range(30)]
    small = [h.judge(c) for c in pairs if c.weighted < 0.04 * c.weighted_before]
    assert len(small) > 20
    assert not any(v.is_plain_keep for v in small)
    assert any("nothing at the bench changed" in v.headline for v in small)
    large = [h.judge(h.pair(random, bench, h.knows(bench), factor=1.07)) for _ in range(10)]
    assert all(v.is_plain_keep for v in large)
