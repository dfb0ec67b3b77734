"""What was done to the metal: sides, facing walls, no stated depth, tubes; valves that belong to the cut.

Each head is worked through by hand; the walls' usual figures are common practice, no source.
"""

from __future__ import annotations

from dataclasses import replace

import pytest

from ventrix.core.judging.comparability import comparability
from ventrix.core.judging.findings import Findings
from ventrix.core.metal.walls import planned_cut_warnings, wall_sentence, walls_at
from ventrix.core.model.cut import Cut, Operation, Port, Tube, WallReading, Work, changes_between
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Seat, Valve
from ventrix.core.model.kinds import CutKind
from ventrix.core.model.run import FlowRun, Reading, SetUp
from ventrix.core.quantity.units import INCH, to_si
from ventrix.core.runs.geometry import Geometry, geometry_of


def wall(band: str, thickness: float = 0.200, place: str = "bowl", **more: object) -> WallReading:
    return WallReading(id=f"{place}{band}", place=place, band=band, thickness=thickness * INCH, **more)  # type: ignore[arg-type]


def worked(*works: Work, date: str | None = None, number: int = 1) -> Cut:
    return Cut(
        id=f"c{number}", number=number, date=date, operations=(Operation(id=f"o{number}", kind="grind", works=works),)
    )


def head(*cuts: Cut, port_id: str = "p", name: str = "Intake 1", **more: object) -> Port:
    return Port(id=port_id, name=name, kind="intake", cuts=cuts, **more)  # type: ignore[arg-type]


LEFT, RIGHT, ROOF = wall("left"), wall("right"), wall("roof")
READ = Cut(id="c0", number=0, walls=(LEFT, RIGHT, ROOF))


def taken(port: Port, job: Job | None = None) -> dict[str | None, float]:
    found = walls_at(job or Job(id="j", title="t", ports=(port,)), port, port.cuts[-1])
    return {w.reading.band: round((w.taken_since + w.taken_behind) / INCH, 4) for w in found}


def test_one_side_cut_leaves_the_other_wall_as_read() -> None:
    port = head(READ, worked(Work(id="w", place="bowl", side="left", depth=0.040 * INCH)))
    assert taken(port) == {"left": 0.04, "right": 0.0, "roof": 0.0}


def test_without_a_side_the_whole_zone_loses_and_nothing_outside_it() -> None:
    port = head(READ, worked(Work(id="w", place="bowl", depth=0.040 * INCH)))
    assert taken(port) == {"left": 0.04, "right": 0.04, "roof": 0.04}
    assert taken(head(READ, worked(Work(id="w", place="guide", depth=0.040 * INCH)))) == dict.fromkeys(
        ("left", "right", "roof"), 0.0
    )


@pytest.mark.parametrize(
    ("start", "end", "sides"),
    [(2.0, 4.0, {"right"}), (5.0, 7.0, {"roof"}), (8.0, 10.0, {"left"}), (8.0, 4.0, {"left", "right"})],
)
def test_hours_of_the_bowl_lie_on_its_sides(start: float, end: float, sides: set[str]) -> None:
    # 12 towards the opening, clockwise seen from the chamber: 3 is the right wall, 6 the roof, 9 the left
    port = head(READ, worked(Work(id="w", place="bowl", from_hour=start, to_hour=end, depth=0.030 * INCH)))
    assert {side for side, depth in taken(port).items() if depth} == sides


def test_a_reach_goes_past_the_zone_by_that_much_and_no_further() -> None:
    near, far = (wall("roof", place="roof", along=along) for along in (0.0625, 0.050))
    start = Cut(id="c0", number=0, walls=(near, replace(far, id="far")), floor_length=0.1, roof_length=0.1)
    work = Work(id="w", place="guide", side="roof", depth=0.020 * INCH, reach=0.003)  # the zone begins at 64 mm
    port = head(start, worked(work))
    found = {w.reading.along: w.taken_since for w in walls_at(Job(id="j", title="t"), port, port.cuts[-1])}
    assert found[0.0625] == pytest.approx(0.020 * INCH) and found[0.050] == 0


