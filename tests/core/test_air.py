"""Air speeds: pitot against ISO 3966 and CoolProp, point layouts against known profiles, differences, swirl."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from CoolProp.CoolProp import PropsSI
from hypothesis import given
from hypothesis import strategies as st
from scipy.integrate import trapezoid

from ventrix.bench.simulator import air_picture
from ventrix.bench.simulator.heads.shipped import HEADS
from ventrix.core.air.field_change import change_of, flux_note, half_areas
from ventrix.core.air.hints import (
    balance_sentences,
    change_sentences,
    dead_places,
    engine_speeds,
    hints,
    local_limit_sentences,
    seen_sentences,
    seen_where_air_lets_go,
)
from ventrix.core.air.layouts import CLOCK, EIGHT_RING, FIVE, LAYOUTS, NINE, Layout, layout_named, usual_layout
from ventrix.core.air.sections import places_on
from ventrix.core.air.swirl_over_lift import run_swirl_ratio, swirl_events
from ventrix.core.air.traverse import AirThere, Field, blockage, field_of, point_speed
from ventrix.core.formulas.atmosphere import REFERENCE_DENSITY
from ventrix.core.formulas.cam import Cam
from ventrix.core.formulas.pitot import local_to_reference, probed_air
from ventrix.core.formulas.swirl import paddle_coefficient
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.model.traverse import Observation, ProbePoint, Traverse
from ventrix.core.quantity.units import to_si
from ventrix.core.runs.geometry import Geometry
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.core.runs.reduction import reduce_run
from ventrix.core.runs.run_curves import curve_of

PRESSURE = to_si(28, "inH2O")
LIFT = to_si(0.5, "in")


def a_field(layout: Layout, speed: np.ndarray) -> Field:
    """A section 30 by 40 mm with these speeds at the layout's points."""
    points = tuple(
        ProbePoint(id=str(i), name=p.name, u=p.u, v=p.v, speed=float(s))
        for i, (p, s) in enumerate(zip(layout.places, speed, strict=True))
    )
    traverse = Traverse(id="t", station="pinch", layout=layout.name, points=points)
    found = field_of(traverse, 0.030, 0.040, 0.0012)
    assert found is not None
    return replace(found, speed=np.asarray(speed, dtype=float))


def places(layout: Layout) -> tuple[np.ndarray, np.ndarray]:
    return np.array([p.u for p in layout.places]), np.array([p.v for p in layout.places])


def simulated(number: int, station: str, layout: Layout) -> Field:
    """What an exact probe finds in the simulator's hidden field."""
    truth = HEADS["intake"][number].truth
    points = tuple(
        ProbePoint(id=p.name, name=p.name, u=p.u, v=p.v,
                   reading=air_picture.probe_pressure(truth, station, LIFT, PRESSURE, p.u, p.v))
        for p in layout.places
    )  # fmt: skip
    traverse = Traverse(id="t", station=station, layout=layout.name, points=points)
    found = field_of(traverse, 0.030, 0.040, air_picture.station_area(truth, station))
    assert found is not None
    return found


# -- one point


@pytest.mark.parametrize("speed", [5.0, 60.0, 101.0, 103.0, 180.0, 240.0])
@pytest.mark.parametrize(("room", "warmth"), [(101_325.0, 288.15), (84_000.0, 303.15), (104_000.0, 278.15)])
@pytest.mark.parametrize("direction", ["intake", "exhaust"])
def test_a_probe_s_mass_flux_is_that_of_real_air(speed: float, room: float, warmth: float, direction: str) -> None:
    """CoolProp: real air brought to that speed from rest (draw), or to rest from it (blow), at constant entropy."""
    if direction == "intake":
        total, entering = room, room
        s0, h0 = (PropsSI(x, "P", total, "T", warmth, "Air") for x in ("S", "H"))
        static = PropsSI("P", "H", h0 - speed**2 / 2, "S", s0, "Air")
        density = PropsSI("D", "P", static, "S", s0, "Air")
        reading = total - static
    else:
        cooled = warmth - speed**2 / 2 / PropsSI("C", "P", room, "T", warmth, "Air")
        s0, h0 = (PropsSI(x, "P", room, "T", cooled, "Air") for x in ("S", "H"))
        reading = PropsSI("P", "H", h0 + speed**2 / 2, "S", s0, "Air") - room
        density, entering = PropsSI("D", "P", room, "T", cooled, "Air"), room + 7000.0
    air = AirThere(direction, room, warmth, entering)  # type: ignore[arg-type]
    found = point_speed(ProbePoint(id="p", name="centre", reading=reading), 1.0, air)
    assert found is not None
    assert float(found.local) == pytest.approx(speed, rel=2e-3)
    rho0 = PropsSI("D", "P", entering, "T", warmth, "Air")
    assert float(found.reference) == pytest.approx(density * speed / np.sqrt(rho0 * 1.225), rel=2e-3)


