"""The probe's procedure: which point is next, and when a reading stands still. Samples are written by hand."""

from __future__ import annotations

import pytest

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.procedure.probe_procedure import ProbeProcedure


def samples(values: list[float], start: float = 0.0, every: float = 0.1) -> list[Sample]:
    return [Sample(time=start + every * i, flow=0.1, pressure=7000.0, probe=v) for i, v in enumerate(values)]


def test_points_come_in_order_and_one_can_be_chosen() -> None:
    p = ProbeProcedure(["roof", "floor", "left"])
    p.stand_on_open(["roof"])
    assert p.wanted == "floor"
    assert p.stand_on("left") and p.wanted == "left"
    assert not p.stand_on("nowhere") and p.wanted == "left"
    p.stand_on_open(["roof", "floor", "left"])
    assert p.wanted == ""


def test_nothing_is_kept_before_three_seconds_or_while_it_moves() -> None:
    p = ProbeProcedure(["roof"])
    with pytest.raises(ValueError, match="No probe"):
        p.kept()
    p.feed(samples([500.0] * 10))
    with pytest.raises(ValueError, match="three seconds"):
        p.kept()
    p.feed(samples([500.0, 700.0] * 15, start=1.0))
    with pytest.raises(ValueError, match="steady"):
        p.kept()
    p.feed(samples([600.0] * 31, start=4.0))
    assert p.kept() == pytest.approx(600.0), "what is older than the window is gone"


def test_a_new_point_starts_without_the_old_ones_samples() -> None:
    p = ProbeProcedure(["roof", "floor"])
    p.feed(samples([500.0] * 31))
    assert p.kept() == 500.0
    p.stand_on("floor")
    assert p.live() is None


def test_a_ball_reads_the_flow_and_a_probe_never_below_nothing() -> None:
    ball = ProbeProcedure(["roof"], ball=True)
    ball.feed(samples([0.0] * 31))
    assert ball.kept() == pytest.approx(0.1)
    idle = ProbeProcedure(["roof"])
    idle.feed(samples([-4.0] * 31))
    assert idle.kept() == 0.0
