"""A scan measures itself: bodies whose figures geometry gives (Pappus's theorem, the cone's volume), swept ports with a
scanner's noise, holes and pose, and what two scans say was cut. The bodies share no code with what measures them."""

from __future__ import annotations

from dataclasses import replace
from functools import cache

import numpy as np
import pytest

from ventrix.bench.simulator.scans import ScannedPort, Worked, joined, scanned, surface
from ventrix.core.model.scan import Scan
from ventrix.core.quantity.refused import Refused
from ventrix.core.scan.compare import Taken, compare
from ventrix.core.scan.measure import Measured, measure
from ventrix.core.scan.opening import opening_outline
from ventrix.core.scan.scanned import ScanAsked, Scanned, asked_of, measured_again, ports_held, scan_of
from ventrix.core.scan.unit import KnownSize, stretch_typed

Body = tuple[np.ndarray, np.ndarray]


def tube(
    line: np.ndarray, one: np.ndarray, other: np.ndarray, radii: np.ndarray, around: int = 256, cap: bool = False
) -> Body:
    """Circles along a line, in the planes of two directions, joined by triangles."""
    angles = 2 * np.pi * np.arange(around) / around
    rings = line[:, None, :] + radii[:, None, None] * (
        np.cos(angles)[None, :, None] * one[:, None, :] + np.sin(angles)[None, :, None] * other[:, None, :]
    )
    points, n = rings.reshape(-1, 3), len(line)
    quads = [(i * around + j, i * around + (j + 1) % around) for i in range(n - 1) for j in range(around)]
    faces = [f for a, b in quads for f in ((a, b, b + around), (a, b + around, a + around))]
    for ring, turned in ((0, True), (n - 1, False)) if cap else ():
        points = np.vstack([points, line[ring]])
        hub, base = len(points) - 1, ring * around
        for j in range(around):
            a, b = base + j, base + (j + 1) % around
            faces.append((hub, b, a) if turned else (hub, a, b))
    return points, np.array(faces)


def straight(first: float, last: float, length: float = 100.0, cap: bool = False) -> Body:
    x = np.linspace(0, length, 80)
    line = np.stack([x, 0 * x, 0 * x], axis=1)
    one, other = (np.tile(v, (len(x), 1)) for v in ([0.0, 1, 0], [0.0, 0, 1]))
    return tube(line, one, other, np.linspace(first, last, len(x)), cap=cap)


def elbow(bend: float, radius: float, run: float = 0.0, turn: float = np.pi / 2, cap: bool = False) -> Body:
    """A straight run, then a bend about (run, bend)."""
    s = np.linspace(0, run + bend * turn, max(int((run + bend * turn) / 0.5), 100))
    t = np.clip((s - run) / bend, 0, turn)
    line = np.stack([np.minimum(s, run) + bend * np.sin(t), bend * (1 - np.cos(t)), 0 * s], axis=1)
    inward = np.stack([-np.sin(t), np.cos(t), 0 * s], axis=1)
    return tube(line, inward, np.tile([0.0, 0, 1], (len(s), 1)), np.full(len(s), radius), cap=cap)


def areas(found: Measured) -> np.ndarray:
    return np.array([s.flow_area for s in found.stations])


@pytest.mark.parametrize("cap", [False, True])
def test_a_cylinder(cap: bool) -> None:
    found = measure(*straight(18, 18, cap=cap))
    assert found.volume == pytest.approx(np.pi * 18**2 * 100, rel=1e-3)
    assert areas(found) == pytest.approx(np.pi * 18**2, rel=1e-3)
    assert (found.length, found.floor, found.roof) == pytest.approx((100, 100, 100), rel=1e-3)
    assert "Both ends look alike: which is the seat?" in found.notes


def test_a_frustum() -> None:
    found = measure(*straight(20, 16))
    assert found.volume == pytest.approx(np.pi * 100 / 3 * (400 + 320 + 256), rel=1e-3), "a cone's, Euclid XII.10"
    wide = found.stations[0].along
    at = np.array([s.along for s in found.stations])
    radii = 20 - 4 * at / 100 if areas(found)[0] > areas(found)[-1] else 16 + 4 * at / 100
    assert areas(found) == pytest.approx(np.pi * radii**2, rel=1.5e-3) and wide < 2


