"""Edits that touch several ports: one brought straight to a state of another, one test that stands for others."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from ventrix.core.edits.cuts import add_cut
from ventrix.core.edits.runs import edit_run
from ventrix.core.model.cut import Cut, Operation, Port, Work, state_name
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import CUT_KINDS
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr


def straight_to(job: Job, port_id: str, model: Port, state: Cut, new_id: Callable[[], str], date: str) -> Job:
    """A port brought in one cut to a state of another: the same places, sides and depths, and no minutes yet.

    Parameters
    ----------
    job : Job
        To be edited.
    port_id : str
        The port that is brought there.
    model, state : Port, Cut
        The port that was developed, and the state of it that is aimed at.
    new_id : callable
        Makes ids.
    date : str
        Of the new cut.

    Raises
    ------
    KeyError
        The port is not there.
    ValueError
        The state is cut 0: nothing was done to reach it.
    """
    way = [c for c in model.cuts if 0 < c.number <= state.number]
    if not way:
        raise Refused("cut {} of {} is as received: there is nothing to bring over", state.number, model.name)
    kinds = tuple(k for k in CUT_KINDS if any(k in c.kinds for c in way))
    works = _summed([w for c in way for op in c.operations for w in op.works], new_id)
    said = tr("straight to cut {} of {}", state.number, model.name)
    operation = Operation(id=new_id(), kind=said, works=works, date=date, at=date)
    last = [c for c in way if c.valve_ids], [c for c in way if c.seat_ids]
    cut = Cut(
        id=new_id(),
        number=0,
        name=state.name,
        note=said,
        kinds=kinds,
        date=date,
        valve_ids=last[0][-1].valve_ids if last[0] else (),
        seat_ids=last[1][-1].seat_ids if last[1] else (),
        operations=(operation,),
    )
    return add_cut(job, port_id, cut)


def _summed(works: list[Work], new_id: Callable[[], str]) -> tuple[Work, ...]:
    """Depths of one place and side added up; work to no stated depth stays so."""
    found: dict[tuple[object, ...], Work] = {}
    for work in works:
        key = work.place, work.side, work.from_hour, work.to_hour, work.until
        had = found.get(key)
        if had is None:
            found[key] = replace(work, id=new_id())
        elif work.depth is not None:
            found[key] = replace(had, depth=(had.depth or 0.0) + work.depth)
    return tuple(found.values())


def let_stand_for(job: Job, run_id: str, port_ids: tuple[str, ...]) -> Job:
    """Say that a test speaks for ports that were not flowed. It never counts there as measured.

    KeyError if no such run.
    """
    return edit_run(job, run_id, lambda r: replace(r, stands_for_port_ids=port_ids))


def stood_for_by(job: Job, port: Port, cut: Cut) -> Port | None:
    """The port whose test is taken to speak for a cut of this port that was not flowed; None where none is.

    The test must be of the state of the same name, or where it has none of the same number.
    """
    if cut.runs:
        return None
    for other in job.ports:
        for each in other.cuts:
            speaks = any(port.id in run.stands_for_port_ids for run in each.runs)
            if speaks and state_name(each).lower() == state_name(cut).lower():
                return other
    return None


def choose_model(job: Job, port: Port) -> Job:
    """A port as the model of its kind, in place of the one that was; chosen again, the choice is taken back."""
    kind = {p.id for p in job.ports if p.kind == port.kind}
    others = tuple(i for i in job.model_port_ids if i not in kind)
    return replace(job, model_port_ids=others if port.id in job.model_port_ids else (*others, port.id))
