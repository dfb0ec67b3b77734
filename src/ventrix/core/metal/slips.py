"""Slips: what a port lost where a tool went wrong, what a seat has left, and how far a recut sinks it. SI."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ventrix.core.formulas.seat import recut_depth, seat_width_lost
from ventrix.core.model.cut import Cut, Port, Slip
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import SlipKind
from ventrix.core.quantity.limits import positive
from ventrix.words import tr

RECUT_SHARE: Final = 1 / 3  # of the face lost: recut (common practice, no source)


@dataclass(frozen=True, slots=True)
class SeatLeft:
    """A nicked seat: the width of its face before and left [m], the share lost [-], how far a recut to the width before
    sinks the valve [m], None where the seat's angle is not known; and whether so much is gone that it is recut."""

    width: float
    left: float
    lost: float
    sinks: float | None
    recut: bool


def seat_left(width: float, slip: Slip, seat_angle: float | None = None) -> SeatLeft | None:
    """What a slip left of a seat's face.

    Parameters
    ----------
    width : float
        Of the face before [m].
    slip : Slip
        On a seat, with the width that is left.
    seat_angle : float, optional
        [rad], for what a recut sinks.

    Returns
    -------
    SeatLeft or None
        None for a slip elsewhere, or one whose width was not measured.

    Raises
    ------
    Refused
        A width not above zero.

    References
    ----------
    `seat.recut_depth`. A third of the face lost is recut: common practice, no source.
    """
    before = float(positive(width, tr("a seat's width")))
    if slip.kind != SlipKind.SEAT or slip.width_left is None:
        return None
    left = min(slip.width_left, before)
    lost = float(seat_width_lost(before, left))
    sinks = None if seat_angle is None else float(recut_depth(left, before, seat_angle))
    return SeatLeft(before, left, lost, sinks, lost >= RECUT_SHARE)


def seat_width_before(job: Job, port: Port, cut: Cut) -> float | None:
    """The width of a port's seat face at a cut [m]: as it was measured there or last cut, else the valve's record."""
    seat, valve = job.seat_of(port, cut), job.valve_of(port, cut)
    if cut.seat_width is not None:
        return cut.seat_width
    if seat is not None and seat.contact is not None:
        return seat.contact
    return valve.seat_width if valve is not None else None


def not_told(job: Job) -> tuple[tuple[Port, Slip], ...]:
    """Slips that the customer has not been told of, port by port."""
    return tuple((p, s) for p in job.ports for s in p.slips if not s.customer_told)
