"""A pasted table of lifts and readings."""

from __future__ import annotations

import re
from typing import Final

from ventrix.core.quantity.units import parse_quantity

MOST_ROWS: Final = 400


Row = tuple[float, float, float | None]


def parse_pasted(text: str, lift_unit: str, flow_unit: str, pressure_unit: str) -> list[Row]:
    """Lift [m], reading [SI], pressure [Pa] or None of each row.

    Raises
    ------
    ValueError
        With a sentence that names the row: nothing there, one column, or not a number. A first row of
        words is passed over.
    """
    rows = [line for line in text.splitlines() if line.strip()]
    if not rows:
        raise ValueError("the clipboard holds no table")
    if len(rows) > MOST_ROWS:
        raise ValueError(f"the table has more than {MOST_ROWS} rows")
    found: list[Row] = []
    for number, line in enumerate(rows, 1):
        cells = [c.strip() for c in re.split(r"\t|;|,(?=\s)|\s{2,}", line.strip())]
        if len(cells) == 1:
            cells = line.replace(",", " ").split()
        if number == 1 and not re.search(r"\d", cells[0]):
            continue
        if len(cells) < 2:
            raise ValueError(f"row {number} has one column: lift and reading are wanted")
        try:
            lift, flow = parse_quantity(cells[0], lift_unit), parse_quantity(cells[1], flow_unit)
            pressure = parse_quantity(cells[2], pressure_unit) if len(cells) > 2 and cells[2] else None
        except ValueError as error:
            raise ValueError(f"row {number}: {error}") from None
        if lift <= 0 or flow <= 0 or (pressure is not None and pressure <= 0):
            raise ValueError(f"row {number}: figures must be above zero")
        found.append((lift, flow, pressure))
    if not found:
        raise ValueError("the table has no rows of figures")
    return found
