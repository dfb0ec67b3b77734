"""Walls, the unrolled port, clay, seats and expectations: figures by hand and facts of the trade."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ventrix.core.edits.runs import add_reading, start_run
from ventrix.core.edits.undo import keep_measured
from ventrix.core.formulas.port import volume_from_stations
from ventrix.core.formulas.seat import recut_depth, seat_width_lost
from ventrix.core.judging.expectation import outcome_of, own_factors
from ventrix.core.metal.clay import clay_verdict
from ventrix.core.metal.unrolled import BANDS, ZONES, unroll, zone_at, zone_named
from ventrix.core.metal.walls import (
    DEFAULT_LIMIT,
    LEAST_DEPTH_UNCERTAINTY,
    READING_UNCERTAINTY,
    cut_warnings,
    limit_for,
    planned_cut_warnings,
    wall_left,
    walls_at,
)
from ventrix.core.model.cut import Cut, Operation, Port, Station, Trial, WallReading, Work, carried, trial_as_cut
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Valve, WallLimit
from ventrix.core.model.kinds import CutKind
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.units import INCH
from ventrix.demo.job import demo_job
from ventrix.rooms.head.wall_limits import limit_text, limit_typed


def wall(thickness: float, place: str = "short side", **more: object) -> WallReading:
    return WallReading(id=f"{place}{thickness}{more.get('along')}", place=place, thickness=thickness * INCH, **more)  # type: ignore[arg-type]


def op(depth: float, place: str = "short side") -> Operation:
    work = Work(id=f"w{depth}{place}", place=place, depth=depth * INCH)
    return Operation(id=f"op{depth}{place}", kind="grind", works=(work,))


def planned(place: str, depth: float | None, side: str | None = None) -> Work:
    return Work(id="planned", place=place, side=side, depth=depth)


def row(*cuts: Cut) -> Port:
    numbered = tuple(replace(c, id=f"c{i}", number=i) for i, c in enumerate(cuts))
    return Port(id="p", name="Intake 1", kind="intake", cuts=numbered)


JOB = Job(id="j", title="t")


def test_what_is_left_is_the_reading_less_later_depths_less_the_doubt_of_both() -> None:
    port = row(
        Cut(id="", number=0, walls=(wall(0.168),), operations=(op(0.5),)),  # worked before it was read
        Cut(id="", number=1, operations=(op(0.020), op(0.030, "bowl"))),
        Cut(id="", number=2, operations=(op(0.010),)),
    )
    left = wall_left(JOB, port, port.cuts[2], port.cuts[0], port.cuts[0].walls[0])
    assert left.taken_since == pytest.approx(0.030 * INCH)
    doubt = np.sqrt(READING_UNCERTAINTY**2 + (0.25 * 0.020 * INCH) ** 2 + LEAST_DEPTH_UNCERTAINTY**2)
    assert left.uncertainty == pytest.approx(doubt)
    assert left.left == pytest.approx(0.168 * INCH - 0.030 * INCH - doubt)
    assert wall_left(JOB, port, port.cuts[0], port.cuts[0], port.cuts[0].walls[0]).taken_since == 0


def test_a_newer_reading_at_the_same_spot_speaks_and_a_struck_one_does_not() -> None:
    first, again = wall(0.168, band="floor", along=0.080), wall(0.120, band="floor", along=0.081)
    elsewhere, wrong = wall(0.150, band="floor", along=0.090), wall(0.010, band="floor", along=0.06, struck="slipped")
    port = row(Cut(id="", number=0, walls=(first, elsewhere)), Cut(id="", number=1, walls=(again, wrong)))
    assert [w.reading for w in walls_at(JOB, port, port.cuts[1])] == [again, elsewhere]
    assert [w.reading for w in walls_at(JOB, port, port.cuts[0])] == [elsewhere, first]


def test_limits_of_place_and_job() -> None:
    # common practice, no source: careful people stop at 0.100 in
    assert limit_for(JOB, "bowl") == DEFAULT_LIMIT == pytest.approx(0.00254)
    own = replace(
        JOB,
        wall_limits=(WallLimit(id="a", place="", thickness=0.003), WallLimit(id="b", place="bowl", thickness=0.002)),
    )
    assert limit_for(own, "bowl") == 0.002
    assert limit_for(own, "pinch") == 0.003


def test_limits_by_kind_and_by_what_lies_behind() -> None:
    """0.100 to water, 0.116 between ports, 0.125 from an exhaust to water (common practice, no source)."""
    inch = 0.0254
    assert limit_for(JOB, "bowl", "intake", "water") == pytest.approx(0.100 * inch)
    assert limit_for(JOB, "bowl", "exhaust", "water") == pytest.approx(0.125 * inch)
    assert limit_for(JOB, "bowl", "exhaust", "Intake 1", port_behind=True) == pytest.approx(0.116 * inch)
    assert limit_for(JOB, "pinch", "intake", "a pushrod hole") == pytest.approx(0.100 * inch), (
        "0.075 is one's own choice"
    )
    typed = ("0.090", "pinch to a pushrod hole 0.075", "exhaust to water .140", "bowl 0.110")
    own = replace(JOB, wall_limits=tuple(limit_typed(t, "in", str(i)) for i, t in enumerate(typed)))
    assert limit_for(own, "pinch", "intake", "a pushrod hole") == pytest.approx(0.075 * inch)
    assert limit_for(own, "roof", "exhaust", "water") == pytest.approx(0.140 * inch)
    assert limit_for(own, "bowl", "exhaust", "water") == pytest.approx(0.110 * inch), (
        "the place says more than the kind"
    )
    assert limit_for(own, "roof", "intake") == pytest.approx(0.090 * inch)
    assert [limit_text(w, f"{w.thickness / inch:.3f}") for w in own.wall_limits][1:3] == [
        "pinch to a pushrod hole 0.075", "exhaust to water 0.140"]  # fmt: skip
    for wrong in ("nose 0.1", "bowl to honey 0.1", "bowl", "bowl -0.1"):
        with pytest.raises(ValueError):
            limit_typed(wrong, "in", "x")


def test_a_wall_stands_under_the_limit_of_what_lies_behind_it() -> None:
    reading = wall(0.120, behind="water")
    intake, exhaust = (replace(row(Cut(id="c", number=0, walls=(reading,))), kind=k) for k in ("intake", "exhaust"))
    assert walls_at(JOB, intake, intake.cuts[0])[0].left > walls_at(JOB, intake, intake.cuts[0])[0].limit
    warned = planned_cut_warnings(JOB, exhaust, exhaust.cuts[0], Work(id="w", place=reading.place, depth=0.0))
    assert any("under your limit of 0.125" in w for w in warned)


@pytest.mark.parametrize(
    ("depth", "words"),
    [(0.020, None), (0.060, "under your limit"), (0.200, "breaks through"), (None, None)],
)
def test_a_planned_depth_is_said_in_plain_words(depth: float | None, words: str | None) -> None:
    port = row(Cut(id="", number=0, walls=(wall(0.168, behind="water", date="2026-05-03"),)))
    said = planned_cut_warnings(JOB, port, port.cuts[0], planned("short side", None if depth is None else depth * INCH))
    if words is None:
        assert said == []
    else:
        assert words in said[0]
        assert "Water is behind it" in said[0]
        assert "read 0.168 on this port on 2026-05-03" in said[0]
        assert "safe" not in said[0]


def test_only_a_reading_of_this_port_clears_a_warning() -> None:
    other = row(Cut(id="", number=0, walls=(wall(0.300),)))
    mine = replace(row(Cut(id="", number=0, pinch_width=0.025, hole_spacing=0.034)), id="q", mirror_of="p")
    job = replace(JOB, ports=(other, mine))
    # a mirrored port's reading, or the calculated wall beside a pushrod hole, is no reading
    for place in ("short side", "pinch"):
        assert "No wall has been read" in planned_cut_warnings(job, mine, mine.cuts[0], planned(place, 0.001))[0]
    with pytest.raises(ValueError, match="negative"):
        planned_cut_warnings(job, mine, mine.cuts[0], planned("pinch", -0.001))


def test_fill_adds_metal_and_takes_nothing_off() -> None:
    port = row(
        Cut(id="", number=0, walls=(wall(0.150),)), Cut(id="", number=1, kinds=(CutKind.FILL,), operations=(op(0.050),))
    )
    assert walls_at(JOB, port, port.cuts[1])[0].taken_since == 0


VALVE = Valve(id="v", head_diameter=0.046, stem_diameter=0.007)


def test_the_map_is_drawn_from_what_was_measured() -> None:
    cut = Cut(
        id="", number=0, throat_diameter=0.0395, floor_length=0.094, roof_length=0.114, opening_width=0.030,
        opening_height=0.042, pinch_width=0.0258, pinch_height=0.0425,
        stations=(Station(id="s", along=0.069, width=0.0325, height=0.0385),),
    )  # fmt: skip
    port = row(cut)
    here = unroll(port, port.cuts[0], VALVE)
    assert here.guessed == ()
    assert here.length == pytest.approx(0.104)
    assert float(here.area(0.069)) == pytest.approx(0.0325 * 0.0385)
    assert float(here.width(0.0)) == pytest.approx(0.030)
    assert float(here.area(here.length)) == pytest.approx(np.pi / 4 * (0.0395**2 - 0.007**2))
    assert here.smallest.name == "pinch"
    assert here.taper == pytest.approx(0.0258 * 0.0425 / (0.030 * 0.042) - 1, rel=1e-4)
    bands = here.bands(0.0)
    assert float(bands["floor"]) == pytest.approx(0.030)
    assert float(bands["left"]) == pytest.approx(0.042)
    assert not here.has_stations or here.sections


def test_what_was_never_measured_is_guessed_and_named() -> None:
    port = row(Cut(id="", number=0))
    here = unroll(port, port.cuts[0], None)
    assert set(here.guessed) == {"throat", "length", "opening"}
    assert float(here.area(0.0)) > 0


def test_a_cone_measured_at_stations_has_its_own_volume() -> None:
    # geometry: a frustum's volume, h/3 (A1 + A2 + sqrt(A1 A2)); PCHIP and Simpson are exact on its quadratic area
    a1, a2, length = 1.6e-3, 1.0e-3, 0.1
    stations = tuple(
        Station(id=str(i), along=x, area=((1 - x / length) * a1**0.5 + x / length * a2**0.5) ** 2)
        for i, x in enumerate(np.linspace(0, 0.09, 10))
    )
    d = float(np.sqrt(a2 * 4 / np.pi))
    port = row(Cut(id="", number=0, stations=stations, throat_diameter=d, floor_length=length, roof_length=length))
    here = unroll(port, port.cuts[0], None)
    x = np.linspace(0, here.length, 201)
    assert volume_from_stations(x, here.area(x)) == pytest.approx(length / 3 * (a1 + a2 + (a1 * a2) ** 0.5), rel=2e-4)


@pytest.mark.parametrize("valves", [1, 2, 3])
def test_one_to_three_valves_at_a_port(valves: int) -> None:
    port = replace(row(Cut(id="", number=0, throat_diameter=0.03)), valves=valves)
    here = unroll(port, port.cuts[0], VALVE)
    assert float(here.area(here.length)) == pytest.approx(valves * np.pi / 4 * (0.03**2 - 0.007**2))


def test_every_place_of_the_map_that_is_named_can_be_found() -> None:
    for zone in ZONES:
        for band in zone.bands:
            assert band in BANDS
            found = zone_at((zone.start + zone.end) / 2, band)
            assert found is not None
    assert zone_named("pinch") is not None
    assert zone_named("chimney") is None


def test_clay_says_one_thing_only() -> None:
    # by hand: a tenth of the section gone, 3 % of the flow: (1/0.97^2 - 1) / (1/0.9^2 - 1) = 0.0628/0.2346 = 0.268
    lost = clay_verdict("pinch", -0.030, 0.006, 0.01, area_taken=1e-4, area_before=1e-3, area_uncertainty=1e-5)
    assert lost.result == "lost flow"
    assert lost.share == pytest.approx(0.268, abs=0.001)
    assert "does not say" in lost.sentence
    nothing = clay_verdict("floor", -0.001, 0.006, 0.01)
    assert nothing.result == "lost nothing"
    assert "unlikely to gain" in nothing.sentence
    # a loss that is proven is told, also where the doubt is wider than what matters
    assert clay_verdict("roof", -0.05, 0.02, 0.01).result == "lost flow"
    assert clay_verdict("roof", 0.05, 0.02, 0.01).result == "lost nothing"
    for change, doubt in ((0.0, 0.02), (-0.005, 0.006)):
        assert clay_verdict("roof", change, doubt, 0.01).result == "too small to tell"
    half = clay_verdict("roof", -0.05, 0.005, 0.01, area_taken=5e-4, area_before=1e-3)
    assert half.share == pytest.approx((1 / 0.95**2 - 1) / 3, rel=1e-6)  # half the section: (1/A')^2 is four times
    with pytest.raises(ValueError, match="whole section"):
        clay_verdict("roof", -0.05, 0.005, 0.01, area_taken=1e-3, area_before=1e-3)
    with pytest.raises(ValueError, match="above zero"):
        clay_verdict("roof", 0.0, 0.01, 0.0)


@pytest.mark.parametrize(("seat", "top"), [(45.0, 0.0), (45.0, 30.0), (30.0, 15.0), (55.0, 30.0)])
def test_a_recut_by_lines_that_meet(seat: float, top: float) -> None:
    """Two lines in a section, met anew after the lower one went down: NumPy solves for where."""
    beta, tau = np.deg2rad([seat, top])
    depth = float(recut_depth(0.060, 0.080, beta, tau))
    # face: z = x tan(beta) - depth; above it: z = x tan(tau); both met at the origin before the recut
    x, z = np.linalg.solve([[np.tan(beta), -1.0], [np.tan(tau), -1.0]], [depth, 0.0])
    foot = np.array([0.0, -depth])  # the old outer edge, gone down with the cone
    assert np.hypot(x - foot[0], z - foot[1]) == pytest.approx(0.020, rel=1e-9)


def test_seats_by_hand() -> None:
    assert float(seat_width_lost(0.080, 0.060)) == pytest.approx(0.25)
    assert float(recut_depth(0.080, 0.060, np.pi / 4)) == 0
    with pytest.raises(ValueError, match="90 degrees"):
        recut_depth(0.06, 0.08, 2.0)
    with pytest.raises(ValueError, match="shallower"):
        recut_depth(0.06, 0.08, np.pi / 4, np.pi / 3)


def test_own_factors_are_ratios_of_sums() -> None:
    def done_in(minutes: float) -> Operation:
        return Operation(id="", kind="", works=(planned("bowl", None),), duration=minutes * 60)

    def done(said: float, came: float, minutes: float) -> object:
        cut = Cut(id="", number=1, expected_gain=said, expected_time=60.0,
                  operations=(done_in(minutes),))  # fmt: skip
        return outcome_of(cut, came, None)

    found = own_factors([done(10, 5, 2), done(2, 4, 1), done(1, 1, 3)])  # type: ignore[list-item]
    assert found[0].place == "bowl"
    assert found[0].gain == pytest.approx(10 / 13)
    assert found[0].time == pytest.approx(6 / 3)
    assert found[0].cuts == 3
    assert own_factors([outcome_of(Cut(id="", number=1), 1.0, None)]) == []


def test_a_trial_stands_in_for_its_cut_and_is_edited_like_one() -> None:
    trial = Trial(id="t", kind="clay", place="pinch")
    port = row(Cut(id="", number=0, throat_diameter=0.03), Cut(id="", number=1, trials=(trial,)), Cut(id="", number=2))
    port = replace(port, cuts=(*port.cuts[:2], replace(port.cuts[2], throat_diameter=0.04)))
    job = replace(JOB, ports=(port,), setups=(SetUp(id="s", direction="intake"),))
    stand_in = trial_as_cut(port.cuts[1], trial)
    found = carried(port, stand_in, "throat_diameter")
    assert found is not None
    assert found.value == 0.03  # never a later cut's
    run = FlowRun(id="r", setup_id="s")
    job = start_run(job, "t", run, job.setups[0], None)
    job = add_reading(job, "r", Reading(id="a", lift=0.001, flow=0.01))
    assert job.ports[0].cuts[1].trials[0].runs[0].readings[0].flow == 0.01
    undone = keep_measured(replace(job, ports=(replace(port, cuts=port.cuts[:1]),)), job)
    back = undone.ports[0].cuts[1].trials[0].runs[0].readings[0]
    assert back.struck == "undone"


def test_without_a_gauge_there_is_one_warning_a_stage_and_the_other_ways_to_know() -> None:
    """Common practice, no source: what no gauge read carries a wider doubt, and is asked for once."""
    whole = demo_job()
    port = whole.ports[0]
    bare = replace(port, cuts=tuple(replace(c, walls=()) for c in port.cuts))
    job = replace(
        JOB,
        ports=tuple(
            bare if p is port else replace(p, cuts=tuple(replace(c, walls=()) for c in p.cuts)) for p in JOB.ports
        ),
    )
    works = [planned("bowl", 0.0005), planned("guide", 0.0005), planned("short side", 0.0005)]
    (said,) = cut_warnings(job, bare, bare.cuts[0], works)
    assert "bowl, guide and short side of this port" in said and "drilled plug" in said
    assert cut_warnings(job, bare, bare.cuts[-1], works[:1]) == [], "said when the bowl was begun"
    with_gauge = cut_warnings(whole, bare, bare.cuts[-1], works[:1])
    assert with_gauge and "Read it before cutting" in with_gauge[0]
    known = WallReading(id="k", place="bowl", thickness=0.005, known_by="feel")
    felt = replace(bare, cuts=(replace(bare.cuts[0], walls=(known,)), *bare.cuts[1:]))
    gauge = replace(felt, cuts=(replace(bare.cuts[0], walls=(replace(known, known_by=""),)), *bare.cuts[1:]))
    loose, sharp = (walls_at(job, p, p.cuts[0])[0].uncertainty for p in (felt, gauge))
    assert loose > 3 * sharp
