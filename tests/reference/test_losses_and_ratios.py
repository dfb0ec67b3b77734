"""Loss split, share of a place, ratios, false gains and the GUM's own worked example."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.optimize import brentq

from tests.core.builders import BASE, FULL, SHARP, run
from ventrix.core.formulas.cam import Cam
from ventrix.core.formulas.exhaust_ratio import exhaust_ratios
from ventrix.core.formulas.flow_curve import FlowCurve
from ventrix.core.formulas.knowledge import Known
from ventrix.core.formulas.losses import loss_split, place_share
from ventrix.core.formulas.port import volume_from_stations, volume_note
from ventrix.core.formulas.uncertainty import MountSets, Repeats, repeat_scatter
from ventrix.core.judging.comparing import compare_runs
from ventrix.core.judging.fingerprints import fingerprints
from ventrix.core.quantity.units import CFM, INCH


def test_two_restrictions_in_series() -> None:
    # By hand: areas 1 and 2 in series pass 1/sqrt(1 + 1/4); the port (2) alone passes 2; its share is 1/5
    q = 1 / np.sqrt(1 + 1 / 4)
    found = loss_split(q, 2.0)
    assert found.port_share == pytest.approx(0.2)
    assert found.valve_share == pytest.approx(0.8)
    with pytest.raises(ValueError, match="does not separate"):
        loss_split(q, None)
    assert loss_split(2.1, 2.0).port_share > 1  # shown, not clipped


def test_split_and_share_uncertainty_by_monte_carlo() -> None:
    random = np.random.default_rng(3)
    q, qo = 200 * (1 + 0.01 * random.standard_normal(200_000)), 250 * (1 + 0.008 * random.standard_normal(200_000))
    found = loss_split(200.0, 250.0, 2.0, 2.0)
    assert np.std((q / qo) ** 2) == pytest.approx(float(found.uncertainty), rel=0.02)
    inside = np.abs((q / qo) ** 2 - found.port_share) < 1.96 * found.uncertainty
    assert 0.93 <= inside.mean() <= 0.97
    ratio = 0.97 + 0.003 * random.standard_normal(200_000)
    area = 0.75 + 0.01 * random.standard_normal(200_000)
    share = place_share(0.97, 0.75, 0.003, 0.01)
    assert np.std((1 / ratio**2 - 1) / (1 / area**2 - 1)) == pytest.approx(float(share.uncertainty), rel=0.03)


@pytest.mark.parametrize("left", [0.5, 0.75, 0.999, 1.3])
def test_share_of_a_place_is_its_share_of_the_loss(left: float) -> None:
    """Bernoulli through three restrictions: the drop at each is its own velocity head, however much is changed."""
    areas = np.array([1.0, 1.5, 2.0])

    def flow(a: np.ndarray) -> float:
        # SciPy: the flow at which the heads of all places add up to the drop
        return brentq(lambda q: float(np.sum((q / a) ** 2)) - 1.0, 1e-6, 10.0, xtol=1e-14)

    q = flow(areas)
    for i, own in enumerate(areas):
        changed = areas.copy()
        changed[i] *= left
        head = (q / own) ** 2  # of a whole drop of one
        assert place_share(flow(changed) / q, left).share == pytest.approx(head, rel=1e-6)
    # formula book: the small-change rule reads a fifth as 0.28 at a quarter of the area
    fifth = np.array([np.sqrt(5.0), np.sqrt(1.25)])
    clay = np.array([fifth[0] * 0.75, fifth[1]])
    assert (1 - flow(clay) / flow(fifth)) / 0.25 == pytest.approx(0.28, abs=0.02)
    assert place_share(flow(clay) / flow(fifth), 0.75).share == pytest.approx(0.2, rel=1e-6)
    with pytest.raises(ValueError, match="did not change"):
        place_share(0.99, 1.0)
    with pytest.raises(ValueError, match="above zero"):
        place_share(0.99, 0.0)


def test_ratios_four_ways() -> None:
    lift = np.arange(1, 6) * 1e-3
    intake = FlowCurve(lift, np.array([20.0, 40, 60, 80, 100]))
    exhaust = FlowCurve(lift, 0.75 * intake.flow)
    cam = Cam(0.005, 4.0)
    found = exhaust_ratios(exhaust, intake, 0.04, 0.04, cam, cam)
    # common practice, no source: three quarters by any way where the curves are alike
    assert found.at_lift == pytest.approx(np.full(5, 0.75))
    assert found.at_lift_ratio == pytest.approx(np.full(5, 0.75))
    assert found.at_peak == pytest.approx(0.75)
    assert found.cam_weighted == pytest.approx(0.75)
    smaller = exhaust_ratios(exhaust, intake, 0.03, 0.04)
    assert smaller.cam_weighted is None
    assert smaller.at_lift_ratio is not None
    assert smaller.at_lift_ratio[0] == pytest.approx(0.75 * 0.75)


def test_what_fakes_a_gain_is_named() -> None:
    # PRACTICE: a dial zero three thousandths out; a leak; a bench factor. A real cut is none of them.
    before = run(BASE)
    curve = before.curve
    dial = curve.at(before.lift + 0.003 * INCH) / CFM
    dial[-1] = BASE[-1]
    named = {f.cause: f.amount for f in fingerprints(compare_runs([before], [run(dial)], known=Known(SHARP)))}
    assert named["dial zero"] == pytest.approx(0.003 * INCH, rel=0.25)
    factor = {f.cause: f.amount for f in fingerprints(compare_runs([before], [run(BASE * 1.03)], known=Known(SHARP)))}
    assert factor["factor"] == pytest.approx(0.03, rel=0.05)
    leak = {f.cause: f.amount for f in fingerprints(compare_runs([before], [run(BASE + 2.0)], known=Known(SHARP)))}
    assert leak["leak"] == pytest.approx(2 * CFM, rel=0.05)
    tilt = np.array([0.95, 0.95, 0.97, 1, 1, 1, 1.05, 1.08, 1.1, 1.1])
    assert fingerprints(compare_runs([before], [run(BASE * tilt)], known=Known(SHARP))) == ()
    assert fingerprints(compare_runs([before], [before], known=Known(SHARP))) == ()
    assert fingerprints(compare_runs([run(BASE[:2])], [run(BASE[:2] * 1.1)], known=Known(SHARP))) == ()


def test_volume_from_stations() -> None:
    # Geometry: a cone's frustum, exact for Simpson's rule since its area is quadratic
    x = np.linspace(0, 0.1, 7)
    area = np.pi / 4 * (0.03 + 0.1 * x) ** 2
    exact = np.pi * 0.1 / 12 * (0.03**2 + 0.03 * 0.04 + 0.04**2)
    assert volume_from_stations(x, area) == pytest.approx(exact, rel=1e-9)
    assert volume_note(100e-6, 102e-6) is None
    assert "over 3 %" in (volume_note(100e-6, 104e-6) or "")
    with pytest.raises(ValueError, match="two stations"):
        volume_from_stations([0.0], [1.0])


def test_gum_worked_example_h5() -> None:
    # JCGM 100:2008, table H.9 (from memory): a 10 V standard, five readings on each of ten days, in microvolt
    # over 10 V. Printed: s of the daily means 57, pooled s within a day 85, with 9 and 40 degrees of freedom.
    means = np.array([172, 116, 13, 144, 106, 31, 60, 125, 163, 41.0]) * 1e-6 + 10
    within = np.array([60, 77, 111, 101, 67, 93, 80, 73, 88, 86.0]) * 1e-6
    seen = MountSets.of(means)
    assert np.sqrt(seen.squares / seen.freedom) * 10 == pytest.approx(57e-6, abs=0.5e-6)
    assert seen.freedom == 9
    s, nu = repeat_scatter([Repeats(4 * within**2 / means**2, np.full(10, 4.0))])
    assert s * 10 == pytest.approx(85e-6, abs=0.5e-6)
    assert nu == 40


@pytest.mark.parametrize("gain", [0.0, 0.03, 0.06])
def test_verdicts_do_not_hang_on_the_test_pressure(gain: float) -> None:
    # The same port flowed at 28 or at 25 inH2O on both sides: flows scale, verdict and percent stay
    from dataclasses import replace

    from ventrix.core.judging.verdict import judge

    low = replace(FULL, test_pressure=25 * 249.08891)
    scale = np.sqrt(25 / 28)
    at28 = judge(compare_runs([run(BASE)], [run(BASE * (1 + gain))]))
    at25 = judge(compare_runs([run(BASE * scale, low)], [run(BASE * (1 + gain) * scale, low)]))
    assert at28.result == at25.result
    assert at25.weighted == pytest.approx(at28.weighted * scale)  # type: ignore[operator]
