"""What checks of a bench say: its scatter from an unchanged head, its drift from a plate, its odd readings.

All SI. Sources are numbered as in ``docs/sources.md``.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Final, NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from ventrix.core.air import Array
from ventrix.core.bench_record import Bench, PlateCheck, ScatterStudy, StudyReading, Transfer
from ventrix.core.checks import positive
from ventrix.core.curve import FlowCurve
from ventrix.core.knowledge import Adjustment
from ventrix.core.uncertainty import CONFIDENCE, MountSets, Repeats, Scatter, known_scatter, student_t
from ventrix.core.units import from_si, percent_text

MOVING_RANGE_D2: Final = 1.128  # mean range of two over sigma [14]
FEWEST_PLATES: Final = 5  # before limits of the bench's own are drawn
PLATE_LIMIT: Final = 0.01  # relative, until the bench has a history: common practice, no source
NEIGHBOUR_LIMIT: Final = 0.04  # relative distance of a reading from its neighbours' curve
REPEAT_LIMIT: Final = 3.0  # standard deviations of a difference of two readings


class Sees(NamedTuple):
    """Smallest difference of two single readings that this bench can prove at a lift [m3/s]."""

    lift: float
    remounted: float
    stays_on: float


@dataclass(frozen=True, slots=True)
class StudyResult:
    """A study reduced: the scatter for verdicts as it alone would have it, what the bench sees at each lift, and the
    evidence that goes into what is known of the bench."""

    scatter: Scatter
    mounts: int
    sees: tuple[Sees, ...]
    repeats: Repeats
    seen: MountSets


def _groups(readings: Sequence[StudyReading]) -> dict[tuple[int, int], list[float]]:
    found: dict[tuple[int, int], list[float]] = {}
    for r in readings:
        found.setdefault((r.mount, round(r.lift * 1e6)), []).append(r.flow)
    return found


def study_result(study: ScatterStudy) -> StudyResult:
    """Repeat and re-mount scatter from one unchanged head.

    Parameters
    ----------
    study : ScatterStudy
        At least three mounts that share at least one lift, and at least one repeat.

    Returns
    -------
    StudyResult
        Scatter [-] with its degrees of freedom, and the smallest provable differences [m3/s].

    Raises
    ------
    ValueError
        Too few mounts, no lift common to all of them, or nothing repeated.

    References
    ----------
    [6] JCGM 100:2008, 4.2 and H.5 (analysis of variance); formula book of this project.
    """
    groups = _groups(study.readings)
    mounts = sorted({mount for mount, _ in groups})
    if len(mounts) < 3:
        raise ValueError("at least three mounts of the unchanged head are needed")
    lifts = sorted({lift for _, lift in groups if all((m, lift) in groups for m in mounts)})
    if not lifts:
        raise ValueError("no lift was flowed in every mount")
    squares, freedom = 0.0, 0
    for flows in groups.values():
        mean = float(np.mean(flows))
        squares += float(np.sum((np.asarray(flows) / mean - 1) ** 2))
        freedom += len(flows) - 1
    if freedom == 0:
        raise ValueError("nothing was repeated: set lift and pressure anew and read at least one lift twice")
    repeat = float(np.sqrt(squares / freedom))
    means = np.array([[np.mean(groups[m, lift]) for lift in lifts] for m in mounts])
    seen = MountSets.of((means / means.mean(axis=0)).mean(axis=1))
    repeats = Repeats(np.array([squares]), np.array([float(freedom)]))
    scatter = known_scatter(
        [repeats], Scatter(repeat=repeat, repeat_freedom=float(freedom), repeat_assumed=False), seen
    )
    t_repeat = float(student_t(CONFIDENCE, freedom))
    t_mount = float(student_t(CONFIDENCE, scatter.mount_freedom))
    stays = np.sqrt(2) * t_repeat * repeat
    off = np.hypot(stays, np.sqrt(2) * t_mount * scatter.mount)
    flows_at = means.mean(axis=0)
    sees = tuple(Sees(x * 1e-6, float(off * q), float(stays * q)) for x, q in zip(lifts, flows_at, strict=True))
    return StudyResult(scatter, len(mounts), sees, repeats, seen)


def study_sentence(result: StudyResult, lift: str, flow: str) -> str:
    """A study in one sentence; `lift` and `flow` are unit symbols. Source: `study_result`."""
    middle = result.sees[len(result.sees) // 2 if len(result.sees) < 3 else -1]
    off, on = (f"{from_si(v, flow):.1f}" for v in (middle.remounted, middle.stays_on))
    digits = 3 if lift == "in" else 2
    unit = "CFM" if flow == "cfm" else flow
    return (
        f"this bench sees {off} {unit} at {from_si(middle.lift, lift):.{digits}f} {lift} when the head comes off "
        f"in between, {on} when it stays on"
    )


@dataclass(frozen=True, slots=True)
class Evidence:
    """What was seen of a bench's scatter: repeats (sum of squared relative residuals and degrees of freedom) and
    mounts of unchanged heads. Evidence from several jobs and studies adds up."""

    repeat_squares: float = 0.0
    repeat_freedom: float = 0.0
    seen: MountSets = field(default_factory=MountSets)

    def __add__(self, other: Evidence) -> Evidence:
        return Evidence(
            self.repeat_squares + other.repeat_squares,
            self.repeat_freedom + other.repeat_freedom,
            self.seen + other.seen,
        )

    @property
    def scatter(self) -> Scatter:
        """The scatter to judge with."""
        repeats = Repeats(np.array([self.repeat_squares]), np.array([self.repeat_freedom]))
        return known_scatter([repeats], None, self.seen)


def studied(bench: Bench | None) -> Evidence:
    """What a bench's own studies have seen.

    Parameters
    ----------
    bench : Bench or None
        With its studies.

    Returns
    -------
    Evidence
        Sums of squared relative residuals [-] and their degrees of freedom.

    Raises
    ------
    ValueError
        Never: a study of one mount still tells its repeats.

    References
    ----------
    As `study_result`.
    """
    found = Evidence()
    for study in bench.studies if bench is not None else ():
        found += _study_evidence(study)
    return found


def _study_evidence(study: ScatterStudy) -> Evidence:
    """Repeats of a study, and its mounts where two of them or more share a lift."""
    groups = _groups(study.readings)
    mounts = sorted({mount for mount, _ in groups})
    squares, freedom = 0.0, 0
    for flows in groups.values():
        mean = float(np.mean(flows))
        squares += float(np.sum((np.asarray(flows) / mean - 1) ** 2)) if mean > 0 else 0.0
        freedom += len(flows) - 1
    lifts = sorted({lift for _, lift in groups if all((m, lift) in groups for m in mounts)})
    if len(mounts) < 2 or not lifts:
        return Evidence(squares, float(freedom))
    means = np.array([[np.mean(groups[m, lift]) for lift in lifts] for m in mounts])
    return Evidence(squares, float(freedom), MountSets.of((means / means.mean(axis=0)).mean(axis=1)))


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
    [14] NIST/SEMATECH e-Handbook of Statistical Methods, section 6.3.2.2 (number from memory).
    """
    counted = [c for c in checks if c.struck is None]
    if not counted:
        raise ValueError("the plate has not been flowed yet")
    flow = positive([c.flow for c in counted], "plate flow")
    ratio = np.asarray(flow / positive([c.nominal for c in counted], "nominal plate flow"))
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
    off = f"{100 * (last / chart.centre - 1):+.1f} %".replace("-", "−")
    whose = "its usual" if chart.own_limits else "nominal"
    if inside:
        return True, f"plate {off} of {whose}, in limits"
    return False, f"plate {off} of {whose}, out of limits: the bench has drifted; find out why before flowing"


