"""A scan of the port: a mesh file measured in a thread, beside what was typed, taken over figure by figure."""

from __future__ import annotations

from pathlib import Path
from threading import Event
from typing import Final

from PySide6.QtCore import Signal
from PySide6.QtGui import QDragEnterEvent, QDropEvent
from PySide6.QtWidgets import (
    QCheckBox,
    QFileDialog,
    QLabel,
    QProgressBar,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from ventrix.core.edits.cuts import BY_SCAN, take_scan
from ventrix.core.model.cut import Cut, Port, Pour, Scan
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si
from ventrix.core.quantity.words import sentence
from ventrix.core.scan.march import Said
from ventrix.core.scan.scanned import ScanAsked, Scanned, scan_of
from ventrix.core.scan.unit import SIZES, UNITS, KnownSize, stretch_typed
from ventrix.records.files.mesh_files import KINDS, MeshData, read_mesh
from ventrix.records.files.photos import keep_mesh
from ventrix.rooms.cuts.scan_rows import DEPTH, VOLUME, ScanRow, depth_rows, scan_rows, stations_of, taken_lines
from ventrix.ui.cuts.scan_view import ScanView
from ventrix.ui.cuts.taken_map import TakenMap
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.planner import Planner
from ventrix.workspace.ids import new_id, now_text

MESHES: Final = f"Scans ({' '.join('*' + kind for kind in KINDS)})"


class ScanSheet(FormSheet):
    """Measures one mesh, and what came off since an earlier one of this port."""

    went_on = Signal(float)

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, "Take the ticked figures", width=420)
        self.setAcceptDrops(True)
        self.path: Path | None = None
        self.found: Scanned | None = None
        self._cut: Cut | None = None
        self._held_against = ""
        self.choose = QPushButton("Choose a scan, or drop one here…")
        self.choose.clicked.connect(self.choose_file)
        self.column.addWidget(self.choose)
        self.unit = self.add_choice("Unit of the file", [("by the size you know", ""), *((u, u) for u in UNITS)])
        self.known = self.add_choice("A size you know", [(name, name) for name in SIZES])
        self.known_size = self.add_figure("… is", "length")
        self.guide = self.add_figure("Guide bore, where the guide stands in it", "length")
        self.far = self.add_check("the seat is the other end")
        self.before = self.add_choice("Hold it against", [("nothing", "")])
        self.alone = self.add_text("Left alone, mm from the opening", "64-98")
        self.measure_button = QPushButton("Measure it")
        self.measure_button.clicked.connect(self.measure)
        self.column.addWidget(self.measure_button)
        self.progress = QProgressBar()
        self.progress.setRange(0, 100)
        self.progress.setAccessibleName("How far the measuring is")
        self.stop_button = QPushButton("Stop")
        self.stop_button.clicked.connect(self.stop)
        self.view = ScanView()
        self.taken_map = TakenMap()
        self.said = QLabel()
        self.said.setWordWrap(True)
        self.rows = QWidget()
        self._boxes: dict[str, QCheckBox] = {}
        self._lines = QVBoxLayout(self.rows)
        self._lines.setContentsMargins(0, 0, 0, 0)
        for each in (self.progress, self.stop_button, self.view, self.taken_map, self.said, self.rows):
            self.column.addWidget(each)
        self.finish()
        self.caution.setText(
            "A scan sees the air's side alone: what is left of a wall only a gauge reads. One size measured by hand "
            "keeps inches and millimetres apart."
        )
        self._planner = Planner()
        self._planner.planned.connect(self._took)
        self._stopped = Event()
        self.went_on.connect(lambda share: self.progress.setValue(round(100 * share)))
        self._show_busy(False)
        self._show_found(None)

    def open(self) -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or space.port is None:
            return
        self.begin_about(space.real_cut.id)
        if self._cut is None or self._cut.id != space.real_cut.id:
            self.stop()  # what is being measured is of another cut
            self.path = None
            self._show_found(None)
        self._cut = space.real_cut
        self.title.setText(f"Scan of {space.port.name.lower()}, cut {space.real_cut.number}")
        self.before.clear()
        self.before.addItem("nothing", "")
        for cut in space.port.cuts:
            for scan in cut.scans:
                self.before.addItem(f"the scan of cut {cut.number}", f"{scan.file}|{scan.unit}")
        self._name_file()
        self.come_up()
        self.choose.setFocus()

    # -- the file

    def choose_file(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "A scan of the port", "", MESHES)
        if name:
            self.take_file(Path(name))

    def take_file(self, path: Path) -> None:
        """A mesh file to be measured."""
        self.path = path
        self._show_found(None)
        self.problem.clear()
        self._name_file()

    def _name_file(self) -> None:
        self.choose.setText(self.path.name if self.path is not None else "Choose a scan, or drop one here…")

    def dragEnterEvent(self, event: QDragEnterEvent) -> None:
        if any(u.toLocalFile().lower().endswith(KINDS) for u in event.mimeData().urls()):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent) -> None:
        self.take_file(Path(event.mimeData().urls()[0].toLocalFile()))

    # -- measuring

    def measure(self) -> None:
        """Read and measure, in a thread of its own."""
        space = self.open_book.workspace
        if space is None or not self.settle_fields():
            return
        if self.path is None:
            self.problem.setText("Choose a scan first: STL, PLY or OBJ.")
            return
        unit, size = str(self.unit.currentData()) or None, self.known_size.value
        if unit is None and size is None:
            self.problem.setText("Say the unit, or one size that you know.")
            self.known_size.box.setFocus()
            return
        try:
            asked = ScanAsked(
                unit,
                None if size is None else KnownSize(str(self.known.currentData()), size),
                guide_bore=None if self.guide.value is None else from_si(self.guide.value, "mm"),
                left_alone=stretch_typed(self.alone.text()) if self.alone.text().strip() else None,
                turned_round=self.far.isChecked(),
            )
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            self.alone.setFocus()
            return
        self.problem.clear()
        self._stopped = stopped = Event()
        path, earlier = self.path, str(self.before.currentData() or "")
        self._held_against = earlier
        folder = space.book.photo_folder

        def work() -> Scanned:
            mesh = read_mesh(path)
            before = None
            if earlier:
                file, unit_before = earlier.split("|")
                before = read_mesh(folder / file), unit_before
            return _measured(mesh, asked, before, self._told(stopped))

        self._show_busy(True)
        self._planner.ask(work)

    def _told(self, stopped: Event) -> Said:
        def said(share: float) -> None:
            if stopped.is_set():
                raise Refused("stopped")
            self.went_on.emit(share)

        return said

    def stop(self) -> None:
        """Let go of what is being measured."""
        self._stopped.set()
        self._planner.stop()
        self._show_busy(False)

    def close_workers(self) -> None:
        """Stop measuring, and wait for the thread to end."""
        self._stopped.set()
        self._planner.close()

    def _show_busy(self, on: bool) -> None:
        self.progress.setValue(0)
        self.progress.setVisible(on)
        self.stop_button.setVisible(on)
        self.measure_button.setEnabled(not on)

    def _took(self, found: object) -> None:
        self._show_busy(False)
        if isinstance(found, Scanned):
            self._show_found(found)
        else:
            self.problem.setText(sentence(str(found)))

    def _show_found(self, found: Scanned | None) -> None:
        """What was measured beside what was typed; those that were not typed, or differ, are ticked."""
        self.found = found
        while (item := self._lines.takeAt(0)) is not None:
            if (widget := item.widget()) is not None:
                widget.hide()
                widget.deleteLater()
        self._boxes.clear()
        self.view.setVisible(found is not None)
        self.taken_map.setVisible(found is not None and found.taken is not None)
        if found is None:
            self.said.clear()
            return
        if found.taken is not None:
            self.taken_map.show_taken(found.taken, self.open_book.units.length)
        units = self.open_book.units
        notes = [*found.notes, *found.measured.notes]
        lines = taken_lines(found.taken, units) if found.taken is not None else ()
        self.said.setText("\n".join([*lines, *notes]))
        self.view.show_scan(found.measured, units.area)
        for row in self._rows(found):
            self._boxes[row.key] = box = QCheckBox(_row_words(row))
            box.setChecked(row.typed is None or (row.differs and not _thickens(row)))
            self._lines.addWidget(box)
        self._boxes[STATIONS] = box = QCheckBox("Sections along the port, as stations")
        box.setChecked(True)
        self._lines.addWidget(box)

    def _rows(self, found: Scanned) -> tuple[ScanRow, ...]:
        """What was measured beside what stands now at the cut that it is of, whichever is looked at meanwhile."""
        space, wanted = self.open_book.workspace, self._cut
        ports = () if space is None or wanted is None else space.job.ports
        whose = next(((p, c) for p in ports for c in p.cuts if wanted is not None and c.id == wanted.id), None)
        if whose is None:
            return ()
        rows, units = scan_rows(*whose, found.measured, self.open_book.units), self.open_book.units
        alone = found.taken is not None and self._nothing_between(*whose)
        return (*depth_rows(whose[1], found.taken, units), *rows) if alone and found.taken is not None else rows

    def _nothing_between(self, port: Port, cut: Cut) -> bool:
        """Whether what came off between the two scans is this cut's alone."""
        earlier = self._held_against.split("|")[0]
        before = next((c for c in port.cuts if any(s.file == earlier for s in c.scans)), None)
        if before is None or before.number >= cut.number:
            return False
        return not any(c.operations for c in port.cuts if before.number < c.number < cut.number)

    def take(self) -> None:
        space, found = self.open_book.workspace, self.found
        if space is None or found is None or self.path is None or self._cut is None:
            self.problem.setText("Measure a scan first.")
            return
        rows = {row.key: row for row in self._rows(found)}
        if not rows:
            self.problem.setText("The cut that this scan is of is not there any more.")
            return
        ticked = [key for key, box in self._boxes.items() if box.isChecked() and key in rows]
        depths = {key.removeprefix(DEPTH): rows[key].scanned for key in ticked if key.startswith(DEPTH)}
        figures = {key: rows[key].scanned for key in ticked if key != VOLUME and not key.startswith(DEPTH)}
        pour = None
        if VOLUME in ticked:
            pour = Pour(id=new_id(), volume=rows[VOLUME].scanned, how=BY_SCAN, date=now_text())
        file = keep_mesh(space.book.photo_folder, self.path)
        known = (
            ""
            if self.known_size.value is None
            else f"{self.known.currentData()}={from_si(self.known_size.value, 'mm'):.2f}mm"
        )
        scan = Scan(
            id=new_id(), file=file, unit=found.unit, known=known, guide_bore=self.guide.value,
            seat_at_far_end=self.far.isChecked(), date=now_text(),
        )  # fmt: skip
        stations = stations_of(found.measured, new_id) if self._boxes[STATIONS].isChecked() else ()
        job = take_scan(space.job, self._cut.id, scan, figures, stations, pour, depths)
        space.apply(f"scan of cut {self._cut.number}, {len(ticked)} figures", job)
        self.path = None
        self._show_found(None)
        self.clear_fields()
        self.closed.emit()


STATIONS: Final = "stations"


def _thickens(row: ScanRow) -> bool:
    """A pass that by the scan took less than was told leaves a thicker wall: that is for the porter to tick."""
    return row.key.startswith(DEPTH) and row.typed is not None and row.scanned < row.typed


def _row_words(row: ScanRow) -> str:
    typed = "not typed" if row.typed is None else f"typed {row.typed_text}"
    return f"{row.caption}: {row.scanned_text} ({typed}{', differs' if row.differs else ''})"


def _measured(mesh: MeshData, asked: ScanAsked, before: tuple[MeshData, str] | None, said: Said) -> Scanned:
    """Measure; an earlier scan in another unit is brought to this one's."""
    if before is None:
        return scan_of(mesh.points, mesh.faces, asked, None, said)
    earlier, unit = before
    return scan_of(mesh.points, mesh.faces, asked, (earlier.points, earlier.faces), said, unit_before=unit)
