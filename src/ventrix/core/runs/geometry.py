"""The sizes of a port and its valve that a run is reduced with."""

from __future__ import annotations

from dataclasses import dataclass

from ventrix.core.formulas.port import centreline_length
from ventrix.core.model.cut import Cut, Port, carried
from ventrix.core.model.job import Job


def geometry_of(job: Job, port: Port, cut: Cut) -> Geometry:
    """What is known of a port at a cut; figures that the cut did not measure are carried forward."""
    valves = job.valves_of(port, cut)
    valve = valves[0] if valves else None
    seat = job.seat_of(port, cut)

    def figure(name: str) -> float | None:
        found = carried(port, cut, name)
        return None if found is None else found.value

    floor, roof = figure("floor_length"), figure("roof_length")
    length = float(centreline_length(floor, roof)) if floor is not None and roof is not None else None
    return Geometry(
        valves=max(port.valves, len(valves)),
        valve_diameter=_of_like_area([v.head_diameter for v in valves]),
        stem_diameter=_of_like_area([v.stem_diameter for v in valves]),
        throat_diameter=figure("throat_diameter"),
        seat_width=figure("seat_width") or (seat.contact if seat else None) or (valve.seat_width if valve else None),
        seat_angle=(seat.contact_angle if seat else None) or (valve.seat_angle if valve else None),
        port_volume=figure("volume"),
        port_length=length,
    )


def _of_like_area(diameters: list[float | None]) -> float | None:
    """The diameter that equal valves of the same total area would have; None where one was not measured."""
    known = [d for d in diameters if d is not None]
    if not known or len(known) != len(diameters):
        return None
    return known[0] if len(known) == 1 else (sum(d * d for d in known) / len(known)) ** 0.5


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
