"""Two cuts that were not both flowed: what is known of the metal, as rows."""

from __future__ import annotations

from ventrix.core.judging.findings import Pair
from ventrix.core.metal.between import metal_between
from ventrix.core.model.job import Job
from ventrix.rooms.display_units import Units


def metal_rows(job: Job, pair: Pair, units: Units) -> tuple[tuple[str, str, str, str], ...]:
    """Caption, before, after and change, in display units; a dash where a figure is not known."""
    rows = []
    for change in metal_between(job, pair.port, pair.before, pair.after):
        shown = units[change.kind]
        known = change.before is not None and change.after is not None
        moved = change.after - change.before if change.before is not None and change.after is not None else None
        rows.append(
            (
                f"{change.name}, {shown.label}",
                shown.text(change.before),
                shown.text(change.after),
                shown.text(moved, sign=True) if known and moved else "",
            )
        )
    return tuple(rows)
