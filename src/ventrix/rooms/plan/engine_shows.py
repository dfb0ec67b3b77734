"""What the Plan room shows of the engine: filling over speed before and after, and the rev-limit card in words."""

from __future__ import annotations

import numpy as np

from ventrix.core.engine.of_job import OnTheEngine
from ventrix.core.quantity.units import from_si, from_si_array
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.plot_values import Band, Line, Picture


def engine_caption(found: OnTheEngine) -> str:
    """What stands on the plot."""
    cuts = f"cut {found.before.number} (dashed) to {found.after.number}"
    if found.filling is None:
        return f"change of filling, %, over 1,000 rpm: cut {found.before.number} to {found.after.number}"
    return f"filling, %, over 1,000 rpm: {cuts}"


def engine_picture(found: OnTheEngine) -> Picture:
    """Filling before and after in percent, or its change alone where the cam's timing is not known; bands hold eight in
    ten."""
    x = from_si_array(found.speeds, "rpm") / 1000
    if found.filling is None or found.filling_before is None or found.low is None or found.high is None:
        middle, low, high = (100 * v for v in (found.difference, found.difference_low, found.difference_high))
        lines = [Line(x, middle, "better", 2.5)]
    else:
        middle, low, high = (100 * v for v in (found.filling, found.low, found.high))
        lines = [Line(x, 100 * found.filling_before, "quiet", 2.0, "dashed"), Line(x, middle, "better", 2.5)]
    every = np.concatenate([low, high, *(np.asarray(line.y) for line in lines)])
    margin = max(0.1 * float(np.ptp(every)), 0.1)
    bottom = min(float(every.min()) - margin, 0.0) if found.filling is None else float(every.min()) - margin
    return Picture(
        lines,
        bands=[Band(x, low, high, "better", 0.25)],
        x_range=(float(x[0]), float(x[-1])),
        y_range=(bottom, float(every.max()) + margin),
        digits=0,
    )


def engine_card(found: OnTheEngine, units: Units) -> str:
    """Limit, choke and the section that is wanted, and what stands in the way of more."""
    top = f"{from_si(float(found.speeds[-1]), 'rpm'):,.0f}"
    said = []
    if found.limit_speed is not None and found.index is not None:
        said.append(f"Z 0.6 at {from_si(found.limit_speed, 'rpm'):,.0f} rpm, {found.index[-1]:.2f} at {top}")
    if found.choke_speed is not None:
        said.append(f"smallest section chokes at {from_si(found.choke_speed, 'rpm'):,.0f}")
    said.append(f"{units.area.with_unit(found.least_section)} wanted for {top}")
    words = "; ".join(said) + "."
    if found.missing:
        words += f" Absolute filling wants {' and '.join(found.missing)} (Head)."
    if found.guessed:
        words += f" Taken as usual: {'; '.join(found.guessed)}."
    return words + " One cylinder, no waves."
