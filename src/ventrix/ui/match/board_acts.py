"""What is done to a box of the stage board: marked, timed, closed by hand, waited for."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QInputDialog, QWidget

from ventrix.core.edits.stages import close_stage, end_wait, mark_stage, open_stage
from ventrix.core.edits.valves import VALVE_JOB
from ventrix.core.model.job_parts import StageMark
from ventrix.core.model.kinds import StageUnit
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si
from ventrix.core.quantity.words import sentence
from ventrix.core.work.record import StageState, record_of
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text
from ventrix.workspace.workspace import Workspace


class BoardActs:
    """Acts on the box of the port in hand and the stage that `stage` names; `marking` while a mark is stored."""

    def __init__(self, open_book: OpenBook, stage: Callable[[], str], over: QWidget) -> None:
        self._open_book, self._stage, self._over = open_book, stage, over
        self.marking = False

    def box(self, space: Workspace) -> StageState | None:
        """What the chosen stage is at for the port in hand; None for one that has no stages."""
        return None if space.port is None else record_of(space.findings).find(self._stage(), space.port)

    def mark(self) -> None:
        """Mark the stage done on this port, or stop the clock that runs there."""
        space = self._open_book.workspace
        if space is None or space.port is None or not self._stage() or not space.port.cuts:
            return
        box = self.box(space)
        if box is None:
            return
        if box.running_since is not None:
            self.clock()
            return
        if box.done:
            self._open_book.say(
                tr("{} is done on {}: Enter logs more, undo takes it back.", self._stage(), space.port.name)
            )
            return
        # A valve job is all ports' of a kind; what is done to a chamber or a head is logged once.
        ports = [p for p in box.ports if p.cuts] if box.stage.a_kind_at_a_time else [space.port]
        job = mark_stage(space.job, ports, self._stage(), new_id, now_text())
        self.marking = True
        try:
            space.apply(f"{space.port.name}, {self._stage()}", job)
        finally:
            self.marking = False

    def clock(self) -> None:
        """Start the clock on this box, or stop the one that runs."""
        space = self._open_book.workspace
        if space is None or space.port is None or not space.port.cuts:
            return
        if space.clock.running() is not None:
            try:
                ran = space.clock.stop()
            except Refused as error:
                minutes, said = QInputDialog.getInt(self._over, tr("The clock"), sentence(str(error)), 60, 1, 960)
                if not said:
                    return
                ran = space.clock.stop(60.0 * minutes)
            self._open_book.say(tr("Stopped: {:.0f} min.", from_si(ran or 0.0, "min")))
            return
        space.look_at(space.port.cuts[-1].id)
        space.clock.start("", self._stage())

    def give_minutes(self, minutes: int) -> None:
        """Log the stage with minutes, as its box was drawn out."""
        space = self._open_book.workspace
        if space is None or space.port is None or not space.port.cuts:
            return
        job = mark_stage(space.job, [space.port], self._stage(), new_id, now_text(), 60.0 * minutes)
        space.apply(f"{space.port.name}, {self._stage()}, {minutes} min", job)

    def close_by_hand(self, closed_by: str) -> None:
        """Close the stage by what was seen; nothing else needs to show it."""
        space = self._open_book.workspace
        if space is None or space.port is None:
            return
        box = self.box(space)
        if box is None:
            return
        own = box.unit is StageUnit.PORT
        mark = StageMark(
            id=new_id(), stage=box.stage.key, unit=box.unit, port_id=space.port.id if own else "",
            of="" if own else box.of, closed_by=closed_by, date=now_text(),
        )  # fmt: skip
        space.apply(tr("{} closed by {}", box.stage.name, closed_by), close_stage(space.job, mark))

    def open_again(self) -> None:
        """Take a closing by hand back."""
        space = self._open_book.workspace
        box = self.box(space) if space is not None else None
        mark = box.mark if box is not None else None
        if space is not None and mark is not None:
            space.apply(tr("{} open again", mark.stage), open_stage(space.job, mark.id))

    def wait(self) -> None:
        """What waits is back: its sheet opens for the ports that waited; else it begins to wait."""
        space = self._open_book.workspace
        if space is None:
            return
        box = self.box(space) if self._stage() else None
        wait = box.wait if box is not None else None
        if wait is None:
            self._open_book.ways.sheet("wait", self._stage())
            return
        names = {p.id: p.name for p in space.job.ports if p.of_head}
        waited = [names[i] for i in wait.port_ids if i in names] or list(names.values())
        space.apply(tr("{} is back", self._stage()), end_wait(space.job, wait, now_text()))
        if self._stage() == VALVE_JOB:
            self._open_book.ways.sheet("seat")
            return
        mine = space.port.name if space.port is not None else ""
        self._open_book.ways.sheet("stage", self._stage(), ", ".join(n for n in waited if n != mine))
