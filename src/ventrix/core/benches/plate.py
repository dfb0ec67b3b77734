"""The reference plate's history as a control chart."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Final, NamedTuple

import numpy as np

from ventrix.core.model.bench import PlateCheck
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import positive
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.words import percent_text
from ventrix.words import tr

MOVING_RANGE_D2: Final = 1.128  # mean range of two over sigma [14]

FEWEST_PLATES: Final = 5  # before limits of the bench's own are drawn

PLATE_LIMIT: Final = 0.01  # relative, until the bench has a history: common practice, no source


class PlateChart(NamedTuple):
    """A control chart of plate checks: ratio of flowed to nominal, its centre and limits [-]."""

    ratio: Array
    centre: float
    low: float
    high: float
    own_limits: bool


def plate_chart(checks: Sequence[PlateCheck]) -> PlateChart:
    """Individuals chart of a reference plate's history, by the mean moving range.

    .. math:: \\bar x \\pm 3 \\overline{MR} / 1.128

    Parameters
    ----------
    checks : sequence of PlateCheck
        Oldest first; struck ones are left out. The last is judged by limits from those before it.

    Returns
    -------
    PlateChart
        With the bench's own limits from the sixth check on; one percent each way of nominal until then.

    Raises
    ------
    ValueError
        No check that counts, or a flow not above zero.

    References
    ----------
    [14] NIST/SEMATECH e-Handbook of Statistical Methods, section 6.3.2.2.
    """
    counted = [c for c in checks if c.struck is None]
    if not counted:
        raise Refused("the plate has not been flowed yet")
    flow = positive([c.flow for c in counted], tr("plate flow"))
    ratio = np.asarray(flow / positive([c.nominal for c in counted], tr("nominal plate flow")))
    history = ratio[:-1]
    if len(history) < FEWEST_PLATES:
        return PlateChart(ratio, 1.0, 1 - PLATE_LIMIT, 1 + PLATE_LIMIT, False)
    centre = float(history.mean())
    width = 3 * float(np.abs(np.diff(history)).mean()) / MOVING_RANGE_D2
    return PlateChart(ratio, centre, centre - width, centre + width, True)


def plate_sentence(checks: Sequence[PlateCheck]) -> tuple[bool, str]:
    """Whether the last plate check lies in its limits, and the sentence that says so.

    Raises ValueError as `plate_chart`. Source: [14].
    """
    chart = plate_chart(checks)
    last = float(chart.ratio[-1])
    inside = chart.low <= last <= chart.high
    off = percent_text(last / chart.centre - 1, sign=True)
    whose = tr("its usual") if chart.own_limits else "nominal"
    if inside:
        return True, tr("plate {} of {}, in limits", off, whose)
    return False, tr("plate {} of {}, out of limits: the bench has drifted; find out why before flowing", off, whose)