@given(st.floats(60_000, 108_000), st.sampled_from(["intake", "exhaust"]))
def test_speed_rises_with_the_reading_and_never_jumps(room: float, direction: str) -> None:
    reading = np.linspace(1.0, 0.46 * room if direction == "intake" else 0.85 * room, 4000)
    found = probed_air(reading, direction, room, 293.15, room)  # type: ignore[arg-type]
    for speed in found:
        steps = np.diff(speed)
        assert np.all(steps > 0)
        assert np.all(steps[200:] < 1.05 * steps[199:-1])


def test_a_static_reading_replaces_the_usual_end_of_the_truth() -> None:
    # Bernoulli for slow air: half the density is twice the speed squared; the static only sets the density
    point = ProbePoint(id="p", name="x", reading=500.0)
    plain, known = (point_speed(replace(point, static=s)) for s in (None, 6000.0))
    assert plain is not None
    assert known is not None
    assert float(known.local) > float(plain.local)
    # at Mach 0.08 the speed goes with the root of 1/static: 100 825 against 95 325 Pa
    assert float(known.local / plain.local) == pytest.approx(np.sqrt(100_825 / 95_325), rel=1e-3)


def test_a_speed_read_keeps_its_own_and_an_empty_point_is_none() -> None:
    found = point_speed(ProbePoint(id="p", name="x", speed=90.0))
    assert found is not None
    assert float(found.local) == 90.0
    # NACA Report 1135, table I (from memory): at Mach 0.27 density is 0.9645 of the total's; 90 m/s is Mach 0.2664
    assert float(found.reference) == pytest.approx(90 * 0.9654, rel=1e-3)
    assert point_speed(ProbePoint(id="p", name="x")) is None
    with pytest.raises(ValueError, match="negative"):
        point_speed(ProbePoint(id="p", name="x", reading=-5.0))
    with pytest.raises(ValueError, match="sonic"):
        point_speed(ProbePoint(id="p", name="x", reading=50_000.0))


def test_a_thick_probe_says_what_it_blocks() -> None:
    # ISO 3966: the probe under 0.02 of the conduit. 40 mm bore of 12.57 cm2: 0.8 mm passes, 3 mm blocks 3 x 20 / 1257
    assert blockage(0.0007, 0.04, np.pi / 4 * 0.04**2) == 0.0
    assert blockage(0.003, 0.04, np.pi / 4 * 0.04**2) == pytest.approx(60 / 1256.6, rel=1e-3)
    assert blockage(None, 0.04, 1e-3) == 0.0


# -- layouts against profiles whose mean is known


@pytest.mark.parametrize("layout", LAYOUTS, ids=lambda x: x.name)
def test_uniform_and_linear_profiles_are_exact(layout: Layout) -> None:
    u, v = places(layout)
    assert a_field(layout, np.full(len(u), 80.0)).mean == pytest.approx(80.0, rel=1e-12)
    assert a_field(layout, 80 + 25 * u - 30 * v).mean == pytest.approx(80.0, rel=1e-12)  # shear: mean is the middle's
    assert sum(p.weight for p in layout.places) == pytest.approx(1.0)


@pytest.mark.parametrize("layout", [FIVE, NINE], ids=lambda x: x.name)
@pytest.mark.parametrize("n", [5, 7, 9])
def test_power_law_over_a_rectangle_within_the_layouts_error(layout: Layout, n: int) -> None:
    # v = (1-|x|)^(1/n) along both sides; its analytic mean is (n/(n+1))^2.
    u, v = places(layout)
    speed = 100 * ((1 - np.abs(u)) * (1 - np.abs(v))) ** (1 / n)
    assert a_field(layout, speed).mean == pytest.approx(100 * (n / (n + 1)) ** 2, rel=layout.error)


