"""The curves of the Compare room: any curve the trade reads, of up to ten cuts, with what is to be said of them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.air.hints import seen_where_air_lets_go
from ventrix.core.formulas.flow_curve import dips
from ventrix.core.judging.comparison import RunComparison
from ventrix.core.judging.exhaust_share import other_kind
from ventrix.core.judging.findings import DIP_FACTOR, Findings, Pair
from ventrix.core.judging.targets import judge_target, target_at, target_pressure
from ventrix.core.metal.unrolled import unroll
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.kinds import RungNoteKind
from ventrix.core.planning.priors import CD_SPREAD, KNOTS, median_cd
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, from_si_array, to_si
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.core.runs.run_curves import Beside, CurveKind, curve_of, handover
from ventrix.rooms.compare.basis_words import side_name
from ventrix.rooms.compare.ribbon import lift_ticks
from ventrix.rooms.display_units import Shown, Units
from ventrix.rooms.shared.plot_values import Band, Line, Picture
from ventrix.words import tr

MOST_CUTS = 10
STEPS = 161
PUBLISHED: Final = 1.645  # standard deviations of the published band: nine in ten

NOTED: Final = tuple(k for k in RungNoteKind if k is not RungNoteKind.SKIPPED)


@dataclass(frozen=True, slots=True)
class Curves:
    """The curves in display units, the words over them, and the sentences below."""

    picture: Picture
    caption: str
    sentences: list[str]


def beside_of(findings: Findings, port: Port, cut: Cut) -> Beside:
    """The smallest section of a port at a cut, and the run of the other kind that stood beside it."""
    try:
        here = unroll(port, cut, findings.job.valve_of(port, cut))
        smallest = here.smallest.area if here.smallest_is_measured else None
    except Refused:
        smallest = None
    beside = other_kind(findings, port, cut)
    return Beside(smallest, None if beside is None else beside.run)


def curves(
    findings: Findings, pair: Pair, c: RunComparison, kind: CurveKind, units: Units, *, over_ratio: bool
) -> Curves:
    """The pair's curves over those of the port's other cuts, older ones thinner and paler."""
    port, shown = pair.port, units[kind.unit]
    if c.kind != FlowKind.FLOW:
        shown = Shown("-", "index", 4)
    lines: list[Line] = []

    def add(run: ReducedRun, cut: Cut | None, label: str, colour: str, width: float, style: str, alpha: float) -> None:
        beside = beside_of(findings, port, cut) if cut is not None else Beside()
        run = run.at_pressure(c.pressure) if c.kind == FlowKind.FLOW and run.kind == FlowKind.FLOW else run
        line = _line(run, kind, beside, shown, units, over_ratio)
        if line is not None:
            x, y, px, py = line
            points = (px, py) if width >= 3 else None
            lines.append(Line(x, y, colour, width, style, points, label, alpha))

    others = [u for u in port.cuts if u.id not in (pair.before.id, pair.after.id)][-(MOST_CUTS - 2) :]
    for i, cut in enumerate(others):
        runs = findings.runs_of(cut, port)
        if runs and runs[-1].kind == c.kind:
            style = ("solid", "dotted", "dashed")[i % 3]
            add(runs[-1], cut, str(cut.number), "quiet", 1, style, 0.45 + 0.3 * i / max(len(others), 1))
        for claim in findings.claims_of(cut, port):
            add(claim, cut, "claimed", "worse", 1.5, "dotted", 0.9)
    before_cut = pair.before if pair.before.id != "other" else None
    name = str(pair.before.number) if before_cut is not None else "other"
    add(pair.before_runs[-1], before_cut or pair.after, name, port.kind, 2, "dashed", 1.0)
    add(pair.after_runs[-1], pair.after, str(pair.after.number), port.kind, 3, "solid", 1.0)
    finite = [line.y[np.isfinite(line.y)] for line in lines]
    every = np.concatenate(finite) if finite else np.zeros(1)
    low, high = (min(0.0, float(every.min())), float(every.max())) if len(every) else (0.0, 1.0)
    span = (high - low) or 1.0
    run = pair.after_runs[-1]
    verticals, horizontals, spots, said = _marks(findings, pair, c, run, kind, shown, units, over_ratio)
    bands, published = _published(run, kind, shown, units, over_ratio)
    said += published
    top = float(c.lift[-1]) if len(c.lift) else run.curve.highest
    picture = Picture(
        lines,
        verticals=verticals,
        horizontals=horizontals,
        spots=spots,
        bands=bands,
        x_range=(0.0, _x(np.array([top]), run, units, over_ratio)[0] * 1.05),
        y_range=(low - (0.06 * span if low < 0 else 0.0), high + 0.12 * span),
        x_ticks=None if over_ratio else lift_ticks(c, units),
        digits=2 if over_ratio else units.lift.digits,
        value_digits=shown.digits,
    )
    return Curves(picture, _caption(pair, c, kind, shown, units, over_ratio, drawn=bool(lines)), said)


def _caption(
    pair: Pair, c: RunComparison, kind: CurveKind, shown: Shown, units: Units, over_ratio: bool, *, drawn: bool
) -> str:
    """What the curves are of, and the basis they stand on."""
    unit = f", {shown.label}" if shown.label not in ("", "-") else ""
    nominal = units.pressure.with_unit(c.pressure) if c.kind == FlowKind.FLOW else tr("this bench")
    converted = [side_name(pair, i) for i, runs in enumerate((c.before_runs, c.after_runs)) if runs[-1].converted]
    if converted:
        nominal += tr(", {} converted", " and ".join(converted))
    name = kind.name if c.kind == FlowKind.FLOW else "index"
    against = "L/D" if over_ratio else tr("lift, {}", units.lift.label)
    empty = "" if drawn else tr(": not measured yet, what it needs is typed in Head or flowed")
    return tr("{}{} at {} against {}{}", name, unit, nominal, against, empty)


def _x(lift: np.ndarray, run: ReducedRun, units: Units, over_ratio: bool) -> np.ndarray:
    """The axis below: lift, or lift over the valve's diameter."""
    if over_ratio and run.geometry.valve_diameter is not None:
        return np.asarray(lift / run.geometry.valve_diameter)
    return from_si_array(lift, units.lift.unit)


