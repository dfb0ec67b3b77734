"""What limits a port: the loss split between valve and port, and the share of one place."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.limits import not_negative, positive
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

REFUSAL = tr("flow alone does not separate valve and port: flow the port once with the valve out and the guide plugged")


class LossSplit(NamedTuple):
    """Shares of the pressure loss [-] and the standard uncertainty of both."""

    port_share: Array
    valve_share: Array
    uncertainty: Array


def loss_split(
    flow: ArrayLike,
    open_flow: ArrayLike | None,
    flow_uncertainty: ArrayLike = 0.0,
    open_uncertainty: ArrayLike = 0.0,
) -> LossSplit:
    """Split of the loss between port and valve, from one reading with the valve out.

    .. math:: \\varphi = (Q/Q_o)^2, \\quad u(\\varphi) = 2\\varphi\\sqrt{(u_Q/Q)^2 + (u_o/Q_o)^2}

    Parameters
    ----------
    flow : array_like
        With the valve in, at each lift [m3/s].
    open_flow : array_like or None
        Valve out, guide plugged, same entry and pressure [m3/s].
    flow_uncertainty, open_uncertainty : array_like
        Standard uncertainties of both [m3/s].

    Returns
    -------
    LossSplit
        The port's share includes the throat's own exit loss. Above 1 happens, where a valve guides the
        air; it is not clipped.

    Raises
    ------
    ValueError
        Without `open_flow` (flow alone does not separate the two), or flows not above zero.

    References
    ----------
    Two restrictions in series at one pressure drop; formula book of this project.
    """
    if open_flow is None:
        raise Refused(REFUSAL)
    q, qo = positive(flow, "flow"), positive(open_flow, tr("open flow"))
    share = (q / qo) ** 2
    relative = np.hypot(
        not_negative(flow_uncertainty, "uncertainty") / q, not_negative(open_uncertainty, "uncertainty") / qo
    )
    return LossSplit(np.asarray(share), np.asarray(1 - share), np.asarray(2 * share * relative))


class PlaceShare(NamedTuple):
    """Share of the whole loss that sits at one place [-], and its standard uncertainty."""

    share: Array
    uncertainty: Array


def place_share(
    flow_ratio: ArrayLike,
    area_ratio: ArrayLike,
    flow_uncertainty: ArrayLike = 0.0,
    area_uncertainty: ArrayLike = 0.0,
) -> PlaceShare:
    """Share of the loss at a place whose area was changed, by clay or by metal, by any amount.

    .. math:: share = \\frac{(Q/Q')^2 - 1}{(A/A')^2 - 1}

    Parameters
    ----------
    flow_ratio, area_ratio : array_like
        Q'/Q and A'/A: with the change over without it [-].
    flow_uncertainty, area_uncertainty : array_like
        Standard uncertainties of these ratios [-].

    Returns
    -------
    PlaceShare
        Share and its uncertainty [-].

    Raises
    ------
    ValueError
        A ratio not above zero, or an area that did not change.

    References
    ----------
    A loss that goes with 1/A^2, in series with others that do not change, at one pressure drop; formula book of this
    project. The small-change rule dQ/Q over dA/A reads a fifth as 0.28 at a quarter of the area.
    """
    q, a = positive(flow_ratio, tr("flow with the change")), positive(area_ratio, tr("area with the change"))
    if np.any(a == 1):
        raise Refused("the area did not change: nothing can be learned from it")
    u_q, u_a = not_negative(flow_uncertainty, "uncertainty"), not_negative(area_uncertainty, "uncertainty")
    below = a**-2 - 1
    share = (q**-2 - 1) / below
    return PlaceShare(np.asarray(share), np.asarray(np.hypot(2 * q**-3 * u_q / below, share * 2 * a**-3 * u_a / below)))
