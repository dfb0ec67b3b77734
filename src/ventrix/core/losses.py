"""What limits a port: the loss split between valve and port, and the share of one place."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.air import Array
from ventrix.core.checks import not_negative, positive

REFUSAL = "flow alone does not separate valve and port: flow the port once with the valve out and the guide plugged"


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
        raise ValueError(REFUSAL)
    q, qo = positive(flow, "flow"), positive(open_flow, "open flow")
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
    flow_change: ArrayLike,
    area_change: ArrayLike,
    flow_uncertainty: ArrayLike = 0.0,
    area_uncertainty: ArrayLike = 0.0,
) -> PlaceShare:
    """Share of the loss at a place whose area was changed a little: (dQ/Q) / (dA/A).

    Parameters
    ----------
    flow_change, area_change : array_like
        Relative changes of flow and of the area there [-]; clay makes both negative.
    flow_uncertainty, area_uncertainty : array_like
        Standard uncertainties of the relative changes [-].

    Returns
    -------
    PlaceShare
        Share and its uncertainty [-].

    Raises
    ------
    ValueError
        No change of area, or one so large (over a quarter) that the rule of small changes fails.

    References
    ----------
    A loss that goes with 1/A^2 holds dQ/Q = share x dA/A to first order; formula book of this project.
    """
    dq, da = np.asarray(flow_change, dtype=float), np.asarray(area_change, dtype=float)
    if np.any(da == 0):
        raise ValueError("the area did not change: nothing can be learned from it")
    if np.any(np.abs(da) > 0.25):
        raise ValueError("the area changed by more than a quarter: use less clay")
    u_dq, u_da = not_negative(flow_uncertainty, "uncertainty"), not_negative(area_uncertainty, "uncertainty")
    share = dq / da
    return PlaceShare(np.asarray(share), np.asarray(np.hypot(u_dq / da, share * u_da / da)))