def lifts_of_span(span: tuple[float, float], run: ReducedRun | None, units: Units) -> tuple[float, float]:
    """A piece of the axis below, in lifts [m]; over the diameter of the run's valve, where one is given."""
    diameter = None if run is None else run.geometry.valve_diameter
    scale = diameter or to_si(1.0, units.lift.unit)
    return span[0] * scale, span[1] * scale


def _line(
    run: ReducedRun, kind: CurveKind, beside: Beside, shown: Shown, units: Units, over_ratio: bool
) -> tuple[np.ndarray, np.ndarray, np.ndarray, np.ndarray] | None:
    start = 0.0 if kind.key == "flow" else run.lift[0]
    lift = np.linspace(start, run.curve.highest, STEPS)
    y, at = curve_of(run, kind.key, lift, beside), curve_of(run, kind.key, run.lift, beside)
    known = np.isfinite(y)
    if not np.any(known):
        return None
    points = np.isfinite(at)

    def out(values: np.ndarray) -> np.ndarray:
        return from_si_array(values, shown.unit) if run.kind == FlowKind.FLOW else values

    x, px = _x(lift, run, units, over_ratio), _x(run.lift, run, units, over_ratio)
    return x[known], out(y[known]), px[points], out(at[points])


def _published(
    run: ReducedRun, kind: CurveKind, shown: Shown, units: Units, over_ratio: bool
) -> tuple[list[Band], list[str]]:
    """The published band of Cd on the least area, as far as valve and seat are that area."""
    wide, angle = run.geometry.valve_diameter, run.geometry.seat_angle
    if kind.key != "cd_least" or wide is None or run.kind != FlowKind.FLOW:
        return [], []
    ratio = np.linspace(KNOTS[1], min(KNOTS[-1], run.curve.highest / wide), STEPS)
    middle = np.interp(ratio, KNOTS, median_cd(angle))
    low, high = (from_si_array(middle * (1 + s * PUBLISHED * CD_SPREAD), shown.unit) for s in (-1, 1))
    band = Band(_x(ratio * wide, run, units, over_ratio), low, high, "quiet", 0.18)
    return [band], [tr("Gray: what Cd usually is for a valve with such a seat. A guide, not a limit.")]


