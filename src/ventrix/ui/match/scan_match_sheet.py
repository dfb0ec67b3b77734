"""Two ports held against each other by their scans."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtWidgets import QLabel

from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import sentence
from ventrix.core.scan.compare import Taken
from ventrix.core.scan.march import Progress
from ventrix.core.scan.scanned import Surface, asked_of, ports_held
from ventrix.rooms.match.by_scan import ScannedPort, held_lines, scanned_ports
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.scan_work import ScanWork, kept_mesh
from ventrix.ui.widgets.taken_map import TakenMap
from ventrix.words import tr


class ScanMatchSheet(FormSheet):
    """A model port and another of its kind, each at a cut that was scanned; where the other is larger or smaller."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Compare them"), width=420)
        self.title.setText(tr("Two ports by their scans"))
        self.model = self.add_choice(tr("Model"), [])
        self.other = self.add_choice(tr("Other port"), [])
        self.work = ScanWork()
        self.work.done.connect(self._took)
        self.work.began.connect(lambda: self.take_button.setEnabled(False))
        self.work.ended.connect(lambda: self.take_button.setEnabled(True))
        self.taken_map = TakenMap(tr("Larger"))
        self.said = QLabel()
        self.said.setWordWrap(True)
        for each in (self.work, self.taken_map, self.said):
            self.column.addWidget(each)
        self.finish()
        self.caution.setText(
            tr(
                "The two are laid on each other by all of their surface. A scan sees the air's side alone: whether a "
                "place may be cut deeper, its own wall says."
            )
        )
        self._held: tuple[ScannedPort, ScannedPort] | None = None
        self._show(None)

    def open(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        self.begin_about(space.port.id)
        self.work.stop()
        self._show(None)
        found = scanned_ports(space.findings, space.port.kind)
        for box in (self.model, self.other):
            box.clear()
            for each in found:
                box.addItem(each.words, each)
        mine = next((i for i, each in enumerate(found) if each.port.id == space.port.id and i), len(found) - 1)
        self.other.setCurrentIndex(mine)
        self.take_button.setEnabled(len(found) > 1)
        few = "" if len(found) > 1 else tr("Two scans are needed: Cuts takes them, Cut, Scan of the port.")
        self.problem.setText(few)
        self.come_up()
        self.model.setFocus()

    def take(self) -> None:
        space = self.open_book.workspace
        model, other = self.model.currentData(), self.other.currentData()
        if space is None or model is None or other is None:
            return
        if model.scan.id == other.scan.id:
            raise Refused("choose two scans: this is one of them twice")
        self.problem.clear()
        self._held = model, other
        self._show(None)
        folder = space.book.photo_folder

        def work(said: Progress) -> Taken:
            pair = [(_surface(folder, each), asked_of(each.scan)) for each in (model, other)]
            return ports_held(pair[0], pair[1], model.mirrors(other), said)

        self.work.begin(work)

    def _took(self, found: object) -> None:
        if isinstance(found, Taken):
            self._show(found)
        else:
            self.problem.setText(sentence(self.open_book.units.say(found)))

    def _show(self, found: Taken | None) -> None:
        self.taken_map.setVisible(found is not None)
        if found is None or self._held is None:
            self.said.clear()
            return
        self.taken_map.show_taken(found, self.open_book.units.length)
        self.said.setText("\n".join(held_lines(*self._held, found, self.open_book.units)))

    def close_workers(self) -> None:
        """Stop, and wait for the thread to end."""
        self.work.close_workers()


def _surface(folder: Path, port: ScannedPort) -> Surface:
    mesh = kept_mesh(folder, port.scan, port.words)
    return mesh.points, mesh.faces
