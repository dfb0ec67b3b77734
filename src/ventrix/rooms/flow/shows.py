"""What the Flow room's parts show, made from the run in hand. Figures come from the core."""

from __future__ import annotations

from typing import Any

import numpy as np

from ventrix.bench.procedure.flow_procedure import PRESSURE_WINDOW, Phase
from ventrix.bench.procedure.preparation import SAYS, TITLES
from ventrix.core.judging.findings import Pair
from ventrix.core.judging.targets import judged_targets
from ventrix.core.model.bench import is_index
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.kinds import Result, StepKind
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.units import from_si, from_si_array
from ventrix.core.quantity.words import number_text, percent_text
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.core.runs.run_curves import turning_of
from ventrix.rooms.display_units import Units
from ventrix.rooms.flow.pictures import FarPicture, LadderRung, StepLine, Tape
from ventrix.rooms.flow.run_in_hand import RunInHand
from ventrix.rooms.shared.gain_words import SHARE, doubt_text, gain_text
from ventrix.rooms.shared.plot_values import Band, Line, Picture
from ventrix.words import tr

TAPE_SPAN = 0.20  # of nominal, each way


def _grain(lift: float) -> int:
    return round(lift * 1e6)


def flow_words(value: float | None, kind: str, units: Units, *, sign: bool = False) -> str:
    """A flow in the user's unit; an index with four digits, and a difference of indices as the share it is."""
    if kind == "flow" or value is None:
        return units.flow.text(value, sign=sign)
    return f"{SHARE.text(value, sign=True)} %" if sign else f"{value:.4f}"


def _by_lift(pair: Pair | None) -> dict[int, tuple[float, float, str]]:
    """Difference, expanded uncertainty and result at each lift tested on both sides: SI, or shares of an index."""
    if pair is None or pair.comparison is None:
        return {}
    c = pair.comparison
    base = c.before if c.kind == FlowKind.INDEX else np.ones(len(c.lift))
    change, together = c.change / base, c.expanded_together / base
    return {
        _grain(float(x)): (float(d), float(u), str(r))
        for x, d, u, r, tested in zip(c.lift, change, together, c.marks, c.tested, strict=True)
        if tested
    }


def ladder_rungs(hand: RunInHand, pair: Pair | None, units: Units) -> tuple[list[LadderRung], int | None]:
    """The rungs of the ladder, and the one stood on."""
    run = hand.in_sight
    reduced = hand.reduced(run)
    flows = {} if reduced is None else dict(zip(map(_grain, reduced.lift), reduced.flow, strict=True))
    swirls = {} if reduced is None else dict(zip(map(_grain, reduced.lift), reduced.swirl, strict=True))
    kind = "flow" if reduced is None else reduced.kind
    differences = _by_lift(pair)
    readings, noted = (run.readings, run.rung_notes) if run else ((), ())
    found = []
    for rung in hand.test.rungs:
        grain = _grain(rung.lift)
        here = [r for r in readings if _grain(r.lift) == grain]
        counted = [r for r in here if r.struck is None]
        back = [r for r in counted if r.returned]
        difference, _, result = differences.get(grain, (None, None, ""))
        known = grain in flows and (bool(back) if rung.returns else len(counted) > len(back))
        found.append(
            LadderRung(
                lift=("↩ " if rung.returns else "") + units.lift.text(rung.lift),
                flow=flow_words(float(flows[grain]), kind, units) if known else "",
                difference=flow_words(difference, kind, units, sign=True) if known and difference is not None else "",
                result=result if known else "",
                readings=len(counted),
                struck=len(here) - len(counted),
                unsteady=any(r.unsteady for r in counted),
                swirl=_rpm(float(swirls.get(grain, np.nan))) if known else "",
                notes=tuple(n.kind for n in noted if _grain(n.lift) == grain),
            )
        )
    at = hand.test.index if hand.test.rung is not None else None
    return found, at


def _rpm(speed: float) -> str:
    """A paddle's speed [rad/s] in rpm with its sign; nothing where it was not read."""
    return "" if speed != speed else number_text(from_si(speed, "rpm"), 0, sign=True)


