"""A port's shape in words, and what a sheet says was done: figures worked by hand."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from ventrix.core.judging.findings import Findings
from ventrix.core.metal.unrolled import unroll
from ventrix.core.model.cut import Cut, Operation, Port, Pour, Station, WallReading, Work
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Head, Valve
from ventrix.core.planning.shape_figures import ShapeFigures, shape_figures
from ventrix.core.quantity.units import to_si
from ventrix.rooms.display_units import METRIC, US
from ventrix.rooms.match.shows import bolts_along, short_name, told_name
from ventrix.rooms.shared.shape_words import (
    bend_words,
    cone_words,
    shape_sentences,
    takes_over_words,
    taper_words,
)
from ventrix.rooms.sheet.work_and_ports import MOST_DONE, cut_words, done_lines, hours_rows, ports_head, ports_rows

MM = 1e-3
VALVE = Valve(id="v", head_diameter=40 * MM, stem_diameter=8 * MM, seat_width=1.5 * MM, seat_angle=np.pi / 4)


def port_of(areas_mm2: dict[float, float], **cut: object) -> tuple[Port, Cut]:
    stations = tuple(
        Station(id=f"s{i}", name=f"place {i}", along=at * MM, area=area * 1e-6)
        for i, (at, area) in enumerate(areas_mm2.items())
    )
    made = Cut(id="c", number=0, floor_length=100 * MM, roof_length=100 * MM, stations=stations, **cut)  # type: ignore[arg-type]
    return Port(id="p", name="Intake 1", kind="intake", valve_id="v", cuts=(made,)), made


# -- shape


def test_the_taper_is_from_the_opening_to_the_smallest_place() -> None:
    port, cut = port_of({0: 1200, 40: 1000, 70: 1050, 95: 1100}, throat_diameter=39 * MM)
    assert taper_words(unroll(port, cut, VALVE)).replace("\u2212", "-") == "Opening to smallest -17 %."


def test_a_steep_widening_is_named_with_its_angle() -> None:
    """From 1000 to 1600 mm2 over 8 mm: of round sections 35.7 to 45.1 mm, that is 2 atan(4.7 / 8) = 61 degrees."""
    port, cut = port_of({0: 1300, 50: 1000, 58: 1600, 95: 1300}, throat_diameter=36 * MM)
    said = cone_words(unroll(port, cut, VALVE))
    assert "over 10, air may separate" in said
    angle = float(said.split("widens by ")[1].split(" deg")[0])
    assert angle == pytest.approx(61, abs=8)


def test_a_gentle_widening_is_not_blamed() -> None:
    port, cut = port_of({0: 1010, 40: 1000, 95: 1040}, throat_diameter=38 * MM)
    assert "air may separate" not in cone_words(unroll(port, cut, VALVE))


@pytest.mark.parametrize(
    ("figures", "words"),
    [
        (ShapeFigures(None, None, None), "were not measured"),
        (ShapeFigures(0.32, np.radians(53), None), "Short side r/h 0.32, turning 53 deg: K about"),
        (ShapeFigures(0.32, None, None), "turning 60 deg, a guess"),
    ],
)
def test_the_bend_says_what_it_stands_on(figures: ShapeFigures, words: str) -> None:
    assert words in bend_words(figures)


def test_a_tighter_bend_loses_more_by_the_book() -> None:
    losses = [
        float(bend_words(ShapeFigures(r, np.radians(60), None)).split("about ")[1].split(" ")[0])
        for r in (0.2, 0.4, 0.8)
    ]
    assert losses == sorted(losses, reverse=True)


def test_where_the_throat_takes_over_wants_its_sizes_and_says_what_was_not_measured() -> None:
    assert "needs valve, seat and throat" in takes_over_words(ShapeFigures(None, None, None), None, US)
    said = takes_over_words(ShapeFigures(None, None, to_si(0.381, "in")), None, US)
    assert said.startswith("By geometry the throat is the smaller from 0.381 in;")
    assert said.endswith("where the port takes over was not measured (open port).")


def test_every_sentence_stands_in_its_order() -> None:
    port, cut = port_of(
        {0: 1200, 40: 1000, 95: 1100}, throat_diameter=34 * MM, short_side_radius=8 * MM, short_side_height=25 * MM,
        port_angle=float(np.radians(37)),
    )  # fmt: skip
    job = Job(id="j", title="j", ports=(port,), valves=(VALVE,))
    bend, over, shape = shape_sentences(job, port, cut, None, METRIC)
    assert bend.startswith("Short side r/h 0.32, turning 53 deg")
    assert over.startswith("By geometry")
    assert "Opening to smallest" in shape
    figures = shape_figures(job, port, cut)
    assert figures.radius_over_height == pytest.approx(0.32)
    assert np.degrees(figures.turning or 0.0) == pytest.approx(53)


# -- what a sheet says was done


def operation(place: str, depth_mm: float, minutes: float | None, **more: object) -> Operation:
    works = (Work(id=f"w-{place}", place=place, depth=depth_mm * MM),)
    time = None if minutes is None else 60 * minutes
    return Operation(id=f"o-{place}", kind="rough", works=works, duration=time, **more)  # type: ignore[arg-type]


def worked() -> tuple[Port, list[Cut]]:
    cuts = [
        Cut(id="c0", number=0, name="as cast"),
        Cut(
            id="c1", number=1, name="bowl", operations=(operation("bowl", 0.5, 40, tool="oval burr"),), note="hard spot"
        ),
        Cut(id="c2", number=2, name="polished by hand"),
        Cut(id="c3", number=3, operations=(operation("guide", 0.8, None),)),
    ]
    return Port(id="p", name="Intake 1", kind="intake", cuts=tuple(cuts)), cuts


def test_a_cut_by_number_and_name() -> None:
    _, cuts = worked()
    assert [cut_words(c) for c in cuts[1:]] == ["cut 1, bowl", "cut 2, polished by hand", "cut 3"]


def test_only_what_lies_between_the_two_was_done() -> None:
    port, cuts = worked()
    lines = done_lines(port, cuts[0], cuts[2], US, own=False)
    assert len(lines) == 2
    assert "bowl" in lines[0]
    assert lines[1] == "polished by hand"
    assert done_lines(port, cuts[2], cuts[0], US, own=False) == lines, "either way round"
    assert done_lines(port, cuts[1], cuts[1], US, own=False) == ()


def test_minutes_and_notes_are_for_the_shop_alone() -> None:
    port, cuts = worked()
    home, shop = (" ".join(done_lines(port, cuts[0], cuts[3], US, own=own)) for own in (False, True))
    assert "hard spot" in shop and "hard spot" not in home
    assert "40 min" in shop and "40 min" not in home


def test_what_does_not_fit_is_counted() -> None:
    many = tuple(Cut(id=f"c{n}", number=n, name=f"pass {n}") for n in range(MOST_DONE + 5))
    port = Port(id="p", name="Intake 1", kind="intake", cuts=many)
    lines = done_lines(port, many[0], many[-1], US, own=False)
    assert len(lines) == MOST_DONE + 1
    assert lines[-1] == "and 4 operations more"


def test_hours_add_up_and_what_was_not_noted_says_so() -> None:
    port, cuts = worked()
    rows = hours_rows(port, cuts[0], cuts[3], US)
    assert rows == (
        ("cut 1, bowl", "40 min"),
        ("cut 2, polished by hand", "not noted"),
        ("cut 3", "not noted"),
        ("together", "40 min"),
    )
    assert hours_rows(port, cuts[0], cuts[0], US) == ()


def test_every_port_is_a_line_flowed_or_not() -> None:
    wall = WallReading(id="w", place="bowl", thickness=to_si(0.15, "in"), uncertainty=0.0)
    cut = Cut(id="c", number=0, name="as cast", pours=(Pour(id="q", volume=to_si(118.04, "cc")),), walls=(wall,))
    bare = Cut(id="d", number=0)
    ports = (
        Port(id="p1", name="Intake 1", kind="intake", cuts=(cut,)),
        Port(id="p2", name="Intake 2", kind="intake", witness=True, cuts=(bare,)),
        Port(id="p3", name="Intake 3", kind="intake"),
    )
    rows = ports_rows(Findings(Job(id="j", title="j", ports=ports)), US, to_si(0.4, "in"))
    assert ports_head(US, to_si(0.4, "in"))[3] == "CFM at 0.400"
    assert ports_head(US, None)[3] == "CFM"
    assert rows[0][:5] == ("Intake 1", "cut 0, as cast", "118.0", "not flowed", "–")
    assert float(rows[0][5]) == pytest.approx(0.15, abs=0.02)
    assert rows[1] == ("Intake 2, witness", "cut 0", "–", "not flowed", "–", "not read")
    assert len(rows) == 2, "a port without a state is no line"


# -- names of ports in Match


@pytest.mark.parametrize(
    ("name", "short"),
    [("Intake 3", "I3"), ("Exhaust 12", "E12"), ("left one", "left o"), ("5", "5"), ("Intake", "Intake")],
)
def test_a_port_in_a_cell(name: str, short: str) -> None:
    assert short_name(Port(id="p", name=name, kind="intake")) == short


def test_a_port_in_a_sentence_says_its_head_where_there_are_several() -> None:
    port = Port(id="p", name="Intake 3", kind="intake", head_id="b")
    one = Job(id="j", title="j", heads=(Head(id="b", name="head B"),), ports=(port,))
    two = replace(one, heads=(Head(id="a", name="head A"), Head(id="b", name="head B")))
    assert told_name(one, port) == "Intake 3"
    assert told_name(two, port) == "B I3"


def test_bolts_stand_along_the_face_from_its_first_port_to_its_last() -> None:
    from datetime import date

    from ventrix.demo.whole_head import whole_head

    along = bolts_along(whole_head(date(2026, 11, 26)))
    assert len(along) == 6
    middles = sorted(x for x, _ in along)
    assert middles[0] < 0 < middles[1] < middles[-2] < 1 < middles[-1], "the outer ones stand beyond the outer ports"
    assert bolts_along(Job(id="j", title="j")) == ()
