"""Ports of one kind side by side: volume, flow at my lifts, thinnest wall; and which of them really differs."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.formulas.uncertainty import student_t
from ventrix.core.judging.comparability import comparability
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.model_port import developed_port, state_of_model, volume_tolerance
from ventrix.core.judging.my_lifts import lifts_of
from ventrix.core.judging.pours import POUR_UNCERTAINTY, pour_uncertainty
from ventrix.core.metal.walls import WallLeft, walls_at
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port, carried_figure, poured_volume
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.units import to_si
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.words import tr

ALPHA: Final = 0.05  # of a false alarm over a whole head
FLOW_TOLERANCE: Final = 0.01
USUAL_LIFTS: Final = to_si(0.3, "in"), to_si(0.5, "in")
FEWEST_BESIDE: Final = 2  # other ports, before one stands off their middle
OF_POUR: Final = 8.0  # degrees of freedom that the usual doubt of a pour counts for


@dataclass(frozen=True, slots=True)
class Difference:
    """Volume, or flow at a lift, against the developed port's or the row's: the deviation, its U over all ports of the
    head at once, and what they may differ by; SI, flow as a share. `proven` goes past the uncertainty, `differs` past
    both."""

    lift: float | None  # None is the volume
    value: float
    expanded: float
    tolerance: float

    @property
    def proven(self) -> bool:
        return abs(self.value) > self.expanded

    @property
    def differs(self) -> bool:
        return self.proven and abs(self.value) > self.tolerance


@dataclass(frozen=True, slots=True)
class Alike:
    """One port beside the developed one of its kind, each at the same state where the other is not as far; or, while no
    port was worked, beside the middle of its row.

    state : the developed port's cut that it is held to; None for the developed port itself, and in a row
    in_row : held to the median of the other ports of its kind, none of which was worked
    volume : [m3] by its own last pour, at `poured_at`; flow : [m3/s] at lifts [m] by its own last run, at `flowed_at`
    thinnest : the least wall left; thin : it is under the job's limit
    """

    port: Port
    cut: Cut
    state: Cut | None
    developed: bool
    mirrored: bool
    volume: float | None
    flow: Mapping[float, float]
    thinnest: WallLeft | None
    thin: bool
    behind: bool
    differences: tuple[Difference, ...] = ()
    in_row: bool = False
    poured_at: Cut | None = None
    flowed_at: Cut | None = None

    @property
    def differs(self) -> tuple[Difference, ...]:
        """What really differs."""
        return tuple(d for d in self.differences if d.differs)

    @property
    def not_known(self) -> str:
        """Why nothing can be said of it; empty where something was measured on both, and for the model port."""
        if self.differences or self.developed:
            return ""
        missing = [w for w, m in (("not flowed", not self.flow), (tr("not poured"), self.volume is None)) if m]
        return ", ".join(missing) or tr("nothing was measured alike on both")


@dataclass(frozen=True, slots=True)
class Spread:
    """Volume, or flow at a lift, over ports of a kind: mean, standard deviation, least and greatest, of how many."""

    lift: float | None
    mean: float
    spread: float
    low: float
    high: float
    count: int


def ports_alike(findings: Findings, kind: Direction) -> tuple[Alike, ...]:
    """Every port of a kind beside its developed one; beside the median of the others while none was worked.

    A difference is proven where it is greater than what pouring, mounting and reading do, at 5 % over all ports of the
    kind together (Bonferroni).

    Parameters
    ----------
    findings : Findings
        Of the job.
    kind : str
        "intake" or "exhaust".

    Returns
    -------
    tuple of Alike
        In the job's order; none without ports.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Student's t with Bonferroni's correction (Miller, *Simultaneous Statistical Inference*, ch. 1); Satterthwaite for
    the degrees of freedom; variance of a median of n normals pi/2n (asymptotic). Tolerances: common
    practice, no source.
    """
    job = findings.job
    ports = [p for p in job.ports if p.of_head and p.kind == kind and p.cuts]
    model = developed_port(findings, kind)
    lifts = [m.lift for m in lifts_of(job, kind)] or list(USUAL_LIFTS)
    measured = {p.id: _measured(findings, p) for p in ports}
    alpha = ALPHA / max(_asked(measured, model, lifts), 1)
    found = []
    for port in ports:
        mine = measured[port.id]
        if model is None:
            rest = [measured[p.id] for p in ports if p is not port]
            differences = _off_row(findings, mine, rest, lifts, alpha) if len(rest) >= FEWEST_BESIDE else []
        else:
            differences = [] if port is model else _off_model(findings, mine, model, lifts, alpha)
        found.append(_beside(job, mine, model, lifts, differences))
    return tuple(found)


@dataclass(frozen=True, slots=True)
class _Measured:
    """What was last measured of a port: its pour and its run, each with the state it was measured at."""

    port: Port
    poured: Cut | None
    flowed: Cut | None
    run: ReducedRun | None

    @property
    def volume(self) -> float | None:
        return None if self.poured is None else poured_volume(self.poured)


def _measured(findings: Findings, port: Port) -> _Measured:
    back = list(reversed(port.cuts))
    poured = next((c for c in back if c.pours), None)
    for cut in back:
        runs = [r for r in findings.runs_of(cut, port) if r.kind == FlowKind.FLOW]
        if runs:
            return _Measured(port, poured, cut, runs[-1])
    return _Measured(port, poured, None, None)


def _asked(measured: Mapping[str, _Measured], model: Port | None, lifts: Sequence[float]) -> int:
    """How many differences are looked at: a head's false alarms are shared out over them."""
    others = [m for key, m in measured.items() if model is None or key != model.id]
    return sum((m.poured is not None) + len(lifts) * (m.run is not None) for m in others)


