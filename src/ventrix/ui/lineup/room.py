"""The Line-up room: faces that meet at true proportion, one port nearer, and every edge worst first."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Final

import numpy as np
from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QKeyEvent, QPixmap
from PySide6.QtWidgets import QHBoxLayout, QLabel, QVBoxLayout, QWidget

from ventrix.core.lineup.fitting import Fit
from ventrix.core.lineup.of_job import LineUp, line_up, meets_the_head
from ventrix.core.model.kinds import Place
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si
from ventrix.core.quantity.words import sentence
from ventrix.rooms.lineup.shows import LARGE, EdgeLine, Shown, gauge_of, shown_of, take_off_words
from ventrix.ui.lineup.views import EdgeList, FaceView, NearView
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.action_bar import ActionBar
from ventrix.ui.widgets.answer_strip import AnswerStrip
from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.room import Room
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.ui.widgets.trace_view import TraceView
from ventrix.words import tr

STEPS: Final = {"in": to_si(0.004, "in"), "mm": to_si(0.1, "mm")}  # what an arrow moves a face, a round figure in each
TURN: Final = np.radians(0.05)
SMALL: Final = 960  # px


class LineUpRoom(Room):
    """A strip, the whole face, the chosen port nearer and the edges; arrows move the other face."""

    name = "Line-up"
    manual = "lineup"

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.found: LineUp | None = None
        self.shown: Shown | None = None
        self.at = 0
        self.which = 0  # of the faces that are not the head's
        self.by: str | None = None
        self.moved: Fit | None = None
        self._moved_on = ""  # the job it was moved in
        self.times = LARGE
        self._there = QSize(1280, 800)
        move = self._move
        self.commands = (
            Command("lineup.before", tr("edge"), partial(self.pick, -1), ",", one_of="edge"),
            Command("lineup.next", tr("edge"), partial(self.pick, 1), ".", one_of="edge"),
            Command("lineup.before", tr("edge before"), partial(self.pick, -1), "Shift+Tab", one_of="edge"),
            Command("lineup.left", tr("move"), partial(move, -1, 0), "Left", one_of="move"),
            Command("lineup.right", tr("move"), partial(move, 1, 0), "Right", one_of="move"),
            Command("lineup.up", tr("move"), partial(move, 0, 1), "Up", one_of="move"),
            Command("lineup.down", tr("move"), partial(move, 0, -1), "Down", one_of="move"),
            Command("lineup.turn", tr("turn"), partial(self._turn, 1), "Shift+Left", one_of="turn"),
            Command("lineup.back", tr("turn"), partial(self._turn, -1), "Shift+Right", one_of="turn"),
            Command("lineup.bolts", tr("by bolts"), partial(self.fit_by, "bolts"), "B"),
            Command("lineup.best", tr("best fit"), partial(self.fit_by, "ports"), "F"),
            Command("lineup.true", tr("true steps"), self.toggle_true, "X"),
            Command("lineup.other", tr("another face"), self.next_face, "O"),
            Command("lineup.plan", tr("into Cuts"), self.plan, "Return"),
            Command("lineup.face", tr("a face"), lambda: self.ways.sheet("face", self.tracing), "N"),
            Command("lineup.milling", tr("milling"), lambda: self.ways.sheet("milling"), "M"),
            Command("lineup.chambers", tr("chambers"), lambda: self.ways.sheet("chamber"), "H"),
            Command("lineup.template", tr("template"), lambda: self.ways.sheet("template", self.found), "T"),
        )
        self.strip = AnswerStrip()
        self.strip.row.setStretch(1, 1)
        self.verdict, self.reason = self.strip.verdict, self.strip.reason
        ((self.runs, self.runs_below),) = self.strip.figures
        self.runs_below.setWordWrap(True)
        self.caption = QLabel()
        self.caption.setObjectName("caption")
        self.face = FaceView()
        self.face.picked.connect(self._pick_port)
        self.near = NearView()
        self.edges = EdgeList()
        self.edges.picked.connect(self._pick_row)
        self.gauge = QLabel()
        self.gauge.setWordWrap(True)
        self.keys = ActionBar()
        self.tracing = TraceView()
        self.tracing.hide()
        self.tracing.left.connect(self.stop_tracing)
        self.waiting = QLabel()
        self.waiting.setObjectName("title")
        self.waiting.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.waiting.setWordWrap(True)
        self._lay_out()

    def _lay_out(self) -> None:
        scroll = ScrollArea(self.edges, sideways=False)
        column = QVBoxLayout()
        column.addWidget(scroll, 1)
        column.addWidget(self.gauge)
        below = QHBoxLayout()
        below.setSpacing(20)
        below.addWidget(self.near, 4)
        below.addLayout(column, 6)
        self._content = QWidget()
        inside = QVBoxLayout(self._content)
        inside.setContentsMargins(0, 0, 0, 0)
        inside.addWidget(self.strip)
        inside.addWidget(self.caption)
        inside.addWidget(self.face, 2)
        inside.addLayout(below, 4)
        inside.addWidget(self.keys)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(16, 8, 16, 6)
        outer.addWidget(self._content, 1)
        outer.addWidget(self.tracing, 1)
        outer.addWidget(self.waiting, 1)

    def fit(self, there: QSize) -> None:
        """In a small window the near view gives way, then captions and keys."""
        self._there = there
        self.near.setVisible(there.width() >= 700)
        self.keys.setVisible(there.height() >= 560)
        self.caption.setVisible(there.height() >= 520)
        for label in (self.runs, self.runs_below):
            label.setVisible(there.width() >= 760)
        self._show()

    # -- showing

    def refresh(self) -> None:
        space = self.open_book.workspace
        if space is None or self.tracing.isVisible():
            return
        if self._moved_on != space.job.id:  # what was moved by hand on one head is not laid on another
            self._moved_on, self.by, self.moved, self.which, self.at = space.job.id, None, None, 0, 0
        others = meets_the_head(space.job)
        name = others[self.which % len(others)].name if others else None
        try:
            self.found = line_up(space.job, name, self.by, self.moved)
        except Refused as error:
            self.found = self.shown = None
            says = tr("N types a face: its port centers, their size, its bolts; or reads a drawing (DXF, SVG).")
            self.waiting.setText(f"{sentence(str(error))}\n\n{says}")
            self._content.hide()
            self.waiting.show()
            return
        self.waiting.hide()
        self._content.show()
        self.shown = shown_of(space.job, self.found, self.open_book.units)
        self._show()

    def _show(self) -> None:
        shown, t, units = self.shown, theme.current(), self.open_book.units
        if shown is None:
            return
        self.at = min(self.at, max(len(shown.lines) - 1, 0))
        wide = self._there.width() >= SMALL
        mark = "▼ " if shown.strip.worse else ""
        shade = t.worse if shown.strip.worse else t.better
        self.verdict.say(mark + shown.strip.verdict, 40 if wide else 27, shade)
        self.reason.setText(shown.strip.reason)
        self.runs.setText(shown.strip.runs)
        self.runs.setStyleSheet("font-size: 17px; font-weight: 600")
        self.runs_below.setText(shown.strip.runs_below)
        self.caption.setText(shown.caption)
        line = self.line
        port = "" if line is None else line.edge.port
        self.face.show_ports(shown.ports, shown.bolts, port)
        curves = next((p for p in shown.ports if p.port == port), None)
        self.near.show_port(curves, [each for each in shown.lines if each.edge.port == port], self.times)
        self.edges.show_lines(shown.lines, self.at, units.length.label)
        told = ["" if line is None else gauge_of(line, units).said, shown.spared]
        self.gauge.setText("\n".join(t for t in told if t))
        self.keys.show_actions(self.commands, ((tr("1 to 9"), "port"),))

    @property
    def line(self) -> EdgeLine | None:
        """The picked edge."""
        return self.shown.lines[self.at] if self.shown is not None and self.shown.lines else None

    # -- hands and keys

    def keyPressEvent(self, event: QKeyEvent) -> None:
        digit = event.key() - Qt.Key.Key_0
        if self.shown is not None and 1 <= digit <= 9 and not event.modifiers():
            if digit <= len(self.shown.ports):
                self._pick_port(self.shown.ports[digit - 1].port)
            return
        super().keyPressEvent(event)

    def pick(self, by: int) -> None:
        if self.shown is not None and self.shown.lines:
            self._pick_row((self.at + by) % len(self.shown.lines))

    def _pick_row(self, row: int) -> None:
        self.at = row
        self._show()
        self.setFocus()

    def _pick_port(self, port: str) -> None:
        if self.shown is not None:
            self._pick_row(next(i for i, line in enumerate(self.shown.lines) if line.edge.port == port))

    def _move(self, x: int, y: int) -> None:
        step = STEPS[self.open_book.units.length.unit]
        self._lay(lambda f: Fit((f.shift[0] + x * step, f.shift[1] + y * step), f.turn))

    def _turn(self, by: int) -> None:
        self._lay(lambda f: Fit(f.shift, f.turn + by * TURN))

    def _lay(self, how: Callable[[Fit], Fit]) -> None:
        if self.found is not None:
            self.moved = how(self.found.fit)
            self.refresh()

    def _plan_edge(self, line: EdgeLine) -> None:
        """The cut sheet with an edge of the opening in it, on the port that it is of."""
        space = self.open_book.workspace
        port = None if space is None else next((p for p in space.job.ports if p.name == line.edge.port), None)
        if space is None or port is None or line.proposal is None:
            return
        space.look_at_port(port.id)
        self.ways.sheet("cut", Place.OPENING.value, edge=line.edge.edge, depth=line.proposal.depth)

    def come_in(self, what: object) -> None:
        """For a picture that is traced."""
        if isinstance(what, QPixmap):
            self.trace(what)

    def trace(self, picture: QPixmap) -> None:
        """A picture in the room's place, until Esc."""
        self._content.hide()
        self.waiting.hide()
        self.tracing.begin(picture)
        self.tracing.show()
        self.tracing.setFocus()

    def stop_tracing(self) -> None:
        """The room again; what was traced stays in hand for the sheet."""
        self.tracing.hide()
        self.refresh()

    def fit_by(self, by: str) -> None:
        """Lay the other face on by bolts, or as the ports fit best."""
        self.by, self.moved = by, None
        self.refresh()

    def toggle_true(self) -> None:
        self.times = 1.0 if self.times > 1 else LARGE
        self._show()

    def next_face(self) -> None:
        """Another face of the job on the head's."""
        self.which += 1
        self.moved = None
        self.at = 0
        self.refresh()

    def plan(self) -> None:
        """The picked edge as planned work in Cuts, where it is the head's."""
        line = self.line
        if line is None:
            return
        if line.proposal is None or line.proposal.depth <= 0:
            self.open_book.say(tr("Nothing is to come off there."))
        elif line.proposal.part != "head":
            self.open_book.say(tr("Not the head's: {}.", take_off_words(line.proposal, self.open_book.units)))
        else:
            self._plan_edge(line)
