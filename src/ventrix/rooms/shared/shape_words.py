"""How a port's section changes along it, in words: Head and Cuts say the same."""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.core.metal.unrolled import UnrolledPort
from ventrix.core.quantity.words import percent_text

STEEP: Final = np.radians(10.0)  # total angle of a cone beyond which air may let go (common practice, no source)


def taper_words(here: UnrolledPort) -> str:
    """Change of area from the opening to the smallest place."""
    return f"Opening to smallest {percent_text(here.taper, 0, sign=True)}."


def cone_words(here: UnrolledPort) -> str:
    """Change of area from the smallest place to the throat, and the steepest widening where it is steep."""
    said = f"From there to the throat {percent_text(here.recovery, 0, sign=True)}."
    cone = here.widest_cone
    if cone is None or cone.angle <= STEEP:
        return said
    angle = f"{np.degrees(cone.angle):.0f} deg"
    return f"{said} {cone.start.capitalize()} to {cone.end} widens by {angle}: over 10, air may let go."
