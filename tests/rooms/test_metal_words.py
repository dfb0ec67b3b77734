"""Seats in section, faults and parts as they are shown: geometry by hand, words as a porter reads them."""

from __future__ import annotations

import math
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from ventrix.core.edits.faults import add_fault, set_fault_state, state_at
from ventrix.core.edits.runs import edit_run
from ventrix.core.edits.valves import open_after_valve_job
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Fault, Operation, Port, Pour, Work
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Chamber, Head, Seat
from ventrix.core.model.kinds import CutKind, FaultKind, FaultState
from ventrix.core.quantity.units import INCH, to_si
from ventrix.demo.job import demo_job
from ventrix.rooms.compare.both_kinds import both_kinds
from ventrix.rooms.compare.states import lined_up
from ventrix.rooms.cuts.card import chamber_lines, fault_lines, operation_lines, work_words
from ventrix.rooms.cuts.fault_grid import fault_grid, fault_words
from ventrix.rooms.cuts.parts import FIELDS, field_text, parts_of
from ventrix.rooms.display_units import METRIC, US
from ventrix.rooms.shared.seat_profile import recipe_gains, seat_hint, seat_profile, seat_words

JOB = demo_job()
RIGHT_ANGLE = math.pi / 2


def seat(*faces: tuple[float, float], **more: object) -> Seat:
    """Faces as degrees and thousandths of an inch."""
    return Seat(
        id="s",
        recipe="street",
        angles=tuple(math.radians(a) for a, _ in faces),
        widths=tuple(w * 1e-3 * INCH for _, w in faces),
        **more,  # type: ignore[arg-type]
    )


# -- seats


def test_each_face_runs_at_its_angle_for_its_width() -> None:
    # 45 degrees, 0.100 wide along the face: 0.0707 in and 0.0707 down; then 60 degrees, 0.060: 0.030 in, 0.052 down
    profile = seat_profile(seat((45, 100), (60, 60)))
    (x0, y0), (x1, y1), (x2, y2) = ((x / INCH, y / INCH) for x, y in profile.line)
    assert (x0, y0) == (0, 0)
    assert (x1, y1) == (pytest.approx(0.07071, abs=1e-5), pytest.approx(0.07071, abs=1e-5))
    assert (x2 - x1, y2 - y1) == (pytest.approx(0.030), pytest.approx(0.05196, abs=1e-5))


def test_the_contact_is_the_face_of_its_angle_else_the_middle_one() -> None:
    three = ((30, 40), (45, 48), (60, 60))
    middle = seat_profile(seat(*three))
    assert middle.contact == (middle.line[1], middle.line[2])
    steep = seat_profile(seat(*three, contact_angle=math.radians(60)))
    assert steep.contact == (steep.line[2], steep.line[3])


def test_a_radius_ends_straight_down_the_throat() -> None:
    profile = seat_profile(seat((45, 50), radius=0.1 * INCH))
    (ax, ay), (bx, by) = profile.line[-2:]
    assert math.atan2(by - ay, bx - ax) == pytest.approx(RIGHT_ANGLE, abs=0.05)
    # an arc of radius r from 45 to 90 degrees goes r (1 - sin 45) in and r cos 45 down
    start = profile.line[1]
    assert (bx - start[0]) / INCH == pytest.approx(0.1 * (1 - math.sin(math.pi / 4)), abs=1e-6)
    assert (by - start[1]) / INCH == pytest.approx(0.1 * math.cos(math.pi / 4), abs=1e-6)


@pytest.mark.parametrize(
    ("made", "said"),
    [
        (replace(seat((45, 50)), widths=()), "1 angles and 0 widths"),
        (seat(), "name the angles"),
        (seat((60, 40), (45, 40)), "steeper"),
    ],
)
def test_faces_that_do_not_fit_together_are_refused(made: Seat, said: str) -> None:
    with pytest.raises(ValueError, match=said):
        seat_profile(made)


@given(
    st.lists(
        st.tuples(st.floats(10, 85), st.floats(1, 200)), min_size=1, max_size=5, unique_by=lambda f: round(f[0], 3)
    )
)
def test_a_profile_always_goes_inwards_and_down_and_is_as_long_as_its_faces(faces: list[tuple[float, float]]) -> None:
    profile = seat_profile(seat(*sorted(faces)))
    steps = list(zip(profile.line, profile.line[1:], strict=False))
    assert all(b[0] > a[0] and b[1] > a[1] for a, b in steps)
    assert sum(math.dist(a, b) for a, b in steps) == pytest.approx(sum(w for _, w in faces) * 1e-3 * INCH)


def test_hints_are_the_trades() -> None:
    # common practice, no source: 0.045 to 0.050 in on intakes, 0.050 to 0.055 on exhausts, margin 0.010
    assert "0.045 to 0.050" in seat_hint("intake", US) and "0.050 to 0.055" in seat_hint("exhaust", US)
    assert "margin 0.010" in seat_hint("intake", US) and "1.14 to 1.27 mm" in seat_hint("intake", METRIC)