_PHASE_WORDS = {
    Phase.SET: "SET {lift}",
    Phase.WAIT: tr("WAIT, settling"),
    Phase.KEEP: tr("KEEP when you are ready"),
    Phase.KEPT: tr("KEPT. Set the next lift"),
    Phase.DONE: "ALL LIFTS DONE",
}


def far_view(hand: RunInHand, connected: bool, units: Units) -> FarPicture:
    """The far view of this moment."""
    test = hand.test
    lift = test.lift
    lift_text = units.lift.text(lift) if lift is not None else ""
    following = test.next_lift
    automatic = tr(" · keeps by itself") if test.automatic else ""
    common: dict[str, Any] = {
        "lift": lift_text,
        "lift_caption": tr("lift, {}", units.lift.label) if lift is not None else "",
        "next_lift": tr("next {}", units.lift.text(following)) if following is not None else "",
        "flow_unit": "index" if is_index(hand.element.kind) else units.flow.label,
        "foot": tr("{} · mount {}{}", hand.leak_words(units), hand.mount, automatic),
    }
    if lift is None:
        open_rungs = ", ".join(units.lift.text(r.lift) for r in test.rungs if not test.is_done(r))
        said = f"ALL BUT {open_rungs} DONE" if open_rungs else _PHASE_WORDS[Phase.DONE]
        return _done_view(hand, said, units, common["foot"])
    if not connected:
        kept = _kept_flow(hand, lift)
        return FarPicture(f"SET {lift_text}, then type", tr("type, then Enter"), flow=_text(kept, units), **common)
    return _live_view(hand, units, lift, common)


def _done_view(hand: RunInHand, said: str, units: Units, foot: str) -> FarPicture:
    """After the last lift: what the cut did, in one line, and what comes next."""
    pair = hand.pair()
    gain = hand.space.findings.gain(pair) if pair is not None else None
    told = gain.verdict.headline if gain is not None else tr("Kept. There is nothing to compare it with yet.")
    doubt = f"± {doubt_text(gain, units)}" if gain is not None and gain.comparable else ""
    against = hand.space.against
    return FarPicture(
        said,
        tr("R repeats · M head re-mounted · Ctrl+P next port"),
        told,
        flow=gain_text(gain, units) if gain is not None and gain.comparable else "",
        flow_unit="" if gain is None or not gain.comparable or gain.is_share else units.flow.label,
        spread=doubt,
        difference_words=tr("over cut {}: Compare shows why", against.number) if gain is not None and against else "",
        foot=foot,
    )


def _text(flow: float | None, units: Units) -> str:
    return "" if flow is None else units.flow.text(flow)


def _kept_flow(hand: RunInHand, lift: float) -> float | None:
    reduced = hand.reduced()
    if reduced is None:
        return None
    at = [i for i, x in enumerate(reduced.lift) if _grain(float(x)) == _grain(lift)]
    return float(reduced.flow[at[0]]) if at else None


def pressure_tape(nominal: float | None, pressure: float | None, units: Units) -> Tape | None:
    """The test pressure as a tape with its window; None where the pressure floats."""
    if nominal is None:
        return None
    shown = units.pressure
    ends = [from_si(nominal * (1 + share), shown.unit) for share in (-TAPE_SPAN, TAPE_SPAN)]
    window = [from_si(nominal * (1 + share), shown.unit) for share in (-PRESSURE_WINDOW, PRESSURE_WINDOW)]
    return Tape(
        low=ends[0],
        high=ends[1],
        window=(window[0], window[1]),
        at=None if pressure is None else from_si(pressure, shown.unit),
        text=shown.text(pressure),
        caption=tr("test pressure, {}", shown.label),
        digits=1 if nominal < 20 * 249 and shown.unit == "inH2O" else 0,
    )


