"""Hours that are left, by what each stage took so far: a learning curve a stage, and whether the promise holds."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Final

import numpy as np

from ventrix.core.matching.board import Box, board, stages_of, waits_now
from ventrix.core.model.job import Job
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused

SEED: Final = 31
DRAWS: Final = 2000
# ln t_n = ln t_1 - b ln n + e: priors of b, of the spread of e with what it counts for, and of t_1 (common practice, no
# source).
LEARNS: Final = (0.15, 0.10)
RESIDUAL: Final = (0.20, 4.0)
FIRST: Final = (40 * 60.0, 0.7)  # s and spread of its logarithm, of a stage that nobody began
USUAL_DAY: Final = 6.0  # hours at the grinder a day


@dataclass(frozen=True, slots=True)
class Learned:
    """A stage's curve: mean and scale of (ln t_1, b), shape (2,) and (2, 2), in units of the residual's variance, which
    is inverse gamma by its degrees of freedom and scale."""

    mean: Array
    scale: Array
    freedom: float
    variance: float

    def draws(self, numbers: Array, random: np.random.Generator, count: int = DRAWS) -> Array:
        """Times of the ports with these numbers in the row [s], shape (draws, n)."""
        variance = self.freedom * self.variance / random.chisquare(self.freedom, count)
        root = np.linalg.cholesky(self.scale)
        theta = self.mean + np.sqrt(variance)[:, None] * (random.standard_normal((count, 2)) @ root.T)
        own = np.sqrt(variance)[:, None] * random.standard_normal((count, len(numbers)))
        return np.asarray(np.exp(theta[:, :1] - theta[:, 1:] * np.log(numbers) + own))


def learn(times: Sequence[float]) -> Learned:
    """A stage's curve from the times of its ports in the order they were done.

    .. math:: t_n = t_1 n^{-b} e^{\\varepsilon}

    Parameters
    ----------
    times : sequence of float
        [s], of port 1, 2, ...; may be empty.

    Returns
    -------
    Learned
        Updated from the first on, never least squares alone.

    Raises
    ------
    ValueError
        A time not above zero.

    References
    ----------
    Wright, Factors affecting the cost of airplanes, *J. Aeronautical Sciences* 3 (1936) for the form; normal inverse
    gamma update: Gelman et al., *Bayesian Data Analysis*, ch. 14.8. Priors: common practice, no source.
    """
    if any(t <= 0 for t in times):
        raise Refused("a stage takes longer than no time")
    spread, count = RESIDUAL
    before = np.array([np.log(FIRST[0]), LEARNS[0]])
    precision = np.diag([(spread / FIRST[1]) ** 2, (spread / LEARNS[1]) ** 2])
    y = np.log(np.array(times, dtype=float))
    x = np.column_stack([np.ones(len(y)), -np.log(np.arange(1, len(y) + 1))])
    after = precision + x.T @ x
    mean = np.linalg.solve(after, precision @ before + x.T @ y)
    off, moved = y - x @ mean, mean - before
    freedom = count + len(y)
    variance = (count * spread**2 + off @ off + moved @ precision @ moved) / freedom
    return Learned(mean, np.linalg.inv(after), freedom, float(variance))


@dataclass(frozen=True, slots=True)
class Hours:
    """Of a job [s]: used, of it beyond the quote, and to go with eight in ten between low and high; the chance that the
    promise holds, None without one. `days` are the working days until it, `by_stage` the likely time to go a stage."""

    used: float
    beyond_quote: float
    low: float
    likely: float
    high: float
    holds: float | None
    days: int | None
    by_stage: Mapping[str, float]


def hours_of(job: Job, today: date, day: float = USUAL_DAY) -> Hours:
    """Hours used and to go of a job, and whether its promise holds.

    Parameters
    ----------
    job : Job
        Whose board is read.
    today : date
        Where one stands.
    day : float
        Hours worked a day.

    Returns
    -------
    Hours

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    `learn`, summed by simulation. Days are Monday to Friday; a stage that is out holds up what comes behind it until
    the day that was promised.
    """
    random = np.random.default_rng(SEED)
    boxes = board(job)
    total, after_wait = np.zeros(DRAWS), np.zeros(DRAWS)
    likely: dict[str, float] = {}
    stages = stages_of(job)
    waits = waits_now(job)
    held_from = min((stages.index(w.stage) for w in waits if w.stage in stages), default=len(stages))
    for i, stage in enumerate(stages):
        drawn = np.zeros(DRAWS)
        if not any(w.stage == stage for w in waits):  # what is out is nobody's hour here
            for kind in ("intake", "exhaust"):
                drawn += _to_go([b for b in boxes.values() if b.stage == stage and b.port.kind == kind], random)
        total += drawn
        after_wait += drawn if i > held_from else 0.0
        likely[stage] = float(np.median(drawn))
    low, middle, high = (float(v) for v in np.quantile(total, [0.1, 0.5, 0.9]))
    worked = [op for p in job.ports for c in p.cuts for op in c.operations if op.duration is not None]
    used = sum(op.duration or 0.0 for op in worked)
    beyond = sum(op.duration or 0.0 for op in worked if op.beyond_quote)
    days = None if job.promise_date is None else _days(today, _date(job.promise_date))
    holds = None
    if job.promise_date is not None and days is not None:
        holds = _holds(job, total, after_wait, today, day)
    return Hours(used, beyond, low, middle, high, holds, days, likely)


def _to_go(boxes: Sequence[Box], random: np.random.Generator) -> Array:
    """Time that the open boxes of a stage and kind will take, by what the done ones took, shape (draws,)."""
    timed = [b for b in boxes if b.done and b.seconds]
    done = sum(b.done for b in boxes)
    left = sum(not b.done for b in boxes)
    if not left:
        return np.zeros(DRAWS)
    learned = learn([b.seconds for b in timed if b.seconds])
    return np.asarray(learned.draws(np.arange(done + 1, done + left + 1, dtype=float), random).sum(axis=1))


def _holds(job: Job, total: Array, after_wait: Array, today: date, day: float) -> float:
    promise = _date(job.promise_date or "")
    back = max((_date(w.promised) for w in waits_now(job) if w.promised), default=today)
    hour = 3600.0
    room, behind = _days(today, promise) * day * hour, _days(max(back, today), promise) * day * hour
    return float(np.mean((total <= room) & (after_wait <= behind)))


def _date(text: str) -> date:
    return date.fromisoformat(text[:10])


def _days(first: date, last: date) -> int:
    """Working days from one day to another, both counted."""
    return sum((first + timedelta(n)).weekday() < 5 for n in range((last - first).days + 1))