def test_a_seat_and_what_it_brought_in_words() -> None:
    words = seat_words(seat((30, 40), (45, 48), (60, 60), contact=0.048 * INCH), US)
    assert words == "street v1, 30/45/60°, contact 0.048"
    assert recipe_gains(Findings(JOB), US) == [
        "street v1, 30/45/60°, contact 0.048: Intake 4, cut 2, not flowed both sides"
    ]


# -- what a valve job leaves to do

LOGGED = Operation(id="o", kind="valve job", stage="valve job", works=(Work(id="w", place="seat"),))
SEAT_CUT = Cut(id="c1", number=1, kinds=(CutKind.SEAT,), operations=(LOGGED,))


def after(*more: Cut) -> tuple[str, ...]:
    cuts = (Cut(id="c0", number=0), SEAT_CUT, *more)
    port = Port(id="p", name="Intake 1", kind="intake", cuts=cuts)
    return open_after_valve_job(port, cuts[-1])


def test_blending_throat_and_cc_stay_open_until_each_is_done() -> None:
    assert after() == ("blend again up to the seat", "measure the new throat", "pour again")
    blended = Cut(id="c2", number=2, operations=(Operation(id="b", kind="blend", works=(Work(id="x", place="bowl"),)),))
    assert after(blended) == ("measure the new throat", "pour again")
    assert after(replace(blended, throat_diameter=0.04)) == ("pour again",)
    assert after(replace(blended, throat_diameter=0.04, pours=(Pour(id="q", volume=1e-4),))) == ()


def test_a_port_without_a_valve_job_has_nothing_open() -> None:
    port = JOB.ports[0]
    assert all(open_after_valve_job(port, cut) == () for cut in port.cuts)


# -- faults


def test_a_fault_has_its_state_at_every_cut() -> None:
    fault = Fault(id="f", kind="slag", place="bowl", seen_at_cut=1, state="open")
    cuts = [Cut(id=f"c{n}", number=n) for n in range(4)]
    port = Port(id="p", name="Intake 1", kind="intake", cuts=tuple(cuts))
    job = add_fault(Job(id="j", title="t", ports=(port,)), "p", fault)
    gone = set_fault_state(job, "f", FaultState.GONE, cuts[2]).ports[0].faults[0]
    assert [state_at(gone, c) for c in cuts] == [None, FaultState.OPEN, FaultState.GONE, FaultState.GONE]
    again = set_fault_state(set_fault_state(job, "f", FaultState.GONE, cuts[2]), "f", FaultState.LEFT, cuts[3])
    assert again.ports[0].faults[0].gone_at_cut is None
    assert state_at(again.ports[0].faults[0], cuts[3]) is FaultState.LEFT
    with pytest.raises(KeyError):
        set_fault_state(job, "nobody", FaultState.GONE, cuts[2])


def test_the_grid_counts_what_is_left_to_do_everywhere() -> None:
    heads, rows = fault_grid(JOB)
    assert heads == ["fault", "where", "Intake 1", "Exhaust 1", "Intake 4", "Intake 3", "to do"]
    by_fault = {(row[0], row[1]): row[2:] for row in rows}
    assert by_fault["overhang under the seat", "bowl"] == ["gone", "gone", "to do", "", "1"]
    assert by_fault["ledge where machining stopped", "short side"] == ["", "to do", "", "", "1"]
    assert by_fault["port off its gasket", "opening"] == ["left", "", "", "", "0"]
    assert fault_grid(replace(JOB, ports=()))[1] == []


@pytest.mark.parametrize("kind", FaultKind)
def test_every_kind_of_fault_has_its_words(kind: FaultKind) -> None:
    fault = Fault(id="f", kind=kind, place="bowl", from_hour=0.0, to_hour=3.0, size=0.001, photo="x.jpg")
    words = fault_words(fault, METRIC)
    assert words.startswith(kind.words) and "bowl 12 to 3 o'clock" in words and "mm" in words and "photo" in words


def test_a_fault_of_a_kind_from_elsewhere_is_shown_as_it_is() -> None:
    assert fault_words(Fault(id="f", kind="porosity", place=""), US) == "porosity"


def test_faults_on_the_card_follow_the_cut_looked_at() -> None:
    port = JOB.ports[0]
    assert [line.caption for line in fault_lines(port, port.cuts[0], US)] == ["open", "open", "left on purpose"]
    assert [line.caption for line in fault_lines(port, port.cuts[3], US)] == ["gone", "gone", "left on purpose"]


# -- works, parts, chambers


@pytest.mark.parametrize(
    ("work", "words"),
    [
        (Work(id="w", place="bowl"), ""),
        (Work(id="w", place="bowl", side="left", depth=to_si(0.02, "in")), "left 0.020 deep"),
        (Work(id="w", place="bowl", from_hour=0.0, to_hour=4.0, until="scribe"), "12 to 4 o'clock to the scribe"),
        (Work(id="w", place="guide", until="flush"), "until flush"),
    ],
)
def test_work_in_words(work: Work, words: str) -> None:
    assert work_words(work, US) == words


