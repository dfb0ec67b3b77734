"""Faces that meet: outlines against closed forms, fits of known motions, steps by hand, shrouding by circles."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest
from shapely.geometry import Point, box

from ventrix.core.lineup.chambers import chamber_lines
from ventrix.core.lineup.fitting import by_bolts, crookedness, rigid_motion, spacing_of
from ventrix.core.lineup.milling import Milling, stack_up
from ventrix.core.lineup.of_job import line_up
from ventrix.core.lineup.outlines import OVAL, polygon_of
from ventrix.core.lineup.shrouding import needed_gap, shrouding
from ventrix.core.lineup.steps import edge_at, spared_by_sliding
from ventrix.core.model.cut import Cut, Port, Pour
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Bolt, Chamber, Face, Outline
from ventrix.core.quantity.units import to_si

MM = 1e-3


def outline(port: str, x: float, y: float, width: float, height: float, **more: object) -> Outline:
    return Outline(
        id=f"{port}{x}{y}{width}", port=port, centre=(x * MM, y * MM), width=width * MM, height=height * MM,
        **{"corner": (6 * MM,), **more},  # type: ignore[arg-type]
    )  # fmt: skip


@pytest.mark.parametrize(
    ("more", "area", "within"),
    [
        ({"corner": ()}, 30 * 40, 1e-9),
        ({"corner": (6 * MM,)}, 30 * 40 - (4 - np.pi) * 36, 2e-4),
        ({"corner": (6 * MM, 0.0, 3 * MM, 0.0)}, 30 * 40 - (1 - np.pi / 4) * (36 + 9), 2e-4),
        ({"shape": "round", "corner": ()}, np.pi / 4 * 30**2, 2e-3),
        ({"shape": "d", "corner": ()}, 30 * 25 + np.pi / 2 * 15**2, 2e-3),
    ],
)
def test_areas_are_those_of_the_closed_forms(more: dict[str, object], area: float, within: float) -> None:
    """Geometry: a corner of radius r takes (1 - pi/4) r2; chords of a fine circle lie inside it."""
    found = polygon_of(outline("a", 3, -2, 30, 40, **more))
    assert found.area / MM**2 == pytest.approx(area, rel=within)
    assert found.exterior.is_ccw


def test_an_oval_is_a_superellipse_and_traced_points_are_themselves() -> None:
    """Area of a superellipse: 4 a b G(1 + 1/n)2 / G(1 + 2/n) (Gielis 2003, from memory)."""
    from scipy.special import gamma

    found = polygon_of(outline("a", 0, 0, 30, 40, shape="oval", corner=()))
    exact = 4 * 15 * 20 * gamma(1 + 1 / OVAL) ** 2 / gamma(1 + 2 / OVAL)
    assert found.area / MM**2 == pytest.approx(exact, rel=2e-3)
    traced = Outline(id="t", port="a", shape="polygon", points=tuple(v * MM for v in (0, 0, 10, 0, 10, 5)))
    assert polygon_of(traced).area / MM**2 == pytest.approx(25)


@pytest.mark.parametrize(
    ("bad", "words"),
    [
        (outline("a", 0, 0, 30, 40, corner=(16 * MM,)), "at most half"),
        (replace(outline("a", 0, 0, 30, 40), height=None), "needs its width and height"),
        (outline("a", 0, 0, 30, 10, shape="d"), "half as high"),
        (Outline(id="t", port="a", shape="polygon", points=(0.0, 0.0, 1.0)), "three points"),
        (Outline(id="t", port="a", shape="polygon", points=(0, 0, 1, 1, 1, 0, 0, 1)), "crosses itself"),
    ],
)
def test_what_cannot_be_drawn_says_why(bad: Outline, words: str) -> None:
    with pytest.raises(ValueError, match=words):
        polygon_of(bad)


def turned(points: np.ndarray, degrees: float, shift: tuple[float, float]) -> np.ndarray:
    t = np.radians(degrees)
    return points @ np.array([[np.cos(t), np.sin(t)], [-np.sin(t), np.cos(t)]]) + np.array(shift)


@pytest.mark.parametrize("count", [2, 3, 5, 8])
def test_a_known_motion_is_recovered(count: int) -> None:
    """To 1e-6 of a metre and a radian, and never as a mirror image."""
    points = np.random.default_rng(count).uniform(-0.2, 0.2, (count, 2))
    fit = rigid_motion(points, turned(points, 0.7, (0.003, -0.001)))
    assert fit.turn == pytest.approx(np.radians(0.7), abs=1e-6)
    assert fit.shift == pytest.approx((0.003, -0.001), abs=1e-6)
    mirrored = rigid_motion(points, points * (1, -1))
    assert abs(np.linalg.det(mirrored.place(np.eye(2)) - mirrored.shift)) == pytest.approx(1.0)


def test_its_doubt_is_that_of_the_points() -> None:
    """Four ports 0.3 m along, each measured to 0.15 mm on both faces: a turn is known to sigma / root of the sum of
    squares about their mean (straight line through points, Draper & Smith), by simulation within a tenth."""
    random = np.random.default_rng(2)
    points = np.column_stack([np.array([-0.15, -0.05, 0.05, 0.15]), np.zeros(4)])

    def once() -> float:
        a, b = (points + 1.5e-4 * random.standard_normal((4, 2)) for _ in range(2))
        return rigid_motion(a, b).turn

    turns = [once() for _ in range(600)]
    exact = 1.5e-4 * 2**0.5 / np.sqrt(np.sum(points[:, 0] ** 2))
    assert np.std(turns) == pytest.approx(exact, rel=0.1)


PLACES = {"Intake 1": -150.0, "Intake 2": -50.0, "Intake 3": 50.0, "Intake 4": 150.0}
BOLTS = tuple(Bolt(id=n, name=n, at=(x * MM, y * MM)) for n, x, y in (("A", -200, 30), ("B", 200, 30), ("C", 0, -30)))


def face(part: str, wide: float = 30, high: float = 40, moved: dict[str, tuple[float, float]] | None = None) -> Face:
    off = moved or {}
    outlines = tuple(
        outline(p, x + off.get(p, (0, 0))[0], off.get(p, (0, 0))[1], wide, high) for p, x in PLACES.items()
    )
    return Face(id=part, name=part, part=part, outlines=outlines, bolts=BOLTS)


def job_of(*faces: Face, kind: str = "intake", land: float | None = None) -> Job:
    cut = Cut(id="c", number=0, gasket_land=None if land is None else land * MM)
    ports = tuple(
        Port(id=f"p{n}", name=name, kind=kind, cuts=(replace(cut, id=f"c{n}"),))  # type: ignore[arg-type]
        for n, name in enumerate(PLACES)
    )
    return Job(id="j", title="j", ports=ports, faces=faces)


@pytest.mark.parametrize(("wide", "faces"), [(32.0, True), (28.0, False)])
def test_a_manifold_larger_than_the_head_faces_the_air_and_a_smaller_one_does_not(wide: float, faces: bool) -> None:
    """Common practice, no source: a step down the air's way is let go, one up faces it."""
    found = line_up(job_of(face("head"), face("manifold", wide=wide)))
    sides = [e for j in found.joints for e in j.edges if e.edge in ("left", "right")]
    assert all(e.faces_air is faces for e in sides)
    assert all(abs(e.step) == pytest.approx(1 * MM, abs=1e-6) for e in sides)
    roofs = [e for j in found.joints for e in j.edges if e.edge == "roof"]
    assert all(e.flush and not e.faces_air for e in roofs)


