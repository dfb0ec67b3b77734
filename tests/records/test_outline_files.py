"""Outlines from drawings: every kind of curve, inches and millimetres, pieces laid end to end, and what is refused."""

from __future__ import annotations

from pathlib import Path

import ezdxf
import numpy as np
import pytest
from shapely.geometry import Polygon

from ventrix.records.bad_input import InputError
from ventrix.records.files.outline_files import read_outlines


def area_mm2(points: list[tuple[float, float]]) -> float:
    return float(Polygon(points).area) * 1e6


def drawing(path: Path, unit: int = 4) -> Path:
    """A square of lines, a slot of lines and arcs, a circle, a rounded rectangle with bulges, a closed spline."""
    document = ezdxf.new(units=unit)
    space = document.modelspace()
    k = 1.0 if unit == 4 else 1 / 25.4

    def at(x: float, y: float) -> tuple[float, float]:
        return x * k, y * k

    corners = [(-100, 0), (-70, 0), (-70, 40), (-100, 40)]
    for a, b in zip(corners, corners[1:] + corners[:1], strict=True):
        space.add_line(at(*b), at(*a))  # some backwards: ends are joined as they lie
    space.add_line(at(-50, 0), at(-50, 20))
    space.add_line(at(-30, 0), at(-30, 20))
    space.add_arc(at(-40, 20), 10 * k, 0, 180)
    space.add_arc(at(-40, 0), 10 * k, 180, 360)
    space.add_circle(at(0, 10), 15 * k)
    bulge = np.tan(np.pi / 8)
    rounded = [(36, 0, 0), (64, 0, bulge), (70, 6, 0), (70, 34, bulge), (64, 40, 0), (36, 40, bulge), (30, 34, 0),
               (30, 6, bulge)]  # fmt: skip
    space.add_lwpolyline([(x * k, y * k, b) for x, y, b in rounded], format="xyb", close=True)
    t = np.linspace(0, 2 * np.pi, 25)[:-1]
    ring = [(*at(100 + 12 * c, 10 + 12 * s), 0.0) for c, s in zip(np.cos(t), np.sin(t), strict=True)]
    space.add_spline([*ring, ring[0]])
    space.add_text("not a curve").set_placement(at(0, 60))
    document.saveas(path)
    return path


@pytest.mark.parametrize("unit", [4, 1])
def test_a_dxf_comes_in_left_to_right_in_its_own_unit(tmp_path: Path, unit: int) -> None:
    """Areas by closed forms; chords lie inside their curves by a fiftieth of a millimetre."""
    found = [area_mm2(c) for c in read_outlines(drawing(tmp_path / "head.dxf", unit))]
    exact = [30 * 40, 20 * 20 + np.pi * 100, np.pi * 225, 40 * 40 - (4 - np.pi) * 36, np.pi * 144]
    assert found == pytest.approx(exact, rel=6e-3)


def test_an_svg_comes_in_with_y_upwards(tmp_path: Path) -> None:
    """96 of a user unit are an inch (SVG 1.1, section 7.10); a path, a circle and a rounded rectangle."""
    path = tmp_path / "gasket.svg"
    path.write_text(
        '<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="100mm" viewBox="0 0 200 100">'
        '<rect x="10" y="20" width="30" height="40" rx="6" ry="6"/><circle cx="80" cy="40" r="15"/>'
        '<path d="M120 20 L150 20 L150 60 L120 60 Z"/><path d="M160 20 L190 20"/></svg>',
        encoding="utf-8",
    )
    found = read_outlines(path)
    assert [area_mm2(c) for c in found] == pytest.approx([30 * 40 - (4 - np.pi) * 36, np.pi * 225, 1200], rel=5e-3)
    assert all(y < 0 for _, y in found[0]), "down on the page is down on the face"


@pytest.mark.parametrize(
    ("name", "data", "words"),
    [
        ("a.txt", b"x", "not a drawing that is read"),
        ("a.dxf", b"this is no drawing at all", "holds no closed curve|not a DXF that can be read"),
        ("a.dxf", b"\x00\x01\x02" * 50, "holds no closed curve|not a DXF that can be read"),
        ("a.svg", b"<svg><path d='M0 0", "not an SVG that can be read"),
        ("a.svg", b"<svg xmlns='http://www.w3.org/2000/svg'><path d='M0 0 L5 5'/></svg>", "no closed curve"),
        (
            "a.svg",
            b"<!DOCTYPE svg [<!ENTITY e SYSTEM 'file:///etc/passwd'>]><svg>&e;</svg>",
            "not an SVG that can be read",
        ),
    ],
)
def test_what_is_no_drawing_is_refused_with_a_sentence(tmp_path: Path, name: str, data: bytes, words: str) -> None:
    path = tmp_path / name
    path.write_bytes(data)
    with pytest.raises(InputError, match=words):
        read_outlines(path)


def test_a_drawing_in_miles_is_refused(tmp_path: Path) -> None:
    document = ezdxf.new(units=3)
    document.modelspace().add_circle((0, 0), 1)
    document.saveas(tmp_path / "far.dxf")
    with pytest.raises(InputError, match="inches or millimeters"):
        read_outlines(tmp_path / "far.dxf")