def test_until_flush_clears_nothing_and_asks_to_read_again() -> None:
    port = head(READ, worked(Work(id="w", place="bowl", side="left", until="flush")))
    job = Job(id="j", title="t", ports=(port,))
    by_side = {w.reading.band: w for w in walls_at(job, port, port.cuts[-1])}
    assert by_side["left"].unknown and not by_side["right"].unknown
    assert wall_sentence(job, by_side["left"]) == "Bowl, left: worked since, depth unknown: read again."
    asked = Work(id="x", place="bowl", side="left", depth=0.010 * INCH)
    assert "read it again" in planned_cut_warnings(job, port, port.cuts[-1], asked)[0]
    assert planned_cut_warnings(job, port, port.cuts[-1], replace(asked, side="right")) == []


def test_a_wall_between_two_ports_loses_from_both_faces() -> None:
    shared = wall("right", 0.160, behind="exhaust 1", behind_port_id="q", date="2026-05-01")
    mine = head(
        Cut(id="c0", number=0, walls=(shared,)),
        worked(Work(id="w", place="bowl", side="right", depth=0.020 * INCH), date="2026-05-02"),
    )
    other = head(
        worked(Work(id="v0", place="bowl", depth=0.5 * INCH), date="2026-04-30", number=0),  # before it was read
        worked(Work(id="v1", place="bowl", side="left", depth=0.015 * INCH), date="2026-05-03", number=1),
        worked(Work(id="v2", place="bowl", side="right", depth=0.030 * INCH), date="2026-05-03", number=2),
        port_id="q",
        name="Exhaust 1",
    )
    job = Job(id="j", title="t", ports=(mine, other))
    (left,) = walls_at(job, mine, mine.cuts[-1])
    assert left.taken_since == pytest.approx(0.020 * INCH)
    assert left.taken_behind == pytest.approx(0.015 * INCH), "its left faces our right"
    assert left.left < (0.160 - 0.035) * INCH
    assert "0.015 off its other face" in wall_sentence(job, left)


def test_a_tube_changes_the_rule_and_says_whether_it_was_tested() -> None:
    port = head(
        Cut(id="c0", number=0, walls=(wall("left", 0.060, "pinch"),)),
        replace(worked(), tubes=(Tube(id="t", place="pinch", side="left", size=0.012, adhesive="epoxy", tested=True),)),
    )
    job = Job(id="j", title="t", ports=(port,))
    (left,) = walls_at(job, port, port.cuts[-1])
    assert wall_sentence(job, left).startswith("Tube present at the pinch, left of 0.472 in, set in epoxy")
    asked = Work(id="x", place="pinch", side="left", depth=0.1 * INCH)
    assert planned_cut_warnings(job, port, port.cuts[-1], asked)[0].startswith("Tube present")
    assert "No wall has been read" in planned_cut_warnings(job, port, port.cuts[-1], replace(asked, side="right"))[0]
    assert "breaks through" in planned_cut_warnings(job, port, port.cuts[0], asked)[0], "not fitted yet at cut 0"


# -- valves and seats

SETUP = SetUp(
    id="s", direction="intake", test_pressure=7000.0, bench="b", bore=0.1, entry="radius", plug="in", valve="job",
    centred=True,
)  # fmt: skip


def flowed(number: int, flow: float, **more: object) -> Cut:
    readings = tuple(Reading(id=f"{number}-{i}", lift=0.002 * i, flow=flow * i * (1 - 0.05 * i)) for i in range(1, 6))
    run = FlowRun(id=f"run{number}", setup_id="s", readings=readings)
    return Cut(id=f"c{number}", number=number, runs=(run,), throat_diameter=0.040, **more)  # type: ignore[arg-type]


def valve_job(*cuts: Cut) -> Job:
    valves = (
        Valve(id="old", head_diameter=0.0510, stem_diameter=0.008, seat_angle=to_si(45, "deg")),
        Valve(id="new", head_diameter=0.0528, stem_diameter=0.007, seat_angle=to_si(45, "deg")),
    )
    port = Port(id="p", name="Intake 1", kind="intake", valve_id="old", cuts=cuts)
    return Job(id="j", title="t", valves=valves, setups=(SETUP,), ports=(port,))


def test_a_larger_valve_at_cut_3_leaves_the_history_its_cd() -> None:
    plain = valve_job(*(flowed(n, 0.02) for n in range(4)))
    changed = valve_job(*(flowed(n, 0.02) for n in range(3)), flowed(3, 0.02, valve_ids=("new",)))
    for number in range(3):
        before = Findings(plain).runs_of(plain.ports[0].cuts[number], plain.ports[0])[0]
        after = Findings(changed).runs_of(changed.ports[0].cuts[number], changed.ports[0])[0]
        assert after.geometry == before.geometry
        assert after.geometry.valve_diameter == 0.0510
    assert geometry_of(changed, changed.ports[0], changed.ports[0].cuts[3]).valve_diameter == 0.0528


