"""The whole head's list: looks, cuts on the model ports, copies, faults, seats, parts, outside work, finishing."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date

from ventrix.core.judging.expectation import Factor
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.wording import Wording
from ventrix.core.next_hour.maker import Learners, Maker
from ventrix.core.next_hour.metal_items import MetalItems
from ventrix.core.next_hour.other_items import OtherItems
from ventrix.core.next_hour.work_item import WorkItem, in_time, linked
from ventrix.core.planning.own_record import OwnRecord
from ventrix.core.work.hours import MINUTE, USUAL_DAY, Hours, Paces, hours_of
from ventrix.core.work.record import Record, record_of


@dataclass(frozen=True, slots=True)
class WorkList:
    """What is next on a head, best first; those that wait stand behind. `weights` are what a percent of a kind's flow
    counts, `weighed_by` says by what."""

    record: Record
    items: tuple[WorkItem, ...]
    hours: Hours
    weights: Mapping[str, float]
    weighed_by: str

    @property
    def next(self) -> WorkItem | None:
        """The one answer: the first that nothing holds up."""
        return next((item for item in self.items if not item.waits), None)


def work_list(
    findings: Findings,
    today: date,
    factors: Sequence[Factor] = (),
    plan_record: OwnRecord | None = None,
    paces: Paces | None = None,
    words: Wording | None = None,
    learners: Learners | None = None,
    left: float | None = None,
) -> WorkList:
    """Everything that is left on a head, in the order it is best done in.

    What keeps people safe or the casting whole comes first, then what others wait for, then worth an hour, then the
    order of the stages. A cut on the model of n ports is worth n times its gain and costs its own minutes and those of
    n - 1 copies, flowed again once; a copy is worth what the state it brings gained.

    Parameters
    ----------
    findings : Findings
        Of the job.
    today : date
        Where one stands.
    factors, plan_record : sequence of Factor, OwnRecord, optional
        The porter's own, as `plan_port`.
    paces : mapping, optional
        What stages took on this shop's finished heads.
    words : Wording, optional
        Units of the sentences; inches and CFM without.
    learners : mapping, optional
        By kind of port, what finished ports of this casting told, when it is asked for.
    left : float, optional
        Work that there is time for [s]; by the days until the promise without it.

    Returns
    -------
    WorkList

    Raises
    ------
    ValueError
        The job's own list of stages cannot be read.

    References
    ----------
    Formula book of this project; minutes of looks and the share of a copy are common practice, no source.
    """
    record = record_of(findings)
    maker = Maker(findings, record, today, factors, plan_record, words or Wording(), learners or {})
    metal, others = MetalItems(maker), OtherItems(maker)
    items = [*others.before()]
    for kind in dict.fromkeys(p.kind for p in maker.ports):
        items += metal.of_kind(kind)
    items += others.after()
    once = {item.key: maker.held_by_parts(item) for item in items}  # a wall that several wait for is read once
    hours, weights = hours_of(record, today, paces=paces), maker.weights
    if left is None and hours.days is not None:
        left = 60 * MINUTE * USUAL_DAY * hours.days
    made = list(once.values()) if left is None else in_time(list(once.values()), left)
    ordered = tuple(sorted(linked(made), key=lambda item: (bool(item.waits), item.place_in_line)))
    return WorkList(record, ordered, hours, weights.weights, weights.weighed_by)
