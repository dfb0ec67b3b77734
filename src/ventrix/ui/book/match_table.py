"""A foreign table as it is read: each cell in the colour of what it is taken for, what is not read with a cross."""

from __future__ import annotations

from typing import Final

from PySide6.QtGui import QColor

from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.words import sentence
from ventrix.records.files.layout import Layout, Role, letters
from ventrix.rooms.book.import_steps import Match
from ventrix.ui.look import theme
from ventrix.ui.widgets.table import Table
from ventrix.words import tr

SHOWN_ROWS: Final = 300  # for the eye; all of it is read


class MatchTable(Table):
    """Its cells are typed over."""

    def __init__(self) -> None:
        super().__init__(tr("The table as it is read"), edits=True)

    def show_match(self, match: Match) -> None:
        grid, layout = match.grid, match.layout
        rows = [list(r) for r in grid.rows[:SHOWN_ROWS]]
        self.blockSignals(True)
        self.fill(rows, [letters(i) for i in range(grid.width)])
        self.resizeColumnsToContents()
        refused = {(r.row, r.column): r for r in match.read.refused}
        for r in range(len(rows)):
            for c in range(grid.width):
                item = self.item(r, c)
                if item is None:
                    continue
                along, across = (c, r) if layout.across else (r, c)
                wrong = refused.get((r, c))
                item.setForeground(_shade(match.layout, along, across, wrong is not None))
                if wrong is not None:
                    item.setText(f"✕ {wrong.text}")
                    item.setToolTip(sentence(f"'{wrong.text}' {wrong.why}"))
        self.blockSignals(False)


def _shade(layout: Layout, along: int, across: int, wrong: bool) -> QColor:
    if wrong:
        return theme.colour("worse")
    if not layout.first_row <= along < layout.last_row or across >= len(layout.columns):
        return theme.colour("quiet")
    plan = layout.columns[across]
    if plan.role is Role.LIFT:
        return theme.colour("brass")
    if plan.role in (Role.FLOW, Role.PERCENT):
        return theme.colour(plan.kind or Direction.INTAKE)
    return theme.colour("text" if plan.role is not Role.NOTHING else "quiet")
