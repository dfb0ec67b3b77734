"""The copying sheet: what of the developed port was brought onto this one, logged as a cut; and onto others, each by
its own walls."""

from __future__ import annotations

from datetime import date

from PySide6.QtWidgets import QCheckBox, QVBoxLayout, QWidget

from ventrix.core.edits.stages import log_copies
from ventrix.core.judging.model_port import developed_port
from ventrix.core.matching.copying import Answer, Copy
from ventrix.core.model.cut import Port, Work
from ventrix.core.model.port_names import ports_named
from ventrix.core.quantity.refused import Refused
from ventrix.rooms.match.shows import copy_lines, short_name
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text

CAUTION = tr(
    "By what was read on this very port, less its uncertainty, down to your limit. One slip takes "
    "more. What was not read is read first. Never into a seat."
)


class CopySheet(FormSheet):
    """Places that may be copied, ticked; those that may not stand there with their reason and cannot be."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Log what was copied"))
        self.boxes: list[tuple[QCheckBox, Copy]] = []
        self.up_to = self.add_choice(tr("Up to its cut"), [])
        self.up_to.activated.connect(lambda _i: self._fill())
        self._holder = QWidget()
        self._list = QVBoxLayout(self._holder)
        self._list.setContentsMargins(0, 0, 0, 0)
        self.column.addWidget(self._holder)
        self.name = self.add_text(tr("Name of the cut"), tr("as the developed port"))
        self.minutes = self.add_figure(tr("Minutes of work, all together"), "duration")
        self.stage = self.add_text(tr("Stage of the board"), tr("short side"))
        self.others = self.add_text(tr("On other ports too"), tr("all intakes: each by its own walls"))
        self.finish()
        self.caution.setText(CAUTION)

    def open(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        self.begin_about(space.port.id)
        self.up_to.clear()
        model = developed_port(space.findings, space.port.kind)
        for cut in reversed(model.cuts[1:] if model is not None else ()):
            self.up_to.addItem(f"{cut.number}  {cut.name}", cut.number)
        self._fill()
        self.name.setText(tr("copied {}", date.today().isoformat()) if not self.name.text() else self.name.text())
        self.come_up()
        self.minutes.box.setFocus()

    def _fill(self) -> None:
        """The places of the cut that is chosen."""
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        lines, heading = copy_lines(space.findings, space.port, self.open_book.units, self.up_to.currentData())
        self.title.setText(heading)
        for box, _ in self.boxes:
            box.hide()
            box.deleteLater()
        self.boxes = []
        for line in lines:
            box = QCheckBox(f"{line.place}: {line.words}")
            free = line.copy.answer in (Answer.WHOLE, Answer.PART)
            box.setChecked(free)
            box.setEnabled(free)
            self._list.addWidget(box)
            self.boxes.append((box, line.copy))
        self.take_button.setEnabled(bool(lines))

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None or not self.settle_fields():
            return
        chosen = {(c.place, c.side) for box, c in self.boxes if box.isChecked()}
        if not chosen:
            raise Refused("nothing was chosen to copy")
        ports = [space.port, *ports_named([p for p in space.job.ports if p.of_head], self.others.text(), space.port)]
        if any(p.kind != space.port.kind for p in ports):
            raise Refused("an {} is copied onto {}s", space.port.kind, space.port.kind)
        name, seconds = self.name.text().strip() or "copied", self.minutes.value
        works = {p.id: self._works(p, chosen) for p in ports}
        worked = [p for p in ports if works[p.id]]
        job = space.job
        for port in worked:
            share = None if seconds is None else seconds / len(worked)
            job = log_copies(job, port, name, works[port.id], new_id, now_text(), share, self.stage.text().strip())
        space.apply(tr("copied onto {}", ", ".join(short_name(p) for p in worked)), job)
        left = [p.name for p in ports if not works[p.id]]
        if left:
            self.open_book.say(tr("Nothing could be copied onto {}: by their own walls.", ", ".join(left)))
        self.clear_fields()
        self.was_kept()

    def _works(self, port: Port, chosen: set[tuple[str, str | None]]) -> list[Work]:
        """What may be taken off a port at the chosen places, by its own walls."""
        space = self.open_book.workspace
        assert space is not None
        lines, _ = copy_lines(space.findings, port, self.open_book.units, self.up_to.currentData())
        return [
            Work(id=new_id(), place=c.place, side=c.side, depth=c.depth, until="" if c.depth else "flush")
            for c in (line.copy for line in lines)
            if (c.place, c.side) in chosen and c.answer in (Answer.WHOLE, Answer.PART)
        ]
