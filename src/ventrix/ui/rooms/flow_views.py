"""What the Flow room's parts show, made from the run in hand. Figures come from the core."""

from __future__ import annotations

from typing import Any

import numpy as np

from ventrix.bench.procedure import PRESSURE_WINDOW, Phase
from ventrix.core.analysis import Pair
from ventrix.core.reduction import ReducedRun
from ventrix.core.units import from_si, from_si_array
from ventrix.ui.parts.arms_length import Far, Tape
from ventrix.ui.parts.ladder import Rung
from ventrix.ui.parts.plot import Band, LiftPlot, Line
from ventrix.ui.rooms.flow_test import RunInHand
from ventrix.ui.units import Units

TAPE_SPAN = 0.20  # of nominal, each way


def _grain(lift: float) -> int:
    return round(lift * 1e6)


def _current_run(hand: RunInHand) -> ReducedRun | None:
    """The run in hand reduced, where it has readings that count."""
    run = hand.run
    space = hand.space
    if run is None or space.port is None or space.cut is None:
        return None
    return next((r for r in space.analysis.runs_of(space.cut, space.port) if r.run_id == run.id), None)


def _by_lift(pair: Pair | None) -> dict[int, tuple[float, float, str]]:
    """Difference, expanded uncertainty and result at each lift tested on both sides [SI]."""
    if pair is None or pair.comparison is None:
        return {}
    c = pair.comparison
    return {
        _grain(float(x)): (float(d), float(u), str(r))
        for x, d, u, r, tested in zip(c.lift, c.change, c.expanded, c.results, c.tested, strict=True)
        if tested
    }


def rungs(hand: RunInHand, pair: Pair | None, units: Units) -> tuple[list[Rung], int | None]:
    """The rungs of the ladder, and the one stood on."""
    reduced = _current_run(hand)
    flows = {} if reduced is None else dict(zip(map(_grain, reduced.lift), reduced.flow, strict=True))
    differences = _by_lift(pair)
    run = hand.run
    readings = run.readings if run else ()
    found = []
    for lift in hand.test.lifts:
        grain = _grain(lift)
        here = [r for r in readings if _grain(r.lift) == grain]
        counted = [r for r in here if r.struck is None]
        difference, _, result = differences.get(grain, (None, None, ""))
        known = grain in flows
        found.append(
            Rung(
                lift=units.lift.text(lift),
                flow=units.flow.text(float(flows[grain])) if known else "",
                difference=units.flow.text(difference, sign=True) if known and difference is not None else "",
                result=result if known else "",
                readings=len(counted),
                struck=len(here) - len(counted),
                unsteady=any(r.unsteady for r in counted),
            )
        )
    at = hand.test.index if hand.test.lift is not None else None
    return found, at


_PHASE_WORDS = {
    Phase.SET: "SET {lift}",
    Phase.WAIT: "WAIT, settling",
    Phase.KEEP: "KEEP when you are ready",
    Phase.KEPT: "KEPT. Set the next lift",
    Phase.DONE: "ALL LIFTS DONE",
}


def far_view(hand: RunInHand, connected: bool, units: Units) -> Far:
    """The far view of this moment."""
    test = hand.test
    lift = test.lift
    lift_text = units.lift.text(lift) if lift is not None else ""
    following = test.next_lift
    common: dict[str, Any] = {
        "lift": lift_text,
        "lift_caption": f"lift, {units.lift.label}" if lift is not None else "",
        "next_lift": f"next {units.lift.text(following)}" if following is not None else "",
        "flow_unit": units.flow.label,
        "foot": f"{hand.leak_words(units)} · mount {hand.mount}",
    }
    if lift is None:
        return Far(_PHASE_WORDS[Phase.DONE], "Compare shows what the cut did", **common)
    if not connected:
        kept = _kept_flow(hand, lift)
        return Far(f"SET {lift_text}, then type", "type, then Enter", flow=_text(kept, units), **common)
    return _live_view(hand, units, lift, common)


def _text(flow: float | None, units: Units) -> str:
    return "" if flow is None else units.flow.text(flow)


def _kept_flow(hand: RunInHand, lift: float) -> float | None:
    reduced = _current_run(hand)
    if reduced is None:
        return None
    at = [i for i, x in enumerate(reduced.lift) if _grain(float(x)) == _grain(lift)]
    return float(reduced.flow[at[0]]) if at else None


