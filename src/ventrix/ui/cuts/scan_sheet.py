"""A scan of the port: a mesh file measured in a thread, beside what was typed, taken over figure by figure."""

from __future__ import annotations

from pathlib import Path
from typing import Final

from PySide6.QtGui import QDragEnterEvent, QDropEvent
from PySide6.QtWidgets import QCheckBox, QFileDialog, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from ventrix.core.edits.cuts import BY_SCAN, take_scan
from ventrix.core.model.cut import Cut, Port, Pour
from ventrix.core.model.scan import Scan
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si
from ventrix.core.quantity.words import sentence
from ventrix.core.scan.march import Progress
from ventrix.core.scan.scanned import ScanAsked, Scanned, asked_of, scan_of
from ventrix.core.scan.unit import SIZES, UNITS, KnownSize, stretch_typed
from ventrix.records.files.mesh_files import KINDS, MeshData, read_mesh
from ventrix.records.files.photos import keep_mesh
from ventrix.rooms.cuts.scan_rows import (
    DEPTH,
    VOLUME,
    ScanRow,
    depth_rows,
    kept_taken,
    scan_rows,
    sizes_of,
    stations_of,
    taken_lines,
)
from ventrix.ui.cuts.scan_slice import ScanSlice
from ventrix.ui.cuts.scan_view import ScanView
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.planner import Planner
from ventrix.ui.widgets.scan_work import ScanWork, kept_mesh
from ventrix.ui.widgets.taken_map import TakenMap
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text

MESHES: Final = tr("Scans ({})", " ".join("*" + kind for kind in KINDS))
ENDS: Final = (tr("the face"), tr("the seat"))


