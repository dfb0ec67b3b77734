"""What the other jobs of the book say: hours, gains said first, power for flow, scatter of the benches."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Final

from ventrix.core.benches.study import Evidence
from ventrix.core.judging.calls import called_outcomes
from ventrix.core.judging.engine_results import ShopPower, powers_for_flow, shop_power
from ventrix.core.judging.expectation import Factor, Outcome, own_factors
from ventrix.core.judging.findings import Findings
from ventrix.core.model.bench import Bench
from ventrix.core.model.job_parts import plain_casting
from ventrix.core.model.kinds import Direction, JobState
from ventrix.core.planning.own_record import OwnRecord, own_record
from ventrix.core.planning.reflow import reflow_time
from ventrix.core.quantity.units import from_si
from ventrix.records.book.index import Index
from ventrix.words import tr

if TYPE_CHECKING:
    from ventrix.core.castings.casting_file import Casting
    from ventrix.core.planning.learned import CastingPrior
    from ventrix.workspace.castings import CastingShelf
    from ventrix.workspace.workspace import Workspace

MOST_HEADS: Final = 12  # finished ones that a first guess of hours stands on


@dataclass(frozen=True, slots=True)
class _Learned:
    """What was learned of which writing of the book, and for which castings."""

    of: tuple[dict[str, int], frozenset[str]]
    jobs: list[Findings]
    by_kind: dict[str, CastingPrior | None]


class ShopFigures:
    """Asked of the index, which catches up where other jobs were written since."""

    def __init__(self, space: Workspace) -> None:
        self._space = space
        self._index = Index(space.book)
        self._index.catch_up(space.job.id)
        self._castings: CastingShelf | None = None
        self._outcomes: tuple[dict[str, int], list[Outcome]] = {}, []
        self._learned: _Learned | None = None
        self._spans: tuple[dict[str, int], list[float]] = {}, []
        self._paces: tuple[dict[str, int], dict[str, list[float]]] = {}, {}

    def outcomes(self) -> list[Outcome]:
        """What was said first of any cut of the book, and what came of it."""
        self._catch_up()
        here = [*self._space.findings.outcomes(), *called_outcomes(self._space.findings)]
        return [*(() if self._space.job.practice else here), *self._outcomes[1]]

    def factors(self) -> list[Factor]:
        """The porter's own gain and time factors by place, over every job of the book."""
        return own_factors(self.outcomes())

    def paces(self) -> dict[str, list[float]]:
        """What each stage took at one unit of finished heads [s]: those of this material and as many cylinders where
        there are enough, else all; the newest of them."""
        from ventrix.core.work.hours import ENOUGH_HEADS, pace_of  # late: the first picture needs no hours

        written = self._space.book.revisions()
        if written != self._paces[0]:
            job = self._space.job
            done = [
                e for e in self._index.find()
                if e.seconds and e.id != job.id and e.state is JobState.HANDED_OVER and e.binned is None
            ]  # fmt: skip
            like = [e for e in done if (e.cylinders, e.material) == (job.cylinders, job.material)]
            chosen = like if len(like) >= ENOUGH_HEADS else done
            found: dict[str, list[float]] = {}
            for entry in sorted(chosen, key=lambda e: e.date or "")[-MOST_HEADS:]:
                for stage, seconds in pace_of(self._space.book.load(entry.id)).items():
                    found.setdefault(stage, []).append(seconds)
            self._paces = written, found
        return self._paces[1]

    def learner(self, kind: Direction) -> Callable[[], CastingPrior | None]:
        """What finished ports of this casting and kind told, as a question for a thread of its own: their jobs are read
        here, where the book was written since, and fitted there, once."""
        from ventrix.core.planning.casting_prior import learn  # late: the first picture needs no plan

        written = {owner: n for owner, n in self._space.book.revisions().items() if owner != self._space.job.id}
        castings = frozenset(filter(None, (plain_casting(h.casting) for h in self._space.job.heads)))
        if self._learned is None or self._learned.of != (written, castings):
            same = [
                e for e in (self._index.find() if castings else ())
                if e.id != self._space.job.id and e.binned is None and plain_casting(e.casting) in castings
            ]  # fmt: skip
            newest = sorted(same, key=lambda e: e.date or "")[-MOST_HEADS:]
            jobs = [job for e in newest if not (job := self._space.book.load(e.id)).practice]
            self._learned = _Learned((written, castings), [Findings(job, benches=self._benches()) for job in jobs], {})
        held, brought = self._learned, [c for c in self.castings() if c.whose]

        def answer() -> CastingPrior | None:
            if kind not in held.by_kind:
                told = (c.told[kind] for c in brought if kind in c.told)
                held.by_kind[kind] = learn(held.jobs, castings, kind) or next(told, None)
            return held.by_kind[kind]

        return answer

    def castings(self) -> tuple[Casting, ...]:
        """What is known of the casting numbers that the job's heads bear, by other heads and other shops."""
        numbers = dict.fromkeys(h.casting.strip() for h in self._space.job.heads if h.casting.strip())
        if not numbers:
            return ()
        if self._castings is None:
            from ventrix.workspace.castings import CastingShelf  # late: a job without a number never asks

            self._castings = CastingShelf(self._space.book, self._index)
        return tuple(c for number in numbers for c in self._castings.of(number, but=self._space.job.id))

    def _benches(self) -> tuple[Bench, ...]:
        return tuple(self._space.findings.benches)

    def hours_of_like(self) -> str:
        """Hours that finished heads of as many cylinders and this material took, in words."""
        job = self._space.job
        like = [
            e.seconds
            for e in self._index.find()
            if e.seconds and e.id != job.id and e.state is JobState.HANDED_OVER and e.binned is None
            and (e.cylinders, e.material) == (job.cylinders, job.material)
        ]  # fmt: skip
        if not like:
            return tr("No finished head in the book is like this one.")
        low, high = (from_si(v, "h") for v in (min(like), max(like)))
        return tr("{} like it: {:.0f} to {:.0f} h.", len(like), low, high)

    def record(self) -> OwnRecord:
        """How the plan has done, and what flowing again takes, over every job of the book."""
        written = self._space.book.revisions()
        if written != self._spans[0]:
            self._spans = written, self._index.flow_spans()
        return own_record(self.outcomes(), reflow_time(self._spans[1]))

    def power(self) -> ShopPower | None:
        """The shop's own power for flow, over every job of the book."""
        self._catch_up()
        return shop_power([*powers_for_flow(self._space.findings), *self._index.powers_elsewhere(self._space.job.id)])

    def _catch_up(self) -> None:
        """Have the index say what other jobs have, where they were written since it was asked."""
        written = {owner: n for owner, n in self._space.book.revisions().items() if owner != self._space.job.id}
        if not self._outcomes[0] or written != self._outcomes[0]:
            self._index.catch_up(self._space.job.id)
            self._outcomes = written, self._index.outcomes_elsewhere(self._space.job.id)

    def read_anew(self) -> None:
        """The index was brought up to date since: what it said before is not held on to."""
        self._outcomes, self._paces, self._learned = ({}, []), ({}, {}), None

    def seen_elsewhere(self) -> dict[str, Evidence]:
        """What other jobs have seen of the benches' scatter, by bench in small letters, as far as they are indexed."""
        return self._index.seen_elsewhere(self._space.job.id)