@pytest.mark.parametrize("cap", [False, True])
def test_an_elbow_by_pappus(cap: bool) -> None:
    """Pappus: the volume is the section times the way of its centroid."""
    found = measure(*elbow(35, 18, cap=cap))
    way = np.pi / 2 * 35
    assert found.volume == pytest.approx(np.pi * 18**2 * way, rel=1e-3)
    assert areas(found) == pytest.approx(np.pi * 18**2, rel=1e-3)
    assert found.length == pytest.approx(way, rel=1e-3)
    assert found.floor == pytest.approx(np.pi / 2 * 17, rel=2e-3) and found.roof == pytest.approx(
        np.pi / 2 * 53, rel=2e-3
    )
    assert found.picks["short_side"].radius == pytest.approx(17, abs=0.1)
    assert np.degrees(found.turning) == pytest.approx(90, abs=0.12)


def test_a_tight_elbow() -> None:
    found = measure(*elbow(23, 18))
    assert areas(found) == pytest.approx(np.pi * 18**2, rel=4e-3)
    assert not found.march.crossing
    assert found.picks["short_side"].radius == pytest.approx(5, abs=0.3)


SEEDS = (1,), (0, 1)  # a sharp one is less sure


@pytest.mark.parametrize(("inner", "low", "high"), [(17.6, 17.0, 18.2), (9.95, 9.4, 10.7), (5.3, 5.0, 6.4)])
def test_the_short_side_through_noise(inner: float, low: float, high: float) -> None:
    body = elbow(inner + 18, 18, run=45, turn=1.2)
    radii = [measure(*scanned(*body, seed=s, noise=0.05)).picks["short_side"].radius for s in SEEDS[inner < 6]]
    assert low <= np.mean([r for r in radii if r is not None]) <= high


def test_sharper_than_four_is_only_known_to_be() -> None:
    found = measure(*elbow(20, 18, run=45, turn=1.2))
    assert found.picks["short_side"].radius == 4 and "The short side's radius is under 4 mm." in found.notes


def held(body: Body) -> float:
    """Volume inside a tube of 132 columns, its ends closed with fans: the divergence theorem."""
    points, faces = body
    ends = (points[:132], points[-132:])
    volume = float(np.einsum("ij,ij->", points[faces[:, 0]], np.cross(points[faces[:, 1]], points[faces[:, 2]])) / 6)
    for ring, sign in zip(ends, (1, -1), strict=True):
        middle = np.tile(ring.mean(axis=0), (132, 1))
        volume += sign * float(np.einsum("ij,ij->", middle, np.cross(ring, np.roll(ring, -1, axis=0)))) / 6
    return abs(volume)


@pytest.mark.parametrize("twist", [0.0, 12.0], ids=["in a plane", "out of it"])
def test_a_swept_port_in_any_pose_with_holes_and_flipped_faces(twist: float) -> None:
    port = surface(ScannedPort(twist=twist))
    clean = measure(*port)
    assert clean.volume == pytest.approx(held(port), rel=1e-3)
    rough = measure(*scanned(*port, seed=5, noise=0.05, holes=6, flipped=0.1))
    assert rough.volume == pytest.approx(held(port), rel=1e-3)
    at = np.array([s.along for s in clean.stations])
    there = np.array([s.along for s in rough.stations])
    assert areas(rough) == pytest.approx(np.interp(there, at, areas(clean)), rel=8e-3)
    assert rough.length == pytest.approx(clean.length, rel=1e-3)
    assert rough.noise == pytest.approx(0.05, rel=0.25)
    assert rough.picks["throat"].diameter == pytest.approx(clean.picks["throat"].diameter, abs=0.06)
    assert rough.picks["pinch"].area == pytest.approx(clean.picks["pinch"].area, rel=3e-3)
    assert np.degrees(abs(rough.turning - clean.turning)) < 0.12


def test_a_double_bend() -> None:
    """Two quarter bends the opposite way: Pappus for each."""
    t = np.linspace(0, np.pi / 2, 110)
    line = np.vstack([
        np.stack([40 * np.sin(t), 40 * (1 - np.cos(t)), 0 * t], axis=1),
        np.stack([80 - 40 * np.cos(t[1:]), 40 + 40 * np.sin(t[1:]), 0 * t[1:]], axis=1),
    ])  # fmt: skip
    ahead = np.gradient(line, axis=0)
    ahead /= np.linalg.norm(ahead, axis=1)[:, None]
    aside = np.cross([0.0, 0, 1], ahead)
    found = measure(*tube(line, aside, np.tile([0.0, 0, 1], (len(line), 1)), np.full(len(line), 15.0)))
    assert found.volume == pytest.approx(np.pi * 225 * np.pi * 40, rel=1.5e-3)
    assert found.length == pytest.approx(np.pi * 40, rel=1.5e-3)


