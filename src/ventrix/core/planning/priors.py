"""What books say of losses in a port before it was flowed: medians of K, of valve coefficients, and of what work takes
away.

Every K refers to the section of its own place. Sources as in docs/sources.md; what has none says so.
"""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.core.model.kinds import Entry, Place
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import to_si

# Places in the air's order, as answers name them. "throat" is the seat ring, "valve" the opening between valve and
# seat.
ENTRY, VALVE, CHAMBER = "entry", "valve", Place.CHAMBER.value
SHORT_SIDE: Final = Place.SHORT_SIDE.value
PLACES: Final = (
    ENTRY,
    Place.OPENING.value,
    Place.PINCH.value,
    Place.GUIDE.value,
    Place.SHORT_SIDE.value,
    Place.BOWL.value,
    Place.THROAT.value,
    CHAMBER,
)
# The section a place's K refers to, where it has none of its own.
SECTION_OF: Final = {ENTRY: Place.OPENING.value, CHAMBER: Place.THROAT.value}

# Medians of K. Entry: Idelchik, as `fluids.fittings` has rounded and sharp entrances. Guide: a bluff body over a sixth
# of the section, Hoerner. Short side: see `bend_loss`. The others: common practice, no source.
_MEDIANS: Final = {
    Place.OPENING.value: 0.06,
    Place.PINCH.value: 0.12,
    Place.GUIDE.value: 0.30,
    Place.SHORT_SIDE.value: 0.30,
    Place.BOWL.value: 0.20,
    Place.THROAT.value: 0.15,
    CHAMBER: 0.12,
}
_ENTRY_MEDIANS: Final = {
    Entry.RADIUS.value: 0.04,
    Entry.BARE.value: 0.50,
    Entry.MANIFOLD.value: 0.15,
    Entry.PLATE.value: 0.15,
}
SPREAD: Final = 0.5  # of ln K, where a book has a form for the place
WIDE: Final = 0.8  # where none has
_NO_FORM: Final = (Place.PINCH.value, Place.BOWL.value, Place.THROAT.value, CHAMBER)
AREA_SPREAD: Final = 0.01  # of ln A of a measured section
GUESSED_SPREAD: Final = 0.10  # of one that was guessed

# Knots of ln Cd on the least area of valve and seat, over L/D. About Heywood (1988), figs. 6.18 to 6.20, and Annand &
# Roe (1974).
KNOTS: Final = (0.0, 0.10, 0.18, 0.26, 0.34)
_CD: Final = (0.92, 0.90, 0.82, 0.76, 0.72)
CD_SPREAD: Final = 0.06
CD_LENGTH: Final = 0.15  # of its exponential correlation, in L/D
SHALLOW_CD: Final = 0.78  # a 39 degree seat at low lift (common practice, no source)

# The chain itself is wrong: a Gaussian process of ln Q over L/D, and how much of it is new with every cut.
WRONG: Final = 0.04
WRONG_LENGTH: Final = 0.06
WRONG_WHITE: Final = 0.05  # of its variance
STEP_SHARE: Final = 0.35

# Air that lets go of the short side: its K grows by s S(L/D), S a step of this width about x0; ln s, x0, and by how
# much a millimetre worked there moves x0 with its ln spread. Tried on ports of other structures; no book gives them.
LETS_GO_BY: Final = np.log(0.5), 1.0
LETS_GO_AT: Final = 0.26, 0.03
LETS_GO_WIDTH: Final = 0.025
LET_GO_SPREAD: Final = 1.5  # lognormal, on the part of the short side's share that separation makes (as SHARE_SPREAD)
LETS_GO_DOUBT: Final = 0.025  # L/D, on where it begins: ports let go in other shapes than a smooth step
LETS_GO_MOVES: Final = 0.015, 0.6  # L/D a mm

# A survey of total head: relative doubt and doubt [Pa] of a mean reading, and the bias that all of them share, of the
# logarithm (tried on ports of other structures; no book gives them).
SURVEY_DOUBT: Final = 0.15, to_si(0.2, "inH2O")
SURVEY_BIAS: Final = float(np.log(0.92)), 0.10

CLAY_WRONG: Final = 0.015  # of ln(Q'/Q): clay is not the place's own shape
CLAY_AREA: Final = 0.2  # relative, of what clay took where nobody said how well it is known