def _live_view(hand: RunInHand, units: Units, lift: float, common: dict[str, Any]) -> Far:
    test = hand.test
    phase = test.phase
    words = _PHASE_WORDS.get(phase, "").format(lift=common["lift"])
    if phase is Phase.PRESSURE:
        words = "MORE PRESSURE" if test.pressure_error < 0 else "LESS PRESSURE"
    live = test.live
    steadiness = test.steadiness
    flow = pressure = None
    if live is not None and phase is not Phase.SET:
        flow, pressure = hand.indicated_as_reported(*live), live[1]
    elif live is not None:
        pressure = live[1]
    nominal = test.test_pressure
    shown = units.pressure
    tape = Tape(
        low=from_si(nominal * (1 - TAPE_SPAN), shown.unit),
        high=from_si(nominal * (1 + TAPE_SPAN), shown.unit),
        window=(
            from_si(nominal * (1 - PRESSURE_WINDOW), shown.unit),
            from_si(nominal * (1 + PRESSURE_WINDOW), shown.unit),
        ),
        at=None if pressure is None else from_si(pressure, shown.unit),
        text=units.pressure.text(pressure),
        caption=f"test pressure, {shown.label}",
        digits=1 if nominal < 20 * 249 and shown.unit == "inH2O" else 0,
    )
    difference, against_words, result = _live_difference(hand, lift, flow, units)
    return Far(
        words,
        "Space or pedal" if phase is Phase.KEEP else "",
        flow=_text(flow, units),
        spread=f"± {units.flow.text(steadiness.spread)}" if flow is not None and steadiness.spread else "",
        difference=difference,
        difference_words=against_words,
        result=result,
        tape=tape,
        steady=steadiness.share,
        steady_words=f"last 3.0 s: spread {units.flow.text(steadiness.spread)}" if live else "no samples yet",
        **common,
    )


def _live_difference(hand: RunInHand, lift: float, flow: float | None, units: Units) -> tuple[str, str, str]:
    """What the live flow differs from the pinned cut by. A mark only once the reading is kept."""
    space = hand.space
    against = space.against
    if flow is None or against is None or space.port is None:
        return "", "", ""
    runs = space.analysis.runs_of(against, space.port)
    if not runs or lift > runs[-1].curve.highest * (1 + 1e-9) or runs[-1].kind != "flow":
        return "", "", ""
    change = flow - float(runs[-1].curve.at(lift))
    kept = _by_lift(hand.pair()).get(_grain(lift))
    name = f"over cut {against.number}"
    if kept is not None:
        return (
            units.flow.text(change, sign=True),
            f"{name} (proven above {units.flow.text(kept[1])})",
            kept[2],
        )
    return units.flow.text(change, sign=True), f"{name}, not kept yet", "not proven"


def growing_curve(plot: LiftPlot, hand: RunInHand, pair: Pair | None, units: Units, *, ghost: bool) -> str:
    """Draw the curve over the ghost of the pinned cut; returns the caption."""
    space = hand.space
    port, against = space.port, space.against
    if port is None:
        return ""
    lines: list[Line] = []
    bands: list[Band] = []
    top = 0.0
    if ghost and against is not None:
        runs = space.analysis.runs_of(against, port)
        if runs:
            x, y = _curve(runs[-1], units)
            at_lift = np.interp(
                x, [0.0, *_lifts(runs[-1], units)], [0.0, *_flows(runs[-1].uncertainty, runs[-1], units)]
            )
            bands.append(Band(x, y - 2 * at_lift, y + 2 * at_lift, "unproven"))
            lines.append(Line(x, y, "unproven", 1.5, "dashed", label=str(against.number)))
            top = float(y.max())
    reduced = _current_run(hand)
    if reduced is not None:
        x, y = _curve(reduced, units)
        points = _lifts(reduced, units), _flows(reduced.flow, reduced, units)
        lines.append(Line(x, y, port.kind, 2.5, points=points))
        top = max(top, float(y.max()))
    highest = from_si(max(hand.test.lifts), units.lift.unit)
    plot.show_values(lines, bands=bands, x_range=(0.0, highest * 1.06), y_range=(0.0, max(top, 10.0) * 1.12))
    unit = units.flow.label
    if against is None or not ghost:
        return f"{unit} against lift, {units.lift.label}"
    return f"{unit} against lift, {units.lift.label}, growing over cut {against.number} (dashed, band ± 2 u)"


def _curve(run: ReducedRun, units: Units) -> tuple[np.ndarray, np.ndarray]:
    lift = np.linspace(0.0, run.curve.highest, 121)
    return from_si_array(lift, units.lift.unit), _flows(run.curve.at(lift), run, units)


def _lifts(run: ReducedRun, units: Units) -> np.ndarray:
    return from_si_array(run.lift, units.lift.unit)


def _flows(flow: np.ndarray, run: ReducedRun, units: Units) -> np.ndarray:
    return from_si_array(flow, units.flow.unit) if run.kind == "flow" else flow
