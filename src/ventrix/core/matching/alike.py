"""Ports of one kind side by side: volume, flow at my lifts, thinnest wall; and which of them really differs."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.formulas.uncertainty import student_t
from ventrix.core.judging.comparability import comparability
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.my_lifts import lifts_of
from ventrix.core.judging.pours import POUR_UNCERTAINTY, pour_uncertainty
from ventrix.core.metal.walls import WallLeft, limit_for, walls_at
from ventrix.core.model.cut import Cut, Port, carried_figure, poured_volume, state_name
from ventrix.core.model.job import Job
from ventrix.core.quantity.units import to_si
from ventrix.core.runs.reduction import ReducedRun

ALPHA: Final = 0.05  # of a false alarm over a whole head
# What ports may differ by unless the job says (common practice, no source): the larger of the two for volume.
VOLUME_TOLERANCE: Final = to_si(1.0, "cc"), 0.01
FLOW_TOLERANCE: Final = 0.01
USUAL_LIFTS: Final = to_si(0.3, "in"), to_si(0.5, "in")
OF_POUR: Final = 8.0  # degrees of freedom that the usual doubt of a pour counts for


@dataclass(frozen=True, slots=True)
class Difference:
    """Volume, or flow at a lift, against the developed port's: the deviation, its U over all ports of the head at
    once, and what they may differ by; SI, flow as a share. `proven` goes past the doubt, `differs` past both."""

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
    """One port beside the developed one of its kind, each at the same state where the other is not as far.

    state : the developed port's cut that it is held to; None for the developed port itself
    volume : [m3] by its own pour; flow : [m3/s] at lifts [m] by its own run; thinnest : the least wall left
    thin : it is under the job's limit
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

    @property
    def differs(self) -> tuple[Difference, ...]:
        """What really differs."""
        return tuple(d for d in self.differences if d.differs)


@dataclass(frozen=True, slots=True)
class Spread:
    """Volume, or flow at a lift, over ports of a kind: mean, standard deviation, least and greatest, of how many."""

    lift: float | None
    mean: float
    spread: float
    low: float
    high: float
    count: int


def developed_port(findings: Findings, kind: str) -> Port | None:
    """The port of a kind that was worked out: most flowed cuts, then most cuts; None where none was cut."""
    ports = [p for p in findings.job.ports if p.of_head and p.kind == kind and len(p.cuts) > 1]
    return max(ports, key=lambda p: (sum(bool(findings.runs_of(c, p)) for c in p.cuts), len(p.cuts)), default=None)


def ports_alike(findings: Findings, kind: str) -> tuple[Alike, ...]:
    """Every port of a kind beside its developed one.

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
    the degrees of freedom. Tolerances: common practice, no source.
    """
    job = findings.job
    ports = [p for p in job.ports if p.of_head and p.kind == kind and p.cuts]
    model = developed_port(findings, kind)
    lifts = [m.lift for m in lifts_of(job, kind)] or list(USUAL_LIFTS)  # type: ignore[arg-type]
    asked = _asked(findings, ports, model, lifts)
    return tuple(_beside(findings, p, model, lifts, ALPHA / max(asked, 1)) for p in ports)


def _asked(findings: Findings, ports: Sequence[Port], model: Port | None, lifts: Sequence[float]) -> int:
    """How many differences are looked at: a head's false alarms are shared out over them."""
    count = 0
    for port in (p for p in ports if model is not None and p is not model):
        count += poured_volume(port.cuts[-1]) is not None
        count += len(lifts) * bool(findings.runs_of(port.cuts[-1], port))
    return count


def state_of_model(model: Port, cut: Cut) -> Cut:
    """The developed port's state that a cut is held to: the one of the same name, else of the same number, else its
    last."""
    named = [c for c in model.cuts if state_name(c).lower() == state_name(cut).lower()]
    numbered = [c for c in model.cuts if c.number == cut.number]
    return (named or numbered or [model.cuts[-1]])[-1]


def _beside(findings: Findings, port: Port, model: Port | None, lifts: Sequence[float], alpha: float) -> Alike:
    job, cut = findings.job, port.cuts[-1]
    walls = [w for w in walls_at(job, port, cut) if w.tube is None and not w.unknown]
    thinnest = min(walls, key=lambda w: w.left - limit_for(job, w.reading.place), default=None)
    own = model is None or port is model
    state = None if own or model is None else state_of_model(model, cut)
    runs = findings.runs_of(cut, port)
    run = runs[-1] if runs and runs[-1].kind == "flow" else None
    differences = []
    if model is not None and state is not None:
        differences = _differences(findings, job, (cut, run), (model, state), lifts, alpha)
    return Alike(
        port=port,
        cut=cut,
        state=state,
        developed=port is model,
        mirrored=port.mirror_of is not None,
        volume=poured_volume(cut),
        flow={x: float(run.curve.at(x)) for x in lifts if run is not None and x <= run.curve.highest * (1 + 1e-9)},
        thinnest=thinnest,
        thin=thinnest is not None and thinnest.left <= limit_for(job, thinnest.reading.place),
        behind=model is not None and cut.number < model.cuts[-1].number and state is not model.cuts[-1],
        differences=tuple(differences),
    )


def _differences(
    findings: Findings,
    job: Job,
    mine: tuple[Cut, ReducedRun | None],
    model: tuple[Port, Cut],
    lifts: Sequence[float],
    alpha: float,
) -> list[Difference]:
    (cut, run), (other, state) = mine, model
    found = []
    volume, theirs = poured_volume(cut), carried_figure(other, state, "volume")
    if volume is not None and theirs is not None:
        u = float(np.hypot(pour_uncertainty(cut), pour_uncertainty(state) if state.pours else POUR_UNCERTAINTY))
        wide = job.volume_tolerance or max(VOLUME_TOLERANCE[0], VOLUME_TOLERANCE[1] * theirs)
        found.append(Difference(None, volume - theirs, float(student_t(alpha, OF_POUR)) * u, wide))
    if run is None:
        return found
    held = [
        r
        for r in findings.runs_of(state, other)
        if r.kind == "flow" and comparability(r.setup, run.setup).level in ("yes", "converted")
    ]
    if not held:
        return found
    known = findings.known(run.setup.bench).scatter
    both = known.mount**2 + known.repeat**2
    u = float((2 * both) ** 0.5)
    freedom = both**2 / (known.mount**4 / known.mount_freedom + known.repeat**4 / known.repeat_freedom)
    there = held[-1].at_pressure(run.test_pressure)
    for x in lifts:
        if x > min(run.curve.highest, there.curve.highest) * (1 + 1e-9):
            continue
        change = float(run.curve.at(x) / there.curve.at(x)) - 1
        wide = job.flow_tolerance or FLOW_TOLERANCE
        found.append(Difference(x, change, float(student_t(alpha, freedom)) * u, wide))
    return found


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
