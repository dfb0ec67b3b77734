"""What cards, sheets and templates say of the metal: meant or lost, as it is, on the paper, in the shop's units."""

from __future__ import annotations

import io
from dataclasses import replace
from datetime import date

import pypdfium2 as pdfium
import pytest

from ventrix.core.air.traverse import AirThere, point_speed
from ventrix.core.edits.valves import log_valve_job
from ventrix.core.judging.comparability import comparability
from ventrix.core.judging.findings import Findings
from ventrix.core.metal.unrolled import unroll
from ventrix.core.model.cut import Cut, Operation, Pour, WallReading, Work
from ventrix.core.model.job_parts import Face, Outline, Seat
from ventrix.core.model.kept_words import SpeedsAt
from ventrix.core.model.kinds import CutKind
from ventrix.core.model.traverse import ProbePoint, Traverse
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si
from ventrix.core.quantity.words import percent_text
from ventrix.core.work.route import route
from ventrix.demo.job import demo_benches, demo_job
from ventrix.demo.whole_head import whole_head
from ventrix.reports.sheet.template_pdf import face_pdf
from ventrix.rooms.cuts.card import operation_lines, seat_lines
from ventrix.rooms.display_units import US, Shown
from ventrix.rooms.sheet.card import card_of
from ventrix.rooms.sheet.work_and_ports import done_lines
from ventrix.workspace.new_job import next_of_its_kind

JOB = demo_job()
TODAY = date(2026, 5, 18)


def worn(kinds: tuple[CutKind, ...]) -> str:
    """The seat's line of a cut that took a face of 0.085 in to 0.065."""
    port = JOB.ports[0]
    first = replace(port.cuts[0], seat_width=to_si(0.085, "in"))
    after = replace(port.cuts[1], seat_width=to_si(0.065, "in"), kinds=kinds)
    (line,) = seat_lines(JOB, replace(port, cuts=(first, after)), after, US)
    return line.text


def test_a_seat_is_narrowed_by_a_valve_job_and_lost_by_anything_else() -> None:
    assert worn((CutKind.SEAT,)) == "0.085 to 0.065 in, cut by the valve job"
    assert "24 % lost" in worn((CutKind.PORT,))


def test_a_place_is_not_said_twice() -> None:
    cut = Cut(id="c", number=1, operations=(
        Operation(id="o", kind="rough"), Operation(id="p", kind="", works=(Work(id="w", place="bowl"),)),
    ))  # fmt: skip
    port = replace(JOB.ports[0], cuts=(JOB.ports[0].cuts[0], cut))
    assert done_lines(port, port.cuts[0], cut, US, own=False) == ("rough", "bowl")
    assert [line.text for line in operation_lines(cut, US)] == ["", ""]


@pytest.mark.parametrize("value", [-0.0, -0.04, 0.04, 0.0])
def test_nought_has_no_minus(value: float) -> None:
    shown = Shown("-", "", 1)
    assert (shown.text(value), shown.text(value, sign=True)) == ("0.0", "+0.0")
    assert percent_text(value / 100, sign=True) == "+0.0 %"


def opening(name: str, wide: float, high: float) -> Outline:
    return Outline(id=name, port=name, width=to_si(wide, "mm"), height=to_si(high, "mm"))


@pytest.mark.parametrize("paper", ["A4", "Letter"])
def test_every_opening_lies_on_the_paper_in_the_shops_units(paper: str) -> None:
    sizes = ((160.0, 120.0), (34.0, 200.0), (50.0, 44.0), (12.7, 25.4))
    outlines = tuple(opening(f"Intake {i}", *size) for i, size in enumerate(sizes))
    face = Face(id="f", name="gasket", part="gasket", outlines=outlines)
    pdf = face_pdf(face, paper, length=US.length.with_unit)
    assert b"Helvetica" not in pdf  # every font that is named is inside
    document = pdfium.PdfDocument(io.BytesIO(pdf))
    said = ""
    for page in document:
        wide, high = page.get_size()
        said += page.get_textpage().get_text_bounded()
        for each in page.get_objects():
            left, low, right, top = each.get_bounds()
            assert left >= -1 and right <= wide + 1 and low >= -1 and top <= high + 1
    assert "0.500 in wide, 1.000 in high" in said and " mm wide" not in said
    with pytest.raises(Refused, match=f"larger than {paper} paper"):
        face_pdf(replace(face, outlines=(opening("Intake 9", 400.0, 40.0),)), paper)


