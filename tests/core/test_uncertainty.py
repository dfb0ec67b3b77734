"""Scatter by hand, coverage by Monte Carlo, and the promise that nothings are not called gains."""

from __future__ import annotations

import numpy as np
import pytest

from ventrix.core.formulas.difference import Difference, LiftScatter, Side, point_uncertainty, scatter_by_lift
from ventrix.core.formulas.uncertainty import (
    Instrument,
    MountSets,
    Repeats,
    Scatter,
    known_scatter,
    mount_scatter,
    repeat_scatter,
    student_t,
)


def repeats(*groups: list[float]) -> Repeats:
    """Repeats from readings at each lift."""
    starts = np.cumsum([0, *(len(g) for g in groups[:-1])])
    return Repeats.of(np.array([q for g in groups for q in g]), starts)


def test_student_t_as_printed() -> None:
    # JCGM 100:2008, table G.2: t for 95 % is 2.31 at 8, 2.57 at 5, 1.96 at infinite degrees of freedom
    assert student_t(0.05, [8, 5, np.inf]) == pytest.approx([2.31, 2.57, 1.96], abs=0.005)


def test_repeat_scatter_by_hand() -> None:
    # JCGM 100:2008, 4.2.4 pooled variance; by hand: residuals +-1 % twice, 2 degrees of freedom -> sqrt(4e-4/2)
    s, nu = repeat_scatter([repeats([99.0, 101.0], [198.0, 202.0], [50.0])])
    assert s == pytest.approx(np.sqrt(4e-4 / 2))
    assert nu == 2


def test_scatter_is_assumed_until_there_is_enough() -> None:
    few = known_scatter([repeats([99.0, 101.0])] * 4)
    enough = known_scatter([repeats([99.0, 101.0])] * 5)
    assert few.repeat_assumed
    assert few.repeat == 0.01
    assert not enough.repeat_assumed
    assert enough.repeat_freedom == 5
    assert enough.mount_assumed


def test_mounts_that_were_seen_are_pooled_with_what_is_assumed() -> None:
    # JCGM 100:2008, 4.2.4 pooled variance, by hand: 4 x 0.7 %^2 assumed, and two sets of mounts 99 100 101 and 98 102
    seen = MountSets.of([99.0, 100.0, 101.0]) + MountSets.of([98.0, 102.0])
    assert (seen.freedom, seen.mounts) == (3, 5)
    assert seen.squares == pytest.approx(2e-4 + 8e-4)
    assert mount_scatter(seen) == (pytest.approx(np.sqrt((4 * 0.007**2 + 10e-4) / 7)), 7)
    assert mount_scatter(MountSets()) == (pytest.approx(0.007), 4)
    assert MountSets.of([1.0]) == MountSets()


def test_a_poor_bench_is_not_flattered() -> None:
    poor = MountSets.of([97.0, 99.0, 100.0, 101.0, 103.0])  # s = 2.236 by hand, four degrees of freedom
    assert mount_scatter(poor) == (pytest.approx(0.02236, rel=1e-3), 4)
    good = MountSets.of([99.9, 99.95, 100.0, 100.05, 100.1])
    s, nu = mount_scatter(good)
    assert nu == 8
    assert 0.004 < s < 0.007  # what is assumed keeps a word until much was seen


def test_a_noisy_lift_answers_for_itself() -> None:
    quiet = [[100.0, 100.1]] * 6
    scatter = known_scatter([repeats(*quiet)])
    by_lift = scatter_by_lift(repeats(*quiet, [100.0, 108.0]), scatter)
    assert by_lift.repeat[-1] > 0.05
    assert by_lift.freedom[-1] == 1
    assert by_lift.repeat[0] == pytest.approx(scatter.repeat)


def _difference(scatter: Scatter, same_mount: bool = False, mounts: int = 1) -> Difference:
    flow = np.array([50.0, 100.0, 150.0, 180.0])
    side = Side(flow, np.array([50e3, 45e3, 30e3, 5e3]), np.full(4, 2.0 * mounts), 7000.0, mounts)
    return Difference(
        side,
        side,
        LiftScatter(np.full(4, scatter.repeat), np.full(4, scatter.repeat_freedom)),
        scatter,
        Instrument(flow=0.1),
        same_mount,
    )


def test_difference_by_hand() -> None:
    # The formula book's own sum, worked by hand for one lift: only mount and repeat, both known exactly.
    inf = float("inf")
    d = _difference(Scatter(0.003, inf, 0.01, inf, False, False))
    quiet = Difference(d.before, d.after, d.lift_scatter, d.scatter, Instrument(0.0, 0.0, 0.0), False)
    expected = 1.959964 * np.sqrt(2 * 100**2 * (0.003**2 / 2 + 0.01**2))
    assert quiet.expanded()[1] == pytest.approx(expected, rel=1e-6)
    same = Difference(d.before, d.after, d.lift_scatter, d.scatter, Instrument(0.0, 0.0, 0.0), True)
    assert same.expanded()[1] == pytest.approx(1.959964 * np.sqrt(2 * 100**2 * 0.003**2 / 2), rel=1e-6)


@pytest.mark.parametrize("weighted", [False, True])
def test_coverage_by_correlated_monte_carlo(weighted: bool) -> None:
    """95 % of simulated differences of nothing lie inside U, every component drawn as it is correlated."""
    random = np.random.default_rng(7)
    n, inf = 20_000, float("inf")
    scatter = Scatter(0.004, inf, 0.006, inf, False, False)
    d = _difference(scatter)
    instrument = Instrument(flow=0.1)
    weights = np.array([0.2, 0.3, 0.3, 0.2])

    def run() -> np.ndarray:
        side = d.before
        mount = 1 + scatter.mount * random.standard_normal((n, 1))
        dial = random.standard_normal((n, 1)) * instrument.lift * side.slope
        gauge = 1 + 0.5 * random.standard_normal((n, 1)) * instrument.pressure / side.pressure
        noise = 1 + scatter.repeat / np.sqrt(2) * random.standard_normal((n, 4))
        digit = random.uniform(-1, 1, (n, 4)) * instrument.flow * np.sqrt(3) / np.sqrt(2)
        return np.asarray(side.flow * mount * noise * gauge + dial + digit)

    change = run() - run()
    if weighted:
        inside = np.abs(change @ weights) < d.weighted_expanded(weights)
        assert 0.93 <= inside.mean() <= 0.97
    else:
        inside = np.abs(change) < d.expanded()
        assert np.all((inside.mean(axis=0) >= 0.93) & (inside.mean(axis=0) <= 0.97))


def test_more_mounts_tell_more() -> None:
    one, four = _difference(Scatter()), _difference(Scatter(), mounts=4)
    weights = np.full(4, 0.25)
    assert four.weighted_expanded(weights) < 0.6 * one.weighted_expanded(weights)


def test_point_uncertainty_is_the_root_of_squares() -> None:
    d = _difference(Scatter())
    u = point_uncertainty(d.before, d.lift_scatter, 0.005, Instrument(0.0, 0.0, 0.0))
    # JCGM 100:2008, 5.1.2: root sum of squares; 1 % over the root of two readings and 0.5 % of mount
    assert u == pytest.approx(d.before.flow * np.sqrt(0.01**2 / 2 + 0.005**2))
