"""Readings pasted from a spreadsheet: two columns or more, lift first, then the reading, then its pressure."""

from __future__ import annotations

import re
from typing import Final

from ventrix.bench.procedure.flow_procedure import Kept
from ventrix.bench.procedure.lift_plan import Rung
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.runs.lifts import as_thousandths, lift_doubt
from ventrix.ui.rooms.flow_test import RunInHand
from ventrix.ui.units import Units

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


def keep_pasted(hand: RunInHand, text: str, units: Units, *, sure: bool = False) -> tuple[int, bool]:
    """Keep every row of a pasted table at its lift, in one edit; how many, and whether lifts were thousandths.

    ValueError before anything is kept; a lift too far for the valve is asked about unless `sure`.
    """
    kind = hand.element.kind
    if kind == "columns":
        rows = parse_pasted(text, units.lift.unit, units.pressure.unit, units.pressure.unit)
        if any(p is None for _, _, p in rows):
            raise ValueError("two columns of water are wanted behind each lift")
    else:
        unit = {"percent": "%", "orifice": units.pressure.unit, "mass": "kg/s"}.get(kind, units.flow.unit)
        rows = parse_pasted(text, units.lift.unit, unit, units.pressure.unit)
    meant = as_thousandths([r[0] for r in rows], units.lift.unit)
    if meant is not None:
        rows = [(lift, *rest) for lift, (_, *rest) in zip(meant, rows, strict=True)]  # type: ignore[misc]
    doubt = lift_doubt(max(r[0] for r in rows), hand.valve_diameter)
    if doubt and not sure:
        raise ValueError(f"{doubt}. Paste again to keep it all the same")
    kept = [Kept(Rung(round(lift, 9)), flow, pressure, None, None) for lift, flow, pressure in rows]
    hand.store_all(kept, "pasted")
    return len(rows), meant is not None
