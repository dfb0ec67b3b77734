"""The Compare room: what a cut really did, with one sentence of verdict and its reason; or the whole row."""

from __future__ import annotations

from functools import cached_property
from typing import Final

from PySide6.QtCore import QSize, Qt
from PySide6.QtWidgets import QBoxLayout, QComboBox, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from ventrix.core.judging.checks import Offer
from ventrix.core.judging.comparison import RunComparison
from ventrix.core.judging.findings import Pair
from ventrix.core.judging.my_lifts import lifts_of
from ventrix.core.judging.verdict import Verdict
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.runs.run_curves import KINDS, kind_of
from ventrix.rooms.compare.basis_words import based_on, judged_by, run_notes, side_name
from ventrix.rooms.compare.both_kinds import both_kinds
from ventrix.rooms.compare.curves import curves, lifts_of_span
from ventrix.rooms.compare.gaps import Gap, gaps_of, one_house
from ventrix.rooms.compare.my_lifts import lift_tiles
from ventrix.rooms.compare.ribbon import ribbon
from ventrix.rooms.compare.scorecard import score_rows
from ventrix.rooms.compare.unflowed import metal_rows
from ventrix.rooms.display_units import Units
from ventrix.ui.compare.both_page import BothPage
from ventrix.ui.compare.lift_table import LiftTable
from ventrix.ui.compare.my_lifts_strip import MyLiftsStrip
from ventrix.ui.compare.scorecard import Scorecard
from ventrix.ui.compare.unflowed import unflowed_html
from ventrix.ui.compare.verdict_card import VerdictCard
from ventrix.ui.compare.whole_row import RowView
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.command import Command
from ventrix.ui.widgets.flow_layout import FlowLayout
from ventrix.ui.widgets.plot import Plot
from ventrix.ui.widgets.rich_label import RichLabel
from ventrix.ui.widgets.room import QWIDGETSIZE_MAX, Room
from ventrix.ui.widgets.scroll_area import ScrollArea
from ventrix.words import tr
from ventrix.workspace.ids import now_text

NOT_COMPARABLE = tr("NOT COMPARABLE, shown anyway")
LEVEL_MARK = {"yes": "✓", "converted": "≈", "unknown": "?", "no": "✕"}

SIDE: Final = 400  # px
WIDE: Final = 940  # px: below, the verdict stands above the curves
FAR = 1.8  # times as large where it is read from a distance
STACKED: Final = 960  # px that this takes in height
SCORES: Final = 280  # px of it, of the scorecard at its foot


