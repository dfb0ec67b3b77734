"""Readings pasted from a spreadsheet: by its headings, else lift and reading."""

from __future__ import annotations

from ventrix.bench.procedure.flow_procedure import Kept
from ventrix.bench.procedure.lift_plan import Rung
from ventrix.core.model.bench_kinds import ElementKind
from ventrix.core.quantity.refused import Refused
from ventrix.core.runs.lifts import as_thousandths, lift_doubt
from ventrix.records.files.pasted_table import Unnamed, parse_pasted
from ventrix.rooms.display_units import Units
from ventrix.rooms.flow.element_in_hand import unit_typed
from ventrix.rooms.flow.run_in_hand import RunInHand
from ventrix.words import tr


def keep_pasted(hand: RunInHand, text: str, units: Units, *, sure: bool = False) -> str:
    """Keep every row of a pasted table at its lift, in one edit; what was kept and how it was read, in words.

    Refused before anything is kept; an unnamed third column and a lift too far for the valve are asked about unless
    `sure`.
    """
    kind, port = hand.element.kind, hand.setup.direction
    columns = kind == ElementKind.COLUMNS
    unit = unit_typed(kind, units)
    try:
        table = parse_pasted(text, units.lift.unit, unit, units.pressure.unit, port, third_is_pressure=sure or columns)
    except Unnamed as error:
        asked = tr("Paste again if the third column is the test pressure in {}", units.pressure.label)
        raise Refused("{}. {}", error, asked) from None
    rows = table.rows
    if columns and any(r.pressure is None for r in rows):
        raise Refused("two columns of water are needed behind each lift")
    meant = as_thousandths([r.lift for r in rows], units.lift.unit)
    if meant is not None:
        rows = [row._replace(lift=lift) for lift, row in zip(meant, rows, strict=True)]
    doubt = lift_doubt(max(r.lift for r in rows), hand.valve_diameter)
    if doubt and not sure:
        raise Refused("{}. Paste again to keep it all the same", units.say(doubt))
    kept = [Kept(Rung(round(r.lift, 9)), r.reading, r.pressure, None, None, swirl=r.swirl) for r in rows]
    hand.store_all(kept, "pasted")
    thousandths = tr(" Lifts were read as thousandths of an inch.") if meant is not None else ""
    return " ".join(tr("{} readings pasted. {}{}", len(rows), table.said, thousandths).split())