def test_a_pinch_by_width_and_height_is_measured_without_its_place() -> None:
    port = replace(JOB.ports[0], cuts=(Cut(id="c", number=0, pinch_width=0.030, pinch_height=0.050),))
    pinch = next(s for s in unroll(port, port.cuts[0], None).sections if s.name == "pinch")
    assert pinch.measured
    assert pinch.area == pytest.approx(0.030 * 0.050, rel=0.25)  # corners are rounded off


def test_an_exhaust_without_a_pipe_needs_no_entry() -> None:
    setup = next(s for s in JOB.setups if s.direction == "exhaust")
    bare = replace(setup, entry=None, pipe="none")
    found = comparability(bare, replace(bare, id="again"), frozenset())
    assert all(d.key != "entry" for d in found.differences)


def test_a_trucks_work_begins_with_the_exhaust() -> None:
    """A load is pulled on what gets out: common practice, no source."""
    truck = replace(JOB, use="truck")
    assert next(s.port for s in route(Findings(truck))).startswith("Exhaust")


def test_the_next_of_a_kind_has_nothing_that_was_done_to_this_one() -> None:
    port = JOB.ports[0]
    wall = WallReading(id="w", place="bowl", thickness=4e-3)
    worked = replace(
        port, cuts=(replace(port.cuts[0], walls=(wall,), pours=(Pour(id="p", volume=1e-4),)), *port.cuts[1:])
    )
    job = next_of_its_kind(replace(JOB, ports=(worked, *JOB.ports[1:]), model_port_ids=(port.id,)), {JOB.title})
    assert not (job.waits or job.calls or job.stage_marks or job.engine_results or job.model_port_ids or job.mounts)
    assert all(len(p.cuts) == 1 and not p.cuts[0].walls and not p.cuts[0].pours and not p.slips for p in job.ports)
    assert all(part.state == "needed" for part in job.parts)


def test_typed_air_speed_stands_at_standard_air_unless_said() -> None:
    """As the trade types it, from a chart at standard air: what is typed is what is shown, on any day."""
    point = ProbePoint(id="p", name="1", speed=90.0)
    day = AirThere(temperature=308.15, entering_pressure=96_000.0, room_pressure=96_000.0)
    typed = point_speed(point, 1.0, replace(day, typed_standard=True))
    probe = point_speed(point, 1.0, day)
    assert typed is not None and probe is not None
    assert typed.reference == pytest.approx(90.0)
    assert probe.local == pytest.approx(90.0) and probe.reference < 88.0
    assert Traverse(id="t", station="pinch").speeds_at == SpeedsAt.STANDARD


def test_the_grinder_card_draws_no_throat_smaller_than_the_ports_own() -> None:
    """A valve job opened it to 1.700 in: the card says so beside the seat, and draws what is there."""
    job = whole_head(TODAY)
    port = next(p for p in job.ports if p.name == "Intake 2")
    seat = Seat(id="s", throat=to_si(1.700, "in"))
    work = Operation(id="v", kind="valve job", works=(Work(id="vw", place="seat"),))
    job = log_valve_job(job, seat, [port.id], ["v-cut"], work, "valve job", "2026-05-18")
    card = card_of(Findings(job, benches=demo_benches()), job.port(port.id), US, TODAY)
    assert "throat 1.700 in" in card.seat
    assert next(t.words for t in card.templates if t.name == "throat") == "1.700 across, as it is"