def _live_view(hand: RunInHand, units: Units, lift: float, common: dict[str, Any]) -> FarPicture:
    test = hand.test
    phase = test.phase
    words = _PHASE_WORDS.get(phase, "").format(lift=common["lift"])
    if phase is Phase.KEPT and test.next_lift is None:
        words = tr("KEPT. All lifts done")
    if phase is Phase.PRESSURE:
        words = "MORE PRESSURE" if test.pressure_error < 0 else "LESS PRESSURE"
        if test.out_of_breath:
            words = tr("BLOWER AT ITS LIMIT: press twice to keep")
    live, steadiness = test.live, test.steadiness
    flow = None
    if live is not None and phase is not Phase.SET:
        flow = hand.element.as_reported(*live)
    kind = "index" if is_index(hand.element.kind) else "flow"
    difference, against_words, result = _live_difference(hand, lift, flow, units)
    advice = hand.element.range_words(flow if kind == "flow" else None, units)
    swirl = next((s for s in (test.live_swirl,) if s is not None and phase is not Phase.SET), None)
    foot = " · ".join(x for x in (advice, common["foot"], _swirl_words(swirl, hand.setup)) if x)
    spread = hand.element.spread(steadiness.spread, live)
    return FarPicture(
        words,
        tr("Space or pedal") if phase is Phase.KEEP else "",
        flow="" if flow is None else flow_words(flow, kind, units),
        spread=f"± {units.flow.text(spread)}" if flow is not None and spread and kind == "flow" else "",
        difference=difference,
        difference_words=against_words,
        result=result,
        tape=pressure_tape(test.test_pressure, None if live is None else live[1], units),
        steady=steadiness.share,
        steady_words=tr("last 3.0 s: spread {}", units.flow.text(spread)) if live and kind == "flow" else "",
        **common | {"foot": foot},
    )


def _swirl_words(swirl: float | None, setup: SetUp) -> str:
    return "" if swirl is None else f"{turning_of(setup)} {_rpm(swirl)} rpm"


def step_view(hand: RunInHand, connected: bool, units: Units) -> FarPicture:
    """The far view of a step before the lifts."""
    preparation = hand.preparation
    step = preparation.step
    if step is None:
        return FarPicture("THE BENCH IS PREPARED")
    live = preparation.live if connected else None
    words = TITLES[step]
    if preparation.pressure_wanted and connected:
        words += tr(": bring the pressure in")
    flow = None if live is None or step is StepKind.ZERO else hand.element.as_indicated(*live)
    drift = preparation.drift
    plate = preparation.plate_flow if step is StepKind.PLATE else None
    nominal = 0.0 if step is StepKind.ZERO else preparation.test_pressure
    return FarPicture(
        words,
        tr("Space or pedal takes it, S skips") if connected else tr("type, then Enter; S skips"),
        sentence=SAYS[step],
        flow=_step_figure(step, live, flow, hand, units),
        flow_unit=_step_unit(step, hand, units),
        difference_words=tr("the plate flows {}", units.flow.with_unit(plate)) if plate is not None else "",
        tape=pressure_tape(nominal, None if live is None else live[1], units) if nominal else None,
        steady=preparation.share if connected else None,
        steady_words="" if drift is None else tr("drift {}", percent_text(drift, 2, sign=True)),
        foot=tr("step {} of {} · mount {}", preparation.index + 1, len(preparation.steps), hand.mount),
    )


def _step_figure(
    step: StepKind, live: tuple[float, float] | None, flow: float | None, hand: RunInHand, units: Units
) -> str:
    """What a step is read by: the manometer's zero is a pressure, the rest flow."""
    if step is StepKind.ZERO:
        return "" if live is None else units.pressure.text(live[1])
    return "" if flow is None else flow_words(flow, "index" if is_index(hand.element.kind) else "flow", units)


def _step_unit(step: StepKind, hand: RunInHand, units: Units) -> str:
    if step is StepKind.ZERO:
        return units.pressure.label
    return "index" if is_index(hand.element.kind) else units.flow.label


def _live_difference(hand: RunInHand, lift: float, flow: float | None, units: Units) -> tuple[str, str, str]:
    """What the live flow differs from the pinned cut by. A mark only once the reading is kept."""
    space = hand.space
    against = space.against
    if flow is None or against is None or space.port is None:
        return "", "", ""
    runs = space.findings.runs_of(against, space.port)
    kind = "index" if is_index(hand.element.kind) else "flow"
    if not runs or lift > runs[-1].curve.highest * (1 + 1e-9) or runs[-1].kind != kind:
        return "", "", ""
    pinned = float(runs[-1].at_pressure(hand.setup.test_pressure or runs[-1].test_pressure).curve.at(lift))
    change = flow - pinned if kind == "flow" else flow / pinned - 1
    kept = _by_lift(hand.pair()).get(_grain(lift))
    name = tr("over cut {}", against.number)
    if kept is not None:
        above = flow_words(kept[1], kind, units) if kind == "flow" else f"{SHARE.text(kept[1])} %"
        return flow_words(change, kind, units, sign=True), tr("{} (proven above {})", name, above), kept[2]
    return flow_words(change, kind, units, sign=True), tr("{}, not kept yet", name), Result.NOT_PROVEN


