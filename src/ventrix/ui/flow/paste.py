"""Readings pasted from a spreadsheet: two columns or more, lift first, then the reading, then its pressure."""

from __future__ import annotations

from ventrix.bench.procedure.flow_procedure import Kept
from ventrix.bench.procedure.lift_plan import Rung
from ventrix.core.runs.lifts import as_thousandths, lift_doubt
from ventrix.records.files.pasted_table import parse_pasted
from ventrix.rooms.display_units import Units
from ventrix.ui.flow.run_in_hand import RunInHand


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