# What share of K a first pass of 0.7 mm takes away: guesses, and said so wherever they speak.
TAKES: Final = {
    Place.THROAT.value: 0.60,
    CHAMBER: 0.50,
    Place.GUIDE.value: 0.45,
    Place.SHORT_SIDE.value: 0.45,
    Place.BOWL.value: 0.35,
    Place.PINCH.value: 0.25,
    Place.OPENING.value: 0.15,
}
TAKES_SPREAD: Final = 0.8  # of its logit
REFERENCE_DEPTH: Final = 0.7e-3  # m
SECOND_PASS: Final = 0.4  # of that, where it was worked before
DEPTH_SPREAD: Final = 0.15
GAIN_SPREAD: Final = 0.25  # lognormal, on a predicted gain
# Lognormal, on each place's loss where its share is told: by so much the chain misjudges who eats what in ports of
# other structures than its own (benchmarks.plan; seeds other than those it prints). Less where the port's data told it.
SHARE_SPREAD: Final = 0.6
SHARE_SPREAD_TOLD: Final = 0.2
GAIN_FLOOR: Final = 0.001  # of the flow, added to it
RECOVERY: Final = 0.7  # share of a sudden enlargement's loss that a port's gradual one has (guess)


def bend_loss(radius: float | None, height: float | None, turning: float = np.pi / 3) -> float:
    """Median K of the short side's bend.

    .. math:: K = A(\\theta)\\, 0.21 \\left(\\frac{r}{h} + \\tfrac12\\right)^{-n},
              \\quad A = 0.9 \\sin\\theta \\text{ to } 70^\\circ, 1 \\text{ at } 90^\\circ

    with n = 1/2 from a centreline radius of one height on, and 5/2 below.

    Parameters
    ----------
    radius, height : float or None
        Radius of the short side and height of the port there [m].
    turning : float
        Angle the air turns [rad].

    Returns
    -------
    float
        K on the section there [-], between 0.06 and 0.9; the usual median where a size is missing.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Idelchik, *Handbook of Hydraulic Resistance*, diagram 6-1, in round figures: bends with a centreline
    radius of r + h/2.
    """
    if not radius or not height:
        return _MEDIANS[Place.SHORT_SIDE.value]
    about = radius / height + 0.5  # of the centreline
    a = 0.21 / about**0.5 if about >= 1 else 0.21 / about**2.5
    turned = np.interp(np.degrees(turning), [70.0, 90.0], [0.9 * np.sin(np.radians(70.0)), 1.0])
    turned = 0.9 * np.sin(turning) if turning <= np.radians(70.0) else turned
    return float(np.clip(a * turned, 0.06, 0.9))


def median_losses(
    entry: str | None, radius: float | None, height: float | None, turning: float, faired_guide: bool = False
) -> dict[str, float]:
    """Medians of K by place.

    Parameters
    ----------
    entry : str or None
        How the air is led in; a radius without one.
    radius, height : float or None
        Of the short side [m].
    turning : float
        Angle the air turns [rad].
    faired_guide : bool
        A boss brought to a fin.

    Returns
    -------
    dict
        K [-] by place.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    See the table of this module.
    """
    found = {ENTRY: _ENTRY_MEDIANS.get(entry or Entry.RADIUS.value, 0.04), **_MEDIANS}
    found[Place.SHORT_SIDE.value] = bend_loss(radius, height, turning)
    if faired_guide:
        found[Place.GUIDE.value] *= 0.5
    return found


def spread_of(place: str) -> float:
    """Spread of ln K of a place before it was flowed [-]."""
    return WIDE if place in _NO_FORM or place not in PLACES else SPREAD


def median_cd(seat_angle: float | None) -> Array:
    """Medians of Cd at the knots of L/D, shape (5,), by the seat's angle [rad]."""
    found = np.array(_CD)
    if seat_angle is not None and seat_angle < np.radians(42):
        found[1] = SHALLOW_CD if seat_angle > np.radians(35) else found[1]
    return found


def share_taken(place: str, depth: float, before: bool) -> float:
    """Median share of a place's K that a pass takes away [-].

    .. math:: f_0(d) = 1 - (1 - f_0)^{d / 0.7\\,mm}

    Parameters
    ----------
    place : str
        Where.
    depth : float
        How deep [m].
    before : bool
        It was worked before: the second pass takes less.

    Returns
    -------
    float
        Between 0 and 0.95.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Guesses of this project, and said so.
    """
    whole = 1 - (1 - TAKES.get(place, 0.2)) ** (max(depth, 0.0) / REFERENCE_DEPTH)
    return float(np.clip(whole * (SECOND_PASS if before else 1.0), 1e-4, 0.95))
