"""A scan through the real window: measured beside what was typed, taken over in one step, kept by what is in it."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import pytest

from tests.ui.stand_in import Open
from ventrix.bench.simulator.scans import ScannedPort, Worked, scanned, surface
from ventrix.core.model.cut import carried_figure
from ventrix.core.quantity.units import to_si
from ventrix.records.files.job_folder import photos_of
from ventrix.records.files.mesh_files import stl_bytes
from ventrix.ui.cuts.scan_sheet import ScanSheet

PORT = ScannedPort()


def mesh(path: Path, port: ScannedPort, seed: int, unit: float = 1.0) -> Path:
    points, faces = scanned(*surface(port, rows=110, columns=96), seed=seed)
    path.write_bytes(stl_bytes(points / unit, faces))
    return path


def measured(sheet: ScanSheet, qtbot, path: Path) -> None:  # type: ignore[no-untyped-def]
    sheet.take_file(path)
    sheet.measure_button.click()
    assert not sheet.work.isHidden(), sheet.problem.text()
    qtbot.waitUntil(lambda: sheet.found is not None or bool(sheet.problem.text()), timeout=90_000)


def test_a_scan_is_measured_taken_over_and_held_against_the_next(open_window: Open, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    space = window.open_book.workspace
    assert space is not None and space.port is not None
    space.look_at(space.port.cuts[1].id)
    window.open_sheet("scan")
    sheet = window.sheets["scan"]
    assert isinstance(sheet, ScanSheet)
    sheet.measure_button.click()
    assert "Choose a scan first" in sheet.problem.text()
    sheet.take_file(mesh(tmp_path / "two.stl", PORT, 1))
    sheet.measure_button.click()
    assert "one size that you know" in sheet.problem.text()
    sheet.known_size.set_value(to_si(34.9, "mm"))
    measured(sheet, qtbot, sheet.path or tmp_path)
    assert sheet.problem.text() == "" and sheet.found is not None and sheet.found.unit == "mm"
    assert "measures 1.37" in sheet.said.text(), "in the shop's inches"
    throat = sheet._boxes["throat_diameter"]
    assert "typed" in throat.text() and throat.isChecked(), "it differs from the demo's own: taken unless unticked"
    sheet._boxes["bowl_diameter"].setChecked(False)
    bowl = carried_figure(space.port, space.port.cuts[1], "bowl_diameter")
    sheet.take_button.click()
    cut = space.port.cuts[1]
    assert cut.throat_diameter == pytest.approx(to_si(34.9, "mm"), abs=to_si(0.1, "mm"))
    assert carried_figure(space.port, cut, "bowl_diameter") == bowl, "what was not ticked stays"
    assert any(p.how == "scan" for p in cut.pours) and sum(s.name.startswith("scan") for s in cut.stations) == 9
    files, missing = photos_of(space.job, space.book.photo_folder)
    assert cut.scans[-1].file in files and cut.scans[-1].file not in missing

    space.look_at(space.port.cuts[2].id)
    window.open_sheet("scan")
    sheet.known_size.set_value(to_si(34.9, "mm"))
    sheet.before.setCurrentIndex(2)  # after the demo's own scan of that cut
    worked = replace(PORT, worked=(Worked(0.72, 0.95, 0.0, 0.9, 0.5),))
    measured(sheet, qtbot, mesh(tmp_path / "three.stl", worked, 2))
    assert "short side, floor" in sheet.said.text(), sheet.problem.text()
    assert sheet.taken_map.isVisibleTo(sheet) and "most" in sheet.taken_map.accessibleDescription()
    works = {w.place: w for op in space.port.cuts[2].operations for w in op.works}
    box = next(box for key, box in sheet._boxes.items() if key == f"depth of {works['short side'].id}")
    assert "Short side" in box.text() and "taken off" in box.text()
    box.setChecked(True)
    sheet.take_button.click()
    (dug,) = (w for op in space.port.cuts[2].operations for w in op.works if w.place == "short side")
    assert dug.depth == pytest.approx(to_si(0.5, "mm"), abs=to_si(0.1, "mm")), "half a millimetre was ground"
    window.open_book.workspace.undo()  # type: ignore[union-attr]
    (told,) = (w for op in space.port.cuts[2].operations for w in op.works if w.place == "short side")
    assert told.depth == works["short side"].depth and len(space.port.cuts[2].scans) == 1

    window.open_book.workspace.undo()  # type: ignore[union-attr]
    assert len(space.port.cuts[1].scans) == 1 and not any(p.how == "scan" for p in space.port.cuts[1].pours), "one step"


def test_what_is_no_scan_is_said_and_stop_lets_go(open_window: Open, qtbot, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    window = open_window()
    window.open_sheet("scan")
    sheet = window.sheets["scan"]
    sheet.unit.setCurrentIndex(1)
    nothing = tmp_path / "nothing.ply"
    nothing.write_bytes(b"ply\nformat ascii 1.0\n")
    measured(sheet, qtbot, nothing)
    assert "header has no end" in sheet.problem.text() and sheet.found is None
    sheet.alone.setText("64")
    sheet.measure_button.click()
    assert "64-98" in sheet.problem.text()
    sheet.alone.clear()
    sheet.take_file(mesh(tmp_path / "port.stl", PORT, 1))
    sheet.measure_button.click()
    sheet.work.stop_button.click()
    assert sheet.measure_button.isEnabled() and sheet.found is None
