"""The sizes of a port and its valve that a run is reduced with."""

from __future__ import annotations

from dataclasses import dataclass

from ventrix.core.formulas.port import centreline_length
from ventrix.core.model.cut import Cut, Port, carried
from ventrix.core.model.job import Job


def geometry_of(job: Job, port: Port, cut: Cut) -> Geometry:
    """What is known of a port at a cut; figures that the cut did not measure are carried forward."""
    valve = job.valve_of(port)

    def figure(name: str) -> float | None:
        found = carried(port, cut, name)
        return None if found is None else found.value

    floor, roof = figure("floor_length"), figure("roof_length")
    length = float(centreline_length(floor, roof)) if floor is not None and roof is not None else None
    return Geometry(
        valves=port.valves,
        valve_diameter=valve.head_diameter if valve else None,
        stem_diameter=valve.stem_diameter if valve else None,
        throat_diameter=figure("throat_diameter"),
        seat_width=figure("seat_width") or (valve.seat_width if valve else None),
        seat_angle=valve.seat_angle if valve else None,
        port_volume=figure("volume"),
        port_length=length,
    )


@dataclass(frozen=True, slots=True)
class Geometry:
    """What is known of the port and valve a run belongs to; None means not measured. SI."""

    valves: int = 1
    valve_diameter: float | None = None
    stem_diameter: float | None = None
    throat_diameter: float | None = None
    seat_width: float | None = None
    seat_angle: float | None = None
    port_volume: float | None = None
    port_length: float | None = None
