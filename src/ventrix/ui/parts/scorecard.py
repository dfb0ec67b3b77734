"""The scorecard of a pair: one figure a row, before, after, what changed, and how sure that is."""

from __future__ import annotations

from dataclasses import dataclass

from PySide6.QtCore import QRectF, QSize, Qt
from PySide6.QtGui import QPainter, QPaintEvent, QPen
from PySide6.QtWidgets import QSizePolicy, QWidget

from ventrix.core import port as port_figures
from ventrix.core.analysis import Pair, geometry_of
from ventrix.core.compare import RunComparison
from ventrix.core.losses import LossSplit, loss_split
from ventrix.core.model import Job, poured_volume
from ventrix.core.units import percent_text
from ventrix.core.verdict import Verdict
from ventrix.ui import theme
from ventrix.ui.parts.marks import draw_mark
from ventrix.ui.units import Shown, Units

ROW = 30


@dataclass(frozen=True, slots=True)
class Score:
    """One row as text. `result` puts a mark before the change; empty puts none."""

    caption: str
    before: str
    after: str
    change: str = ""
    result: str = ""
    band: str = ""


class Scorecard(QWidget):
    """Paints scores in four columns."""

    def __init__(self) -> None:
        super().__init__()
        self.rows: list[Score] = []
        self._heads = ("", "")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)

    def sizeHint(self) -> QSize:
        return QSize(360, ROW * (len(self.rows) + 1))

    def show_rows(self, rows: list[Score], before: str, after: str) -> None:
        self.rows, self._heads = rows, (before, after)
        self.setAccessibleName("Scorecard")
        said = [f"{r.caption}: {r.before} to {r.after} {r.change} {r.result}" for r in rows]
        self.setAccessibleDescription("; ".join(said))
        self.updateGeometry()
        self.setFixedHeight(self.sizeHint().height())
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        right = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
        left = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter
        edges = (200.0, 262.0, 330.0, float(self.width()))
        painter.setFont(theme.font(14, narrow=True))
        painter.setPen(theme.colour("quiet"))
        painter.drawText(QRectF(0, 0, edges[0], ROW), right, self._heads[0])
        painter.setPen(theme.colour("text"))
        painter.drawText(QRectF(0, 0, edges[1], ROW), right, self._heads[1])
        for i, row in enumerate(self.rows):
            top = ROW * (i + 1)
            painter.setPen(QPen(theme.colour("quiet", 0.35), 1))
            painter.drawLine(0, top, self.width(), top)
            painter.setFont(theme.font(13))
            painter.setPen(theme.colour("quiet"))
            painter.drawText(QRectF(0, top, 160, ROW), left, row.caption)
            painter.setFont(theme.font(15, narrow=True))
            painter.drawText(QRectF(0, top, edges[0], ROW), right, row.before)
            painter.setFont(theme.font(15, narrow=True, weight=600))
            painter.setPen(theme.colour("text"))
            painter.drawText(QRectF(0, top, edges[1], ROW), right, row.after)
            if row.result:
                painter.setPen(theme.colour(theme.current().result(row.result)))
            painter.drawText(QRectF(0, top, edges[2], ROW), right, row.change)
            if row.result:
                width = painter.fontMetrics().horizontalAdvance(row.change)
                draw_mark(painter, QRectF(edges[2] - width - 15, top + ROW / 2 - 5, 10, 10), row.result)
            painter.setFont(theme.font(13, narrow=True))
            painter.setPen(theme.colour("quiet"))
            painter.drawText(QRectF(0, top, edges[3], ROW), right, row.band)


def _pair_row(caption: str, shown: Shown, before: float | None, after: float | None) -> Score:
    known = before is not None and after is not None
    change = shown.text(after - before, sign=True) if before is not None and after is not None else ""
    words = caption if shown.label == "-" else f"{caption}, {shown.label}"
    return Score(words, shown.text(before), shown.text(after), change if known else "")