@pytest.mark.parametrize("layout", [EIGHT_RING, CLOCK], ids=lambda x: x.name)
@pytest.mark.parametrize("n", [5, 7, 9])
def test_power_law_over_a_disc_within_the_layouts_error(layout: Layout, n: int) -> None:
    # v = (1-r)^(1/n); mean 2 n^2 / ((n+1)(2n+1)), Schlichting, Boundary-Layer Theory, ch. XX, from memory.
    u, v = places(layout)
    speed = 100 * (1 - np.hypot(u, v)) ** (1 / n)
    exact = 100 * 2 * n**2 / ((n + 1) * (2 * n + 1))
    assert a_field(layout, speed).mean == pytest.approx(exact, rel=layout.error)
    if n == 7:  # ISO 7145: the mean is read at 0.242 R from the wall
        assert a_field(layout, speed).mean == pytest.approx(exact, rel=0.005)


def test_usual_layouts_and_unknown_names() -> None:
    assert usual_layout("seat") is CLOCK
    assert usual_layout("bowl") is EIGHT_RING
    assert usual_layout("pinch") is NINE
    assert layout_named("of my own") is None


# -- the field between the points


def test_interpolation_never_invents_a_maximum_and_says_nothing_outside() -> None:
    rng = np.random.default_rng(7)
    for _ in range(20):
        field = a_field(NINE, rng.uniform(20, 120, 9))
        u, v = np.meshgrid(np.linspace(-1, 1, 41), np.linspace(-1, 1, 41))
        speed = field.at(u, v)
        inside = np.isfinite(speed)
        assert speed[inside].max() <= field.speed.max() + 1e-9
        assert speed[inside].min() >= field.speed.min() - 1e-9
        reach = float(field.u.max())
        assert not np.any(inside[(np.abs(u) > reach + 1e-9) | (np.abs(v) > reach + 1e-9)])
        assert field.at(field.u * 0.999, field.v * 0.999) == pytest.approx(field.speed, rel=0.02)


@pytest.mark.parametrize(
    ("width", "height", "corner"), [(0.0386, 0.0345, 0.015), (0.026, 0.042, 0.0), (0.03, 0.03, 0.015)]
)
@pytest.mark.parametrize("layout", [FIVE, NINE], ids=lambda x: x.name)
def test_points_lie_inside_the_sections_own_corners(layout: Layout, width: float, height: float, corner: float) -> None:
    size = (width, height, width * height - (4 - np.pi) * corner**2)
    placed = places_on(layout, size)
    assert [p.name for p in placed] == [p.name for p in layout.places]
    for p in placed:
        x, y = abs(p.u) * width / 2 - (width / 2 - corner), abs(p.v) * height / 2 - (height / 2 - corner)
        assert abs(p.u) < 1
        assert abs(p.v) < 1
        assert x <= 0 or y <= 0 or np.hypot(x, y) <= 0.851 * corner
    assert places_on(EIGHT_RING, size) == EIGHT_RING.places


def test_a_first_row_alone_spans_no_field() -> None:
    names = [p for p in NINE.places if p.name.startswith("roof")]
    points = tuple(ProbePoint(id=p.name, name=p.name, u=p.u, v=p.v, speed=80.0) for p in names)
    field = field_of(Traverse(id="t", station="pinch", layout=NINE.name, points=points), 0.03, 0.04, 0.0012)
    assert field is not None
    assert field.mean == pytest.approx(float(local_to_reference(80.0)))
    assert np.all(np.isnan(field.at([0.0, 0.5], [0.0, 0.7])))
    assert field.side("floor") is None
    assert half_areas(field) is None


def test_struck_points_do_not_count_and_two_are_no_field() -> None:
    field = a_field(NINE, np.full(9, 60.0))
    points = tuple(
        ProbePoint(id=n, name=n, u=float(a), v=float(b), speed=60.0, struck=None if i < 2 else "slipped")
        for i, (n, a, b) in enumerate(zip(field.names, field.u, field.v, strict=True))
    )
    assert field_of(Traverse(id="t", station="pinch", layout=NINE.name, points=points), 0.03, 0.04, 0.0012) is None
    with pytest.raises(ValueError, match="size"):
        field_of(Traverse(id="t", station="pinch", points=points), 0.0, 0.04, 0.0012)


