"""What milling head, deck, gasket and manifold does to the line-up, the chamber and the compression."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ventrix.core.formulas.engine import chamber_after_mill, compression_ratio, intake_face


@dataclass(frozen=True, slots=True)
class Milling:
    """Metal taken off head and deck, and how much thinner the gasket is [m]; the bank's half angle and how far the
    intake face leans past square [rad]."""

    head: float = 0.0
    deck: float = 0.0
    gasket: float = 0.0
    half_bank: float = np.pi / 4
    face_angle: float = 0.0


@dataclass(frozen=True, slots=True)
class Stack:
    """What a milling does: how far the head comes down, what the manifold's face and the valley want off to line up
    again, and how far the ports slide along the face without it [m]; the chamber [m3] and the compression after it,
    None where a size is missing."""

    drop: float
    face_cut: float
    valley_cut: float
    slide: float
    chamber: float | None
    compression: float | None
    caution: str


CAUTION = (
    "Valve to piston and guide clearances change with it: measure them, by the maker's data, before the engine turns."
)


def stack_up(
    milling: Milling,
    chamber: float | None = None,
    face_area: float | None = None,
    bore: float | None = None,
    stroke: float | None = None,
    gasket_thickness: float | None = None,
) -> Stack:
    """Add up what was milled.

    Parameters
    ----------
    milling : Milling
        What came off.
    chamber, face_area : float, optional
        Chamber before it [m3], and the area of its outline at the face [m2].
    bore, stroke, gasket_thickness : float, optional
        For the compression [m]; the gasket as it is now.

    Returns
    -------
    Stack

    Raises
    ------
    ValueError
        Angles of 90 degrees or more, or nothing of the chamber left.

    References
    ----------
    ENGINEERING: x is the sum of head, deck and gasket changes; face = x sin a / cos(a + e). The slide along the face is
    x cos a / cos e of a plain shift (geometry).
    """
    drop = milling.head + milling.deck + milling.gasket
    cuts = intake_face(drop, milling.face_angle, milling.half_bank)
    after = None
    if chamber is not None and face_area is not None:
        after = float(chamber_after_mill(chamber, milling.head, face_area))
    ratio = None
    if after is not None and bore is not None and stroke is not None:
        thick = gasket_thickness or 0.0
        ratio = float(compression_ratio(bore, stroke, after, bore, thick, -milling.deck, 0.0))
    slide = drop * float(np.cos(milling.half_bank + milling.face_angle))
    return Stack(drop, float(cuts.face_cut), float(cuts.valley_cut), slide, after, ratio, CAUTION)