def transfer_between(transfer: Transfer, scatter: Scatter | None = None) -> Adjustment:
    """What carries flows of another bench over to this one.

    .. math:: f = \\exp\\overline{\\ln(q_{here}/q_{there})}, \\quad
              u^2 = s^2/n + \\max(s^2 - 2(s_w^2 + s_b^2), 0)

    Parameters
    ----------
    transfer : Transfer
        Parts flowed on both benches. Where at least three lifts were, the factor follows the lift by straight lines.
    scatter : Scatter, optional
        Of this bench, where it is known: what of the parts' disagreement is only reading and mounting.

    Returns
    -------
    Adjustment
        With how the parts disagree among themselves beyond what readings and mounts explain: the part that is
        carried over is one more such part. With one part, that of two mounts and readings and 1 % between parts.

    Raises
    ------
    ValueError
        No part, or a flow not above zero.

    References
    ----------
    [6] JCGM 100:2008, 4.2.3 (mean of independent observations); excess variance as in a random-effects mean
    (DerSimonian and Laird, Controlled Clinical Trials 7 (1986) 177-188).
    """
    if not transfer.parts:
        raise ValueError("no part was flowed on both benches yet")
    here = positive([p.here for p in transfer.parts], "flow here")
    there = positive([p.there for p in transfer.parts], "flow there")
    logs = np.log(here / there)
    n = len(logs)
    usual = Scatter()
    least = 2 * (usual.repeat**2 + usual.mount**2)
    known = scatter is not None and not scatter.repeat_assumed and not scatter.mount_assumed
    # What is not known to be reading and mounting alone is counted as the parts' own disagreement.
    one = 2 * (scatter.repeat**2 + scatter.mount**2) if known and scatter is not None else 0.0
    lifts = np.array([np.nan if p.lift is None else p.lift for p in transfer.parts])
    told = f"{n} part{'s' * (n > 1)} flowed on both"
    if n < 2:
        u = float(np.sqrt((one or least) + BETWEEN_PARTS**2))
        return Adjustment(float(np.exp(logs[0])), u, Scatter().mount_freedom, _transferred(told, u))
    if len(np.unique(lifts[np.isfinite(lifts)])) >= FEWEST_TRANSFER_LIFTS and np.all(np.isfinite(lifts)):
        return _by_lift(lifts, logs, one, 0.01 * least, told)
    # A handful of parts that happen to agree is no proof: their scatter is never taken below a tenth of the usual.
    scatter2 = max(float(np.var(logs, ddof=1)), 0.01 * least)
    u = float(np.sqrt(scatter2 / n + max(scatter2 - one, 0.0)))
    return Adjustment(float(np.exp(logs.mean())), u, float(n - 1), _transferred(told, u))


