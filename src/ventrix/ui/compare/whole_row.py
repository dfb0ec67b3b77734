"""The whole row of cuts at a glance: the gain ladder, the path through volume and flow, and gain per hour."""

from __future__ import annotations

from itertools import pairwise

import numpy as np
from PySide6.QtWidgets import (
    QHBoxLayout,
    QLabel,
    QSpinBox,
    QVBoxLayout,
    QWidget,
)

from ventrix.core.judging.findings import Findings
from ventrix.core.judging.my_lifts import at_my_lifts, lifts_of
from ventrix.core.judging.row_of_cuts import CutStep, RowOfCuts, last_together, row_of_cuts
from ventrix.core.judging.targets import judged_targets
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Port, carried
from ventrix.core.model.job_parts import MyLift
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.units import from_si
from ventrix.core.quantity.words import number_text, percent_text
from ventrix.rooms.compare.states import lined_up
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.gain_words import doubt_text, gain_text, shown_of
from ventrix.rooms.shared.plot_values import Bars, Line, Picture
from ventrix.ui.look import theme
from ventrix.ui.look.marks import MARK
from ventrix.ui.widgets.plot import Plot
from ventrix.ui.widgets.table import Table
from ventrix.words import tr

HEADS = ("cut", tr("its own gain"), "±", tr("over the first"), "±", "cc", "min", tr("gain per hour"), "says")