class CompareRoom(Room):
    """Curves above, the difference ribbon below, the lift table; verdict and scorecard beside them.

    Keys: the commands of its bar; Esc clears a range of lifts.
    """

    name = tr("Compare")
    manual = "compare"
    has_far_view = True

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.anyway = False
        self.alone = False
        self.over_ratio = False
        self.whole_row = False
        self.chosen: tuple[float, float] | None = None
        self.comparability = QLabel()
        self.comparability.setWordWrap(True)
        self.record_button = QPushButton(tr("Record for both (A)"))
        self.record_button.clicked.connect(self.record_gaps)
        self.show_anyway = QPushButton(tr("Show anyway (Shift+A)"))
        self.show_anyway.clicked.connect(self.toggle_anyway)
        self.kind = QComboBox()
        self.kind.setAccessibleName(tr("Curve"))
        for each in KINDS:
            self.kind.addItem(each.name, each.key)
        self.kind.activated.connect(lambda _i: self.refresh())
        self.axis = QPushButton(tr("against L/D (X)"))
        self.axis.clicked.connect(self.toggle_axis)
        self.row_button = QPushButton(tr("The whole row (W)"))
        self.row_button.clicked.connect(self.toggle_row)
        self.commands = (
            Command("compare.next", tr("next curve"), lambda: self.next_curve(1), "K"),
            Command("compare.before", tr("curve before"), lambda: self.next_curve(-1), "Shift+K"),
            Command("compare.axis", tr("lift or L/D"), self.toggle_axis, "X"),
            Command("compare.row", tr("the whole row"), self.toggle_row, "W"),
            Command("compare.both", tr("exhaust and intake"), self.toggle_both, "B"),
            Command(
                "compare.gaps",
                tr("record what is missing"),
                self.record_gaps,
                "A",
                able=lambda: bool(self.gaps or self.house),
            ),
            Command("compare.anyway", tr("show anyway"), self.toggle_anyway, "Shift+A"),
            Command("compare.check", tr("flow the check"), self.begin_check, "F", able=lambda: self.offer is not None),
            Command("compare.all", tr("all lifts again"), self._leave, "Esc"),
        )
        self.both_button = QPushButton(tr("Exhaust and intake (B)"))
        self.both_button.clicked.connect(self.toggle_both)
        self.other = QPushButton(tr("Compare with…"))
        self.other.setToolTip(tr("Compare with any run of the book: another port, head or bench, or a claim"))
        self.other.clicked.connect(lambda: self.ways.command("other"))
        self.my_lifts = MyLiftsStrip()
        self.curves_caption = QLabel()
        self.curves_caption.setObjectName("caption")
        self.curves = Plot(tr("Curves of both cuts"), selects=True)
        self.curves.range_selected.connect(self._choose_range)
        self.sentences = QLabel()
        self.sentences.setObjectName("caption")
        self.sentences.setWordWrap(True)
        self.ribbon_caption = QLabel()
        self.ribbon_caption.setObjectName("caption")
        self.ribbon = Plot(tr("Difference of the two cuts against lift"))
        self.ribbon.setMinimumHeight(84)  # the words over its bars want it
        self.table = LiftTable()
        self.table.said.connect(open_book.say)
        self.notes = QLabel()
        self.notes.setObjectName("caption")
        self.notes.setWordWrap(True)
        self.verdict = VerdictCard()
        self.verdict.check_wanted.connect(self.begin_check)
        self.offer: Offer | None = None
        self.gaps: tuple[Gap, ...] = ()
        self.house = ""
        self.scorecard = Scorecard()
        self.scorecard.room_wanted.connect(self.ways.room)
        self.both_shown = False
        self.empty = RichLabel()
        self.empty.setObjectName("title")
        self.empty.setWordWrap(True)
        self.empty.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._narrow = False
        self._content = QWidget()
        self._lay_out()

    def _lay_out(self) -> None:
        bar = FlowLayout(8, 4)
        for widget in (self.kind, self.axis, self.row_button, self.both_button, self.other):
            widget.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            bar.addWidget(widget)
        said = QHBoxLayout()
        said.addWidget(self.comparability, 1)
        said.addWidget(self.record_button)
        said.addWidget(self.show_anyway)
        left = self._left = QVBoxLayout()
        left.setSpacing(3)
        left.addLayout(said)
        left.addWidget(self.my_lifts)
        left.addWidget(self.curves_caption)
        left.addWidget(self.curves, 5)
        left.addWidget(self.sentences)
        left.addWidget(self.ribbon_caption)
        left.addWidget(self.ribbon, 2)
        left.addWidget(self.table)
        left.addWidget(self.notes)
        self.scorecard.setMaximumWidth(520)
        self._scores = ScrollArea(self.scorecard)
        self._side = QWidget()
        right = self._right = QVBoxLayout(self._side)
        right.setSpacing(8)
        right.addWidget(self.verdict)
        right.addWidget(self._scores, 1)
        self._side.setFixedWidth(SIDE)
        self._row = QHBoxLayout(self._content)
        self._row.setContentsMargins(0, 0, 0, 0)
        self._row.setSpacing(14)
        self._row.addLayout(left, 1)
        self._row.addWidget(self._side)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(16, 4, 16, 6)
        outer.setSpacing(4)
        self._bar = QWidget()
        self._bar.setLayout(bar)
        outer.addWidget(self._bar)
        self._pages: list[QWidget] = []
        self._outer = outer
        for page in (self._content, self.empty):
            self._add_page(page)

    def _add_page(self, page: QWidget) -> None:
        self._pages.append(page)
        self._outer.addWidget(page, 1)

    @cached_property
    def row_view(self) -> RowView:
        """The whole row of cuts, made when it is first asked for."""
        page = RowView()
        page.table.said.connect(self.open_book.say)
        page.states.said.connect(self.open_book.say)
        self._add_page(page)
        return page

    @cached_property
    def both(self) -> BothPage:
        """Exhaust and intake beside one another, likewise."""
        page = BothPage()
        page.table.said.connect(self.open_book.say)
        self._add_page(page)
        return page

    def fit(self, there: QSize) -> None:
        """In a small window one column: the verdict, the curves, the lifts, the scorecard."""
        narrow = there.width() < WIDE
        if narrow == self._narrow:
            return
        self._narrow = narrow
        (self._left if narrow else self._right).addWidget(self._scores, 0 if narrow else 1)
        self._scores.setMinimumHeight(SCORES if narrow else 0)
        self._row.setDirection(QBoxLayout.Direction.BottomToTop if narrow else QBoxLayout.Direction.LeftToRight)
        self._side.setMinimumWidth(0 if narrow else SIDE)
        self._side.setMaximumWidth(QWIDGETSIZE_MAX if narrow else SIDE)
        self.sentences.setVisible(not narrow)
        self._content.setMinimumHeight(STACKED if narrow else 0)  # below it the frame scrolls

    def show_alone(self, alone: bool) -> None:
        """The far view: verdict, my lifts and the curves at arm's length, and nothing else."""
        if alone == self.alone:
            return
        self.alone = alone
        self.whole_row = self.both_shown = False
        self._bar.setVisible(not alone)
        narrow = alone or self._narrow
        self._row.setDirection(QBoxLayout.Direction.BottomToTop if narrow else QBoxLayout.Direction.LeftToRight)
        self._side.setMinimumWidth(0 if narrow else SIDE)
        self._side.setMaximumWidth(QWIDGETSIZE_MAX if narrow else SIDE)
        self._scores.setVisible(not alone)
        self.verdict.show_large(alone)
        self.ways.far_shown.emit(alone)
        self.refresh()

    # -- showing

    def refresh(self) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None or space.cut is None:
            return  # the window offers a job instead of this room
        self.row_button.setText(tr("This pair (W)") if self.whole_row else tr("The whole row (W)"))
        self.both_button.setText(tr("This pair (B)") if self.both_shown else tr("Exhaust and intake (B)"))
        for widget in (self.kind, self.axis, self.other):
            widget.setVisible(not (self.whole_row or self.both_shown))
        if self.both_shown:
            self._show_only(self.both)
            self.both.show_both(both_kinds(space.findings, space.port, self.open_book.units))
            return
        if self.whole_row:
            self._show_only(self.row_view)
            self.row_view.show_row(space.findings, space.port, self.open_book.units)
            return
        pair = space.pair
        if pair is None:
            self._say_empty(
                tr(
                    "<p>Nothing to compare this cut with yet.</p><p>Flow it as it is in the Flow room, log a cut "
                    "with + cut, flow that, and what it did stands here. Shift-click a plate, or D, compares "
                    "with that cut.</p>"
                )
            )
            return
        if pair.comparison is None:
            self._say_empty(unflowed_html(pair, metal_rows(space.job, pair, self.open_book.units)))
            return
        self._show_only(self._content)
        verdict = space.findings.verdict(pair, self.open_book.units.wording)
        assert verdict is not None
        self._draw(pair, pair.comparison, verdict)

    def _show_only(self, widget: QWidget) -> None:
        for page in self._pages:
            page.setVisible(page is widget)

    def _say_empty(self, words: str) -> None:
        self.empty.setText(words)
        self._show_only(self.empty)

    def _draw(self, pair: Pair, c: RunComparison, verdict: Verdict) -> None:
        units = self.open_book.units
        space = self.open_book.workspace
        assert space is not None
        said = c.comparability.sentence if c.allowed else c.comparability.start  # the verdict's card says the rest
        based = based_on(pair, c, space.job, space.other.words if space.other is not None else "")
        self.comparability.setText(f"{LEVEL_MARK[c.comparability.level]}  {units.say(said)} {based}")
        self.show_anyway.setVisible(not c.allowed)
        self.show_anyway.setText(tr("Hide it again (Shift+A)") if self.anyway else tr("Show anyway (Shift+A)"))
        self.gaps = gaps_of(pair)
        self.house = one_house(pair)
        self.record_button.setVisible(bool(self.gaps or self.house))
        shown = c.allowed or self.anyway
        for part in (self.curves, self.curves_caption, self.ribbon, self.ribbon_caption, self.table, self.sentences):
            part.setVisible(shown and not (self.alone and part in (self.ribbon, self.ribbon_caption, self.table)))
        self.scorecard.setVisible(shown)
        tiles = lift_tiles(c, lifts_of(space.job, pair.port.kind), units) if shown else ()
        self.my_lifts.show_tiles(tiles, FAR if self.alone else 1.0)
        if shown:
            mark = "" if c.allowed else f"{NOT_COMPARABLE} · "
            self._draw_curves(pair, c, units, mark)
            self._draw_ribbon(pair, c, units, mark)
            self.table.show_lifts(c, units, side_name(pair, 0), side_name(pair, 1))
            self._show_scores(pair, c, verdict)
        left_out = map(units.say, space.findings.left_out(pair))
        self.notes.setText("  ".join((*c.notes, *left_out, *run_notes(pair, units))))
        self.notes.setVisible(bool(self.notes.text()) and not self.alone)
        self.offer = space.findings.check_offer(pair, now_text())
        check = f"{self.offer.words} (F)" if self.offer is not None else ""
        self.verdict.show_verdict(verdict, judged_by(c, verdict) if c.allowed else "", check)

    def record_gaps(self) -> None:
        """Record the conditions that keep these two from being compared."""
        self.ways.sheet("gaps")

    def begin_check(self) -> None:
        """Flow what shows whether the bench changed."""
        if self.offer is not None:
            self.ways.room("flow", self.offer)

    def _draw_curves(self, pair: Pair, c: RunComparison, units: Units, mark: str) -> None:
        space = self.open_book.workspace
        assert space is not None
        kind = kind_of(self.kind.currentData())
        drawn = curves(space.findings, pair, c, kind, units, over_ratio=self.over_ratio)
        self.curves.show_picture(drawn.picture)
        self.curves_caption.setText(f"{mark}{drawn.caption}")
        self.sentences.setText("  ".join(drawn.sentences))

    def _draw_ribbon(self, pair: Pair, c: RunComparison, units: Units, mark: str) -> None:
        self.ribbon.show_picture(ribbon(c, units, theme.current().result))
        name = units.flow.label if c.kind == FlowKind.FLOW else tr("percent of {}", side_name(pair, 0))
        self.ribbon_caption.setText(tr("{}what {} did, {} (gray: not proven)", mark, side_name(pair, 1), name))

    # -- hands and keys

    def _leave(self) -> None:
        """Out of the far view, or out of the chosen range of lifts."""
        if self.alone:
            self.show_alone(False)
        else:
            self.curves.clear_selection()

    def next_curve(self, by: int) -> None:
        """The next of the curves the trade reads."""
        self.kind.setCurrentIndex((self.kind.currentIndex() + by) % self.kind.count())
        self.refresh()

    def toggle_axis(self) -> None:
        self.over_ratio = not self.over_ratio
        self.curves.clear_selection()
        self.axis.setText(tr("against lift (X)") if self.over_ratio else tr("against L/D (X)"))
        self.refresh()

    def toggle_both(self) -> None:
        """Exhaust and intake on one page, or the pair again."""
        self.both_shown, self.whole_row = not self.both_shown, False
        self.refresh()

    def toggle_row(self) -> None:
        self.whole_row, self.both_shown = not self.whole_row, False
        self.refresh()

    def toggle_anyway(self) -> None:
        """Show what may not be compared, marked as such everywhere."""
        self.anyway = not self.anyway
        self.refresh()

    def _choose_range(self, chosen: object) -> None:
        """A range of lifts was dragged out: the scorecard follows it."""
        space = self.open_book.workspace
        if space is None:
            return
        pair, units = space.pair, self.open_book.units
        span = chosen if isinstance(chosen, tuple) else None
        run = pair.after_runs[-1] if self.over_ratio and pair is not None else None
        self.chosen = None if span is None else lifts_of_span(span, run, units)
        if pair is not None and pair.comparison is not None:
            verdict = space.findings.verdict(pair, units.wording)
            assert verdict is not None
            self._show_scores(pair, pair.comparison, verdict)

    def _show_scores(self, pair: Pair, c: RunComparison, verdict: Verdict) -> None:
        space = self.open_book.workspace
        assert space is not None
        rows = score_rows(space.findings, pair, c, verdict, self.open_book.units, self.chosen)
        self.scorecard.show_rows(rows, side_name(pair, 0), side_name(pair, 1))

    def picture(self) -> QWidget:
        """What is saved or copied as a picture: the room without its buttons."""
        return self.both if self.both_shown else self.row_view if self.whole_row else self._content
