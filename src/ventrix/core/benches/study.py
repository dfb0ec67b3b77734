"""What a bench sees: a study of an untouched head, and what the book has seen of its scatter."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import NamedTuple

import numpy as np

from ventrix.core.formulas.uncertainty import CONFIDENCE, MountSets, Repeats, Scatter, known_scatter, student_t, two_way
from ventrix.core.model.bench import Bench, ScatterStudy, StudyReading
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si
from ventrix.words import tr


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
        At least three mounts that share at least one lift, and a repeat, or a second lift common to all of them.

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
    [6] JCGM 100:2008, 4.2 and H.5 (findings of variance); formula book of this project.
    """
    groups = _groups(study.readings)
    mounts = sorted({mount for mount, _ in groups})
    if len(mounts) < 3:
        raise Refused("at least three mounts of the unchanged head are needed")
    lifts = sorted({lift for _, lift in groups if all((m, lift) in groups for m in mounts)})
    if not lifts:
        raise Refused("no lift was flowed in every mount")
    found = _study_evidence(study)
    if found.repeat_freedom == 0:
        raise Refused("nothing was repeated: set lift and pressure again and read at least one lift twice")
    repeat, freedom = float(np.sqrt(found.repeat_squares / found.repeat_freedom)), found.repeat_freedom
    means = np.array([[np.mean(groups[m, lift]) for lift in lifts] for m in mounts])
    repeats = Repeats(np.array([found.repeat_squares]), np.array([freedom]))
    assumed = Scatter(repeat=repeat, repeat_freedom=freedom, repeat_assumed=False)
    scatter = known_scatter([repeats], assumed, found.seen, found.tilts)
    t_repeat = float(student_t(CONFIDENCE, freedom))
    t_mount = float(student_t(CONFIDENCE, scatter.mount_freedom))
    stays = np.sqrt(2) * t_repeat * repeat
    off = np.hypot(stays, np.sqrt(2) * t_mount * scatter.mount)
    flows_at = means.mean(axis=0)
    sees = tuple(Sees(x * 1e-6, float(off * q), float(stays * q)) for x, q in zip(lifts, flows_at, strict=True))
    return StudyResult(scatter, len(mounts), sees, repeats, found.seen)


def study_sentence(result: StudyResult, lift: str, flow: str) -> str:
    """A study in one sentence; `lift` and `flow` are unit symbols. Source: `study_result`."""
    middle = result.sees[len(result.sees) // 2 if len(result.sees) < 3 else -1]
    off, on = (f"{from_si(v, flow):.1f}" for v in (middle.remounted, middle.stays_on))
    digits = 3 if lift == "in" else 2
    unit = "CFM" if flow == "cfm" else flow
    return tr(
        "this bench sees {} {} at {} {} when the head comes off in between, {} when it stays on",
        off,
        unit,
        f"{from_si(middle.lift, lift):.{digits}f}",
        lift,
        on,
    )


@dataclass(frozen=True, slots=True)
class Evidence:
    """What was seen of a bench's scatter: repeats (sum of squared relative residuals and degrees of freedom),
    mounts of unchanged heads, and how far these tilted the curve. Evidence from several jobs and studies adds up."""

    repeat_squares: float = 0.0
    repeat_freedom: float = 0.0
    seen: MountSets = field(default_factory=MountSets)
    tilts: MountSets = field(default_factory=MountSets)

    def __add__(self, other: Evidence) -> Evidence:
        return Evidence(
            self.repeat_squares + other.repeat_squares,
            self.repeat_freedom + other.repeat_freedom,
            self.seen + other.seen,
            self.tilts + other.tilts,
        )

    @property
    def scatter(self) -> Scatter:
        """The scatter to judge with."""
        repeats = Repeats(np.array([self.repeat_squares]), np.array([self.repeat_freedom]))
        return known_scatter([repeats], None, self.seen, self.tilts)


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
    repeats = Evidence(squares, float(freedom))
    lifts = sorted({lift for _, lift in groups if all((m, lift) in groups for m in mounts)})
    if len(mounts) < 2 or not lifts:
        return repeats
    means = np.array([[np.mean(groups[m, lift]) for lift in lifts] for m in mounts])
    return repeats + of_mounts(means, np.array(lifts) * 1e-6, single=freedom == 0)


def of_mounts(flow: Array, lift: Array, *, single: bool) -> Evidence:
    """What m mounts of one unchanged state say at n lifts, shape (m, n): their scatter as wholes, their tilt, and, of
    `single` readings, the repeats that are left once each mount's own factor is out.

    Parameters
    ----------
    flow : Array
        [m3/s], shape (m, n).
    lift : Array
        [m], shape (n,).
    single : bool
        One reading a lift in every mount.

    Returns
    -------
    Evidence

    Raises
    ------
    Refused
        Flows not above zero.

    References
    ----------
    `uncertainty.two_way`.
    """
    seen = MountSets.of((flow / flow.mean(axis=0)).mean(axis=1))
    found = two_way(flow, lift)
    if single:
        return Evidence(found.squares, found.freedom, seen, found.tilts)
    return Evidence(0.0, 0.0, seen, found.tilts)