def test_a_mould_that_goes_on_past_its_end_is_cut_where_it_is_clicked() -> None:
    body = elbow(40, 16, run=60, turn=1.2)
    found = measure(*body, clicks=(np.array([20.0, 16.0, 0.0]), None))
    assert found.length == pytest.approx(40 + 40 * 1.2, rel=0.02)


@cache
def untouched() -> Measured:
    return measure(*scanned(*surface(ScannedPort()), seed=1))


PORT = ScannedPort()


def coarse(port: ScannedPort = PORT) -> Body:
    """Where figures are not what is asked: a third of the triangles."""
    return surface(port, rows=90, columns=80)


@cache
def cut(depth: float) -> Taken:
    after = replace(ScannedPort(), worked=(Worked(0.72, 0.95, 0.0, 0.9, depth),) if depth else ())
    return compare(untouched(), measure(*scanned(*surface(after), seed=2)))


def taken(found: Scanned) -> Taken:
    assert found.taken is not None
    return found.taken


@pytest.mark.parametrize("depth", [0.5, 0.2, 0.1, 0.05])
def test_what_was_cut_is_found_where_it_was_cut(depth: float, long: bool) -> None:
    if not long and depth in (0.2, 0.05):
        pytest.skip("under --long")
    found = cut(depth)
    by = {(p.place, p.side): p for p in found.places}
    short = by["short side", "floor"]
    assert short.depth == pytest.approx(depth, abs=0.025) and short.u <= 0.03
    for where, place in by.items():
        if where not in (("short side", "floor"), ("throat", "floor")):
            assert abs(place.depth) <= place.u, where
    truth = held(surface(replace(ScannedPort(), worked=(Worked(0.72, 0.95, 0.0, 0.9, depth),)))) - held(
        surface(ScannedPort())
    )
    assert found.volume == pytest.approx(truth, abs=max(found.u_volume, 0.1 * truth))
    assert found.kept > 0.9 and found.scale == pytest.approx(1, abs=3e-4)


def test_where_nothing_was_cut_nothing_is_found() -> None:
    found = cut(0.0)
    assert found.detection <= 0.03
    assert all(abs(p.depth) <= p.u for p in found.places)
    assert abs(found.volume) <= found.u_volume


def test_one_file_twice_is_said() -> None:
    assert any("one file twice" in n for n in compare(untouched(), untouched()).notes)


def test_the_port_of_the_other_hand_is_offered_mirrored(long: bool) -> None:
    if not long:
        pytest.skip("under --long")
    port = ScannedPort(twist=14.0)
    points, faces = scanned(*coarse(port), seed=2)
    other = scan_of(points * [1.0, -1.0, 1.0], faces, ScanAsked(unit="mm"), before=scanned(*coarse(port), seed=1))
    assert any("the other hand" in n for n in other.notes), (other.notes, taken(other).kept)
    assert taken(other).kept > 0.9 and abs(taken(other).volume) <= taken(other).u_volume


@pytest.mark.parametrize(
    ("text", "low", "high"),
    [("64-98", 64, 98), ("64-98mm", 64, 98), ("64 mm - 98 mm", 64, 98), ("2-3in", 50.8, 76.2), ("0–40", 0, 40)],
)
def test_a_stretch_as_it_is_typed(text: str, low: float, high: float) -> None:
    assert stretch_typed(text) == pytest.approx((low, high))
    assert stretch_typed("2.5-3.9", "in") == pytest.approx((63.5, 99.06)), "bare figures are the shop's"


@pytest.mark.parametrize("text", ["64", "64-66", "98-64", "a-b", "-", "64-", "10-9999"])
def test_no_stretch_is_refused(text: str) -> None:
    with pytest.raises(Refused):
        stretch_typed(text)


def test_a_mould_that_shrank_is_said() -> None:
    points, faces = scanned(*surface(ScannedPort()), seed=2)
    found = compare(untouched(), measure(points * 0.996, faces))
    assert found.scale == pytest.approx(0.996, abs=0.001)
    assert any("has shrunk" in n for n in found.notes)


def test_a_whole_worked_runner_asks_which_stretch_was_left_alone() -> None:
    every = tuple(Worked(0.05, 0.7, a, 1.2, 0.5) for a in (0.0, np.pi))
    worked = measure(*scanned(*surface(replace(ScannedPort(), worked=every)), seed=2))
    blind, named = compare(untouched(), worked), compare(untouched(), worked, left_alone=(72, 94))
    assert any("which stretch you left alone" in n for n in blind.notes)
    floor = next(p for p in named.places if (p.place, p.side) == ("floor", "floor"))
    assert floor.depth == pytest.approx(0.5, abs=0.05)


