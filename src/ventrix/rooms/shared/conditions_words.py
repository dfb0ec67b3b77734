"""Conditions of a run in one line."""

from __future__ import annotations

from ventrix.core.model.run import SetUp
from ventrix.rooms.display_units import Units


def in_words(setup: SetUp, mount: int | None, units: Units) -> str:
    """The conditions as one line: "28 inH2O · 89 mm sleeve, centred · radius entry · job valve · mount 7"."""
    parts = [units.pressure.with_unit(setup.test_pressure)] if setup.test_pressure is not None else []
    if setup.bore is not None:
        centred = {True: ", centred", False: ", off centre", None: ""}[setup.centred]
        parts.append(f"{units.length.with_unit(setup.bore)} sleeve{centred}")
    if setup.entry is not None:
        parts.append(f"{setup.entry} entry")
    if setup.direction == "exhaust" and setup.pipe is not None:
        stub = "" if setup.pipe_length is None else f" {units.length.with_unit(setup.pipe_length)}"
        parts.append("no pipe" if setup.pipe == "none" else f"{setup.pipe} pipe{stub}")
    if setup.valve is not None:
        parts.append("job valve" if setup.valve == "job" else f"{setup.valve} valve")
    if mount is not None:
        parts.append(f"mount {mount}")
    return " · ".join(parts)