@pytest.mark.parametrize(("wide", "faces"), [(32.0, False), (28.0, True)])
def test_on_the_exhaust_it_is_the_other_way_round(wide: float, faces: bool) -> None:
    found = line_up(job_of(face("head"), face("header", wide=wide), kind="exhaust"))
    assert {e.faces_air for j in found.joints for e in j.edges if e.edge in ("left", "right")} == {faces}
    assert {p.part for p in found.proposals} == ({"header"} if faces else set()), "exhaust never past the header"


def test_a_head_that_stands_high_is_told_edge_by_edge_with_what_to_take_off() -> None:
    high = {"Intake 4": (0.0, 0.8)}
    found = line_up(job_of(face("head", moved=high), face("manifold"), land=6.0))
    edges = {(e.port, e.edge): e for j in found.joints for e in j.edges}
    assert edges["Intake 4", "floor"].faces_air, "the head's floor faces the air"
    assert edges["Intake 4", "floor"].step == pytest.approx(-0.8 * MM, abs=1e-6)
    assert not edges["Intake 4", "roof"].faces_air
    (first, *rest) = found.proposals
    assert (first.port, first.edge, first.part) == ("Intake 4", "floor", "head")
    assert rest == []
    assert first.depth == pytest.approx(0.8 * MM, abs=1e-6)
    assert first.bolt == "B" or first.bolt == "C"
    assert found.left["Intake 4"] == pytest.approx((0.0, 0.8 * MM), abs=1e-9)


