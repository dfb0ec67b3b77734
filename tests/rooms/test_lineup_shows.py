"""Line-up in words: faces as they are typed, milling, chambers and shrouding, by figures that are worked by hand."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from ventrix.core.lineup.fitting import Fit
from ventrix.core.lineup.milling import Milling
from ventrix.core.lineup.of_job import line_up, meets_the_head
from ventrix.core.model.cut import Cut, Port, Pour
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Bolt, Chamber, Face, Outline
from ventrix.core.quantity.units import to_si
from ventrix.demo.whole_head import whole_head
from ventrix.reports.sheet.template_pdf import BAR, Printer
from ventrix.rooms.display_units import METRIC, US
from ventrix.rooms.lineup.chamber_shows import (
    LIFTS,
    ValveSpot,
    chamber_outlines,
    chamber_rows,
    shroud_rows,
    shrouded,
    valve_middle,
)
from ventrix.rooms.lineup.milling_shows import milling_rows
from ventrix.rooms.lineup.shows import gauge_of, shown_of
from ventrix.rooms.lineup.typed_faces import typed_point, typed_spots

MM = 1e-3
V_ENGINE = Job(id="j", title="j", engine_layout="v")


# -- typed faces


def test_names_middles_and_edges_are_told_apart() -> None:
    bolts = {"A": (0.1, 0.02), "B2": (0.0, 0.0)}
    alone, middle, edges = typed_spots("Intake 1; Intake 2 -150 0.5 ; Intake 3 a -16 16 -53 -11;", "mm", bolts)
    assert (alone.name, alone.middle, alone.edges) == ("Intake 1", None, None)
    assert middle.name == "Intake 2"
    assert middle.middle == pytest.approx((-0.150, 0.0005))
    assert edges.name == "Intake 3"
    assert edges.edges == pytest.approx((0.084, 0.116, -0.033, 0.009))
    assert edges.middle == pytest.approx((0.1, -0.012))


def test_units_and_fractions_are_taken_as_everywhere() -> None:
    (spot,) = typed_spots("1 1-1/2in 12mm", "in")
    assert spot.at == pytest.approx((0.0381, 0.012))
    assert typed_point("0.5in -3mm", "in", "the valve") == pytest.approx((0.0127, -0.003))


def test_a_port_that_is_named_like_a_number_is_a_port() -> None:
    spots = typed_spots("1 -50 0; 2 50 0", "mm")
    assert [s.name for s in spots] == ["1", "2"]


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("10 20", "has no name"),
        ("Intake 1 A 16 -16 -53 -11", "left, right, floor and roof from bolt A"),
        ("Intake 1 A -16 16 -11 -53", "in that order"),
    ],
)
def test_spots_that_cannot_be_say_why(text: str, words: str) -> None:
    with pytest.raises(ValueError, match=words):
        typed_spots(text, "mm", {"A": (0.0, 0.0)})


@pytest.mark.parametrize("text", ["", "1", "1 2 3", "x y", "1,2"])
def test_a_point_is_two_figures(text: str) -> None:
    with pytest.raises(ValueError, match="the intake valve: x and y"):
        typed_point(text, "mm", "the intake valve")


def test_four_figures_behind_no_bolt_are_a_name_that_is_none() -> None:
    (spot,) = typed_spots("Intake 1 Z -16 16 -53 -11", "mm", {"A": (0.0, 0.0)})
    assert spot.name == "Intake 1 Z -16 16"  # and no port is called so: the sheet says that
    assert spot.at == pytest.approx((-0.053, -0.011))


# -- chambers


def chamber(width: float = 80.0, height: float = 60.0) -> Outline:
    return Outline(id="c", port="Intake 1", shape="rectangle", width=width * MM, height=height * MM)


def test_the_nearest_wall_is_named_for_each_valve() -> None:
    """A 40 mm intake 18 left of the middle, in an 89 bore and a chamber 80 x 60: 44.5 - 38 = 6.5 to the bore, 40 - 38
    = 2 to the chamber's end; an exhaust of 30 in the middle stands 30 - 15 = 15 from its side."""
    valves = (ValveSpot("intake", 20 * MM, (-18 * MM, 0.0)), ValveSpot("exhaust", 15 * MM, (0.0, 0.0)))
    alone = shroud_rows(shrouded(valves, 89 * MM, None), METRIC)
    both = shroud_rows(shrouded(valves, 89 * MM, chamber()), METRIC)
    assert alone[0] == "Intake: 6.50 mm to the bore."
    assert both[0] == "Intake: 2.00 mm to the chamber."
    assert both[1] == "Exhaust: 15.00 mm to the chamber."
    assert len(both) == 2 + len(LIFTS)