Marks = tuple[list[tuple[float, str]], list[tuple[float, str]], list[tuple[float, float, str]], list[str]]


def _marks(
    findings: Findings,
    pair: Pair,
    c: RunComparison,
    run: ReducedRun,
    kind: CurveKind,
    shown: Shown,
    units: Units,
    over_ratio: bool,
) -> Marks:
    """Cam, target, stall, dips, noise, and where the seat hands over to the port, each with its sentence."""

    def at(lift: float) -> float:
        return float(_x(np.array([lift]), run, units, over_ratio)[0])

    def words(lift: float) -> str:
        return units.lift.with_unit(lift)

    verticals, horizontals, spots, said = [], [], [], []
    if c.cam is not None:
        verticals.append((at(c.cam.peak_lift), tr("cam lift {}", units.lift.text(c.cam.peak_lift))))
    if kind.key == "flow" and c.kind == FlowKind.FLOW:
        for target in (t for t in findings.job.targets if t.kind == pair.port.kind):
            wanted = target_at(target, findings.job, run)
            own = target_pressure(target, findings.job, run)
            same = abs(own / run.test_pressure - 1) < 1e-3
            mark = "" if same else tr(", converted from {}", units.pressure.with_unit(own))
            horizontals.append(
                (
                    from_si(wanted, shown.unit),
                    tr("target {} at {}{}", shown.text(wanted), units.lift.text(target.lift), mark),
                )
            )
            judged = judge_target(run, target, findings.job)
            if judged is None:
                said.append(
                    tr("Target {} at {}{}: not flowed that far.", units.flow.text(wanted), words(target.lift), mark)
                )
                continue
            there = judged.words(units.wording)
            said.append(tr("Target {} at {}{}: {}.", units.flow.text(wanted), words(target.lift), mark, there))
    if run.stall is not None:
        lift = float(run.lift[run.stall])
        spots.append((at(lift), _height(run, kind, lift, shown), "stalls"))
        said.append(tr("Flow stops growing at {}.", words(lift)))
    for i in dips(run.flow, DIP_FACTOR * run.uncertainty):
        lift = float(run.lift[i])
        spots.append((at(lift), _height(run, kind, lift, shown), RungNoteKind.DIP))
        other = findings.dip_of_the_bench(pair.port, run.setup.bench, lift)
        if other is not None:
            said.append(
                tr("The dip at {} is the bench's: on the untouched head '{}' does not show it.", words(lift), other)
            )
            continue
        said.append(tr("A dip at {}, below the flow of a lower lift by more than chance.", words(lift)))
    for lift, what in run.heard:
        if what in NOTED and run.lift[0] <= lift <= run.curve.highest:
            spots.append((at(lift), _height(run, kind, lift, shown), RungNoteKind(what).letter))
            said.append(tr("{} noted at {}.", what.capitalize(), words(lift)))
    for observation in pair.after.observations:
        if observation.kind == "noise" and observation.lift is not None:
            said.append(tr("Noise heard at {}: separated air is loud.", words(observation.lift)))
    if run.stall is not None or len(dips(run.flow, DIP_FACTOR * run.uncertainty)):
        said += seen_where_air_lets_go(pair.after)
    over = handover(run)
    if over is not None:
        verticals.append((at(over), tr("port takes over")))
        said.append(tr("From {} on the port has more of the loss than the seat.", words(over)))
    return verticals, horizontals, spots, said


def _height(run: ReducedRun, kind: CurveKind, lift: float, shown: Shown) -> float:
    if kind.key != "flow":
        value = float(curve_of(run, kind.key, np.array([lift]))[0])
        return from_si(value, shown.unit) if np.isfinite(value) else 0.0
    value = float(run.curve.at(lift))
    return from_si(value, shown.unit) if run.kind == FlowKind.FLOW else value