def test_never_past_the_land() -> None:
    """3 mm of land, 2.5 mm at least: half a millimetre may come off (common practice, no source)."""
    high = {"Intake 4": (0.0, 0.8)}
    (first,) = line_up(job_of(face("head", moved=high), face("manifold"), land=3.0)).proposals
    assert first.depth == pytest.approx(0.5 * MM, abs=1e-9)
    assert "the land stays at 2.5 mm" in first.sentence


def test_schools_open_to_the_gasket_or_leave_it() -> None:
    job = job_of(face("head"), face("gasket", wide=34, high=44))
    assert line_up(job).proposals == (), "the usual side keeps the port smaller"
    opened = line_up(replace(job, schools={"gasket": "open to the gasket"})).proposals
    assert len(opened) == 16
    assert {p.part for p in opened} == {"head"}


def test_dividers_are_land_too() -> None:
    found = line_up(job_of(face("head", wide=96), face("manifold", wide=97)))
    edges = {(e.port, e.edge): e for j in found.joints for e in j.edges}
    assert edges["Intake 2", "right"].land == pytest.approx(4 * MM, abs=1e-9), "100 apart less 96 wide"
    assert edges["Intake 4", "right"].land is None


def test_one_port_off_its_gasket_is_named_and_not_its_neighbour() -> None:
    head = face("head", moved={"Intake 4": (0.0, 1.4)})
    other = face("gasket")
    fit = by_bolts(other, head)
    assert fit is not None
    found = crookedness(other, head, fit)
    assert found.blamed == "Intake 4"
    three = replace(head, outlines=head.outlines[:3])
    assert "can't be told" in crookedness(other, three, fit).reason
    run = {p: (0.0, np.radians(0.4) * x) for p, x in PLACES.items()}
    crooked = crookedness(other, face("head", moved=run), fit)
    assert crooked.blamed is None
    assert np.degrees(crooked.turn) == pytest.approx(0.4, abs=0.01)


def test_false_blame_is_rare() -> None:
    """Each port measured to 0.15 mm: one head in ten at most has a port named that stands where it should."""
    random = np.random.default_rng(6)
    named = 0
    for _ in range(200):
        off = {p: tuple(0.15 * random.standard_normal(2)) for p in PLACES}
        head = face("head", moved=off)  # type: ignore[arg-type]
        named += crookedness(face("gasket"), head, rigid_motion(np.eye(2), np.eye(2))).blamed is not None
    assert named / 200 <= 0.10


def test_shrouding_of_circles_in_one_another_has_a_closed_form() -> None:
    """A valve in the middle of a bore: the gap is R - r all round, and too small from (R2 - r2)/(2 r) of lift on."""
    r, bore = 0.021, Point(0.0, 0.0).buffer(0.030, 256)
    turns_at = (0.030**2 - r**2) / (2 * r)
    found = shrouding((0.0, 0.0), r, [bore], [0.9 * turns_at, 1.1 * turns_at])
    assert found.gap == pytest.approx(0.009 * np.ones(360), abs=1e-5)
    assert found.share == pytest.approx([0.0, 1.0])
    assert needed_gap(r, 0.0) == pytest.approx(0.0)
    with pytest.raises(ValueError, match="outside the chamber"):
        shrouding((0.05, 0.0), r, [bore], [0.01])


