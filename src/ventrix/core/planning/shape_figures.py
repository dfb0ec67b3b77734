"""What a port's shape says before it is flowed: the short side's bend, and the lift from which the throat is the
smaller."""

from __future__ import annotations

from dataclasses import dataclass
from functools import partial

import numpy as np

from ventrix.core.formulas.valve import seat_opening_area, throat_area
from ventrix.core.model.cut import Cut, Port, carried_figure
from ventrix.core.model.job import Job
from ventrix.core.quantity.refused import Refused
from ventrix.core.runs.geometry import geometry_of


@dataclass(frozen=True, slots=True)
class ShapeFigures:
    """Short side's radius over the port's height there [-] and the angle the air turns [rad]; the lift at which valve
    and seat open as much as the throat has, its stem taken off [m]. None where a size is missing."""

    radius_over_height: float | None
    turning: float | None
    throat_takes_over: float | None


def shape_figures(job: Job, port: Port, cut: Cut) -> ShapeFigures:
    """The figures of a port at a cut.

    Parameters
    ----------
    job, port, cut : Job, Port, Cut
        What is looked at; sizes not measured at the cut are carried.

    Returns
    -------
    ShapeFigures

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Geometry; `valve.seat_opening_area`.
    """
    figure = partial(carried_figure, port, cut)
    radius, height, angle = figure("short_side_radius"), figure("short_side_height"), figure("port_angle")
    return ShapeFigures(
        radius / height if radius is not None and height else None,
        None if angle is None else float(np.pi / 2 - angle),
        _takes_over(job, port, cut),
    )


def _takes_over(job: Job, port: Port, cut: Cut) -> float | None:
    g = geometry_of(job, port, cut)
    if g.valve_diameter is None or g.seat_width is None or g.seat_angle is None or g.throat_diameter is None:
        return None
    throat = float(throat_area(g.throat_diameter, g.stem_diameter or 0.0))
    lift = np.linspace(0.0, g.valve_diameter, 2001)
    try:
        opening = seat_opening_area(g.valve_diameter, g.seat_width, g.seat_angle, lift)
    except Refused:
        return None
    over = np.flatnonzero(opening >= throat)
    return float(lift[over[0]]) if len(over) else None