def test_an_operation_of_an_older_kind_still_has_a_line() -> None:
    (line,) = operation_lines(Cut(id="c", number=1, operations=(Operation(id="o", kind="polish"),)), US)
    assert (line.caption, line.text) == ("polish", "")


def test_every_part_of_the_demo_is_listed_and_its_fields_can_be_shown() -> None:
    for port in JOB.ports:
        for cut in port.cuts:
            parts = parts_of(JOB, port, cut, US)
            assert parts[0].noun is JOB and parts[1].noun is port and parts[2].noun is cut
            listed = {(type(p.noun), p.noun.id) for p in parts}
            for held in (cut.walls, cut.pours, cut.operations, cut.runs, cut.traverses, cut.observations, port.faults):
                assert {(type(n), n.id) for n in held} <= listed
            for part in parts:
                assert all(isinstance(field_text(part.noun, f, US), str) for f in FIELDS[type(part.noun)])


def test_chambers_say_their_mean_and_how_far_they_are_apart() -> None:
    def chamber(n: int, *cc: float, head: str | None = None) -> Chamber:
        pours = tuple(Pour(id=f"{n}{i}", volume=to_si(v, "cc")) for i, v in enumerate(cc))
        return Chamber(id=f"ch{n}", cylinder=n, head_id=head, pours=pours)

    poured = chamber(2, 65.0, head="h"), chamber(1, 64.0, 64.4), chamber(3)
    job = Job(id="j", title="t", heads=(Head(id="h", name="left"),), chambers=poured)
    lines = [(line.caption, line.text) for line in chamber_lines(job, US)]
    assert lines == [("cylinder 1", "64.2 cc   2 pours"), ("cylinder 2, left", "65.0 cc"), ("apart", "0.8 cc")]
    assert [line.text for line in chamber_lines(JOB, US)] == ["47.5 cc"]
    apart = replace(
        poured[0],
        pours=(Pour(id="a", volume=to_si(64, "cc"), how="Intake 1, cut 0"), Pour(id="b", volume=to_si(66, "cc"))),
    )
    (line,) = chamber_lines(replace(job, chambers=(apart,)), US)
    assert "that disagree: 64.0 Intake 1, cut 0, 66.0" in line.text


# -- exhaust and intake on one page


def test_both_kinds_stand_at_one_pressure_and_name_each_gain() -> None:
    page = both_kinds(Findings(JOB), JOB.ports[1], US)
    assert page.heads[1:3] == ("Intake 1", "Exhaust 1"), "intake first, whichever is looked at"
    assert page.rows and all(row[3].endswith("%") for row in page.rows)
    assert len(page.sentences) == 3 and "at 28.0 inH2O" in page.sentences[2].lower().replace("h2o", "H2O")
    assert len(page.picture.lines) == 2


def test_one_kind_alone_says_what_is_missing() -> None:
    alone = replace(JOB, ports=JOB.ports[1:2])
    assert "No intake port has been flowed yet" in both_kinds(Findings(alone), alone.ports[0], US).missing
    assert both_kinds(Findings(JOB), JOB.ports[2], US).missing.startswith("Intake 4 has not been flowed yet")


# -- ports lined up by their flowed states


def test_rows_of_ports_line_up_by_named_states() -> None:
    first = JOB.ports[0]
    other = Port(
        id="i2",
        name="Intake 2",
        kind="intake",
        valve_id=first.valve_id,
        cuts=(
            Cut(id="i20", number=0, name="As cast"),
            replace(
                first.cuts[2], id="i21", number=1, runs=tuple(replace(r, id=f"x{r.id}") for r in first.cuts[2].runs)
            ),
        ),
    )
    job = replace(JOB, ports=(first, other))
    heads, rows = lined_up(Findings(job), "intake", US)
    assert heads == ["state", "Intake 1", "Intake 2"]
    by_state = {row[0]: row[1:] for row in rows}
    assert [row[0] for row in rows] == [c.name for c in first.cuts], "in the order they were reached"
    assert by_state["as cast"] == ["first", "not flowed"], "capitals make no other state"
    assert by_state["bowl blend"][1] == "" and by_state["bowl blend"][0].startswith("+4.0 ±")
    assert by_state["throat and short side"][1] == "first", "its own first flowed state"
    stands = edit_run(job, first.cuts[0].runs[0].id, lambda r: replace(r, stands_for_port_ids=("i2",)))
    assert lined_up(Findings(stands), "intake", US)[1][0][2] == "not flowed; the test of Intake 1 is used for it"


def test_one_port_of_a_kind_is_one_column() -> None:
    heads, rows = lined_up(Findings(JOB), "exhaust", US)
    assert heads == ["state", "Exhaust 1"] and len(rows) == 3