def test_a_valve_beside_the_bore_is_shrouded_on_that_side_alone() -> None:
    """Of two circles e apart the gap at angle a is sqrt(R2 - e2 sin2 a) - e cos a - r (geometry)."""
    e, r, big = 0.018, 0.021, 0.0445
    found = shrouding((e, 0.0), r, [Point(0.0, 0.0).buffer(big, 512)], [0.011])
    exact = np.sqrt(big**2 - (e * np.sin(found.angle)) ** 2) - e * np.cos(found.angle) - r
    assert found.gap == pytest.approx(exact, abs=2e-5)
    assert 0.15 < found.share[0] < 0.5
    assert found.gap[0] == min(found.gap)


def test_the_nearer_of_bore_and_chamber_counts_angle_by_angle() -> None:
    """A flat wall of the chamber d from the valve's middle stands d / cos a - r from its edge (geometry)."""
    r, big, d = 0.019, 0.044, 0.024
    chamber = box(-0.060, -0.060, d, 0.060)
    with_both = shrouding((0.0, 0.0), r, [Point(0.0, 0.0).buffer(big, 512), chamber], [0.010])
    towards = np.abs(((with_both.angle + np.pi) % (2 * np.pi)) - np.pi)
    flat = towards < np.arccos(d / big) - 0.01
    assert with_both.gap[flat] == pytest.approx(d / np.cos(towards[flat]) - r, abs=1e-6)
    assert with_both.gap[~flat] == pytest.approx(big - r, abs=2e-4)
    assert set(with_both.nearest[flat]) == {1}
    assert with_both.share[0] == pytest.approx(np.arccos(d / np.sqrt(r**2 + 2 * r * 0.010)) / np.pi, abs=0.006)
    with pytest.raises(ValueError, match="needs a wall"):
        shrouding((0.0, 0.0), r, [], [0.010])


@pytest.mark.parametrize("half_bank", [30.0, 45.0])
@pytest.mark.parametrize("lean", [0.0, 10.0, -5.0])
@pytest.mark.parametrize("share", [0.0, 0.4, 1.0])
def test_where_the_manifolds_ports_end_up_is_that_of_bodies_that_are_moved(
    half_bank: float, lean: float, share: float
) -> None:
    """Head and manifold as bodies seen from the crank's end: the head goes down its bank, the manifold, its face
    milled, is let down until the faces meet; then the distance between the two port middles along the face."""
    a, e, x = np.radians(half_bank), np.radians(lean), 1.2 * MM
    up_the_face = np.array([np.sin(a + e), np.cos(a + e)])
    normal = np.array([-np.cos(a + e), np.sin(a + e)])  # from the head towards the valley
    head_port = -x * np.array([np.sin(a), np.cos(a)])
    wanted = stack_up(Milling(head=x, half_bank=a, face_angle=e)).face_cut
    milled = share * wanted
    manifold_port = milled * normal
    gap = (manifold_port - head_port) @ normal
    down = gap / normal[1]  # straight, until they touch
    manifold_port = manifold_port - np.array([0.0, down])
    found = stack_up(Milling(head=x, half_bank=a, face_angle=e, manifold=milled))
    assert found.slide_left == pytest.approx((manifold_port - head_port) @ up_the_face, abs=1e-9)
    assert found.face_left == pytest.approx((1 - share) * wanted)
    if share == 1.0:
        assert found.slide_left == pytest.approx(0.0, abs=1e-9)
        assert down == pytest.approx(found.valley_cut)


@pytest.mark.parametrize(
    ("lean", "face_cut", "valley"), [(5, 1.10, None), (10, 1.23, 1.72), (15, 1.41, None), (20, 1.67, None)]
)
def test_milling_against_the_machine_shops_table(lean: float, face_cut: float, valley: float | None) -> None:
    """ENGINEERING: machine-shop table for 45 degree half banks (common practice, from memory)."""
    found = stack_up(Milling(head=0.6 * MM, deck=0.3 * MM, gasket=0.1 * MM, face_angle=np.radians(lean)))
    assert found.drop == pytest.approx(1.0 * MM)
    assert found.face_cut / found.drop == pytest.approx(face_cut, abs=0.006)
    if valley is not None:
        assert found.valley_cut / found.drop == pytest.approx(valley, abs=0.006)