# -- against the simulator's hidden field


@pytest.mark.parametrize("number", [0, 1, 2])
@pytest.mark.parametrize("station", ["opening", "pinch", "guide", "short side"])
def test_speeds_times_area_add_up_to_the_benchs_flow(number: int, station: str) -> None:
    field = simulated(number, station, NINE)
    flow = float(HEADS["intake"][number].truth.flow(LIFT, PRESSURE))
    off, note = flux_note(field, flow)
    assert abs(off) < NINE.error + 0.05
    assert note is None
    assert flux_note(replace(field, area=field.area * 1.3), flow)[1] is not None


def test_differences_agree_with_the_hidden_field_within_their_uncertainty() -> None:
    rng = np.random.default_rng(11)
    u, v = places(NINE)
    inside = total = 0
    for _ in range(200):
        fields = []
        for number in (1, 2):
            truth = HEADS["intake"][number].truth
            moved_u = np.clip(u + 0.0005 / 0.018 * rng.standard_normal(9), -0.97, 0.97)
            moved_v = np.clip(v + 0.0005 / 0.017 * rng.standard_normal(9), -0.97, 0.97)
            seen = air_picture.speed(truth, "short side", LIFT, PRESSURE, moved_u, moved_v)
            seen = seen * (1 + 0.015 * rng.standard_normal(9)) * (1 + 0.015 * rng.standard_normal())
            fields.append(replace(a_field(NINE, seen), width=0.036, height=0.034))
        exact = [air_picture.speed(HEADS["intake"][n].truth, "short side", LIFT, PRESSURE, u, v) for n in (1, 2)]
        found = change_of(*fields)
        inside += int(np.sum(np.abs(found.change - (exact[1] - exact[0])) <= found.expanded))
        total += 9
    assert inside / total > 0.93


def test_the_laid_back_short_side_is_told_in_words() -> None:
    before, after = simulated(1, "short side", NINE), simulated(2, "short side", NINE)
    assert any(
        "The floor carries" in s and "less than the roof at the short side" in s for s in balance_sentences(before)
    )
    told = " ".join(change_sentences(before, after))
    assert "Faster by more than the probe's uncertainty: floor left" in told
    assert "more even" in told
    halves = half_areas(after)
    assert halves is not None
    assert halves.upper + halves.lower == pytest.approx(after.area)
    same = " ".join(change_sentences(before, before))
    assert "No point changed by more than the probe's uncertainty." in same


def test_width_needed_slows_the_lower_half_to_the_upper_by_continuity() -> None:
    v = places(NINE)[1]
    halves = half_areas(a_field(NINE, 100 - 30 * v))
    assert halves is not None
    assert halves.width_needed is not None
    assert halves.lower_speed * 0.030 == pytest.approx(halves.upper_speed * halves.width_needed)
    assert half_areas(a_field(NINE, 100 + 30 * v)).width_needed is None  # type: ignore[union-attr]


ENGINE = Job(
    id="j", title="t", bore=0.089, stroke=0.0885, rod_length=0.152, speed_high=6800 * np.pi / 30,
)  # fmt: skip
PORT = Port(id="p", name="Intake 1", kind="intake")


def test_dead_air_and_too_fast_air_are_hints_and_only_then() -> None:
    speed = np.full(9, 100.0)
    even = a_field(NINE, speed)
    assert hints(even, engine_speeds(ENGINE, PORT, even), 0.55) == []
    speed[-1], speed[0] = 10.0, 260.0
    field = a_field(NINE, speed)
    assert dead_places(field) == ("floor right",)
    told = hints(field, engine_speeds(ENGINE, PORT, replace(field, area=0.0016)), 0.55)
    assert any("fill at floor right" in s for s in told)
    assert any("open at roof left" in s for s in told)
    assert all(s.startswith("Perhaps") for s in told)
    assert not any("open at" in s for s in hints(field, None, 0.55))


