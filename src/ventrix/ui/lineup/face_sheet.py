"""A face as it is measured, traced, or read from a drawing."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

from PySide6.QtGui import QPixmap
from PySide6.QtWidgets import QFileDialog, QPushButton

from ventrix.core.lineup.outlines import polygon_of
from ventrix.core.model.cut import carried_figure
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Bolt, Face, Outline
from ventrix.core.model.kinds import FacePart, LibraryKind, OutlineShape
from ventrix.core.model.plausible import check_of, check_plausible
from ventrix.core.model.port_names import port_named
from ventrix.core.model.scan import Scan
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si
from ventrix.core.quantity.words import listed, sentence
from ventrix.core.scan.march import Progress
from ventrix.core.scan.opening import opening_outline
from ventrix.core.scan.scanned import asked_of, measured_again
from ventrix.records.bad_input import InputError
from ventrix.records.files.outline_files import read_outlines
from ventrix.records.library.items import face_item, face_of
from ventrix.rooms.lineup.typed_faces import TypedSpot, typed_spots
from ventrix.rooms.shared.scan_words import newest_scan
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.scan_work import ScanWork, kept_mesh
from ventrix.ui.widgets.trace_view import TraceView
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class FaceSheet(FormSheet):
    """Keeps a face in place of the one of its name. Openings of one size each; a drawing brings its own."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Keep the face"))
        self.title.setText(tr("A face"))
        self.tracing: TraceView | None = None
        self._drawn: list[list[tuple[float, float]]] = []
        self._scanned: dict[str, tuple[float, ...]] = {}
        self.known = self.add_choice(tr("From the library"), [(tr("none"), None)])
        self.known.activated.connect(lambda _i: self._use_known())
        self.name = self.add_text(tr("Name"), tr("own gasket"))
        self.part = self.add_choice(tr("Belongs to"), [(p.words, p.value) for p in FacePart])
        self.ports = self.add_text(tr("Ports and their middles"), tr("Intake 1 -150 0; Intake 2 -50 0"))
        self.ports.setMaxLength(4000)
        self.shape = self.add_choice(
            tr("Shape"), [(s.words, s.value) for s in OutlineShape if s != OutlineShape.POLYGON]
        )
        self.wide = self.add_figure(tr("Width"), "length", check_of(Outline, "width"))
        self.high = self.add_figure(tr("Height"), "length", check_of(Outline, "height"))
        self.corner = self.add_figure(tr("Corner radius"), "length", check_of(Outline, "corner"))
        self.bolts = self.add_text(tr("Bolts or dowels"), "A -200 30; B 200 30")
        self.bolts.setMaxLength(2000)
        self.from_scans = QPushButton(tr("Openings from the ports' scans"))
        self.from_scans.clicked.connect(self.take_scans)
        self.column.addWidget(self.from_scans)
        self.work = ScanWork()
        self.work.done.connect(self._took_scans)
        self.work.began.connect(lambda: self.from_scans.setEnabled(False))
        self.work.ended.connect(lambda: self.from_scans.setEnabled(True))
        self.column.addWidget(self.work)
        self.read = QPushButton(tr("Openings from a drawing (DXF, SVG)"))
        self.read.clicked.connect(self.choose_drawing)
        self.column.addWidget(self.read)
        self.trace_it = QPushButton(tr("Openings traced on a photo or scan"))
        self.trace_it.clicked.connect(self.choose_photo)
        self.column.addWidget(self.trace_it)
        self.apart = self.add_figure(tr("Between its two known points"), "length")
        self.take_from_head = QPushButton(tr("Sizes from Head's opening"))
        self.take_from_head.clicked.connect(self.from_head)
        self.column.addWidget(self.take_from_head)
        self.keep = self.add_check(tr("keep it in the library, for every job"))
        self.finish()
        self.caution.setText(
            tr(
                "x along the face, y up, from one point that both faces share; a chamber's from the middle of its "
                "bore, its valves' middles as bolts named intake and exhaust. Measure from machined edges and bolts, "
                "not from the casting."
            )
        )

    def open(self, tracing: TraceView | None = None) -> None:
        self.tracing = tracing or self.tracing
        unit = self.open_book.units.length.label
        self.ports.setToolTip(
            tr(
                "The port's name, x and y of its middle in {}; or its name, a bolt's name, and how far its left, "
                "right, floor and roof edges lie from that bolt. One after the other with ; between",
                unit,
            )
        )
        self.known.clear()
        self.known.addItem(tr("none"), None)
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
        self.was_kept()

    def _put(self, face: Face) -> None:
        space = self.open_book.workspace
        if space is None:
            return
        rest = tuple(f for f in space.job.faces if f.name.lower() != face.name.lower())
        faces = (face, *rest) if face.part == FacePart.HEAD else (*rest, face)
        space.apply(tr("face '{}'", face.name), replace(space.job, faces=faces))

    def from_head(self) -> None:
        """Width, height and corner as Head has the opening of the port in hand."""
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        sizes = (self.wide, "opening_width"), (self.high, "opening_height"), (self.corner, "opening_corner")
        for field, name in sizes:
            field.set_value(carried_figure(space.port, space.real_cut, name))

    def choose_drawing(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("Openings from a drawing"), "", tr("Drawings (*.dxf *.svg)"))
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
        self.warning.setText(tr("{} openings from {}: name as many ports, left to right.", len(self._drawn), path.name))

    def take_scans(self) -> None:
        """Measure the newest scan of every port named, and keep its opening about the port's middle."""
        space = self.open_book.workspace
        if space is None:
            return
        named = [port_named(space.job.ports, s.name) for s in typed_spots(self.ports.text(), "mm")]
        scans = [(p.name, s) for p in named if (s := newest_scan(p)) is not None]
        if not scans:
            self.problem.setText(tr("Name the ports first.") if not named else tr("None of these ports was scanned."))
            return
        self.problem.clear()
        folder = space.book.photo_folder
        self.work.begin(lambda said: {name: _opening(folder, scan, name, said) for name, scan in scans})

    def _took_scans(self, found: object) -> None:
        if isinstance(found, dict):
            self._scanned = found
            self.warning.setText(tr("{}: by scan, about the middle that is typed.", listed(list(found))))
        else:
            self.problem.setText(sentence(self.open_book.units.say(found)))

    def close_workers(self) -> None:
        """Stop measuring, and wait for the thread to end."""
        self.work.close_workers()

    def choose_photo(self) -> None:
        name, _ = QFileDialog.getOpenFileName(
            self, tr("A flat photo or scan"), "", tr("Pictures (*.png *.jpg *.jpeg *.bmp)")
        )
        if name:
            self.trace(Path(name))

    def trace(self, path: Path) -> None:
        """Have a picture traced in the room beside this sheet. It must lie flat: a photo from aside is not true."""
        picture = QPixmap(str(path))
        if picture.isNull():
            self.problem.setText(tr("{} is not a picture that can be read.", path.name))
            return
        self.problem.clear()
        self.warning.setText(
            tr("Taken square on, and flat: what leans is not true. Then type how far its points lie apart.")
        )
        self.open_book.ways.room("lineup", picture)

    def take_traced(self, view: TraceView) -> None:
        """What was traced, at the scale of its two known points."""
        if self.apart.typed() is None:
            self.problem.setText(tr("How far do the two known points lie apart?"))
            return
        try:
            self._drawn = view.outlines(self.apart.typed() or 0.0)
        except Refused as error:
            self.problem.setText(f"{str(error).capitalize()}.")
            return
        self.problem.clear()
        self.warning.setText(tr("{} openings traced: name as many ports, left to right.", len(self._drawn)))

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or not self.settle_fields():
            return
        name = self.name.text().strip()
        if not name:
            raise Refused("a face needs a name")
        if self.tracing is not None and self.tracing.closed:
            self.take_traced(self.tracing)
            if not self._drawn:
                return
        unit = self.open_book.units.length.unit
        spots = typed_spots(self.bolts.text(), unit)
        bolts = {s.name: s.at for s in spots if s.at is not None}
        if len(bolts) < len(spots):
            raise Refused("each bolt or dowel needs its x and y, and a name of its own")
        face = Face(
            id=new_id(),
            name=name,
            part=str(self.part.currentData()),
            outlines=self._outlines(space.job, unit, bolts),
            bolts=tuple(Bolt(id=new_id(), name=n, at=at) for n, at in bolts.items()),
            source="drawing" if self._drawn else "scan" if self._scanned else "typed",
        )
        for outline in face.outlines:
            check_plausible(outline)
            polygon_of(outline)
        self._put(face)
        if self.keep.isChecked():
            self.open_book.book.write((None, face_item(face, now_text())))
            self.keep.setChecked(False)
        self._drawn, self._scanned = [], {}
        if self.tracing is not None:
            self.tracing.begin(QPixmap())
        self.warning.clear()
        self.clear_fields()
        self.was_kept()

    def _outlines(self, job: Job, unit: str, bolts: dict[str, tuple[float, float]]) -> tuple[Outline, ...]:
        named = typed_spots(self.ports.text(), unit, bolts)
        if not named:
            raise Refused("a face needs a port at least, with its center")
        names = [port_named(job.ports, spot.name).name for spot in named]
        if self._drawn:
            if len(named) != len(self._drawn):
                raise Refused("the drawing has {} openings, and {} ports are named", len(self._drawn), len(named))
            return tuple(
                Outline(id=new_id(), port=name, shape="polygon",
                        points=tuple(float(v) for pair in curve for v in pair))
                for name, curve in zip(names, self._drawn, strict=True)
            )  # fmt: skip
        return tuple(self._sized(spot, name) for spot, name in zip(named, names, strict=True))

    def _sized(self, spot: TypedSpot, port: str) -> Outline:
        """An opening of the typed size about its middle, or as large as its edges say."""
        middle = spot.middle
        if middle is None:
            raise Refused("{}: where is its middle, x and y?", port)
        if port in self._scanned:
            return Outline(id=new_id(), port=port, shape=OutlineShape.POLYGON, centre=middle,
                           points=self._scanned[port])  # fmt: skip
        width, height = self.wide.value, self.high.value
        if spot.edges is not None:
            left, right, floor, roof = spot.edges
            width, height = right - left, roof - floor
        corner = () if self.corner.value is None else (self.corner.value,)
        shape = str(self.shape.currentData())
        return Outline(id=new_id(), port=port, shape=shape, centre=middle, width=width, height=height, corner=corner)


def _opening(folder: Path, scan: Scan, port: str, said: Progress) -> tuple[float, ...]:
    """The opening of a scan about its middle, x and y in turn [m]."""
    mesh = kept_mesh(folder, scan, port)
    outline = opening_outline(measured_again((mesh.points, mesh.faces), asked_of(scan), said))
    return tuple(float(to_si(v, "mm")) for v in outline.ravel())