class ScanSheet(FormSheet):
    """Measures one mesh, and what came off since an earlier one of this port."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Take the ticked figures"), width=420)
        self.setAcceptDrops(True)
        self.path: Path | None = None
        self.mesh: MeshData | None = None
        self.found: Scanned | None = None
        self._cut: Cut | None = None
        self._held_against: Scan | None = None
        self._whose: dict[str, str] = {}  # what each scan that it may be held against is called
        self._clicks: dict[str, Array] = {}
        self.choose = QPushButton(tr("Choose a scan, or drop one here…"))
        self.choose.clicked.connect(self.choose_file)
        self.column.addWidget(self.choose)
        self.view = ScanView()
        self.view.clicked.connect(self._clicked)
        self.column.addWidget(self.view)
        self.column.addLayout(self._click_buttons())
        self.unit = self.add_choice(
            tr("Unit of the file"), [(tr("by the size you know"), ""), *((u, u) for u in UNITS)]
        )
        self.known = self.add_choice(tr("A size you know"), [(name, name) for name in SIZES])
        self.known_size = self.add_figure(tr("… is"), "length")
        self.guide = self.add_figure(tr("Guide bore, where the guide stands in it"), "length")
        self.far = self.add_check(tr("the seat is the other end"))
        self.before = self.add_choice(tr("Compare with"), [(tr("nothing"), None)])
        self.alone = self.add_text(tr("Left alone, from the opening"))
        self.measure_button = QPushButton(tr("Measure it"))
        self.measure_button.clicked.connect(self.measure)
        self.column.addWidget(self.measure_button)
        self._reader = Planner()
        self._reader.planned.connect(self._took)
        self.work = ScanWork()
        self.work.done.connect(self._took)
        self.work.began.connect(lambda: self.measure_button.setEnabled(False))
        self.work.ended.connect(lambda: self.measure_button.setEnabled(True))
        self.slice = ScanSlice()
        self.taken_map = TakenMap()
        self.said = QLabel()
        self.said.setWordWrap(True)
        self.rows = QWidget()
        self._boxes: dict[str, QCheckBox] = {}
        self._lines = QVBoxLayout(self.rows)
        self._lines.setContentsMargins(0, 0, 0, 0)
        for each in (self.work, self.slice, self.taken_map, self.said, self.rows):
            self.column.addWidget(each)
        self.finish()
        self.caution.setText(
            tr(
                "A scan sees the air's side alone: what is left of a wall only a gauge reads. One size measured by "
                "hand keeps inches and millimeters apart."
            )
        )
        self._show_mesh(None)

    def _click_buttons(self) -> QHBoxLayout:
        """A button for each end, down while its click is waited for."""
        row = QHBoxLayout()
        self.click_buttons = {name: QPushButton() for name in ENDS}
        for name, button in self.click_buttons.items():
            button.setCheckable(True)
            button.clicked.connect(lambda on, name=name: self._ask_click(name, on))
            row.addWidget(button)
        return row

    def open(self) -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or space.port is None:
            return
        self.begin_about(space.real_cut.id)
        if self._cut is None or self._cut.id != space.real_cut.id:
            self._reader.stop()
            self.work.stop()  # what is being measured is of another cut
            self.path = None
            self._show_mesh(None)
        self._cut = space.real_cut
        length = self.open_book.units.length
        self.alone.setPlaceholderText(f"64-98 {length.label}" if length.unit == "mm" else f"2.5-3.9 {length.label}")
        self.title.setText(tr("Scan of {}, cut {}", space.port.name.lower(), space.real_cut.number))
        self.before.clear()
        self.before.addItem(tr("nothing"), None)
        for cut in space.port.cuts:
            for scan in cut.scans:
                day = f", {scan.date[:10]}" if scan.date else ""
                self._whose[scan.id] = tr("cut {}{}", cut.number, day)
                self.before.addItem(tr("the scan of {}", self._whose[scan.id]), scan)
        self._name_file()
        self.come_up()
        self.choose.setFocus()

    # -- the file

    def choose_file(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("A scan of the port"), "", MESHES)
        if name:
            self.take_file(Path(name))

    def take_file(self, path: Path) -> None:
        """A mesh file to be measured: read, and shown."""
        self.path = path
        self._show_mesh(None)
        self.problem.clear()
        self._name_file()
        self._reader.ask(lambda: read_mesh(path))

    def _name_file(self) -> None:
        self.choose.setText(self.path.name if self.path is not None else tr("Choose a scan, or drop one here…"))

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
            self.problem.setText(tr("Choose a scan first: STL, PLY or OBJ."))
            return
        unit, size = str(self.unit.currentData()) or None, self.known_size.value
        if unit is None and size is None:
            self.problem.setText(tr("Say the unit, or one size that you know."))
            self.known_size.box.setFocus()
            return
        try:
            asked = ScanAsked(
                unit,
                None if size is None else KnownSize(str(self.known.currentData()), size),
                guide_bore=None if self.guide.value is None else from_si(self.guide.value, "mm"),
                left_alone=stretch_typed(self.alone.text(), self.open_book.units.length.unit)
                if self.alone.text().strip()
                else None,
                clicks=(self._clicks.get(ENDS[0]), self._clicks.get(ENDS[1])),
                turned_round=self.far.isChecked() and self.far.isEnabled(),
            )
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            self.alone.setFocus()
            return
        self.problem.clear()
        self._reader.stop()  # what is measured is read on the way
        path, mesh, earlier = self.path, self.mesh, self.before.currentData()
        self._held_against = earlier
        folder, whose = space.book.photo_folder, self._whose.get(earlier.id, "") if earlier is not None else ""

        def work(said: Progress) -> tuple[MeshData, Scanned]:
            read = mesh or read_mesh(path)
            if earlier is None:
                return read, scan_of(read.points, read.faces, asked, None, said)
            before = kept_mesh(folder, earlier, whose)
            pair = before.points, before.faces
            return read, scan_of(read.points, read.faces, asked, pair, said, asked_of(earlier))

        self.work.begin(work)

    def close_workers(self) -> None:
        """Stop measuring, and wait for the thread to end."""
        self._reader.close()
        self.work.close_workers()

    def _took(self, found: object) -> None:
        if isinstance(found, MeshData):
            self._show_mesh(found)
        elif isinstance(found, tuple):
            mesh, scanned = found
            if self.mesh is not mesh:
                self._show_mesh(mesh)
            self._show_found(scanned)
        else:
            self.problem.setText(sentence(self.open_book.units.say(found)))

    # -- its ends

    def _show_mesh(self, mesh: MeshData | None) -> None:
        """A mesh that was read; nothing was clicked on it yet."""
        self.mesh = mesh
        self.view.setVisible(mesh is not None)
        if mesh is not None:
            self.view.show_mesh(mesh.points, mesh.faces)
        self._clicks = {}
        self._ask_click("", False)
        self._show_found(None)

    def _ask_click(self, name: str, on: bool) -> None:
        """Wait for a click on an end; an end that was clicked is let go of."""
        if on and self._clicks.pop(name, None) is not None:
            self.view.mark(name, None)
            on = False
        self.view.ask(name if on else "")
        for each, button in self.click_buttons.items():
            button.setChecked(on and each == name)
            button.setText(tr("{}: clicked ✕", each.capitalize()) if each in self._clicks else tr("Click {}", each))
            button.setVisible(self.mesh is not None)
        self.far.setEnabled(len(self._clicks) < len(ENDS))
        if on:
            self.view.setFocus()

    def _clicked(self, at: Array) -> None:
        name = self.view.asking
        self._clicks[name] = at
        self.view.mark(name, at)
        self._show_found(None)
        self._ask_click("", False)
        waiting = next((each for each in ENDS if each not in self._clicks), None)
        (self.measure_button if waiting is None else self.click_buttons[waiting]).setFocus()

    def _show_found(self, found: Scanned | None) -> None:
        """What was measured beside what was typed; those that were not typed, or differ, are ticked."""
        self.found = found
        while (item := self._lines.takeAt(0)) is not None:
            if (widget := item.widget()) is not None:
                widget.hide()
                widget.deleteLater()
        self._boxes.clear()
        self.slice.setVisible(found is not None)
        self.taken_map.setVisible(found is not None and found.taken is not None)
        if found is None:
            self.said.clear()
            return
        if found.taken is not None:
            self.taken_map.show_taken(found.taken, self.open_book.units.length)
        units = self.open_book.units
        notes = [units.say(note) for note in (*found.notes, *found.measured.notes)]
        lines = taken_lines(found.taken, units) if found.taken is not None else ()
        self.said.setText("\n".join([*lines, *notes]))
        self.slice.show_scan(found.measured, units.area)
        for row in self._rows(found):
            self._boxes[row.key] = box = QCheckBox(_row_words(row))
            box.setChecked(row.typed is None or (row.differs and not _thickens(row)))
            self._lines.addWidget(box)
        self._boxes[STATIONS] = box = QCheckBox(tr("Sections along the port, as stations"))
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
        earlier = self._held_against
        before = next((c for c in port.cuts if earlier in c.scans), None)
        if before is None or before.number >= cut.number:
            return False
        return not any(c.operations for c in port.cuts if before.number < c.number < cut.number)

    def take(self) -> None:
        space, found = self.open_book.workspace, self.found
        if space is None or found is None or self.path is None or self._cut is None:
            self.problem.setText(tr("Measure a scan first."))
            return
        rows = {row.key: row for row in self._rows(found)}
        if not rows:
            self.problem.setText(tr("The cut that this scan is of is not there any more."))
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
            face_at=tuple(map(float, self._clicks.get(ENDS[0], ()))),
            seat_at=tuple(map(float, self._clicks.get(ENDS[1], ()))),
            seat_at_far_end=self.far.isChecked() and self.far.isEnabled(), sizes=sizes_of(tuple(rows.values()), new_id),
            date=now_text(),
        )  # fmt: skip
        if found.taken is not None and self._held_against is not None:
            scan = kept_taken(scan, self._held_against, found.taken, new_id)
        stations = stations_of(found.measured, new_id) if self._boxes[STATIONS].isChecked() else ()
        job = take_scan(space.job, self._cut.id, scan, figures, stations, pour, depths)
        space.apply(tr("scan of cut {}, {} figures", self._cut.number, len(ticked)), job)
        self.path = None
        self._show_mesh(None)
        self.clear_fields()
        self.closed.emit()


STATIONS: Final = "stations"


def _thickens(row: ScanRow) -> bool:
    """A pass that by the scan took less than was told leaves a thicker wall: that is for the porter to tick."""
    return row.key.startswith(DEPTH) and row.typed is not None and row.scanned < row.typed


def _row_words(row: ScanRow) -> str:
    typed = tr("not typed") if row.typed is None else tr("typed {}", row.typed_text)
    return f"{row.caption}: {row.scanned_text} ({typed}{tr(', differs') if row.differs else ''})"
