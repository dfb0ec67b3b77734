"""The way through a port by stages, without a bench: the card in hand, and closing it by what was seen."""

from __future__ import annotations

from html import escape
from typing import Final

from PySide6.QtWidgets import QComboBox

from ventrix.core.castings.casting_file import look_first
from ventrix.core.edits.stages import close_stage
from ventrix.core.model.job_parts import StageMark
from ventrix.core.model.kept_words import ClosedBy
from ventrix.core.work.route import Card, next_card, route
from ventrix.core.work.stages import stages_of
from ventrix.rooms.shared.casting_words import read_first
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.kept_choice import choose, taken
from ventrix.ui.widgets.rich_label import RichLabel
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text

FIELDS: Final = (
    (tr("Look"), "look"),
    (tr("Measure, it would sharpen this"), "measure"),
    (tr("Cut"), "cut"),
    (tr("Leave"), "leave"),
    (tr("Stop when"), "stop_when"),
    (tr("Caution"), "caution"),
)


class RouteSheet(FormSheet):
    """Enter closes the stage that comes next; a stage that the job shows done closes by itself. Undo opens it again."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Close the stage"))
        self.stages = RichLabel()
        self.stages.setWordWrap(True)
        self.column.addWidget(self.stages)
        self.card = RichLabel()
        self.card.setWordWrap(True)
        self.column.addWidget(self.card)
        self.how: QComboBox = self.add_choice(tr("Closed by"), [(w, w) for w in ClosedBy])
        self.finish()
        open_book.job_changed.connect(self._fill)
        open_book.selection_changed.connect(self._fill)
        open_book.look_changed.connect(self._fill)

    def open(self) -> None:
        self.come_up()
        self._fill()
        self.how.setFocus()

    def _cards(self) -> tuple[Card, ...]:
        space = self.open_book.workspace
        worked = space is not None and space.port is not None and space.port.of_head
        if space is None or space.port is None or not worked:
            return ()
        castings, kind = space.shop.castings(), space.port.kind
        thin = read_first(castings, kind, self.open_book.units)
        return route(space.findings, space.port, look_first(castings, kind), thin)

    def _fill(self) -> None:
        space = self.open_book.workspace
        if not self.isVisible() or space is None or space.port is None:
            return
        cards, t = self._cards(), theme.current()
        coming = next_card(cards)
        self.title.setText(tr("Stages of {}", space.port.name.lower()))
        done, now = f"<span style='color:{t.better}'>✓</span>", f"<b style='color:{t.brass}'>■&nbsp;"
        rows, named = [], {stage.key: stage.name for stage in stages_of(space.job)}
        for card in cards:
            name = escape(named.get(card.stage, card.stage)).replace(" ", "&nbsp;")
            rows.append(f"{now}{name}</b>" if card is coming else f"{done if card.done else '□'}&nbsp;{name}")
        self.stages.setText(" &nbsp; ".join(rows))
        self.take_button.setEnabled(coming is not None)
        if coming is None:
            self.card.setText(tr("Every stage is closed."))
            return
        told = [(caption, getattr(coming, name)) for caption, name in FIELDS]
        self.card.setText("".join(f"<p><b>{c}</b><br>{escape(words)}</p>" for c, words in told if words))
        choose(self.how, coming.closed_by)

    def take(self) -> None:
        space, coming = self.open_book.workspace, next_card(self._cards())
        if space is None or space.port is None or coming is None:
            return
        mark = StageMark(
            id=new_id(), stage=coming.stage, port_id=space.port.id, closed_by=taken(self.how), date=now_text()
        )
        space.apply(tr("stage '{}' closed", coming.stage), close_stage(space.job, mark))
