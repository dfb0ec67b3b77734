"""The right of the Plan room: what the picked move would bring, the stages of a port never flowed, and the engine."""

from __future__ import annotations

from collections.abc import Sequence
from html import escape

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QLabel, QVBoxLayout, QWidget

from ventrix.core.engine.of_job import OnTheEngine
from ventrix.core.planning.moves import CUTS, Move
from ventrix.core.planning.next_moves import Plan
from ventrix.rooms.display_units import Units
from ventrix.rooms.plan.engine_shows import engine_caption, engine_card, engine_picture
from ventrix.rooms.plan.route_shows import StageLine
from ventrix.rooms.plan.shows import expected_picture
from ventrix.ui.look import theme
from ventrix.ui.widgets.plot import Plot
from ventrix.ui.widgets.rich_label import RichLabel
from ventrix.words import tr


class Beside(QWidget):
    """Three things, each shown where there is something to it."""

    def __init__(self) -> None:
        super().__init__()
        self.stages = RichLabel()
        self.stages.setWordWrap(True)
        self.stages.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.expected_caption = _caption()
        self.expected = Plot(tr("Expected gain of the picked move"))
        self.said = QLabel()
        self.said.setWordWrap(True)
        self.engine_caption = _caption()
        self.engine_plot = Plot(tr("VE over engine speed"))
        self.engine_card = QLabel()
        self.engine_card.setObjectName("quiet")
        self.engine_card.setWordWrap(True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        for each in (self.stages, self.expected_caption):
            column.addWidget(each)
        column.addWidget(self.expected, 1)
        for each in (self.said, self.engine_caption):
            column.addWidget(each)
        column.addWidget(self.engine_plot, 1)
        column.addWidget(self.engine_card)
        column.addStretch()

    def show_move(self, move: Move, plan: Plan, units: Units) -> None:
        """A flowed port's move with its expected gain over lift; the usual caution with every cut."""
        index = plan.planned.chain.is_index
        has = bool(move.points) and plan.planned.run is not None
        self.expected.setVisible(has)
        self.expected_caption.setText(tr("expected of it, {} over lift", "index" if index else units.flow.label) * has)
        if has:
            self.expected.show_picture(expected_picture(move, units, index))
        caution = tr("Read the wall and keep your limit: this says nothing of what is safe.")
        self.said.setText(f"{move.sentence} {caution}" if move.kind in CUTS else move.sentence)

    def show_stages(self, lines: Sequence[StageLine]) -> None:
        """Without a flow test the way is by stages, each closed by something one can hold; none hides them."""
        self.stages.setVisible(bool(lines))
        t = theme.current()
        rows = [tr("<b>Stages, without a bench</b>")]
        for line in lines:
            if line.now:
                rows.append(f"<b style='color:{t.brass}'>■ {escape(line.stage)}</b>")
                rows += [f"<span style='color:{t.quiet}'>{escape(words)}</span>" for words in line.says]
            elif line.done:
                rows.append(f"<span style='color:{t.better}'>✓</span> {escape(line.stage)}")
            else:
                rows.append(f"<span style='color:{t.quiet}'>□ {escape(line.stage)}</span>")
        self.stages.setText("<br>".join(rows))

    def show_engine(self, found: OnTheEngine | str, units: Units) -> None:
        """The engine, or what is said in its place."""
        there = isinstance(found, OnTheEngine)
        self.engine_plot.setVisible(there)
        self.engine_card.setVisible(there)
        if isinstance(found, OnTheEngine):
            self.engine_caption.setText(engine_caption(found))
            self.engine_plot.show_picture(engine_picture(found))
            self.engine_card.setText(engine_card(found, units))
        else:
            self.engine_caption.setText(found)


def _caption() -> QLabel:
    label = QLabel()
    label.setObjectName("caption")
    label.setWordWrap(True)
    return label