def test_the_local_limit_is_the_engine_s() -> None:
    """Numerical: the piston's greatest speed by differences of its position, through the section, in the traverse's
    proportions."""
    speed = np.full(9, 100.0)
    speed[0] = 150.0
    field = replace(a_field(NINE, speed), area=0.0016)
    angle = np.linspace(0, np.pi, 200_001)
    height = 0.04425 * np.cos(angle) + np.sqrt(0.152**2 - (0.04425 * np.sin(angle)) ** 2)
    piston = np.max(-np.diff(height) / np.diff(angle)) * 6800 * np.pi / 30
    mach = piston * np.pi / 4 * 0.089**2 / 0.0016 / 340.294  # ISO 2533:1975, sea level
    found = engine_speeds(ENGINE, PORT, field)
    assert found is not None
    assert found.nominal == pytest.approx(mach, rel=1e-4)
    assert found.local[0] == pytest.approx(mach * 150 / field.mean, rel=1e-4)
    assert "Over Mach" in local_limit_sentences(field, found, mach)[0]
    tight = engine_speeds(ENGINE, PORT, replace(field, area=0.0009))
    assert tight is not None
    assert tight.choked
    assert local_limit_sentences(field, tight, 0.55) == [
        "At 6800 rpm the engine asks for more than the pinch can pass: choked."
    ]
    assert engine_speeds(replace(ENGINE, stroke=None), PORT, field) is None
    twins = replace(ENGINE, ports=(replace(PORT, cylinder=1), replace(PORT, id="q", cylinder=1)))
    half = engine_speeds(twins, twins.ports[0], field)
    assert half is not None
    assert half.nominal == pytest.approx(mach / 2, rel=1e-4)


# -- swirl


def swirling(rpm: list[float | None], *, torque: bool = False) -> ReducedRun:
    lifts = np.arange(1, len(rpm) + 1) * to_si(0.05, "in")
    bore = to_si(89, "mm")
    readings = []
    for i, (lift, value) in enumerate(zip(lifts, rpm, strict=True)):
        flow = to_si(25.0 * (i + 1), "cfm")
        speed = None if value is None else to_si(value, "rpm")
        moment = None if speed is None or not torque else speed * flow * REFERENCE_DENSITY * bore**2 / 8
        readings.append(
            Reading(id=str(i), lift=float(lift), flow=flow, swirl=None if torque else speed, swirl_torque=moment)
        )
    setup = SetUp(id="s", direction="intake", test_pressure=PRESSURE, bore=bore)
    run = FlowRun(id="r", setup_id="s", mount_id="m", readings=tuple(readings))
    return reduce_run(run, setup, Geometry(valve_diameter=0.046, seat_angle=np.pi / 4, seat_width=0.0016))


def test_reversals_and_drop_outs_are_named_where_they_are() -> None:
    lift = np.array([1.0, 2.0, 3.0, 4.0, 5.0, 6.0])
    found = swirl_events(lift, np.array([-20.0, -18.0, 18.0, 200.0, 90.0, 210.0]))
    assert found.reversals == pytest.approx((2.5,))
    assert found.drop_outs == (5.0,)
    assert swirl_events(lift, np.full(6, np.nan)) == ((), ())
    assert swirl_events(lift, np.array([300.0, 302, 299, 303, 300, 301])).drop_outs == ()  # scatter is no event


def test_swirl_ratio_over_the_stroke_against_direct_integration() -> None:
    # Heywood (1988), 8.3.1 at a constant pressure drop: Rs = pi/4 B L int(Cs A) / int(A)^2, here by SciPy on a grid
    # of its own, twenty times finer.
    run, stroke = swirling([200, 400, 800, 1200, 1600, 1900, 2100, 2200]), to_si(88.5, "mm")
    cam = Cam(to_si(0.4, "in"), to_si(230, "deg"))
    found = run_swirl_ratio(run, cam, stroke)
    assert found is not None
    bore = run.setup.bore or 0.0
    at = np.linspace(0, cam.open_period, len(cam.lifts))

    def parts(angle: float) -> tuple[float, float]:
        lift = max(float(np.interp(angle, at, cam.lifts)), 1e-9)
        speed = float(np.interp(lift, np.r_[0, run.lift], np.r_[0, run.swirl]))
        cd = float(np.nan_to_num(curve_of(run, "cd_valve", np.array([max(lift, 1e-6)]))[0]))
        area = cd * np.pi / 4 * 0.046**2
        return float(paddle_coefficient(speed, bore, PRESSURE)) * area, area

    angles = np.linspace(0, cam.open_period, 4001)
    momentum, whole = (trapezoid([parts(x)[i] for x in angles], angles) for i in (0, 1))
    exact = np.pi / 4 * bore * stroke * momentum / whole**2
    assert found.ratio == pytest.approx(exact, rel=0.02)
    assert run_swirl_ratio(run, None, stroke) is None