@pytest.mark.parametrize(("unit", "mm"), [("mm", 1.0), ("in", 25.4), ("m", 1000.0)])
def test_its_unit_is_told_by_a_size_that_is_known(unit: str, mm: float) -> None:
    points, faces = scanned(*surface(ScannedPort()), seed=3)
    found = scan_of(points / mm, faces, ScanAsked(known=KnownSize("throat", 0.0349)))
    assert found.unit == unit and found.measured.volume == pytest.approx(held(surface(ScannedPort())), rel=1e-3)


def test_centimetres_pass_for_inches_and_are_caught_by_the_known_size() -> None:
    points, faces = scanned(*coarse(), seed=3)
    with pytest.raises(Refused, match="centimeters"):
        scan_of(points / 10, faces, ScanAsked(known=KnownSize("throat", 0.0349)))


def test_what_cannot_be_measured_says_why() -> None:
    port = surface(ScannedPort())
    apart = joined([port, (port[0] + [200.0, 0, 0], port[1])])
    with pytest.raises(Refused, match="in pieces"):
        measure(*apart)
    angles = np.linspace(0, np.pi, 60)
    ball = 30 * np.stack([np.cos(angles), 0 * angles, 0 * angles], axis=1)
    wide = np.tile([0.0, 1, 0], (60, 1)), np.tile([0.0, 0, 1], (60, 1))
    with pytest.raises(Refused, match="click them"):
        measure(*tube(ball, *wide, np.maximum(30 * np.sin(angles), 1e-3), around=64))
    with pytest.raises(Refused, match=r"no surface|no size"):
        measure(np.zeros((3, 3)), np.array([[0, 1, 2]]))


def test_the_opening_is_its_outline_in_the_faces_own_axes() -> None:
    round_one = opening_outline(measure(*elbow(35, 18)))
    assert np.hypot(*round_one.T) == pytest.approx(18, abs=0.1), "a circle about its own middle"
    swept = opening_outline(untouched())
    assert np.ptp(swept, axis=0) == pytest.approx((31, 42), rel=0.01), "as wide and high as the simulator's opening"
    x, y = swept.T
    assert 0.5 * float(np.sum(x * np.roll(y, -1) - np.roll(x, -1) * y)) > 0, "counter-clockwise"


def test_two_ports_are_held_against_each_other_by_all_of_their_surface() -> None:
    wider = ScannedPort(widths=tuple(w + 0.2 for w in ScannedPort().widths))
    model, other = (scanned(*coarse(p), seed=s) for p, s in ((ScannedPort(), 1), (wider, 2)))
    asked = ScanAsked(unit="mm")
    found = ports_held((model, asked), (other, asked), mirrored=False)
    sides = {p.side: p.depth for p in found.places if p.place == "opening"}
    assert (sides["left"], sides["right"]) == pytest.approx((0.1, 0.1), abs=0.03), "a tenth to either side"
    assert (sides["roof"], sides["floor"]) == pytest.approx((0.0, 0.0), abs=0.03)


def test_what_a_document_says_of_a_scan_is_not_believed_blindly() -> None:
    with pytest.raises(Refused, match="its unit is 'cm'"):
        measured_again(coarse(), asked_of(Scan(id="s", file="a.stl", unit="cm")))
    assert asked_of(Scan(id="s", file="a.stl", face_at=(1.0, 2.0))).clicks == (None, None), "half a point is none"


def test_ends_that_were_clicked_the_other_way_round_are_asked_about() -> None:
    points, faces = scanned(*coarse(), seed=5, moved=False)
    rim = points[0], points[-1]
    right, wrong = (measure(points, faces, pair).notes for pair in (rim, rim[::-1]))
    assert not any("swapped" in note for note in right) and any("swapped" in note for note in wrong)


@pytest.mark.parametrize("seed", [0, 1])
def test_a_hole_is_closed_as_the_ring_runs_beside_it(seed: int) -> None:
    whole = measure(*surface(ScannedPort()))
    found = measure(*scanned(*surface(ScannedPort()), seed=seed, holes=1, hole=20.0))
    at = [s.along for s in found.stations]
    off = areas(found) / np.interp(at, [s.along for s in whole.stations], areas(whole)) - 1
    assert np.abs(off).max() < 0.016, "a chord would cut off five in a hundred"
    assert any("a hole" in note for note in found.notes)