def test_a_valve_that_hangs_over_says_by_how_much() -> None:
    over = shrouded((ValveSpot("intake", 20 * MM, (-22 * MM, 0.0)),), None, chamber())
    assert shroud_rows(over, METRIC)[0] == "Intake: hangs 2.00 mm over the chamber."


def test_shares_rise_with_lift_and_need_is_the_rings() -> None:
    """The ring as large as the curtain: sqrt(r2 + 2 r L) - r; of 20 mm at 10.16 mm of lift 8.40 mm."""
    found = shrouded((ValveSpot("intake", 20 * MM, (-18 * MM, 0.0)),), 89 * MM, None)
    shares = found.valves[0][1].share
    assert list(shares) == sorted(shares)
    assert "needs 8.40" in shroud_rows(found, METRIC)[1 + LIFTS.index(to_si(0.4, "in"))]


@pytest.mark.parametrize(
    ("bore", "outline", "words"),
    [
        (50.0, None, "the intake valve's center is outside the bore"),
        (89.0, chamber(40, 40), "the intake valve's center is outside the chamber"),
    ],
)
def test_a_valve_outside_of_its_wall_is_named(bore: float, outline: Outline | None, words: str) -> None:
    with pytest.raises(ValueError, match=words):
        shrouded((ValveSpot("intake", 10 * MM, (-30 * MM, 0.0)),), bore * MM, outline)


def test_a_chambers_face_keeps_its_valves_middles() -> None:
    bolts = (Bolt(id="1", name="Intake", at=(-0.02, 0.001)), Bolt(id="2", name="ex valve", at=(0.022, 0.0)))
    face = Face(id="f", name="milled", part="chamber", outlines=(chamber(),), bolts=bolts)
    assert valve_middle(face, "intake") == (-0.02, 0.001)
    assert valve_middle(face, "exhaust") == (0.022, 0.0)
    assert valve_middle(replace(face, bolts=()), "intake") is None
    job = Job(id="j", title="j", faces=(face, replace(face, id="g", name="gasket", part="gasket")))
    ((name, kept, outline),) = chamber_outlines(job)
    assert (name, kept.id, outline.id) == ("milled, Intake 1", "f", "c")


def test_a_chamber_is_never_laid_on_the_ports_face() -> None:
    job = whole_head(date.today())
    assert "chamber" not in [f.part for f in meets_the_head(job)]
    with pytest.raises(ValueError, match="'chamber' is a chamber: it is not laid"):
        line_up(job, "chamber")


def test_chambers_are_told_with_what_to_take_out() -> None:
    poured = tuple(
        Chamber(id=f"c{n}", cylinder=n, pours=(Pour(id=f"p{n}", volume=to_si(cc, "cc")),))
        for n, cc in ((1, 50.0), (2, 48.5))
    )
    job = Job(id="j", title="j", chambers=poured, bore=to_si(89, "mm"), stroke=to_si(80, "mm"), gasket_thickness=0.0)
    first, second = chamber_rows(job, US)
    swept = np.pi / 4 * 8.9**2 * 8.0
    assert first == f"Cylinder 1: 50.0 cc, the largest, {1 + swept / 50.0:.2f} to 1"
    assert second == f"Cylinder 2: 48.5 cc, take 1.5 cc out, {1 + swept / 48.5:.2f} to 1"
    assert chamber_rows(Job(id="j", title="j"), US) == ()