class RowView(QWidget):
    """Every flowed cut of a port. Cumulative is always first against last, never a sum."""

    def __init__(self) -> None:
        super().__init__()
        self.sentence = QLabel()
        self.sentence.setWordWrap(True)
        self.sentence.setStyleSheet("font-size: 15px")
        self.ladder = Plot(tr("Gain of each cut, with its uncertainty"))
        self.path = Plot(tr("Path of the port through volume and flow"))
        self.table = Table(tr("Cuts of this port"), sorts=True)
        self.table.verticalHeader().hide()
        self.table.setShowGrid(False)
        self.table.horizontalHeader().setStretchLastSection(True)
        self.states = Table(tr("Ports by state"), sorts=True)
        self.states.verticalHeader().hide()
        self.states.setShowGrid(False)
        self._states_caption = QLabel(
            tr("every port of this kind, by the names of its flowed states: over its own first")
        )
        self._states_caption.setObjectName("caption")
        self.count = QSpinBox()
        self.count.setRange(1, 60)
        self.count.setValue(2)
        self.count.setAccessibleName(tr("How many of the last cuts are tested together"))
        self.together = QLabel()
        self.together.setWordWrap(True)
        self._findings: Findings | None = None
        self._port: Port | None = None
        self._units: Units | None = None
        self.count.valueChanged.connect(lambda _v: self._say_together())
        self._lay_out()

    def _lay_out(self) -> None:
        captions = []
        for words in (
            tr("each cut's own gain, first bar; over the first cut, second bar"),
            tr("weighted flow against volume, cut by cut"),
        ):
            label = QLabel(words)
            label.setObjectName("caption")
            captions.append(label)
        plots = QHBoxLayout()
        for caption, plot in zip(captions, (self.ladder, self.path), strict=True):
            column = QVBoxLayout()
            column.addWidget(caption)
            column.addWidget(plot, 1)
            plots.addLayout(column, 1)
        tested = QHBoxLayout()
        tested.addWidget(QLabel(tr("The last")))
        tested.addWidget(self.count)
        tested.addWidget(QLabel(tr("cuts tested together:")))
        tested.addWidget(self.together, 1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(self.sentence)
        column.addLayout(plots, 3)
        column.addWidget(self.table, 2)
        column.addLayout(tested)
        column.addWidget(self._states_caption)
        column.addWidget(self.states, 1)

    def show_row(self, findings: Findings, port: Port, units: Units) -> None:
        """Show the row of a port."""
        self._findings, self._port, self._units = findings, port, units
        row = row_of_cuts(findings, port)
        self.sentence.setText(self._say(row, units))
        self._draw_ladder(row, units)
        self._draw_path(row, units)
        self._fill(row, units)
        heads, rows = lined_up(findings, port.kind, units)
        several = len(heads) > 2
        for part in (self.states, self._states_caption):
            part.setVisible(several)
        if several:
            self.states.fill(rows, heads)
            self.states.setColumnWidth(0, 190)
        self._say_together()

    def _say(self, row: RowOfCuts, units: Units) -> str:
        if row.first is None or not row.steps:
            return tr("Two flowed cuts are needed before there is a row to look at.")
        last = row.steps[-1]
        parts = []
        if last.total is None or not last.total.comparable:
            parts.append(tr("First and last cannot be compared."))
        else:
            unit = "" if last.total.is_share else f" {units.flow.label}"
            gain = f"{gain_text(last.total, units)} ± {doubt_text(last.total, units)}{unit}"
            parts.append(
                tr("First against last, one single test: {}, cut {} to {}.", gain, row.first.number, last.cut.number)
            )
        if row.looks > 1:
            parts.append(
                tr(
                    "The row holds {} verdicts: the chance that one of them calls nothing a gain is {}.",
                    row.looks,
                    percent_text(row.luck, 0),
                )
            )
        hours = [s.gain_per_hour for s in row.steps if s.gain_per_hour is not None]
        if len(hours) > 1:
            falling = all(b <= a for a, b in pairwise(hours))
            parts.append(tr("Gain per hour {}.", tr("falls with every cut") if falling else tr("goes up and down")))
        parts += self._target(row, units)
        return " ".join(parts)

    def _target(self, row: RowOfCuts, units: Units) -> list[str]:
        """How far the last cut is from what is wanted, and from how large it may get."""
        assert self._findings is not None and self._port is not None
        job, said = self._findings.job, []
        last = row.steps[-1].cut
        runs = self._findings.runs_of(last, self._port)
        for judged in judged_targets(runs[-1], job, self._port.kind):
            said.append(tr("Target at {}: {}.", units.lift.text(judged.target.lift), judged.words(units.wording)))
        volume = carried(self._port, last, "volume")
        if job.volume_ceiling is not None and volume is not None and self._port.kind == Direction.INTAKE:
            room = job.volume_ceiling - float(volume.value)
            said.append(
                f"{units.volume.text(abs(room))} cc "
                f"{tr('of volume left') if room >= 0 else tr('over the volume allowed')}."
            )
        return said

    def _draw_ladder(self, row: RowOfCuts, units: Units) -> None:
        xs, heights, colours, tops, lines = [], [], [], [], []
        for step in row.steps:
            for offset, gain in ((-0.17, step.own), (0.17, step.total)):
                if gain is None or gain.value is None or gain.expanded is None:
                    continue
                unit = shown_of(gain, units).unit
                x, y, u = step.cut.number + offset, from_si(gain.value, unit), from_si(gain.expanded, unit)
                xs.append(x)
                heights.append(y)
                colours.append(theme.current().result(gain.mark) if offset < 0 else "quiet")
                tops.append((x, y + u, number_text(y, 1, sign=True)))
                lines.append(Line(np.array([x, x]), np.array([y - u, y + u]), "text", 1.5))
        if not xs:
            self.ladder.show_picture(Picture([]))
            return
        bars = Bars(np.array(xs), np.array(heights), colours, [""] * len(xs), 0.28)
        reach = [*heights, *(float(v) for line in lines for v in line.y), 0.0]
        span = max(reach) - min(reach) or 1.0
        numbers = [float(s.cut.number) for s in row.steps]
        self.ladder.show_picture(
            Picture(
                lines,
                bars=bars,
                spots=tops,
                x_range=(numbers[0] - 0.6, numbers[-1] + 0.6),
                y_range=(min(reach) - 0.12 * span, max(reach) + 0.15 * span),
                x_ticks=numbers,
                digits=0,
            )
        )

    def _draw_path(self, row: RowOfCuts, units: Units) -> None:
        known = [(n, from_si(q, units.flow.unit), v * 1e6) for n, q, v in row.flows if v is not None]
        if len(known) < 2:
            self.path.show_picture(Picture([]))
            return
        x, y = np.array([k[2] for k in known]), np.array([k[1] for k in known])
        path = Line(x, y, "brass", 2, points=(x, y))
        # the flow that would keep the first cut's air speed at each volume
        wide = np.array([x.min(), x.max()])
        same = Line(wide, y[0] * wide / x[0], "quiet", 1, "dashed", label=tr("same speed"))
        spots = [(float(a), float(b), str(k[0])) for a, b, k in zip(x, y, known, strict=True)]
        span_x, span_y = float(np.ptp(x)) or 1.0, float(max(y.max(), same.y.max()) - min(y.min(), same.y.min())) or 1.0
        self.path.show_picture(
            Picture(
                [same, path],
                spots=spots,
                x_range=(float(x.min()) - 0.1 * span_x, float(x.max()) + 0.25 * span_x),
                y_range=(
                    float(min(y.min(), same.y.min())) - 0.12 * span_y,
                    float(max(y.max(), same.y.max())) + 0.2 * span_y,
                ),
            )
        )

    def _fill(self, row: RowOfCuts, units: Units) -> None:
        mine = self._mine(row)
        heads = [*HEADS[:1], *(m.name or units.lift.with_unit(m.lift) for m in mine), *HEADS[1:]]
        rows = []
        for step in row.steps:
            cells = self._cells(step, units)
            rows.append([cells[0], *(self._at(step, m, units) for m in mine), *cells[1:]])
        self.table.fill(rows, heads, right=range(1, 8 + len(mine)))
        for c, width in enumerate((190, *(84 for _ in mine), 96, 56, 110, 56, 70, 60, 110)):
            self.table.setColumnWidth(c, width)

    def _mine(self, row: RowOfCuts) -> tuple[MyLift, ...]:
        """The porter's own lifts for this kind of port."""
        if self._findings is None or self._port is None:
            return ()
        return lifts_of(self._findings.job, self._port.kind)

    def _at(self, step: CutStep, mine: MyLift, units: Units) -> str:
        """A cut's flow at one of the porter's lifts, as the strip has it; in brackets between tested lifts."""
        assert self._findings is not None and self._port is not None
        comparison = self._findings.pair(self._port, step.before, step.cut).comparison
        if comparison is None or comparison.kind != FlowKind.FLOW:
            return "–"
        for figure in at_my_lifts(comparison, (mine,)):
            text = units.flow.text(figure.after)
            return f"({text})" if figure.interpolated else text
        return "–"

    def _cells(self, step: CutStep, units: Units) -> list[str]:
        per_hour = (
            shown_of(step.own, units).text(step.gain_per_hour, sign=True) if step.gain_per_hour is not None else "–"
        )
        return [
            f"{step.cut.number}  {step.cut.name}",
            f"{MARK.get(step.own.mark, '')}{gain_text(step.own, units)}" if step.own is not None else "–",
            doubt_text(step.own, units),
            f"{MARK.get(step.total.mark, '')}{gain_text(step.total, units)}" if step.total is not None else "–",
            doubt_text(step.total, units),
            units.volume.text(step.volume),
            units.duration.text(step.time),
            per_hour,
            step.own.verdict.headline if step.own is not None else "",
        ]

    def _say_together(self) -> None:
        if self._findings is None or self._port is None or self._units is None:
            return
        found = last_together(self._findings, self._port, self.count.value())
        if found is None:
            self.together.setText(tr("that many were not flowed."))
            return
        before, last, verdict = found
        said = tr("cannot be compared") if verdict is None else f"{verdict.headline} {verdict.sentence}"
        self.together.setText(tr("cut {} to {}: {}", before.number, last.number, said))