def _beside(
    job: Job, mine: _Measured, model: Port | None, lifts: Sequence[float], differences: Sequence[Difference]
) -> Alike:
    port, cut, run = mine.port, mine.port.cuts[-1], mine.run
    walls = [w for w in walls_at(job, port, cut) if w.tube is None and not w.unknown]
    thinnest = min(walls, key=lambda w: w.left - w.limit, default=None)
    state = None if model is None or port is model else state_of_model(model, cut)
    return Alike(
        port=port,
        cut=cut,
        state=state,
        developed=port is model,
        mirrored=port.mirror_of is not None,
        volume=mine.volume,
        flow={x: float(run.curve.at(x)) for x in lifts if run is not None and x <= run.curve.highest * (1 + 1e-9)},
        thinnest=thinnest,
        thin=thinnest is not None and thinnest.left <= thinnest.limit,
        behind=model is not None and cut.number < model.cuts[-1].number and state is not model.cuts[-1],
        differences=tuple(differences),
        in_row=model is None and bool(differences),
        poured_at=mine.poured,
        flowed_at=mine.flowed,
    )


def _off_model(
    findings: Findings, mine: _Measured, model: Port, lifts: Sequence[float], alpha: float
) -> list[Difference]:
    """How far a port is off the developed one, each figure at the state that it was measured at."""
    job, found = findings.job, []
    if mine.poured is not None and mine.volume is not None:
        state = state_of_model(model, mine.poured)
        theirs = carried_figure(model, state, "volume")
        if theirs is not None:
            doubt = pour_uncertainty(state) if state.pours else POUR_UNCERTAINTY
            found.append(_volume_off(job, mine.poured, mine.volume, theirs, doubt, alpha))
    if mine.run is None or mine.flowed is None:
        return found
    held = _like(findings.runs_of(state_of_model(model, mine.flowed), model), mine.run)
    if held:
        found += _flow_off(findings, mine.run, held[-1:], lifts, alpha)
    return found


