"""The reckoning: stairs over the hours, decisions, and one of them beside its curves."""

from __future__ import annotations

from functools import partial
from html import escape
from typing import Final

from PySide6.QtCore import Qt, QTimer, Signal
from PySide6.QtGui import QResizeEvent
from PySide6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from ventrix.bench.simulator.practice.reckoning import Reckoning
from ventrix.core.quantity.words import sentence
from ventrix.rooms.display_units import Units
from ventrix.rooms.practice.shows import Decision, Shown, plan_would, plans_own_way, reckoning_shown
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.practice.views import DecisionCurves, DecisionList, StairView
from ventrix.ui.widgets.planner import Planner
from ventrix.ui.widgets.rich_label import RichLabel
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.words import tr

# The lesson that is in a belief.
LESSON_OF: Final = {
    "in vain": "best-of-twelve", "lost": "volume", "missed": "adding-up", "unseen": "adding-up", "right": "off-centre",
}  # fmt: skip


OPEN: Final = tr("The truth of this head is open: play another seed, not this one. Plan's own way follows in a moment.")


class ReckoningPage(QWidget):
    """What was there, what was believed, and every decision; reckoned once."""

    picked = Signal()

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self.open_book = open_book
        self.plan: Reckoning | None = None
        self.planner = Planner()
        self.planner.planned.connect(self._take_plan)
        self.shown: Shown | None = None
        self._shown_in: Units | None = None
        self.chosen = 0
        self._advice: dict[int, str] = {}
        self.stairs, self.list, self.curves = StairView(), DecisionList(), DecisionCurves()
        self.stairs.picked.connect(self._pick)
        self.list.picked.connect(self._pick)
        self.told = RichLabel()
        self.told.setWordWrap(True)
        self.told.setAlignment(Qt.AlignmentFlag.AlignTop)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(16)
        column = QVBoxLayout()
        column.addWidget(self.stairs, 3)
        self._list_area = ScrollArea(self.list, sideways=False)
        column.addWidget(self._list_area, 2)
        row.addLayout(column, 5)
        side = QWidget()
        column = QVBoxLayout(side)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.curves)
        column.addWidget(self.told)
        column.addStretch()
        self.side = ScrollArea(side, sideways=False)
        row.addWidget(self.side, 2)

    @property
    def decision(self) -> Decision | None:
        """The chosen one."""
        return self.shown.decisions[self.chosen] if self.shown is not None and self.shown.decisions else None

    def show_reckoning(self) -> Shown:
        """Reckon where that was not done yet, and draw it."""
        practice = self.open_book.practice
        assert practice is not None
        units = self.open_book.units
        if self.shown is None or self._shown_in is not units:
            if self.plan is None and not self.planner.busy:
                self.planner.ask(partial(plans_own_way, practice.practice))
                self.open_book.say(OPEN)
            self.shown, self._shown_in = reckoning_shown(practice.practice, units, self.plan), units
        self.stairs.show_stairs(self.shown, units, self.chosen)
        self.list.show_decisions(self.shown.decisions, self.chosen, units.flow.label)
        self._keep_in_sight()
        self.curves.show_decision(self.decision, units)
        self.told.setText(self._words())
        return self.shown

    def _keep_in_sight(self) -> None:
        self._list_area.ensureVisible(0, self.list.middle_of(self.chosen), 0, 20)

    def resizeEvent(self, event: QResizeEvent) -> None:
        super().resizeEvent(event)
        QTimer.singleShot(0, self, self._keep_in_sight)  # once what is in it has its new size

    def _take_plan(self, found: object) -> None:
        """Plan's own way, once it is reckoned; a sentence where it could not be."""
        if isinstance(found, Reckoning):
            self.plan, self.shown = found, None
            self.picked.emit()
        else:
            self.open_book.say(sentence(str(found)))

    def _words(self) -> str:
        d, t = self.decision, theme.current()
        if d is None:
            return tr("Nothing was decided.")
        heading = f"<p style='font-size:19px'><b style='color:{t.brass}'>{d.number}</b> {escape(d.name)}</p>"
        parts = (
            (tr("What you knew"), d.what_you_knew),
            (tr("What was true"), d.what_was_true),
            (tr("What would have shown it"), d.what_would_show),
            (tr("What Plan would have done"), self._advice.get(self.chosen, "P asks it.")),
        )
        told = "".join(f"<p><span style='color:{t.brass}'>{k}</span><br>{escape(v)}</p>" for k, v in parts)
        when = tr("{} on the clock; could be known then: {}", d.clock, escape(d.known))
        return f"{heading}<p style='color:{t.quiet}'>{when}</p>{told}"

    def step(self, by: int) -> None:
        """Another decision."""
        if self.shown is not None and self.shown.decisions:
            self._pick((self.chosen + by) % len(self.shown.decisions))

    def _pick(self, row: int) -> None:
        self.chosen = row
        self.picked.emit()

    def ask_plan(self) -> None:
        """What Plan would have said before the chosen decision."""
        practice, d = self.open_book.practice, self.decision
        if practice is not None and d is not None:
            self._advice[self.chosen] = plan_would(practice.practice, d.act)
            self.picked.emit()

    def lesson(self) -> str:
        """The id of the lesson that is in the chosen decision; nothing where nothing was decided."""
        d = self.decision
        if d is None:
            return ""
        return "wall" if d.of_wall else LESSON_OF.get(d.verdict, "adding-up")