@pytest.mark.parametrize(("cut_in", "area_cm2"), [(0.040, 37.0), (0.050, 30.0)])
def test_a_chamber_by_its_outline(cut_in: float, area_cm2: float) -> None:
    """113 to 109.2 cc for 0.040 to 0.050 in is 37 to 30 cm2 of outline (common practice, no source)."""
    found = stack_up(Milling(head=to_si(cut_in, "in")), chamber=to_si(113, "cc"), face_area=to_si(area_cm2, "cm2"))
    assert found.chamber == pytest.approx(to_si(109.2, "cc"), abs=0.1e-6)
    assert "maker" in found.caution


def test_edges_of_a_round_port_are_its_diameter_apart() -> None:
    circle = polygon_of(outline("a", 5, 0, 30, 30, shape="round", corner=()))
    assert edge_at(circle, "right") - edge_at(circle, "left") == pytest.approx(30 * MM, rel=1e-3)
    assert edge_at(circle, "roof") == pytest.approx(15 * MM, rel=1e-3)


@pytest.mark.parametrize(
    ("faces", "words"),
    [
        ((), "needs a face of the head"),
        ((face("head"),), "a face to lay on the head's"),
        ((face("head"), replace(face("manifold"), outlines=(outline("Intake 9", 0, 0, 30, 40),), bolts=())), "no port"),
    ],
)
def test_what_is_missing_is_named(faces: tuple[Face, ...], words: str) -> None:
    with pytest.raises(ValueError, match=words):
        line_up(job_of(*faces))


def test_chambers_are_brought_to_the_largest() -> None:
    """Heywood (1988), section 2.2: swept over clearance, and one; only metal comes off."""
    pours = {1: 47.0, 2: 47.6, 3: 46.8}
    chambers = tuple(
        Chamber(id=f"ch{n}", cylinder=n, pours=(Pour(id=f"v{n}", volume=to_si(cc, "cc")),)) for n, cc in pours.items()
    )
    job = Job(id="j", title="j", bore=0.089, stroke=0.0885, chambers=chambers, gasket_thickness=0.0)
    lines = {line.cylinder: line for line in chamber_lines(job)}
    assert lines[2].take_out == 0.0
    assert lines[3].take_out == pytest.approx(to_si(0.8, "cc"))
    swept = np.pi / 4 * 0.089**2 * 0.0885
    assert lines[1].compression == pytest.approx(1 + swept / to_si(47.0, "cc"))
    assert {line.compression_then for line in lines.values()} == {lines[2].compression}
    assert chamber_lines(replace(job, bore=None))[0].compression is None
    assert chamber_lines(replace(job, chambers=())) == ()


def test_uneven_spacing_names_the_two_ports() -> None:
    head = face("head", moved={"Intake 3": (0.9, 0.0)})
    found = spacing_of(head)
    assert found is not None
    assert found.mean == pytest.approx(100 * MM)
    assert found.between in (("Intake 2", "Intake 3"), ("Intake 3", "Intake 4"))
    assert abs(found.worst) == pytest.approx(0.9 * MM)
    against = spacing_of(face("head"), pitch=99 * MM)
    assert against is not None
    assert against.worst == pytest.approx(1.0 * MM)
    assert spacing_of(replace(head, outlines=head.outlines[:2])) is None


def test_what_sliding_the_manifold_would_spare() -> None:
    """A head that stands 0.8 mm high throughout: its four floors face the air, and none does with the manifold 0.8 mm
    higher, flush taken as 0.1 mm (geometry). One that runs both ways cannot be spared by it."""
    high = dict.fromkeys(PLACES, (0.0, 0.8))
    slide = spared_by_sliding(line_up(job_of(face("head", moved=high), face("manifold"))).joints, downstream=False)
    assert slide is not None
    assert (slide.before, slide.after) == (4, 0)
    assert slide.up == pytest.approx(0.7 * MM, abs=0.03 * MM)
    header = line_up(job_of(face("head", moved=high), face("header"), kind="exhaust")).joints
    down = spared_by_sliding(header, downstream=True)
    assert down is not None
    assert down.up > 0
    both = {"Intake 1": (0.0, -0.8), "Intake 4": (0.0, 0.8)}
    assert spared_by_sliding(line_up(job_of(face("head", moved=both), face("manifold"))).joints, False) is None
