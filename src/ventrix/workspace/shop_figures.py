"""What the other jobs of the book say: hours, gains said first, power for flow, scatter of the benches."""

from __future__ import annotations

from typing import TYPE_CHECKING

from ventrix.core.benches.study import Evidence
from ventrix.core.judging.calls import called_outcomes
from ventrix.core.judging.engine_results import ShopPower, powers_for_flow, shop_power
from ventrix.core.judging.expectation import Factor, Outcome, own_factors
from ventrix.core.model.kinds import JobState
from ventrix.core.planning.own_record import OwnRecord, own_record
from ventrix.core.quantity.units import from_si
from ventrix.records.book.index import Index

if TYPE_CHECKING:
    from ventrix.workspace.workspace import Workspace


class ShopFigures:
    """Asked of the index, which catches up where other jobs were written since."""

    def __init__(self, space: Workspace) -> None:
        self._space = space
        self._index = Index(space.book)
        self._index.catch_up(space.job.id)
        self._outcomes: tuple[dict[str, int], list[Outcome]] = {}, []

    def outcomes(self) -> list[Outcome]:
        """What was said first of any cut of the book, and what came of it."""
        self._catch_up()
        here = [*self._space.findings.outcomes(), *called_outcomes(self._space.findings)]
        return [*(() if self._space.job.practice else here), *self._outcomes[1]]

    def factors(self) -> list[Factor]:
        """The porter's own gain and time factors by place, over every job of the book."""
        return own_factors(self.outcomes())

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
            return "No finished head in the book is like this one."
        low, high = (from_si(v, "h") for v in (min(like), max(like)))
        return f"{len(like)} like it: {low:.0f} to {high:.0f} h."

    def record(self) -> OwnRecord:
        """How the plan has done, over every job of the book."""
        return own_record(self.outcomes())

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

    def seen_elsewhere(self) -> dict[str, Evidence]:
        """What other jobs have seen of the benches' scatter, by bench in small letters, as far as they are indexed."""
        return self._index.seen_elsewhere(self._space.job.id)