BETWEEN_PARTS: Final = 0.01  # relative: two benches differ by 1 to 4 %, by part and lift (common practice, no source)
FEWEST_TRANSFER_LIFTS: Final = 3


def _by_lift(lifts: Array, logs: Array, one: float, least: float, told: str) -> Adjustment:
    """A factor for each lift that parts were flowed at; what is left about those means says how parts disagree."""
    at = np.unique(lifts)
    means = np.array([logs[lifts == x].mean() for x in at])
    counts = np.array([np.sum(lifts == x) for x in at])
    left = logs - means[np.searchsorted(at, lifts)]
    freedom = len(logs) - len(at)
    # One part a lift leaves nothing about its mean: then the course over the lifts, less its straight line, tells.
    if freedom < 2:
        line = np.polyval(np.polyfit(at, means, 1), at)
        left, freedom = means - line, max(len(at) - 2, 1)
    scatter2 = max(float(left @ left) / freedom, least)
    u = np.sqrt(scatter2 / counts + max(scatter2 - one, 0.0))
    whole = float(np.sqrt(scatter2 / len(logs) + max(scatter2 - one, 0.0)))
    return Adjustment(
        float(np.exp(logs.mean())),
        whole,
        float(freedom),
        _transferred(f"{told}, lift by lift", float(u.max())),
        tuple(float(x) for x in at),
        tuple(float(f) for f in np.exp(means)),
        tuple(float(v) for v in u),
    )


def _transferred(told: str, u: float) -> str:
    return f"transferred by {told} (± {percent_text(2 * u)})"


def neighbour_distance(lift: ArrayLike, flow: ArrayLike, at: int) -> float | None:
    """How far one reading lies from the curve through the others, relative; None where they cannot say.

    Parameters
    ----------
    lift, flow : array_like
        Readings at rising lifts [m], [m3/s], shape (n,).
    at : int
        Which one is asked about.

    Returns
    -------
    float or None
        (Q - Q_others) / Q_others [-]; None at the lowest and highest lift and with fewer than three others.

    Raises
    ------
    ValueError
        Lifts that do not rise.

    References
    ----------
    [5] through the other readings.
    """
    x, q = np.asarray(lift, dtype=float), np.asarray(flow, dtype=float)
    if at in (0, len(x) - 1) or len(x) < 4:
        return None
    others = np.delete(np.arange(len(x)), at)
    expected = float(FlowCurve(x[others], q[others]).at(x[at]))
    return float(q[at] / expected - 1)


def repeat_distance(flow: float, others: Sequence[float], scatter: Scatter) -> float | None:
    """How far a reading lies from earlier ones at its lift, in standard deviations of that difference.

    Parameters
    ----------
    flow : float
        [m3/s].
    others : sequence of float
        Earlier readings at the lift [m3/s].
    scatter : Scatter
        Of this bench.

    Returns
    -------
    float or None
        None without earlier readings.

    Raises
    ------
    ValueError
        A flow not above zero.

    References
    ----------
    [6] JCGM 100:2008, 4.2.
    """
    if not others:
        return None
    mean = float(positive(np.mean(others), "flow"))
    return abs(flow / mean - 1) / (scatter.repeat * float(np.sqrt(1 + 1 / len(others))))


def range_advice(ranges: Sequence[float], full_scale: float, flow: float, usual: float | None) -> str | None:
    """What to say about the range chosen, or None: near an end of its scale a range reads differently.

    Parameters
    ----------
    ranges : sequence of float
        Full scales of the bench [m3/s], rising.
    full_scale, flow : float
        Range in use and reading [m3/s].
    usual : float or None
        Range the pinned cut was read on at this lift [m3/s].

    Returns
    -------
    str or None
        A sentence.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Common practice, no source: read between 25 and 90 % of a scale, and on the same range as before.
    """
    top = f"{from_si(full_scale, 'cfm'):.0f}"
    larger = [r for r in ranges if r > full_scale * 1.001]
    smaller = [r for r in ranges if r < full_scale * 0.999]
    if flow > 0.97 * full_scale and larger:
        return f"This range ends at {top}: take the next one up."
    if usual is not None and abs(usual / full_scale - 1) > 1e-3 and flow < 0.97 * usual:
        return f"The pinned cut was read on the {from_si(usual, 'cfm'):.0f} range here: take that one."
    if usual is None and flow > 0.9 * full_scale and larger:
        return f"Near the end of the {top} range: the next one up reads truer."
    if usual is None and flow < 0.25 * full_scale and smaller and flow < 0.9 * smaller[-1]:
        return f"Low on the {top} range: the next one down reads truer."
    return None