def score_rows(job: Job, pair: Pair, c: RunComparison, verdict: Verdict, units: Units) -> list[Score]:
    """The rows that the measurements of this pair allow; figures whose inputs are missing are left out."""
    rows: list[Score] = []
    flow = units.flow if c.kind == "flow" else Shown("-", "index", 4)
    weighted = f"{'Cam-weighted' if c.cam else 'Mean of lifts'}, {flow.label}"
    results = {"better": "better", "worse": "worse"}
    rows.append(
        Score(
            weighted,
            flow.text(c.weighted_before),
            flow.text(c.weighted_after),
            flow.text(verdict.weighted, sign=True),
            results.get(verdict.result, "not proven"),
            f"± {flow.text(verdict.expanded)}",
        )
    )
    had, has = pair.before_runs[-1], pair.after_runs[-1]
    rows.append(_pair_row("Peak", flow, float(had.flow[had.peak]), float(has.flow[has.peak])))
    rows.append(
        Score(
            f"… at lift, {units.lift.label}",
            units.lift.text(float(had.lift[had.peak])),
            units.lift.text(float(has.lift[has.peak])),
        )
    )
    rows.append(
        Score(
            f"Flow stops at, {units.lift.label}",
            *("–" if r.stall is None else units.lift.text(float(r.lift[r.stall])) for r in (had, has)),
        )
    )
    if c.kind == "flow":
        rows += _port_rows(job, pair, c, units)
    return rows


def _port_rows(job: Job, pair: Pair, c: RunComparison, units: Units) -> list[Score]:
    rows: list[Score] = []
    poured = poured_volume(pair.before), poured_volume(pair.after)
    before, after = (geometry_of(job, pair.port, cut) for cut in (pair.before, pair.after))
    if poured[0] is not None and poured[1] is not None:
        rows.append(_pair_row("Poured volume", units.volume, *poured))
        needed = float(port_figures.break_even_flow(c.weighted_before, poured[0], poured[1]))
        over = c.weighted_after - needed
        met = f"{'met by' if over >= 0 else 'missed by'} {units.flow.text(abs(over))}"
        rows.append(Score(f"Break-even, {units.flow.label}", "", units.flow.text(needed), "", "", met))
        if before.port_length is not None and after.port_length is not None:
            sections = [
                float(port_figures.mean_section(v, g.port_length))
                for v, g in ((poured[0], before), (poured[1], after))
                if g.port_length is not None
            ]
            rows.append(_pair_row("Mean section", units.area, *sections))
            speeds = [
                float(port_figures.mean_port_velocity(q, v, g.port_length))
                for q, v, g in ((c.weighted_before, poured[0], before), (c.weighted_after, poured[1], after))
                if g.port_length is not None
            ]
            rows.append(_pair_row("Mean air speed", units.speed, *speeds))
    rows += _loss_row(pair)
    cds = [r.derived.cd_valve[r.peak] for r in (pair.before_runs[-1], pair.after_runs[-1])]
    if all(v == v for v in cds):
        rows.append(_pair_row("Cd on valve, peak", Shown("-", "-", 3), *map(float, cds)))
    return rows


def _loss_row(pair: Pair) -> list[Score]:
    """The port's share of the loss at peak, where the port was flowed with its valve out."""
    runs = pair.before_runs[-1], pair.after_runs[-1]
    shares: list[LossSplit | None] = []
    for run in runs:
        if run.open_flow is None:
            shares.append(None)
            continue
        u = float(run.uncertainty[run.peak])
        shares.append(loss_split(float(run.flow[run.peak]), run.open_flow, u, u))
    if all(s is None for s in shares):
        return []
    texts = ["–" if s is None else percent_text(float(s.port_share), 0) for s in shares]
    band = "" if shares[1] is None else f"± {percent_text(2 * float(shares[1].uncertainty), 0)}"
    return [Score("Port's share of loss, peak", texts[0], texts[1], "", "", band)]
