"""Scans elsewhere than at their cut: turned and clicked, the demo's own on map, card and sheet, two ports held against
each other in Match, an opening's outline in Line-up."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from pathlib import Path

import numpy as np
import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QLabel

from tests.ui.stand_in import Open
from ventrix.bench.simulator.scans import ScannedPort, Worked, scanned, surface
from ventrix.core.lineup.outlines import polygon_of
from ventrix.core.model.cut import Port
from ventrix.core.model.scan import Scan
from ventrix.core.quantity.units import to_si
from ventrix.records.files.mesh_files import stl_bytes
from ventrix.records.files.photos import keep_file
from ventrix.reports.sheet.contents import Choices, Shop
from ventrix.rooms.display_units import US
from ventrix.rooms.sheet.contents import Asked, sheet_of
from ventrix.ui.cuts.scan_sheet import ScanSheet
from ventrix.ui.lineup.face_sheet import FaceSheet
from ventrix.ui.match.scan_match_sheet import ScanMatchSheet

PORT = ScannedPort()


def stl(port: ScannedPort, seed: int, *, mirrored: bool = False) -> bytes:
    points, faces = scanned(*surface(port, rows=90, columns=80), seed=seed)
    return stl_bytes(points * ([-1, 1, 1] if mirrored else 1), faces)


def test_a_scan_is_turned_and_its_ends_are_clicked_by_mouse_and_by_key(
    open_window: Open, qtbot, tmp_path: Path
) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    window.open_sheet("scan")
    sheet = window.sheets["scan"]
    assert isinstance(sheet, ScanSheet)
    path = tmp_path / "port.stl"
    points, faces = scanned(*surface(PORT, rows=90, columns=80), seed=3, moved=False)
    path.write_bytes(stl_bytes(points, faces))
    sheet.take_file(path)
    qtbot.waitUntil(lambda: sheet.mesh is not None, timeout=20_000)
    view = sheet.view
    before = view._turn
    QTest.mousePress(view, Qt.MouseButton.LeftButton, pos=QPoint(100, 90))
    QTest.mouseMove(view, QPoint(160, 120))
    QTest.mouseRelease(view, Qt.MouseButton.LeftButton, pos=QPoint(160, 120))
    assert not np.allclose(view._turn, before), "dragged, it turns"
    QTest.mouseClick(view, Qt.MouseButton.LeftButton, pos=QPoint(20, view.height() - 40))
    assert np.allclose(view._turn, before), "a silhouette is clicked: seen from there"

    face, seat = sheet.click_buttons.values()
    face.click()
    seen = view._looked_at()
    assert seen is not None
    ends = {name: points[np.abs(points[:, 0] - at) < 2].mean(axis=0) for name, at in (("face", 0.0),)}
    rim = points[(np.abs(points[:, 0]) < 1) & (points[:, 2] > ends["face"][2] + 15)][0]
    x, y = seen.place(rim)
    QTest.mouseClick(view, Qt.MouseButton.LeftButton, pos=QPoint(round(x), round(y)))
    assert np.linalg.norm(sheet._clicks["the face"] - rim) < 8 and "clicked" in face.text()
    assert view.accessibleDescription() == "the face clicked"
    seat.click()
    assert view.asking == "the seat" and view.hasFocus()
    QTest.keyClick(view, Qt.Key.Key_Right)
    QTest.keyClick(view, Qt.Key.Key_Return)
    assert "the seat" in sheet._clicks and not view.asking
    seat.click()
    assert "the seat" not in sheet._clicks, "clicked again it is let go of"
    sheet.unit.setCurrentIndex(1)
    sheet.measure_button.click()
    qtbot.waitUntil(lambda: sheet.found is not None or bool(sheet.problem.text()), timeout=90_000)
    assert sheet.found is not None
    assert sheet.found.measured.face.centre[0] == pytest.approx(0, abs=2), "the end that was clicked is the face"
    sheet.take_button.click()
    space = window.open_book.workspace
    assert space is not None and space.real_cut is not None
    kept = space.real_cut.scans[-1]
    assert len(kept.face_at) == 3 and kept.seat_at == ()


def test_the_demo_head_shows_what_its_scans_found(open_window: Open) -> None:
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    cut = space.job.ports[0].cuts[2]
    space.look_at(cut.id)
    window.go_to_named("cuts")
    room = window.rooms["cuts"]
    card = [label.text() for label in room.findChildren(QLabel)]
    assert any("taken off" in words for words in card) and any("0.039 told" in words for words in card)
    told = {w.place: w.depth for op in cut.operations for w in op.works}
    found = {p.place: p for p in cut.scans[0].places}
    assert (found["short side"].depth or 0) > (told["short side"] or 0) + 2 * (found["short side"].uncertainty or 0)
    picture = room.map.picture  # type: ignore[attr-defined]
    assert picture.taken is not None and picture.taken.deepest > to_si(1.0, "mm")
    unworked = [d for a, d in zip(picture.taken.along, picture.taken.depths["roof"], strict=True) if a < 0.05]
    assert max(abs(d) for d in unworked if d is not None) < to_si(0.05, "mm"), "the runner was left alone"
    port = space.job.ports[0]
    asked = Asked(port, port.cuts[1], cut, Choices(), Shop(), date(2026, 12, 2))
    sheet = sheet_of(space.findings, asked, US)
    assert sheet.scan is not None and "by scan" in sheet.scan.lines[0] and len(sheet.scan.sections) == 2


@pytest.fixture
def scanned_ports(open_window: Open):  # type: ignore[no-untyped-def]
    """The demo's window with a scan at the last cut of intake 1, and one of another hand, larger at its short side, at
    intake 4."""
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    larger = replace(PORT, worked=(Worked(0.72, 0.95, 0.0, 0.9, 0.4),))
    files = [stl(PORT, 1), stl(larger, 2, mirrored=True)]
    names = [keep_file(space.book.photo_folder, data, ".stl", "a scan") for data in files]

    def with_scan(port: Port, name: str, **more: str) -> Port:
        last = replace(port.cuts[-1], scans=(Scan(id=f"{port.id}-scan", file=name),))
        return replace(port, cuts=(*port.cuts[:-1], last), **more)  # type: ignore[arg-type]

    ports = {p.name: p for p in space.job.ports}
    ports["Intake 1"] = with_scan(ports["Intake 1"], names[0])
    ports["Intake 4"] = with_scan(ports["Intake 4"], names[1], mirror_of=ports["Intake 1"].id)
    space.apply("scans", replace(space.job, ports=tuple(ports.values())))
    return window


def test_match_holds_two_ports_against_each_other_the_mirrored_one_mirrored_first(scanned_ports, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = scanned_ports
    space = window.open_book.workspace
    space.look_at_port(next(p.id for p in space.job.ports if p.name == "Intake 4"))
    window.go_to_named("match")
    window.open_sheet("scan_match")
    sheet = window.sheets["scan_match"]
    assert isinstance(sheet, ScanMatchSheet)
    assert sheet.model.currentText().startswith("Intake 1") and sheet.other.currentText().startswith("Intake 4")
    sheet.other.setCurrentIndex(sheet.model.currentIndex())
    sheet.take_button.click()
    assert "twice" in sheet.problem.text()
    sheet.other.setCurrentIndex(sheet.other.count() - 1)
    sheet.take_button.click()
    qtbot.waitUntil(lambda: bool(sheet.said.text()) or bool(sheet.problem.text()), timeout=90_000)
    lines = sheet.said.text().splitlines()
    assert "mirrored first" in lines[0], sheet.problem.text()
    assert lines[1].startswith("short side, floor") and "larger" in lines[1]
    assert float(lines[1].split(": ")[1].split()[0]) * 25.4 == pytest.approx(0.4, abs=0.06), "ground by 0.4 mm"
    assert sheet.taken_map.isVisibleTo(sheet)


def test_a_kept_scan_that_is_gone_is_said(scanned_ports, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = scanned_ports
    for file in window.open_book.workspace.book.photo_folder.glob("*.stl"):
        file.unlink()
    window.open_sheet("scan_match")
    sheet = window.sheets["scan_match"]
    sheet.take_button.click()
    qtbot.waitUntil(lambda: bool(sheet.problem.text()), timeout=20_000)
    assert sheet.problem.text().startswith("The scan of Intake 1, cut 3 is not in the book's folder any more")


def test_line_up_takes_an_openings_outline_from_the_scan(scanned_ports, qtbot) -> None:  # type: ignore[no-untyped-def]
    window = scanned_ports
    window.go_to_named("lineup")
    window.open_sheet("face")
    sheet = window.sheets["face"]
    assert isinstance(sheet, FaceSheet)
    sheet.from_scans.click()
    assert "Name the ports first" in sheet.problem.text()
    sheet.name.setText("by scan")
    sheet.ports.setText("Intake 1 0 0; Exhaust 1 4 0")
    sheet.wide.set_value(to_si(30, "mm"))
    sheet.high.set_value(to_si(30, "mm"))
    sheet.from_scans.click()
    qtbot.waitUntil(lambda: bool(sheet.warning.text()) or bool(sheet.problem.text()), timeout=90_000)
    assert "Intake 1: by scan" in sheet.warning.text(), sheet.problem.text()
    sheet.take_button.click()
    face = next(f for f in window.open_book.workspace.job.faces if f.name == "by scan")
    outline = polygon_of(face.outlines[0])
    left, low, right, high = outline.bounds
    assert face.source == "scan" and face.outlines[1].shape != "polygon", "a port that was not scanned has its sizes"
    assert (right - left, high - low) == pytest.approx((to_si(31, "mm"), to_si(42, "mm")), rel=0.01)


def test_head_tells_a_lengths_scan_beside_what_is_typed(open_window: Open) -> None:
    window = open_window()
    space = window.open_book.workspace
    assert space is not None
    space.look_at(space.job.ports[0].cuts[2].id)
    window.go_to_named("head")
    box = window.rooms["head"].fields["throat_diameter"].box  # type: ignore[attr-defined]
    assert box.property("scanned") and not box.property("carried") and "a scan has 1.6" in box.toolTip()
    space.look_at(space.job.ports[0].cuts[3].id)
    assert not box.property("scanned")
