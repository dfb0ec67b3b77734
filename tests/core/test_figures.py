"""Every curve the trade reads, by hand from flow and sizes."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from tests.core.builders import BASE, FULL, run
from ventrix.core.formulas.bench_flow import ideal_flux
from ventrix.core.quantity.units import CFM, to_si
from ventrix.core.runs.geometry import Geometry
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.core.runs.run_curves import KINDS, Beside, curve_of, handover, kind_of

LIFT = np.arange(1, 11) * 1e-3
GEOMETRY = Geometry(1, 0.041, 0.007, 0.036, 0.0015, float(np.pi / 4), 1.18e-4, 0.104)


def full_run() -> ReducedRun:
    return replace(run(BASE, FULL), geometry=GEOMETRY, swirl=np.linspace(-10, 100, 10))


def test_every_curve_has_values_where_its_inputs_are_there() -> None:
    other = replace(run(BASE * 0.75, replace(FULL, direction="exhaust")), geometry=GEOMETRY)
    beside = Beside(1.0e-3, other)
    for kind in KINDS:
        assert np.all(np.isfinite(curve_of(full_run(), kind.key, LIFT, beside))), kind.key
        assert kind_of(kind.key) == kind
    bare = run(BASE, FULL)
    for kind in KINDS[1:]:
        assert np.all(np.isnan(curve_of(bare, kind.key, LIFT))), kind.key


def test_curves_by_hand() -> None:
    here, flow = full_run(), BASE * CFM
    area = np.pi / 4 * 0.041**2
    assert curve_of(here, "flux", LIFT) == pytest.approx(flow / area)
    dp = to_si(28, "inH2O")
    assert curve_of(here, "cd_valve", LIFT) == pytest.approx(flow / area / float(ideal_flux(dp)))
    # common practice: 146 CFM per square inch at 28 inH2O, incompressible
    flux_in = (BASE / (area / 0.0254**2)) / 146
    assert curve_of(here, "cd_valve_inc", LIFT) == pytest.approx(flux_in, rel=2e-3)
    assert curve_of(here, "speed_pinch", LIFT, Beside(1e-3)) == pytest.approx(flow / 1e-3)
    throat = np.pi / 4 * (0.036**2 - 0.007**2)
    assert curve_of(here, "speed_throat", LIFT) == pytest.approx(flow / throat)
    assert curve_of(here, "speed", LIFT) == pytest.approx(flow * 0.104 / 1.18e-4)
    assert curve_of(here, "energy", LIFT) == pytest.approx(0.5 * 1.225 * (flow * 0.104 / 1.18e-4) ** 2)


def test_ratio_is_exhaust_over_intake_whichever_is_looked_at() -> None:
    intake = full_run()
    exhaust = replace(run(BASE * 0.75, replace(FULL, direction="exhaust")), geometry=GEOMETRY)
    assert curve_of(intake, "ratio", LIFT, Beside(None, exhaust)) == pytest.approx(np.full(10, 0.75))
    assert curve_of(exhaust, "ratio", LIFT, Beside(None, intake)) == pytest.approx(np.full(10, 0.75))
    short = replace(run((BASE * 0.75)[:5], replace(FULL, direction="exhaust")), geometry=GEOMETRY)
    assert np.isnan(curve_of(intake, "ratio", LIFT, Beside(None, short))[5:]).all()


def test_the_seat_hands_over_where_each_has_half_of_the_loss() -> None:
    here = replace(full_run(), open_flow=200 * CFM)
    lift = handover(here)
    assert lift is not None
    assert float(here.curve.at(lift)) == pytest.approx(200 * CFM / np.sqrt(2), rel=0.02)  # (Q/Qo)^2 = 1/2
    assert handover(full_run()) is None
    assert handover(replace(full_run(), open_flow=2000 * CFM)) is None
    with pytest.raises(ValueError, match="not a curve"):
        curve_of(here, "feel", LIFT)
