"""What milling head, deck, gasket and manifold does to the line-up, the chamber and the compression."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ventrix.core.formulas.compression import chamber_after_mill, intake_face
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class Milling:
    """Metal taken off head, deck and the manifold's face, and how much thinner the gasket is [m]; the bank's half angle
    and how far the intake face leans past square [rad]."""

    head: float = 0.0
    deck: float = 0.0
    gasket: float = 0.0
    manifold: float = 0.0
    half_bank: float = np.pi / 4
    face_angle: float = 0.0


@dataclass(frozen=True, slots=True)
class Stack:
    """What a milling does: how far the head comes down, what the manifold's face wants off in all and still, and the
    valley, to line up again; how far the manifold's ports stand up the face without any of it, and with what was milled
    off it [m]; the chamber after it [m3], None where a size is missing."""

    drop: float
    face_cut: float
    face_left: float
    valley_cut: float
    slide: float
    slide_left: float
    chamber: float | None
    caution: str


CAUTION = tr(
    "Valve to piston and guide clearances change with it: measure them, by the maker's data, before the engine turns."
)


def stack_up(milling: Milling, chamber: float | None = None, face_area: float | None = None) -> Stack:
    """Add up what was milled.

    Parameters
    ----------
    milling : Milling
        What came off.
    chamber, face_area : float, optional
        Chamber before it [m3], and the area of its outline at the face [m2].

    Returns
    -------
    Stack

    Raises
    ------
    ValueError
        Angles of 90 degrees or more, or nothing of the chamber left.

    References
    ----------
    ENGINEERING: x is the sum of head, deck and gasket changes; face = x sin a / cos(a + e). Left as it is, the manifold
    sinks straight down until its face meets the head's again, and its ports then stand x sin a / sin(a + e) up the
    face; each length milled off its face takes cot(a + e) of that back (geometry).
    """
    drop = milling.head + milling.deck + milling.gasket
    cuts = intake_face(drop, milling.face_angle, milling.half_bank)
    after = None
    if chamber is not None and face_area is not None:
        after = float(chamber_after_mill(chamber, milling.head, face_area))
    steep = milling.half_bank + milling.face_angle
    slide = drop * float(np.sin(milling.half_bank) / np.sin(steep))
    face_left = float(cuts.face_cut) - milling.manifold
    left = slide - milling.manifold / float(np.tan(steep))
    return Stack(drop, float(cuts.face_cut), face_left, float(cuts.valley_cut), slide, left, after, CAUTION)