def test_the_valve_is_carried_to_the_cuts_after_it() -> None:
    job = valve_job(flowed(0, 0.02), flowed(1, 0.02, valve_ids=("new",)), flowed(2, 0.02))
    assert [job.valve_of(job.ports[0], c).id for c in job.ports[0].cuts] == ["old", "new", "new"]  # type: ignore[union-attr]


def test_unequal_valves_count_as_equal_ones_of_their_area() -> None:
    job = valve_job(flowed(0, 0.02, valve_ids=("old", "new")))
    geometry = geometry_of(job, job.ports[0], job.ports[0].cuts[0])
    # by hand: sqrt((51^2 + 52.8^2) / 2) = 51.9078 mm
    assert geometry.valves == 2 and geometry.valve_diameter == pytest.approx(0.0519078, abs=1e-7)


def test_a_seat_cut_at_a_cut_gives_its_contact_and_angle() -> None:
    seat = Seat(id="seat", angles=(0.5, 0.87), contact=0.0012, contact_angle=to_si(50, "deg"))
    job = replace(valve_job(flowed(0, 0.02), flowed(1, 0.02, seat_ids=("seat",))), seats=(seat,))
    before, after = (geometry_of(job, job.ports[0], c) for c in job.ports[0].cuts)
    assert before.seat_angle == pytest.approx(to_si(45, "deg"))
    assert after.seat_angle == pytest.approx(to_si(50, "deg")) and after.seat_width == 0.0012


def pair_level(job: Job, kinds: tuple[tuple[CutKind, ...], ...]) -> tuple[str, list[str]]:
    cuts = tuple(replace(c, kinds=k) for c, k in zip(job.ports[0].cuts, kinds, strict=True))
    job = replace(job, ports=(replace(job.ports[0], cuts=cuts),))
    findings = Findings(job)
    c = findings.pair(job.ports[0], job.ports[0].cuts[0], job.ports[0].cuts[-1]).comparison
    assert c is not None
    return c.comparability.level, [d.key for d in c.comparability.differences]


def test_a_valve_declared_anywhere_between_allows_another_valve() -> None:
    job = valve_job(flowed(0, 0.02), flowed(1, 0.02, valve_ids=("new",)), flowed(2, 0.021))
    port, valve = (CutKind.PORT,), (CutKind.PORT, CutKind.VALVE)
    assert pair_level(job, (port, valve, port)) == ("yes", [])
    # 51 mm against 52.8 mm, and nobody says so
    assert pair_level(job, (port, port, port)) == ("no", ["valve_diameter", "stem_diameter"])


def test_a_missing_size_is_no_gap_and_the_throat_is_metal() -> None:
    here, there = Geometry(valve_diameter=0.05, throat_diameter=0.040), Geometry(throat_diameter=0.044)
    assert comparability(SETUP, SETUP, sizes=(here, there)).level == "yes"


@pytest.mark.parametrize(
    ("kinds", "level"), [((CutKind.SEAT,), "yes"), ((CutKind.VALVE,), "yes"), ((CutKind.PORT,), "no")]
)
def test_a_seat_job_allows_another_seat_angle(kinds: tuple[CutKind, ...], level: str) -> None:
    a, b = Geometry(seat_angle=to_si(45, "deg")), Geometry(seat_angle=to_si(50, "deg"))
    assert comparability(SETUP, SETUP, kinds, sizes=(a, b)).level == level


def test_the_union_of_kinds_on_the_way_both_ways_round() -> None:
    kinds = ((CutKind.PORT,), (CutKind.VALVE, CutKind.SEAT), (CutKind.CLEAN,), (CutKind.FILL,))
    cuts = tuple(Cut(id=f"c{i}", number=i, kinds=k) for i, k in enumerate(kinds))
    port = head(*cuts)
    assert changes_between(port, cuts[0], cuts[2]) == {CutKind.VALVE, CutKind.SEAT, CutKind.CLEAN}
    assert changes_between(port, cuts[2], cuts[0]) == {CutKind.VALVE, CutKind.SEAT, CutKind.CLEAN}
    assert changes_between(port, cuts[2], cuts[3]) == {CutKind.FILL}
