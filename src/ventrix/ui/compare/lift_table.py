"""The lift table of a pair: one lift a column, before, after, how sure, percent. Copies as tab-separated values."""

from __future__ import annotations

import numpy as np
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QHeaderView, QTableWidgetItem

from ventrix.core.judging.comparison import RunComparison
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.quantity.units import from_si_array
from ventrix.core.quantity.words import number_text
from ventrix.rooms.display_units import Units
from ventrix.ui.look import theme
from ventrix.ui.look.marks import MARK
from ventrix.ui.widgets.table import Table
from ventrix.words import tr

LINE = 20


class LiftTable(Table):
    """Interpolated figures stand in brackets; marks say what is proven at a lift taken alone."""

    def __init__(self) -> None:
        super().__init__(tr("Lift table"))
        self.setShowGrid(False)
        self.verticalHeader().setDefaultSectionSize(LINE)
        self.verticalHeader().setMinimumSectionSize(LINE)
        self.horizontalHeader().setSectionResizeMode(QHeaderView.ResizeMode.Stretch)
        self.horizontalHeader().setMinimumSectionSize(40)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAsNeeded)

    def show_lifts(self, c: RunComparison, units: Units, before_name: str, after_name: str) -> None:
        """Show a pair at every lift."""

        def values(array: np.ndarray) -> np.ndarray:
            return from_si_array(array, units.flow.unit) if c.kind == FlowKind.FLOW else array

        before, after, change, u = (values(v) for v in (c.before, c.after, c.change, c.expanded_together))
        digits = units.flow.digits if c.kind == FlowKind.FLOW else 4
        heads = [before_name, after_name, "difference", "±", "%"]
        of_change = digits
        if c.kind == FlowKind.INDEX:  # an index means nothing but its ratio: what changed is percent
            change, u, of_change = 100 * change / before, 100 * u / before, 1
            heads[2:4] = [tr("difference, %"), "± %"]
        self.clear()
        self.setRowCount(len(heads))
        self.setColumnCount(len(c.lift))
        self.setHorizontalHeaderLabels([units.lift.text(float(x)) for x in c.lift])
        self.setVerticalHeaderLabels(heads)
        for i, result in enumerate(c.marks):
            mark = "" if c.interpolated[i] else MARK.get(result, "")
            percent = number_text(100 * (after[i] / before[i] - 1), 1, sign=True)
            cells = [
                f"{before[i]:.{digits}f}",
                f"{after[i]:.{digits}f}",
                number_text(change[i], of_change, sign=True),
                f"{u[i]:.{of_change}f}",
                f"{mark}{percent}",
            ]
            for row, text in enumerate(cells):
                item = QTableWidgetItem(f"({text})" if c.interpolated[i] and row < 2 else text)
                item.setTextAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
                item.setFont(theme.font(14, narrow=True, weight=600 if row == 1 else 400))
                if row in (2, 4):
                    item.setForeground(theme.colour(theme.current().result(result)))
                    item.setToolTip(tr("interpolated on one side: never proven") if c.interpolated[i] else result)
                elif row in (0, 3):
                    item.setForeground(theme.colour("quiet"))
                self.setItem(row, i, item)
        self.setFixedHeight(self.horizontalHeader().sizeHint().height() + LINE * len(heads) + 6)

    def rows(self) -> list[list[str]]:
        """One lift a row, as a spreadsheet wants it."""
        turned = [list(column) for column in zip(*super().rows(), strict=True)]
        turned[0][0] = "lift"
        return turned
