"""The reference plate's history, and a check more."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from PySide6.QtWidgets import QLabel

from ventrix.core.benches.plate import plate_chart, plate_sentence
from ventrix.core.model.bench import Bench, PlateCheck
from ventrix.core.quantity.field_checks import positive
from ventrix.core.quantity.words import sentence
from ventrix.rooms.shared.plot_values import Band, Line, Picture
from ventrix.ui.benches.page import HistoryPage, caption_label
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.plot import Plot
from ventrix.ui.widgets.quantity_field import QuantityField
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class PlatePage(HistoryPage):
    """The reference plate's history with its limits: a control chart."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book)
        self.said = QLabel()
        self.said.setWordWrap(True)
        self.flowed = QuantityField(tr("The plate flows now"), open_book.units.flow, positive)
        self.flowed.accepted.connect(self._flowed)
        self.chart = Plot(tr("Plate flow over nominal, check by check"))
        self.chart.setMinimumHeight(260)
        words = tr("Flow the plate before a day's work, as the first thing. Limits are nominal ± 1 % until six ")
        self.column.addWidget(
            caption_label(words + tr("checks are there, then the bench's own: mean and three sigma."))
        )
        self.column.addWidget(self.said)
        self.column.addWidget(self.flowed)
        self.column.addWidget(self.chart, 1)

    def show_bench(self, bench: Bench) -> None:
        super().show_bench(bench)
        self.flowed.use(self.open_book.units.flow)
        self.flowed.setEnabled(bench.plate_flow is not None)
        self.chart.setVisible(bool(bench.plates))
        if bench.plate_flow is None:
            self.said.setText(tr("Say on the first page what the plate flows."))
            return
        if not bench.plates:
            self.said.setText(tr("Nominal {}. Not flowed yet.", self.open_book.units.flow.with_unit(bench.plate_flow)))
            return
        inside, said = plate_sentence(bench.plates)
        self.said.setText(("✓ " if inside else "▼ ") + sentence(said))
        chart = plate_chart(bench.plates)
        x = np.arange(1, len(chart.ratio) + 1, dtype=float)
        reach = np.array([0.5, len(x) + 0.5])
        flat = np.ones(2)
        band = Band(reach, 100 * chart.low * flat, 100 * chart.high * flat, "unproven", 0.3)
        middle = Line(reach, 100 * chart.centre * flat, "quiet", 1, "dashed")
        checks = Line(x, 100 * chart.ratio, "brass", 2, points=(x, 100 * chart.ratio))
        low = min(100 * chart.low, 100 * float(chart.ratio.min()))
        high = max(100 * chart.high, 100 * float(chart.ratio.max()))
        room = 0.3 * (high - low)
        self.chart.show_picture(
            Picture(
                [middle, checks],
                bands=[band],
                x_range=(0.5, len(x) + 0.5),
                y_range=(low - room, high + room),
                x_ticks=[float(v) for v in x[:: max(1, len(x) // 12)]],
                digits=0,
            )
        )

    def _flowed(self, value: float | None) -> None:
        if self.bench is None or self.bench.plate_flow is None or value is None:
            return
        check = PlateCheck(id=new_id(), nominal=self.bench.plate_flow, flow=value, date=now_text())
        self.flowed.box.clear()
        self.flowed.set_value(None)
        self.change(tr("plate check"), replace(self.bench, plates=(*self.bench.plates, check)))
