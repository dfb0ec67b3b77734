"""How a port's section changes along it, in words: Head and Cuts say the same."""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.core.metal.unrolled import UnrolledPort, unroll
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.planning.priors import bend_loss
from ventrix.core.planning.shape_figures import ShapeFigures, shape_figures
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import percent_text
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.core.runs.run_curves import handover
from ventrix.rooms.display_units import Units
from ventrix.words import tr

STEEP: Final = np.radians(10.0)  # total angle of a cone beyond which air may let go (common practice, no source)


def taper_words(here: UnrolledPort) -> str:
    """Change of area from the opening to the smallest place."""
    return tr("Opening to smallest {}.", percent_text(here.taper, 0, sign=True))


def cone_words(here: UnrolledPort) -> str:
    """Change of area from the smallest place to the throat, and the steepest widening where it is steep."""
    said = tr("From there to the throat {}.", percent_text(here.recovery, 0, sign=True))
    cone = here.widest_cone
    if cone is None or cone.angle <= STEEP:
        return said
    angle = f"{np.degrees(cone.angle):.0f} deg"
    return tr("{} {} to {} widens by {}: over 10, air may separate.", said, cone.start.capitalize(), cone.end, angle)


def bend_words(figures: ShapeFigures) -> str:
    """The short side's radius over height, and what a book says such a bend loses."""
    if figures.radius_over_height is None:
        return tr("Short side: its radius and height were not measured.")
    turning = figures.turning if figures.turning is not None else np.pi / 3
    k = bend_loss(figures.radius_over_height, 1.0, turning)
    how = tr("turning {:.0f} deg", np.degrees(turning)) + ("" if figures.turning is not None else tr(", a guess"))
    return tr("Short side r/h {:.2f}, {}: K about {:.2f} by the book.", figures.radius_over_height, how, k)


def takes_over_words(figures: ShapeFigures, run: ReducedRun | None, units: Units) -> str:
    """The lift where the throat takes over from the seat by geometry, beside where the port does as measured."""
    if figures.throat_takes_over is None:
        return tr("Where the throat takes over from the seat needs valve, seat and throat.")
    said = tr("By geometry the throat is the smaller from {}", units.lift.with_unit(figures.throat_takes_over))
    measured = None if run is None else handover(run)
    if measured is not None:
        return tr("{}; as measured the port has half of the loss from {}.", said, units.lift.with_unit(measured))
    return tr("{}; where the port takes over was not measured (open port).", said)


def shape_sentences(job: Job, port: Port, cut: Cut, run: ReducedRun | None, units: Units) -> list[str]:
    """Everything of a port's shape, a sentence each."""
    figures = shape_figures(job, port, cut)
    said = [bend_words(figures), takes_over_words(figures, run, units)]
    try:
        here = unroll(port, cut, job.valve_of(port, cut))
    except Refused:
        return said
    return [*said, f"{taper_words(here)} {cone_words(here)}"]