BORE = 0.089


def solid_body(
    element: str, pascal: float, room: float, warmth: float, direction: str = "intake"
) -> tuple[Reading, SetUp]:
    """One truth read by any element: air turning as a solid body at a swirl coefficient of 0.42 below a port of an
    effective area of 9 cm2. Ideal gas and Bernoulli, written out here."""
    gas = 287.05
    test_p = room if direction == "intake" else room + pascal
    rho = test_p / gas / warmth
    mass = 9e-4 * rho * np.sqrt(2 * pascal / rho)
    omega = 0.42 * np.sqrt(2 * pascal / rho) / BORE
    torque = mass * BORE**2 / 8 * omega  # Heywood (1988), section 8.3.1: all of the angular momentum is taken out
    setup = SetUp(
        id="s", direction=direction, test_pressure=28 * 249.08891, bore=BORE,  # type: ignore[arg-type]
        temperature=warmth, pressure=room, scale_density=1.2 if element in ("flow", "percent") else None,
    )  # fmt: skip
    element_rho = (room - pascal if direction == "intake" else test_p) / gas / warmth
    common = {"id": "a", "lift": 0.01, "measured_pressure": pascal, "swirl_torque": torque}
    if element == "mass":
        return Reading(**common, mass_flow=mass), setup  # type: ignore[arg-type]
    shown = mass / element_rho * np.sqrt(element_rho / 1.2)
    if element == "percent":
        return Reading(**common, percent=shown / 0.2, full_scale=0.2), setup  # type: ignore[arg-type]
    return Reading(**common, flow=shown), setup  # type: ignore[arg-type]


@pytest.mark.parametrize("element", ["flow", "percent", "mass"])
@pytest.mark.parametrize(("inches", "room"), [(28, 101_325.0), (18, 101_325.0), (28, 84_000.0), (12, 84_000.0)])
def test_swirl_does_not_hang_on_pressure_air_or_element(element: str, inches: float, room: float) -> None:
    reading, setup = solid_body(element, inches * 249.08891, room, 295.0)
    run = reduce_run(FlowRun(id="r", setup_id="s", readings=(reading,)), setup)
    cs = float(paddle_coefficient(run.swirl[0], BORE, 28 * 249.08891))
    assert cs == pytest.approx(0.42, rel=2e-3)  # real air against ideal gas: CIPM's compressibility
    paddle = replace(
        reading, swirl_torque=None, swirl=0.42 * np.sqrt(2 * inches * 249.08891 * 287.05 * 295 / room) / BORE
    )
    by_paddle = reduce_run(FlowRun(id="r", setup_id="s", readings=(paddle,)), setup)
    assert by_paddle.swirl == pytest.approx(run.swirl, rel=2e-3)


def test_a_leak_does_not_turn_the_swirl_meter() -> None:
    reading, setup = solid_body("flow", 28 * 249.08891, 101_325.0, 295.0)
    leaky = replace(setup, leak=0.005, leak_pressure=28 * 249.08891)
    more = replace(reading, flow=(reading.flow or 0.0) + 0.005)
    plain, with_leak = (
        reduce_run(FlowRun(id="r", setup_id="s", readings=(r,)), s) for r, s in ((reading, setup), (more, leaky))
    )
    assert with_leak.swirl == pytest.approx(plain.swirl, rel=1e-3)


# -- dye


def test_what_dye_showed_is_said_by_kind_and_only_dry_places_explain_a_dip() -> None:
    seen = tuple(
        Observation(id=str(h), kind="wet", text=t, place="seat", clock=float(h))
        for h, t in ((6, "dry"), (12, "wet"), (5, "dry"))
    )
    assert seen_sentences(seen) == ["Dry at 5, 6 o'clock.", "Wet at 12 o'clock."]
    cut = Cut(id="c", number=1, observations=seen)
    assert "5, 6 o'clock" in seen_where_air_lets_go(cut)[0]
    assert seen_where_air_lets_go(replace(cut, observations=seen[1:2])) == []
