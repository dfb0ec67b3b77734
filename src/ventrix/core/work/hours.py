"""Hours that are left, by what each stage took so far, and whether the promise holds."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from itertools import groupby
from typing import Final

import numpy as np

from ventrix.core.model.job import Job, cylinder_of
from ventrix.core.model.kinds import StageUnit
from ventrix.core.quantity.arrays import Array
from ventrix.core.work.record import Record, StageState, WorkState, share_out
from ventrix.core.work.stages import stages_of

SEED: Final = 31
DRAWS: Final = 2000
MINUTE: Final = 60.0
# What a stage usually takes at one of what it is done to, the mean over a head [min] (common practice, no source).
USUAL_MINUTES: Final[Mapping[str, float]] = {
    "clean": 45,
    "faults": 8,
    "walls": 8,
    "scribe": 6,
    "casting lines": 8,
    "ridge": 20,
    "short side": 20,
    "guide": 12,
    "walls and roof": 20,
    "valve job": 75,
    "re-blend": 8,
    "finish": 14,
    "chamber": 22,
    "pour": 4,
    "deburr": 20,
    "wash": 25,
    "end list": 20,
}
OF_A_STAGE_OF_ONES_OWN: Final = {StageUnit.PORT: 15, StageUnit.CHAMBER: 20, StageUnit.HEAD: 40, StageUnit.JOB: 30}
# ln t = ln usual + shop + stage - b (ln n - its mean over the row) + e. Prior spreads of shop and stage, by the table
# and by three of this shop's own heads; of b; and of e with what it counts for (common practice, no source).
OF_SHOP: Final = 0.25, 0.12
OF_STAGE: Final = 0.30, 0.15
LEARNS: Final = 0.15, 0.10
RESIDUAL: Final = 0.22, 12.0
ENOUGH_HEADS: Final = 3
USUAL_DAY: Final = 6.0  # hours at the grinder a day

Paces = Mapping[str, Sequence[float]]  # by stage, what one of its units took on each of this shop's finished heads [s]


@dataclass(frozen=True, slots=True)
class Hours:
    """Of a job [s]: used, of it beyond the quote, and to go with eight in ten between low and high; the chance that the
    promise holds, None without one. `days` are the working days until it, `by_stage` the likely time to go a stage,
    `own_heads` how many finished heads the first guess stands on (0: the usual table)."""

    used: float
    beyond_quote: float
    low: float
    likely: float
    high: float
    holds: float | None
    days: int | None
    by_stage: Mapping[str, float]
    own_heads: int = 0


@dataclass(frozen=True, slots=True)
class _Row:
    """One stage at all that it is done to: seconds of those done in their order, how many are left, and the
    middle of what it usually takes."""

    key: str
    usual: float
    times: tuple[float, ...]
    done: int
    left: int
    own: int  # finished heads behind `usual`


def hours_of(record: Record, today: date, day: float = USUAL_DAY, paces: Paces | None = None) -> Hours:
    """Hours used and to go of a job, and whether its promise holds.

    .. math:: \\ln t_n = \\ln t_u + s + d_j - b (\\ln n - \\overline{\\ln n}) + e

    Parameters
    ----------
    record : Record
        Of the job.
    today : date
        Where one stands.
    day : float
        Hours worked a day.
    paces : mapping, optional
        What stages took on finished heads of this shop; three of them take the table's place.

    Returns
    -------
    Hours

    Raises
    ------
    ValueError
        A promise that is no day.

    References
    ----------
    Wright, Factors affecting the cost of airplanes, *J. Aeronautical Sciences* 3 (1936) for the form; normal inverse
    gamma update of shop, stages and learning together: Gelman et al., *Bayesian Data Analysis*, ch. 14.8. Priors:
    common practice, no source. Days are Monday to Friday; a stage that is out holds up what comes behind it until the
    day it was promised for, a part that is not here the stage that needs it.
    """
    job = record.job
    rows = _rows(record, paces or {})
    drawn = _draws(rows)
    total = np.sum(drawn, axis=0) if drawn else np.zeros(DRAWS)
    order = [stage.key for stage in record.stages]
    held = [order.index(s.stage.key) + 1 for s in record.states if s.wait is not None and not s.done]
    held += [order.index(stage.key) for stage in (record.waits_for(part) for part in record.awaited) if stage]
    behind = [d for row, d in zip(rows, drawn, strict=True) if order.index(row.key) >= min(held, default=len(order))]
    after_wait = np.sum(behind, axis=0) if behind else np.zeros(DRAWS)
    likely = dict.fromkeys(order, 0.0)
    for row, each in zip(rows, drawn, strict=True):
        likely[row.key] += float(np.median(each))
    low, middle, high = (float(v) for v in np.quantile(total, [0.1, 0.5, 0.9]))
    beyond = sum(op.duration or 0.0 for p in job.ports for c in p.cuts for op in c.operations if op.beyond_quote)
    days = None if job.promise_date is None else _days(today, _date(job.promise_date))
    holds = None if days is None else _holds(record, total, after_wait, today, day)
    own = max((row.own for row in rows), default=0)
    return Hours(record.used, beyond, low, middle, high, holds, days, likely, own)


def pace_of(job: Job) -> dict[str, float]:
    """What each stage took at one of its units, the mean of those timed [s]: what a head tells of its shop."""
    units: dict[str, dict[object, float]] = {}
    for (key, port_id), each in share_out(job, stages_of(job))[0].items():
        seconds = sum(w.seconds or 0.0 for w in each)
        stage = next(s for s in stages_of(job) if s.key == key)
        port = job.port(port_id)
        unit = {StageUnit.PORT: port_id, StageUnit.CHAMBER: cylinder_of(port), StageUnit.HEAD: port.head_id}.get(
            stage.units[0]
        )
        if seconds:
            units.setdefault(key, {}).setdefault(unit, 0.0)
            units[key][unit] += seconds
    return {key: float(np.mean(list(times.values()))) for key, times in units.items()}


def _rows(record: Record, paces: Paces) -> list[_Row]:
    rows = []
    for (key, _), each in groupby(record.states, key=lambda s: (s.stage.key, s.unit)):
        states = list(each)
        timed = sorted((s for s in states if s.done and s.seconds), key=_when)
        left = sum(not s.done and s.state is not WorkState.WAITING for s in states)
        own = [t for t in paces.get(key, ()) if t > 0]
        usual = MINUTE * USUAL_MINUTES.get(key, OF_A_STAGE_OF_ONES_OWN[states[0].unit])
        if len(own) >= ENOUGH_HEADS:
            usual = float(np.exp(np.mean(np.log(own))))
        heads = len(own) if len(own) >= ENOUGH_HEADS else 0
        rows.append(_Row(key, usual, tuple(s.seconds or 0.0 for s in timed), len(states) - left, left, heads))
    return rows


def _when(state: StageState) -> str:
    return max((op.at or op.date or "" for p in state.ports for c in p.cuts for op in c.operations), default="")


def _draws(rows: Sequence[_Row]) -> list[Array]:
    """Time that is left of each row [s], shape (draws,) each: shop, stages and learning are drawn together."""
    if not rows:
        return []
    random = np.random.default_rng(SEED)
    keys = list(dict.fromkeys(row.key for row in rows))
    owned = {row.key for row in rows if row.own}
    shop, learns = OF_SHOP[bool(owned)], LEARNS
    spreads = np.array([shop, learns[1], *(OF_STAGE[key in owned] for key in keys)])
    mean = np.array([0.0, learns[0], *(0.0 for _ in keys)])

    def line(row: _Row, n: int) -> Array:
        count = row.done + row.left
        centre = np.mean(np.log(np.arange(1, count + 1)))
        return np.array([1.0, centre - np.log(n), *(float(key == row.key) for key in keys)])

    seen = [(line(row, i + 1), np.log(t / row.usual)) for row in rows for i, t in enumerate(row.times)]
    x = np.array([a for a, _ in seen]).reshape(len(seen), len(mean))
    y = np.array([b for _, b in seen])
    spread, count = RESIDUAL
    before = np.diag((spread / spreads) ** 2)
    after = before + x.T @ x
    middle = np.linalg.solve(after, before @ mean + x.T @ y)
    off, moved = y - x @ middle, mean - middle
    freedom = count + len(y)
    variance = (count * spread**2 + off @ off + moved @ before @ moved) / freedom
    drawn = freedom * variance / random.chisquare(freedom, DRAWS)
    root = np.linalg.cholesky(np.linalg.inv(after))
    theta = middle + np.sqrt(drawn)[:, None] * (random.standard_normal((DRAWS, len(mean))) @ root.T)
    found = []
    for row in rows:
        design = np.array([line(row, row.done + i + 1) for i in range(row.left)]).reshape(row.left, len(mean))
        own = np.sqrt(drawn)[:, None] * random.standard_normal((DRAWS, row.left))
        found.append(np.asarray(row.usual * np.exp(theta @ design.T + own).sum(axis=1)))
    return found


def _holds(record: Record, total: Array, after_wait: Array, today: date, day: float) -> float:
    job: Job = record.job
    promise = _date(job.promise_date or "")
    waits = [s.wait for s in record.states if s.wait is not None and not s.done]
    promised = [w.promised for w in waits] + [part.due for part in record.awaited]
    back = max((_date(day) for day in promised if day), default=today)
    hour = 3600.0
    room, behind = _days(today, promise) * day * hour, _days(max(back, today), promise) * day * hour
    return float(np.mean((total <= room) & (after_wait <= behind)))


def _date(text: str) -> date:
    return date.fromisoformat(text[:10])


def _days(first: date, last: date) -> int:
    """Working days from one day to another, both counted."""
    return sum((first + timedelta(n)).weekday() < 5 for n in range((last - first).days + 1))
