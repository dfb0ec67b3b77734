"""Springs, guides, lapped contacts, fitted heights and flatness held against limits that the user can change."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from typing import Final

from ventrix.core.judging.wording import Wording
from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import FitLimit, Valve
from ventrix.core.model.kinds import Direction, FitKind, ValveMetal
from ventrix.core.quantity.units import to_si
from ventrix.words import tr

# Common practice, no source; the maker's data go first. Least and most [mm].
_USUAL: Final[Mapping[tuple[FitKind, str, str], tuple[float | None, float | None]]] = {
    (FitKind.COIL_BIND, "", ""): (1.5, None),
    (FitKind.GUIDE, "intake", ""): (0.025, 0.064),
    (FitKind.GUIDE, "exhaust", ""): (0.038, 0.076),
    (FitKind.GUIDE, "", ValveMetal.TITANIUM): (0.038, 0.076),
    (FitKind.GUIDE, "", ValveMetal.SODIUM): (0.050, 0.090),
    (FitKind.LAP, "intake", ""): (1.0, 1.5),
    (FitKind.LAP, "exhaust", ""): (1.5, 2.0),
    (FitKind.HEIGHTS, "", ""): (None, 0.25),
    (FitKind.FLATNESS, "", ""): (None, 0.05),
}
BY_USE: Final = tr("common practice; the maker's data go first")


@dataclass(frozen=True, slots=True)
class FitCheck:
    """A fit of a port, or of a head: the figure [m], whether it lies within its limit (None where there is none), and
    both in words."""

    what: FitKind
    of: str
    value: float
    holds: bool | None
    says: str


def limit_of_fit(job: Job, what: FitKind, kind: str = "", metal: str = "") -> tuple[float | None, float | None, bool]:
    """Between what a fit may lie [m], the job's own before the usual, the nearer told before the wider; and whether it
    is the job's own."""

    def speaks(of_kind: str, of_metal: str) -> bool:
        return of_kind in ("", kind) and of_metal in ("", metal)

    own = [m for m in job.fit_limits if m.what == what and speaks(m.kind, m.metal)]
    if own:
        chosen: FitLimit = max(own, key=lambda m: (bool(m.metal), bool(m.kind)))
        return chosen.low, chosen.high, True
    usual = [(key, span) for key, span in _USUAL.items() if key[0] is what and speaks(key[1], key[2])]
    if not usual:
        return None, None, False
    _, (low, high) = max(usual, key=lambda found: (bool(found[0][2]), bool(found[0][1])))
    return *(None if v is None else to_si(v, "mm") for v in (low, high)), False  # type: ignore[return-value]


def fit_checks(job: Job, words: Wording | None = None) -> tuple[FitCheck, ...]:
    """Every fit of a job that was measured, held against its limit.

    Parameters
    ----------
    job : Job
        Its ports' valves, and its heads.
    words : Wording, optional
        Units of the sentences; inches without.

    Returns
    -------
    tuple of FitCheck
        Port by port, then across ports, then head by head. A spring that binds before full lift is said, never refused.

    References
    ----------
    Limits: common practice, no source, unless the job has its own.
    """
    words = words or Wording()
    found: list[FitCheck] = []
    for port in (p for p in job.ports if p.of_head and p.cuts):
        valve = job.valve_of(port, port.cuts[-1])
        if valve is not None:
            found += _of_valve(job, port, valve, words)
    return (*found, *_heights(job, words), *_flatness(job, words))


def _of_valve(job: Job, port: Port, valve: Valve, words: Wording) -> Iterator[FitCheck]:
    lift = job.cam_lift if port.kind == Direction.INTAKE else job.exhaust_cam_lift or job.cam_lift
    if valve.spring_height is not None and valve.coil_bind is not None and lift is not None:
        margin = valve.spring_height - valve.coil_bind - lift
        check = _held(job, FitKind.COIL_BIND, port.name, margin, port.kind, valve.metal, words)
        if margin <= 0:
            said = tr("{}: the spring binds {} before full lift", port.name, _size(-margin, words))
            check = FitCheck(FitKind.COIL_BIND, port.name, margin, False, said)
        yield check
    for what, value in ((FitKind.GUIDE, valve.guide_clearance), (FitKind.LAP, valve.lap_width)):
        if value is not None:
            yield _held(job, what, port.name, value, port.kind, valve.metal, words)


def _heights(job: Job, words: Wording) -> Iterator[FitCheck]:
    """How far the fitted heights of a kind lie apart: what follows the valves reaches so much less or more."""
    for kind in Direction:
        valves = [job.valve_of(p, p.cuts[-1]) for p in job.ports if p.of_head and p.kind == kind and p.cuts]
        heights = [v.fitted_height for v in valves if v is not None and v.fitted_height is not None]
        if len(heights) > 1:
            yield _held(job, FitKind.HEIGHTS, f"{kind}s", max(heights) - min(heights), kind, "", words)


def _flatness(job: Job, words: Wording) -> Iterator[FitCheck]:
    for head in (h for h in job.heads if h.flatness is not None):
        yield _held(job, FitKind.FLATNESS, head.name, head.flatness or 0.0, None, "", words)
    if job.flatness is not None and all(h.flatness is None for h in job.heads):
        yield _held(job, FitKind.FLATNESS, tr("the head"), job.flatness, None, "", words)


def _held(
    job: Job, what: FitKind, of: str, value: float, kind: Direction | None, metal: str, words: Wording
) -> FitCheck:
    low, high, own = limit_of_fit(job, what, kind or "", metal)
    holds = None if low is None and high is None else (low or 0.0) <= value <= (high if high is not None else value)
    says = f"{of}: {what.words} {_size(value, words)}"
    if holds is False:
        where = (
            tr("under {}", _size(low, words))
            if low is not None and value < low
            else tr("over {}", _size(high or 0.0, words))
        )
        says += f", {where} ({tr('your limit') if own else BY_USE})"
    return FitCheck(what, of, value, holds, says)


def _size(value: float, words: Wording) -> str:
    return f"{words.small(value)} {words.lift_unit}"