def _off_row(
    findings: Findings, mine: _Measured, rest: Sequence[_Measured], lifts: Sequence[float], alpha: float
) -> list[Difference]:
    """How far a port as cast is off the middle of the others."""
    found = []
    volumes = [v for m in rest if (v := m.volume) is not None]
    if mine.poured is not None and mine.volume is not None and len(volumes) >= FEWEST_BESIDE:
        doubt = POUR_UNCERTAINTY * float(np.sqrt(_of_median(len(volumes))))
        found.append(_volume_off(findings.job, mine.poured, mine.volume, float(np.median(volumes)), doubt, alpha))
    if mine.run is not None:
        held = _like([m.run for m in rest if m.run is not None], mine.run)
        if len(held) >= FEWEST_BESIDE:
            found += _flow_off(findings, mine.run, held, lifts, alpha)
    return found


def _of_median(count: int) -> float:
    """Variance of a median of normal figures over that of one of them."""
    return min(1.0, np.pi / 2 / count)


def _volume_off(job: Job, cut: Cut, volume: float, theirs: float, doubt: float, alpha: float) -> Difference:
    u = float(np.hypot(pour_uncertainty(cut), doubt))
    return Difference(None, volume - theirs, float(student_t(alpha, OF_POUR)) * u, volume_tolerance(job, theirs))


def _like(runs: Sequence[ReducedRun], run: ReducedRun) -> list[ReducedRun]:
    """Runs in CFM that may be held against one."""
    fits = ("yes", "converted")
    return [r for r in runs if r.kind == FlowKind.FLOW and comparability(r.setup, run.setup).level in fits]


def _flow_off(
    findings: Findings, run: ReducedRun, held: Sequence[ReducedRun], lifts: Sequence[float], alpha: float
) -> list[Difference]:
    """How far a run is off another, or off the median of several, at the lifts that they all reach."""
    known = findings.known(run.setup.bench).scatter
    both = known.mount**2 + known.repeat**2
    u = float((both * (1 + _of_median(len(held)))) ** 0.5)
    freedom = both**2 / (known.mount**4 / known.mount_freedom + known.repeat**4 / known.repeat_freedom)
    there = [r.at_pressure(run.test_pressure).curve for r in held]
    wide = findings.job.flow_tolerance or FLOW_TOLERANCE
    reach = min(run.curve.highest, *(c.highest for c in there)) * (1 + 1e-9)
    t = float(student_t(alpha, freedom))
    return [
        Difference(x, float(run.curve.at(x) / np.median([float(c.at(x)) for c in there])) - 1, t * u, wide)
        for x in lifts
        if x <= reach
    ]


def spreads(alike: Sequence[Alike]) -> tuple[Spread, ...]:
    """Mean, spread and range of each figure over the ports that have it.

    Parameters
    ----------
    alike : sequence of Alike
        Of one kind.

    Returns
    -------
    tuple of Spread
        Volume [m3], flow at each of my lifts [m3/s]; those that two ports have at least.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Definitions.
    """
    figures: dict[float | None, list[float]] = {}
    for each in alike:
        if each.volume is not None:
            figures.setdefault(None, []).append(each.volume)
        for lift, flow in each.flow.items():
            figures.setdefault(lift, []).append(flow)
    return tuple(
        Spread(lift, float(np.mean(v)), float(np.std(v, ddof=1)), min(v), max(v), len(v))
        for lift, v in figures.items()
        if len(v) > 1
    )


def worth_flowing(alike: Sequence[Alike]) -> tuple[Port, ...]:
    """Which few ports are worth a flow test, of those that were not flowed: the largest, the least and the one in the
    middle by volume; the first where none was poured."""
    open_to = [a for a in alike if not a.flow and not a.developed and not a.behind]
    poured = sorted((a for a in open_to if a.volume is not None), key=lambda a: a.volume or 0.0)
    if not poured:
        return tuple(a.port for a in open_to[:1])
    chosen = (poured[0], poured[len(poured) // 2], poured[-1])
    return tuple({a.port.id: a.port for a in chosen}.values())
