"""A face as it is measured, or read from a drawing; and what milling moves."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import numpy as np
from PySide6.QtCore import Signal
from PySide6.QtGui import QPixmap
from PySide6.QtWidgets import QFileDialog, QLabel, QPushButton

from ventrix.core.lineup.milling import Milling, stack_up
from ventrix.core.lineup.outlines import polygon_of
from ventrix.core.model.cut import carried_figure, mean_poured
from ventrix.core.model.job import Bolt, Face, Job, Outline
from ventrix.core.model.kinds import FacePart, LibraryKind, OutlineShape
from ventrix.core.model.plausible import check_of, check_plausible
from ventrix.core.quantity.field_checks import Check
from ventrix.core.quantity.units import from_si, parse_quantity
from ventrix.records.bad_input import InputError
from ventrix.records.files.outline_files import read_outlines
from ventrix.records.library.items import face_item, face_of
from ventrix.ui.lineup.trace_view import TraceView
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.workspace.ids import new_id, now_text


def _anything(value: float) -> None:
    """Any figure."""


class FaceSheet(FormSheet):
    """Keeps a face in place of the one of its name. Openings of one size each; a drawing brings its own."""

    trace_wanted = Signal(object)  # the picture

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, "Keep the face")
        self.title.setText("A face")
        self.tracing: TraceView | None = None
        self._drawn: list[list[tuple[float, float]]] = []
        self.known = self.add_choice("From the library", [("none", None)])
        self.known.activated.connect(lambda _i: self._use_known())
        self.name = self.add_text("Name", "own gasket")
        self.part = self.add_choice("Belongs to", [(p.words, p.value) for p in FacePart])
        self.ports = self.add_text("Ports and their middles", "Intake 1 -150 0; Intake 2 -50 0")
        self.ports.setMaxLength(4000)
        self.shape = self.add_choice("Shape", [(s.words, s.value) for s in OutlineShape if s != OutlineShape.POLYGON])
        self.wide = self.add_figure("Width", "length", check_of(Outline, "width"))
        self.high = self.add_figure("Height", "length", check_of(Outline, "height"))
        self.corner = self.add_figure("Corner radius", "length", check_of(Outline, "corner"))
        self.bolts = self.add_text("Bolts or dowels", "A -200 30; B 200 30")
        self.bolts.setMaxLength(2000)
        self.read = QPushButton("Openings from a drawing (DXF, SVG)")
        self.read.clicked.connect(self.choose_drawing)
        self.column.addWidget(self.read)
        self.trace_it = QPushButton("Openings traced on a photo or scan")
        self.trace_it.clicked.connect(self.choose_photo)
        self.column.addWidget(self.trace_it)
        self.apart = self.add_figure("Between its two known points", "length")
        self.take_from_head = QPushButton("Sizes from Head's opening")
        self.take_from_head.clicked.connect(self.from_head)
        self.column.addWidget(self.take_from_head)
        self.keep = self.add_check("keep it in the library, for every job")
        self.finish()
        self.caution.setText(
            "x along the face, y up, from one point that both faces share. Measure from machined edges and bolts, not "
            "from the casting."
        )

    def open(self) -> None:
        unit = self.open_book.units.length.label
        self.ports.setToolTip(f"The port's name, x and y in {unit}, one after the other with ; between")
        self.known.clear()
        self.known.addItem("none", None)
        for item in self.open_book.book.library():
            if item.kind == LibraryKind.OUTLINE:
                self.known.addItem(f"{item.name}, {item.source}", item)
        self.come_up()
        self.name.setFocus()

    def _use_known(self) -> None:
        """A face of the library into this job, in place of the one of its name."""
        item = self.known.currentData()
        if item is None:
            return
        try:
            face = face_of(item)
        except InputError as error:
            self.problem.setText(f"{error}.")
            return
        self._put(face)
        self.closed.emit()

    def _put(self, face: Face) -> None:
        space = self.open_book.workspace
        if space is None:
            return
        rest = tuple(f for f in space.job.faces if f.name.lower() != face.name.lower())
        faces = (face, *rest) if face.part == FacePart.HEAD else (*rest, face)
        space.apply(f"face '{face.name}'", replace(space.job, faces=faces))

    def from_head(self) -> None:
        """Width, height and corner as Head has the opening of the port in hand."""
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        sizes = (self.wide, "opening_width"), (self.high, "opening_height"), (self.corner, "opening_corner")
        for field, name in sizes:
            field.set_value(carried_figure(space.port, space.real_cut, name))

    def choose_drawing(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "Openings from a drawing", "", "Drawings (*.dxf *.svg)")
        if name:
            self.bring_in(Path(name))

    def bring_in(self, path: Path) -> None:
        """Closed curves of a drawing, left to right, for the ports that are named; said how many there are."""
        try:
            self._drawn = read_outlines(path)
        except InputError as error:
            self.problem.setText(f"{error}.")
            return
        self.problem.clear()
        self.warning.setText(f"{len(self._drawn)} openings from {path.name}: name as many ports, left to right.")

    def choose_photo(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, "A flat photo or scan", "", "Pictures (*.png *.jpg *.jpeg *.bmp)")
        if name:
            self.trace(Path(name))

    def trace(self, path: Path) -> None:
        """Have a picture traced in the room beside this sheet. It must lie flat: a photo from aside is not true."""
        picture = QPixmap(str(path))
        if picture.isNull():
            self.problem.setText(f"{path.name} is no picture that can be read.")
            return
        self.problem.clear()
        self.warning.setText(
            "Taken square on, and flat: what leans is not true. Then type how far its points lie apart."
        )
        self.trace_wanted.emit(picture)

    def take_traced(self, view: TraceView) -> None:
        """What was traced, at the scale of its two known points."""
        if self.apart.typed() is None:
            self.problem.setText("How far do the two known points lie apart?")
            return
        try:
            self._drawn = view.outlines(self.apart.typed() or 0.0)
        except ValueError as error:
            self.problem.setText(f"{str(error).capitalize()}.")
            return
        self.problem.clear()
        self.warning.setText(f"{len(self._drawn)} openings traced: name as many ports, left to right.")

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or not self.settle_fields():
            return
        name = self.name.text().strip()
        if not name:
            raise ValueError("a face wants a name")
        if self.tracing is not None and self.tracing.closed:
            self.take_traced(self.tracing)
            if not self._drawn:
                return
        unit = self.open_book.units.length.unit
        face = Face(
            id=new_id(),
            name=name,
            part=str(self.part.currentData()),
            outlines=self._outlines(space.job, unit),
            bolts=tuple(
                Bolt(id=new_id(), name=n, at=at) for n, at in self._named(self.bolts.text(), unit) if at is not None
            ),
            source="drawing" if self._drawn else "typed",
        )
        for outline in face.outlines:
            check_plausible(outline)
            polygon_of(outline)
        self._put(face)
        if self.keep.isChecked():
            self.open_book.book.write((None, face_item(face, now_text())))
            self.keep.setChecked(False)
        self._drawn = []
        if self.tracing is not None:
            self.tracing.begin(QPixmap())
        self.warning.clear()
        self.clear_fields()
        self.closed.emit()

    def _outlines(self, job: Job, unit: str) -> tuple[Outline, ...]:
        named = self._named(self.ports.text(), unit)
        if not named:
            raise ValueError("a face wants a port at least, with its middle")
        known = {p.name.lower(): p.name for p in job.ports}
        for port, _ in named:
            if port.lower() not in known:
                raise ValueError(f"'{port[:40]}' is not one of {', '.join(known.values())}")
        if self._drawn:
            if len(named) != len(self._drawn):
                raise ValueError(f"the drawing has {len(self._drawn)} openings, and {len(named)} ports are named")
            return tuple(
                Outline(id=new_id(), port=known[port.lower()], shape="polygon",
                        points=tuple(float(v) for pair in curve for v in pair))
                for (port, _), curve in zip(named, self._drawn, strict=True)
            )  # fmt: skip
        found = []
        for port, at in named:
            if at is None:
                raise ValueError(f"{port}: where is its middle, x and y?")
            found.append(
                Outline(
                    id=new_id(),
                    port=known[port.lower()],
                    shape=str(self.shape.currentData()),
                    centre=at,
                    width=self.wide.value,
                    height=self.high.value,
                    corner=() if self.corner.value is None else (self.corner.value,),
                )
            )
        return tuple(found)

    @staticmethod
    def _named(text: str, unit: str) -> list[tuple[str, tuple[float, float] | None]]:
        """Names, each with x and y where they are said."""
        found: list[tuple[str, tuple[float, float] | None]] = []
        for part in (p.strip() for p in text.split(";") if p.strip()):
            cells = part.split()
            at: tuple[float, float] | None = None
            name = part
            try:
                x, y = (parse_quantity(c, unit) for c in cells[-2:])
                at, name = (x, y), " ".join(cells[:-2])
            except ValueError:
                pass  # a name alone, as a drawing wants it
            if not name:
                raise ValueError(f"'{part[:40]}' has no name")
            found.append((name, at))
        return found


class MillingSheet(FormSheet):
    """What milled head, deck and gasket do to the line-up, the chamber and the compression; nothing is kept."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, "Reckon")
        self.title.setText("What milling moves")
        none: Check = _anything
        self.head = self.add_figure("Off the head", "length", none)
        self.deck = self.add_figure("Off the deck", "length", none)
        self.gasket = self.add_figure("Gasket thinner by", "length", none)
        self.bank = self.add_figure("Half of the bank's angle", "angle")
        self.lean = self.add_figure("Intake face past square", "angle", none)
        self.area = self.add_figure("Chamber's outline, area", "area")
        self.told = QLabel()
        self.told.setWordWrap(True)
        self.column.addWidget(self.told)
        self.finish()
        for field in (self.head, self.deck, self.gasket, self.bank, self.lean, self.area):
            field.edited.connect(lambda _v: self.reckon())

    def open(self) -> None:
        if self.bank.value is None:
            self.bank.set_value(float(np.radians(45)))
            self.lean.set_value(0.0)
        self.come_up()
        self.head.box.setFocus()

    def take(self) -> None:
        if self.settle_fields():
            self.reckon()

    def reckon(self) -> None:
        """Answer what stands in the boxes."""
        space = self.open_book.workspace
        units, job = self.open_book.units, None if space is None else space.job
        chambers = [v for c in (job.chambers if job is not None else ()) if (v := mean_poured(c.pours)) is not None]
        chamber = float(np.mean(chambers)) if chambers else None
        head, deck, gasket = (field.typed() or 0.0 for field in (self.head, self.deck, self.gasket))
        milling = Milling(head, deck, gasket, self.bank.typed() or float(np.radians(45)), self.lean.typed() or 0.0)
        try:
            sizes = (job.bore, job.stroke) if job is not None else (None, None)
            found = stack_up(milling, chamber, self.area.typed(), *sizes)
        except ValueError as error:
            self.problem.setText(f"{str(error).capitalize()}.")
            return
        self.problem.clear()
        length = units.length.with_unit
        rows = [
            f"The head comes down {length(found.drop)}.",
            f"Off the manifold's face {length(found.face_cut)}, off the valley {length(found.valley_cut)}: then its "
            "ports line up again.",
            f"Without it they slide {length(found.slide)} along the face.",
        ]
        if found.chamber is not None:
            rows.append(f"Chamber {from_si(found.chamber, 'cc'):.1f} cc.")
        else:
            rows.append("The chamber wants a pour and the area of its outline, not the bore's.")
        if found.compression is not None:
            rows.append(f"Compression {found.compression:.2f}, gasket left out.")
        self.told.setText("".join(f"<p>{r}</p>" for r in rows))
        self.caution.setText(found.caution)