# -- milling


def test_milling_of_a_square_face_in_words() -> None:
    """45 degree halves, a square face: the face wants what came off, the valley sqrt 2 of it."""
    rows = " ".join(milling_rows(V_ENGINE, Milling(head=to_si(0.020, "in")), None, US))
    assert "comes down 0.020 in" in rows
    assert "Off the manifold's face 0.020 in in all, off the valley 0.028 in" in rows
    assert "stand 0.020 in further up" in rows
    assert "needs a pour" in rows
    assert "face the air" not in rows, "there are no faces to lay on each other"


@pytest.mark.parametrize(
    ("milled", "words"),
    [
        (0.010, "0.010 in still to come off"),
        (0.020, "0.000 in still to come off"),
        (0.025, "0.005 in too much came off"),
    ],
)
def test_what_came_off_the_manifold_is_taken_into_account(milled: float, words: str) -> None:
    milling = Milling(head=to_si(0.020, "in"), manifold=to_si(milled, "in"))
    assert words in " ".join(milling_rows(V_ENGINE, milling, None, US))


def test_the_line_up_that_milling_leaves_is_told() -> None:
    """The demo's roofs stand 0.2 to 0.6 mm low: a manifold that goes 2 mm up meets no roof, and every floor."""
    job = replace(whole_head(date.today()), engine_layout="v")
    rows = " ".join(milling_rows(job, Milling(head=to_si(2.0, "mm")), None, METRIC))
    assert "4 edges of own manifold face the air then, 2 do now" in rows
    assert "to open it instead" in rows
    far = " ".join(milling_rows(job, Milling(head=0.3), None, METRIC))
    assert "So far off the faces don't meet at all." in far


# -- scribing


@pytest.mark.parametrize("bolts", [True, False])
def test_a_scribe_is_set_from_a_bolt_or_from_the_edge_across(bolts: bool) -> None:
    """A head 32 x 42 under a manifold 1 mm larger at its roof alone: 43 mm from its floor, once that came off."""
    held = (Bolt(id="b", name="A", at=(0.0, 0.030)),) if bolts else ()

    def face(part: str, high: float) -> Face:
        size = {"width": 32 * MM, "height": high * MM, "centre": (0.0, (high - 42) / 2 * MM)}
        outline = Outline(id=f"o-{part}", port="Intake 1", shape="rectangle", **size)  # type: ignore[arg-type]
        return Face(id=part, name=part, part=part, outlines=(outline,), bolts=tuple(replace(b, id=part) for b in held))

    port = Port(id="p", name="Intake 1", kind="intake", cuts=(Cut(id="c", number=0),))
    job = Job(id="j", title="j", ports=(port,), faces=(face("head", 42), face("manifold", 43)))
    found = line_up(job, moved=Fit((0.0, 0.0), 0.0))
    (proposal,) = found.proposals
    assert proposal.from_edge == pytest.approx(43 * MM)
    said = next(gauge_of(line, METRIC) for line in shown_of(job, found, METRIC).lines if line.proposal)
    assert "43.00 mm from the floor's edge" in said.said
    assert said.over == ("bolt A" if bolts else "the floor")
    if bolts:
        assert proposal.from_bolt == pytest.approx(-8 * MM)
        assert "Scribe 8.00 mm down from the middle of bolt A" in said.said


# -- printers


def test_a_printer_is_set_right_both_ways() -> None:
    assert Printer().true
    crooked = Printer(to_si(99.2, "mm"), to_si(101.5, "mm"))
    across, up = crooked.scale
    plain = Printer().scale[0]
    assert (across / plain, up / plain) == pytest.approx((1 / 0.992, 1 / 1.015))


@pytest.mark.parametrize("bar", [0.0, 0.08, 0.111, float("nan"), 3.937])
def test_a_bar_that_cannot_be_is_refused(bar: float) -> None:
    with pytest.raises(ValueError, match="lies between 90 and 110 mm"):
        Printer(across=bar)
    with pytest.raises(ValueError, match="the bar up"):
        Printer(across=BAR, up=bar)
