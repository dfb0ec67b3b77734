"""The Compare room: two cuts held against each other, and one sentence of verdict with its reason."""

from __future__ import annotations

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtGui import QKeySequence, QShortcut
from PySide6.QtWidgets import (
    QAbstractItemView,
    QApplication,
    QHBoxLayout,
    QHeaderView,
    QLabel,
    QTableWidget,
    QTableWidgetItem,
    QVBoxLayout,
    QWidget,
)

from ventrix.core.analysis import Pair
from ventrix.core.compare import RunComparison
from ventrix.core.reduction import ReducedRun
from ventrix.core.units import from_si, from_si_array, percent_text
from ventrix.core.verdict import Verdict
from ventrix.ui import theme
from ventrix.ui.parts.plot import Band, Bars, LiftPlot, Line
from ventrix.ui.parts.scorecard import Scorecard, score_rows
from ventrix.ui.parts.verdict_card import VerdictCard
from ventrix.ui.rooms.room import Room
from ventrix.ui.session import Session
from ventrix.ui.units import Units

MARK = {"better": "▲ ", "worse": "▼ ", "not proven": ""}


class CompareRoom(Room):
    """Curves above, the difference ribbon below, the lift table; verdict and scorecard beside them."""

    name = "Compare"
    manual = "compare"

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self.comparability = QLabel()
        self.comparability.setWordWrap(True)
        self.curves_caption = QLabel()
        self.curves_caption.setObjectName("caption")
        self.curves = LiftPlot("Flow of both cuts against lift")
        self.ribbon_caption = QLabel()
        self.ribbon_caption.setObjectName("caption")
        self.ribbon = LiftPlot("Difference of the two cuts against lift")
        self.table = QTableWidget()
        self.table.setAccessibleName("Lift table")
        self.table.setEditTriggers(QAbstractItemView.EditTrigger.NoEditTriggers)
        self.table.setShowGrid(False)
        self.table.setCornerButtonEnabled(False)
        self.table.verticalHeader().setDefaultSectionSize(22)
        self.table.horizontalHeader().setSectionResizeMode(QHeaderView.ResizeMode.Stretch)
        self.table.horizontalHeader().setMinimumSectionSize(40)
        self.table.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAsNeeded)
        QShortcut(QKeySequence.StandardKey.Copy, self.table, self.copy_table).setContext(
            Qt.ShortcutContext.WidgetShortcut
        )
        self.notes = QLabel()
        self.notes.setObjectName("caption")
        self.notes.setWordWrap(True)
        self.verdict = VerdictCard()
        self.scorecard = Scorecard()
        self.empty = QLabel()
        self.empty.setObjectName("title")
        self.empty.setWordWrap(True)
        self.empty.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._content = QWidget()
        self._lay_out()

    def _lay_out(self) -> None:
        left = QVBoxLayout()
        left.setSpacing(4)
        left.addWidget(self.comparability)
        left.addWidget(self.curves_caption)
        left.addWidget(self.curves, 5)
        left.addWidget(self.ribbon_caption)
        left.addWidget(self.ribbon, 2)
        left.addWidget(self.table)
        left.addWidget(self.notes)
        right = QVBoxLayout()
        right.setSpacing(12)
        right.addWidget(self.verdict)
        right.addWidget(self.scorecard)
        right.addStretch()
        side = QWidget()
        side.setLayout(right)
        side.setFixedWidth(384)
        row = QHBoxLayout(self._content)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(16)
        row.addLayout(left, 1)
        row.addWidget(side)
        outer = QVBoxLayout(self)
        outer.setContentsMargins(16, 8, 16, 8)
        outer.addWidget(self._content, 1)
        outer.addWidget(self.empty, 1)

    def refresh(self) -> None:
        space = self.session.workspace
        if space is None or space.port is None or space.cut is None:
            return  # the window offers a job instead of this room
        if space.against is None:
            self._say_empty(
                "Nothing to hold this cut against yet.\n\nFlow it as it is in the Flow room, log a cut "
                "with + cut, flow that, and what it did stands here. Shift-click a plate, or D, holds "
                "against that cut."
            )
            return
        pair = space.analysis.pair(space.port, space.against, space.cut)
        if pair.comparison is None:
            self._say_empty(f"{pair.missing}\n\nThe Flow room (2) is where that is put right.")
            return
        self.empty.hide()
        self._content.show()
        verdict = space.analysis.verdict(pair, self.session.units.wording)
        assert verdict is not None
        self._draw(pair, pair.comparison, verdict)

    def _say_empty(self, words: str) -> None:
        self.empty.setText(words)
        self.empty.show()
        self._content.hide()

    def _draw(self, pair: Pair, c: RunComparison, verdict: Verdict) -> None:
        units = self.session.units
        self.comparability.setText(
            f"{_level_mark(c.comparability.level)}  {c.comparability.sentence} {self._mounts(c)}"
        )
        self._draw_curves(pair, c, units)
        self._draw_ribbon(pair, c, units)
        self._fill_table(pair, c, units)
        self.notes.setText("  ".join((*c.notes, *self._run_notes(pair))))
        self.notes.setVisible(bool(self.notes.text()))
        scatter = self._scatter_words(c)
        self.verdict.show_verdict(
            verdict, f"by {'cam-weighted flow' if c.cam else 'the mean of the lifts'} · {scatter}"
        )
        space = self.session.workspace
        assert space is not None
        self.scorecard.show_rows(
            score_rows(space.job, pair, c, verdict, units),
            f"cut {pair.before.number}",
            f"cut {pair.after.number}",
        )

    def _mounts(self, c: RunComparison) -> str:
        if c.difference.same_mount:
            return "One mount: no mount scatter counted."
        share = percent_text(c.difference.scatter.mount)
        assumed = " (assumed)" if c.difference.scatter.mount_assumed else ""
        return f"The head came off in between: {share} of mount scatter{assumed} counted."

    def _scatter_words(self, c: RunComparison) -> str:
        s = c.scatter
        if s.repeat_assumed:
            return f"repeat scatter {percent_text(s.repeat)} assumed"
        return f"repeat scatter {percent_text(s.repeat, 2)} from {int(s.repeat_freedom)} repeats"

    def _run_notes(self, pair: Pair) -> list[str]:
        return [
            f"Cut {cut.number}: {note}."
            for cut, runs in ((pair.before, pair.before_runs), (pair.after, pair.after_runs))
            for run in runs
            for note in run.notes
        ]

    def _draw_curves(self, pair: Pair, c: RunComparison, units: Units) -> None:
        space = self.session.workspace
        assert space is not None
        kind = pair.port.kind
        lines = []
        for cut in pair.port.cuts:
            runs = space.analysis.runs_of(cut, pair.port)
            if cut.id in (pair.before.id, pair.after.id) or not runs or runs[-1].kind != c.kind:
                continue
            lines.append(_line(runs[-1], units, "quiet", 1, "solid", str(cut.number), alpha=0.7))
        lines.append(_line(pair.before_runs[-1], units, kind, 2, "dashed", str(pair.before.number)))
        lines.append(_line(pair.after_runs[-1], units, kind, 3, "solid", str(pair.after.number), points=True))
        cam = c.cam
        marks = []
        if cam is not None:
            marks = [(from_si(cam.peak_lift, units.lift.unit), f"cam lift {units.lift.text(cam.peak_lift)}")]
        top = max(float(line.y.max()) for line in lines)
        self.curves.show_values(
            lines,
            verticals=marks,
            x_range=self._x_range(c, units),
            y_range=(0.0, top * 1.1),
            x_ticks=self._ticks(c, units),
            digits=units.lift.digits,
        )
        name = units.flow.label if c.kind == "flow" else "index"
        nominal = units.pressure.with_unit(pair.before_runs[-1].test_pressure) if c.kind == "flow" else "this bench"
        self.curves_caption.setText(f"{name} at {nominal} against lift, {units.lift.label}")

    def _x_range(self, c: RunComparison, units: Units) -> tuple[float, float]:
        return 0.0, from_si(float(c.lift[-1]), units.lift.unit) * 1.05

    def _ticks(self, c: RunComparison, units: Units) -> list[float]:
        step = max(1, int(np.ceil(len(c.lift) / 14)))
        return [float(x) for x in from_si_array(c.lift, units.lift.unit)[::step]]

    def _draw_ribbon(self, pair: Pair, c: RunComparison, units: Units) -> None:
        x = from_si_array(c.lift, units.lift.unit)
        change = _flow_values(c.change, c.kind, units)
        u = _flow_values(c.expanded, c.kind, units)
        band = Band(np.r_[0.0, x], -np.r_[0.0, u], np.r_[0.0, u], "unproven", 0.32)
        shades = [theme.current().result(r) for r in c.results]
        texts = [f"{v:+.{1 if c.kind == 'flow' else 4}f}".replace("-", "−") for v in change]
        above, below = max(float(change.max()), float(u.max())), max(-float(change.min()), float(u.max()))
        room = 0.42 * (above + below)  # for the words at the bars' ends
        width = float(np.min(np.diff(np.r_[0.0, x]))) * 0.16
        self.ribbon.show_values(
            [],
            bands=[band],
            bars=Bars(x, change, shades, texts, width),
            x_range=self._x_range(c, units),
            y_range=(-below - (room if float(change.min()) < 0 else 0.0), above + room),
            x_ticks=self._ticks(c, units),
            digits=units.lift.digits,
        )
        name = units.flow.label if c.kind == "flow" else "index"
        self.ribbon_caption.setText(f"what cut {pair.after.number} did, {name} (grey: not proven)")

    def _fill_table(self, pair: Pair, c: RunComparison, units: Units) -> None:
        heads = [
            f"lift, {units.lift.label}",
            f"cut {pair.before.number}",
            f"cut {pair.after.number}",
            "±",
            "%",
        ]
        before, after = (_flow_values(v, c.kind, units) for v in (c.before, c.after))
        u = _flow_values(c.expanded, c.kind, units)
        digits = units.flow.digits if c.kind == "flow" else 4
        self.table.clear()
        self.table.setRowCount(len(heads) - 1)
        self.table.setColumnCount(len(c.lift))
        self.table.setHorizontalHeaderLabels([units.lift.text(float(x)) for x in c.lift])
        self.table.setVerticalHeaderLabels(heads[1:])
        for i, result in enumerate(c.results):
            mark = "" if c.interpolated[i] else MARK[result]
            percent = f"{100 * (after[i] / before[i] - 1):+.1f}".replace("-", "−")
            cells = [
                f"{before[i]:.{digits}f}",
                f"{after[i]:.{digits}f}",
                f"{u[i]:.{digits}f}",
                f"{mark}{percent}",
            ]
            for row, text in enumerate(cells):
                item = QTableWidgetItem(f"({text})" if c.interpolated[i] and row < 2 else text)
                item.setTextAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
                item.setFont(theme.font(14, narrow=True, weight=600 if row == 1 else 400))
                if row == 3:
                    item.setForeground(theme.colour(theme.current().result(result)))
                    item.setToolTip(result)
                elif row in (0, 2):
                    item.setForeground(theme.colour("quiet"))
                self.table.setItem(row, i, item)
        self.table.setFixedHeight(self.table.horizontalHeader().sizeHint().height() + 22 * (len(heads) - 1) + 6)

    def copy_table(self) -> None:
        """The whole table to the clipboard, one lift a row, as tab-separated values."""
        model = self.table.model()
        across, down = Qt.Orientation.Horizontal, Qt.Orientation.Vertical
        rows = [["lift", *(str(model.headerData(r, down)) for r in range(model.rowCount()))]]
        for column in range(model.columnCount()):
            cells = [str(model.index(r, column).data()).lstrip("▲▼ ") for r in range(model.rowCount())]
            rows.append([str(model.headerData(column, across)), *cells])
        text = "\n".join("\t".join(row) for row in rows).replace("−", "-")
        QApplication.clipboard().setText(text)
        self.session.say("Lift table copied.")


def _level_mark(level: str) -> str:
    return {"yes": "✓", "converted": "≈", "unknown": "?", "no": "✕"}[level]


def _flow_values(values: np.ndarray, kind: str, units: Units) -> np.ndarray:
    return from_si_array(values, units.flow.unit) if kind == "flow" else values


def _line(
    run: ReducedRun,
    units: Units,
    colour: str,
    width: float,
    style: str,
    label: str,
    *,
    points: bool = False,
    alpha: float = 1.0,
) -> Line:
    lift = np.linspace(0.0, run.curve.highest, 161)
    tested = None
    if points:
        tested = from_si_array(run.lift, units.lift.unit), _flow_values(run.flow, run.kind, units)
    return Line(
        from_si_array(lift, units.lift.unit),
        _flow_values(run.curve.at(lift), run.kind, units),
        colour,
        width,
        style,
        tested,
        label,
        alpha,
    )
