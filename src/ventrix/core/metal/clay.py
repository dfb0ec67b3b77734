"""What a trial in clay says: narrow a place; if the flow does not fall, opening it will hardly help.

All SI. Clay proves one way only: a place that costs flow when narrowed need not gain when opened.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from ventrix.core.formulas.losses import place_share
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import percent_text
from ventrix.words import tr


class ClayResult(StrEnum):
    """What clay in one place showed."""

    LOST_NOTHING = "lost nothing"
    LOST_FLOW = "lost flow"
    TOO_SMALL_TO_TELL = "too small to tell"


@dataclass(frozen=True, slots=True)
class ClayVerdict:
    """The answer, with the change of flow and its expanded uncertainty, relative; the place's share of the
    loss and its standard uncertainty where the area was given."""

    result: ClayResult
    sentence: str
    change: float
    expanded: float
    share: float | None = None
    share_uncertainty: float | None = None


def clay_verdict(
    place: str,
    change: float,
    expanded: float,
    matters: float,
    area_taken: float | None = None,
    area_before: float | None = None,
    area_uncertainty: float | None = None,
) -> ClayVerdict:
    """Judge clay in one place.

    Parameters
    ----------
    place : str
        Where.
    change, expanded : float
        Relative change of the flow with the clay in, and its expanded uncertainty [-].
    matters : float
        The smallest relative change that matters [-].
    area_taken, area_before, area_uncertainty : float, optional
        Of the section there [m2].

    Returns
    -------
    ClayVerdict
        Whether a loss is proven is asked first; "lost nothing" only where one that matters would have been seen, and
        "too small to tell" where neither is.

    Raises
    ------
    ValueError
        A smallest change not above zero, or clay that takes the whole section.

    References
    ----------
    `losses.place_share`; common practice, no source.
    """
    if matters <= 0:
        raise Refused("the smallest change that matters must be above zero")
    share = u = None
    if area_taken is not None and area_before is not None and area_before > 0 and area_taken > 0:
        if area_taken >= area_before:
            raise Refused("the clay takes the whole section")
        doubt = (area_uncertainty if area_uncertainty is not None else 0.2 * area_taken) / area_before
        found = place_share(1 + change, 1 - area_taken / area_before, expanded / 2, doubt)
        share, u = float(found.share), float(found.uncertainty)
    where, band = tr("the {}", place), f"± {percent_text(expanded)}"
    if change < -expanded:
        said = tr("Narrowing {} cost {} ({}).", where, percent_text(-change), band)
        if share is not None and u is not None:
            said += tr(" It holds about {} (± {}) of the loss.", percent_text(share, 0), percent_text(2 * u, 0))
        return ClayVerdict(
            ClayResult.LOST_FLOW,
            tr("{} Whether opening it gains, clay does not say.", said),
            change,
            expanded,
            share,
            u,
        )
    if change > expanded or abs(change) + expanded < matters:
        said = tr("Narrowing {} lost nothing: opening it is unlikely to gain.", where)
        return ClayVerdict(ClayResult.LOST_NOTHING, said, change, expanded, share, u)
    said = tr(
        "Clay too small to tell: {} is inside {}, and a loss of the {} that matters could hide there. Use more clay, "
        "or repeat the readings.",
        percent_text(change, sign=True),
        band,
        percent_text(matters),
    )
    return ClayVerdict(ClayResult.TOO_SMALL_TO_TELL, said, change, expanded, share, u)
