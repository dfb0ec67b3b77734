"""Conditions of a run in one line."""

from __future__ import annotations

from ventrix.core.model.kinds import Direction
from ventrix.core.model.run import SetUp
from ventrix.rooms.display_units import Units
from ventrix.words import tr


def in_words(setup: SetUp, mount: int | None, units: Units) -> str:
    """The conditions as one line: "28 inH2O · 89 mm sleeve, centred · radius entry · job valve · mount 7"."""
    parts = [units.pressure.with_unit(setup.test_pressure)] if setup.test_pressure is not None else []
    if setup.bore is not None:
        centred = {True: tr(", centered"), False: tr(", off center"), None: ""}[setup.centred]
        parts.append(tr("{} sleeve{}", units.length.with_unit(setup.bore), centred))
    if setup.entry is not None:
        parts.append(tr("{} entry", setup.entry))
    if setup.direction == Direction.EXHAUST and setup.pipe is not None:
        stub = "" if setup.pipe_length is None else f" {units.length.with_unit(setup.pipe_length)}"
        parts.append(tr("no pipe") if setup.pipe == "none" else tr("{} pipe{}", setup.pipe, stub))
    if setup.valve is not None:
        parts.append(tr("job valve") if setup.valve == "job" else tr("{} valve", setup.valve))
    if mount is not None:
        parts.append(tr("mount {}", mount))
    return " · ".join(parts)