def growing_curve(hand: RunInHand, units: Units, *, ghost: bool) -> tuple[Picture, str]:
    """The curve over the ghost of the pinned cut, and its caption; a port is looked at."""
    space = hand.space
    port, against = space.port, space.against
    assert port is not None
    lines: list[Line] = []
    bands: list[Band] = []
    top = 0.0
    if ghost and against is not None:
        runs = space.findings.runs_of(against, port)
        if runs:
            x, y = _curve(runs[-1], units)
            at_lift = np.interp(
                x, [0.0, *_lifts(runs[-1], units)], [0.0, *_flows(runs[-1].uncertainty, runs[-1], units)]
            )
            bands.append(Band(x, y - 2 * at_lift, y + 2 * at_lift, "unproven"))
            lines.append(Line(x, y, "unproven", 1.5, "dashed", label=str(against.number)))
            top = float(y.max())
    reduced = hand.reduced(hand.in_sight)
    if reduced is not None:
        x, y = _curve(reduced, units)
        points = _lifts(reduced, units), _flows(reduced.flow, reduced, units)
        lines.append(Line(x, y, port.kind, 2.5, points=points))
        top = max(top, float(y.max()))
    highest = from_si(max(r.lift for r in hand.test.rungs), units.lift.unit)
    index = is_index(hand.element.kind)
    least = 0.0 if index else 10.0
    y_range = 0.0, max(top, least, 1e-3) * 1.12
    picture = Picture(lines, bands=bands, x_range=(0.0, highest * 1.06), y_range=y_range)
    unit = "index" if index else units.flow.label
    if against is None or not ghost:
        return picture, tr("{} against lift, {}", unit, units.lift.label)
    return picture, tr(
        "{} against lift, {}, growing over cut {} (dashed, band ± 2 u)", unit, units.lift.label, against.number
    )


def _curve(run: ReducedRun, units: Units) -> tuple[np.ndarray, np.ndarray]:
    lift = np.linspace(0.0, run.curve.highest, 121)
    return from_si_array(lift, units.lift.unit), _flows(run.curve.at(lift), run, units)


def _lifts(run: ReducedRun, units: Units) -> np.ndarray:
    return from_si_array(run.lift, units.lift.unit)


def _flows(flow: np.ndarray, run: ReducedRun, units: Units) -> np.ndarray:
    return from_si_array(flow, units.flow.unit) if run.kind == FlowKind.FLOW else flow


def step_lines(hand: RunInHand, units: Units, *, preparing: bool) -> tuple[list[StepLine], int | None]:
    """The steps before the lifts with what each gave, and the one stood on."""
    run = hand.in_sight
    lines = []
    for step in hand.preparation.steps:
        records = [r for r in run.steps if r.kind == step.value] if run else []
        last = records[-1] if records else None
        if last is None:
            lines.append(StepLine(step.value))
        elif last.skipped:
            lines.append(StepLine(step.value, "skipped", "skipped"))
        else:
            figure = units.flow.text(last.flow) if last.flow is not None else ""
            if step is StepKind.WARM_UP and last.drift is not None:
                figure = percent_text(last.drift, 2, sign=True)
            lines.append(StepLine(step.value, figure, "done"))
    at = hand.preparation.index if preparing and hand.preparation.step is not None else None
    return lines, at


def target_lines(hand: RunInHand, units: Units) -> list[str]:
    """What the run in hand says of the job's targets, once it has flowed that far."""
    run, port = hand.reduced(), hand.space.port
    if run is None or port is None:
        return []
    return [
        tr(
            "Target {} at {}: {}.",
            units.flow.text(each.target.flow),
            units.lift.with_unit(each.target.lift),
            each.words(units.wording),
        )
        for each in judged_targets(run, hand.space.job, port.kind)
    ]
