"""Every curve the trade reads off a run: the same run by flow, coefficient, speed, energy, swirl, or ratio.

SI throughout; NaN where an input is missing. Sources: the functions used.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.formulas import bench_flow, port, valve
from ventrix.core.formulas.bench_flow import FlowModel
from ventrix.core.formulas.losses import loss_split
from ventrix.core.formulas.swirl import paddle_coefficient
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.kinds import Direction
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class CurveKind:
    """A curve: its key, what it is called, and which kind of unit it is shown in ("ratio" has none)."""

    key: str
    name: str
    unit: str


KINDS: Final = (
    CurveKind("flow", tr("flow"), "flow"),
    CurveKind("flux", tr("flow per valve area"), "flux"),
    CurveKind("cd_valve", tr("Cd on valve head, isentropic"), "ratio"),
    CurveKind("cd_curtain", tr("Cd on curtain, isentropic"), "ratio"),
    CurveKind("cd_least", tr("Cd on least area, isentropic"), "ratio"),
    CurveKind("cd_valve_inc", tr("Cd on valve head, incompressible"), "ratio"),
    CurveKind("cd_curtain_inc", tr("Cd on curtain, incompressible"), "ratio"),
    CurveKind("cd_least_inc", tr("Cd on least area, incompressible"), "ratio"),
    CurveKind("speed", tr("mean port speed"), "speed"),
    CurveKind("speed_pinch", tr("speed at the smallest section"), "speed"),
    CurveKind("speed_throat", tr("speed at the throat"), "speed"),
    CurveKind("energy", tr("energy density"), "energy"),
    CurveKind("swirl", tr("swirl"), "swirl"),
    CurveKind("swirl_cs", tr("swirl coefficient"), "ratio"),
    CurveKind("ratio", tr("exhaust over intake"), "ratio"),
)


def kind_of(key: str) -> CurveKind:
    """The curve of that key. KeyError where there is none."""
    return next(k for k in KINDS if k.key == key)


@dataclass(frozen=True, slots=True)
class Beside:
    """What a curve needs besides its run: the smallest section [m2], and the other kind's run for a ratio."""

    smallest_area: float | None = None
    other: ReducedRun | None = None


def turning_of(setup: SetUp) -> str:
    """What the meter of a run turns with: "swirl", or "tumble" behind a tumble adapter."""
    return "tumble" if setup.swirl_axis == "tumble" else "swirl"


def curve_of(run: ReducedRun, key: str, lift: Array, beside: Beside | None = None) -> Array:
    """A run's curve at lifts.

    Parameters
    ----------
    run : ReducedRun
        What was flowed.
    key : str
        One of `KINDS`.
    lift : ndarray
        Lifts within the tested range [m], shape (k,), above zero.
    beside : Beside, optional
        For the speed at the smallest section and for ratios.

    Returns
    -------
    ndarray
        SI, shape (k,); NaN where an input is missing, or the other run does not reach.

    Raises
    ------
    ValueError
        A key that is none.

    References
    ----------
    The functions used; interpolation as in `curve`.
    """
    beside = beside or Beside()
    nothing = np.full(lift.shape, np.nan)
    flow, g = run.curve.at(lift), run.geometry
    if key == "flow":
        return flow
    if run.kind != FlowKind.FLOW:
        return nothing
    if key in ("swirl", "swirl_cs"):
        return _swirl(run, key, lift)
    if key == "ratio":
        return _ratio(run, beside.other, lift)
    if key == "speed_pinch":
        return nothing if beside.smallest_area is None else port.station_velocity(flow, beside.smallest_area)
    if key == "speed_throat":
        if g.throat_diameter is None:
            return nothing
        area = g.valves * valve.throat_area(g.throat_diameter, g.stem_diameter or 0.0)
        return port.station_velocity(flow, area)
    if key in ("speed", "energy"):
        if g.port_volume is None or g.port_length is None:
            return nothing
        speed = port.mean_port_velocity(flow, g.port_volume, g.port_length)
        return speed if key == "speed" else port.energy_density(speed)
    own = run.as_tested or run  # a coefficient belongs to the pressure it was tested at
    return _coefficient(own, key, lift, own.curve.at(lift) if key != "flux" else flow)


def _coefficient(run: ReducedRun, key: str, lift: Array, flow: Array) -> Array:
    g = run.geometry
    nothing = np.full(lift.shape, np.nan)
    if g.valve_diameter is None:
        return nothing
    head = valve.valve_head_area(g.valve_diameter, g.valves)
    if key == "flux":
        return np.asarray(flow / head)
    areas = {"cd_valve": head * np.ones(lift.shape), "cd_curtain": valve.curtain_area(g.valve_diameter, lift, g.valves)}
    if g.seat_width is not None and g.seat_angle is not None and g.throat_diameter is not None:
        areas["cd_least"] = valve.valve_flow_area(
            g.valve_diameter, g.seat_width, g.seat_angle, g.throat_diameter, g.stem_diameter or 0.0, lift, g.valves
        ).area
    name = key.removesuffix("_inc")
    if not name.startswith("cd_"):
        raise Refused("'{}' is not a curve", key)
    if name not in areas:
        return nothing
    model: bench_flow.FlowModel = FlowModel.INCOMPRESSIBLE if key.endswith("_inc") else FlowModel.ISENTROPIC
    return bench_flow.discharge_coefficient(flow, run.test_pressure, areas[name], model)


def _swirl(run: ReducedRun, key: str, lift: Array) -> Array:
    """Between read lifts by straight line: swirl may turn, and a monotone curve would hide nothing but the noise."""
    known = np.isfinite(run.swirl)
    if not np.any(known):
        return np.full(lift.shape, np.nan)
    speed = np.interp(lift, run.lift[known], run.swirl[known])
    if key == "swirl":
        return speed
    if run.setup.bore is None:
        return np.full(lift.shape, np.nan)
    return paddle_coefficient(speed, run.setup.bore, run.test_pressure)


def _ratio(run: ReducedRun, other: ReducedRun | None, lift: Array) -> Array:
    if other is None or other.kind != FlowKind.FLOW:
        return np.full(lift.shape, np.nan)
    theirs = other.at_pressure(run.test_pressure).curve.at(lift)
    inside = lift <= other.curve.highest * (1 + 1e-9)
    own = run.curve.at(lift)
    ratio = own / theirs if run.setup.direction == Direction.EXHAUST else theirs / own
    return np.asarray(np.where(inside, ratio, np.nan))


def handover(run: ReducedRun) -> float | None:
    """The lift at which the port takes over from the seat: where each has half of the loss [m].

    Parameters
    ----------
    run : ReducedRun
        With an open-port reading.

    Returns
    -------
    float or None
        None without one, or where the port never has half within the tested lifts.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    `losses.loss_split`.
    """
    if run.open_flow is None or run.kind != FlowKind.FLOW:
        return None
    lift = np.linspace(run.lift[0], run.lift[-1], 400)
    share = loss_split(run.curve.at(lift), run.open_flow).port_share
    over = np.flatnonzero(share >= 0.5)
    return float(lift[over[0]]) if len(over) else None
