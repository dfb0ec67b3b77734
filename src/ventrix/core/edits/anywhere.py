"""Edits of any part of a job by its kind and id: set right, taken out, put back."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import fields, replace
from typing import Any, NamedTuple

from ventrix.core.model.job import Job
from ventrix.core.model.noun import Noun


class Found(NamedTuple):
    """A part of a job: what it hangs from, in which field, and at which place there."""

    noun: Noun
    parent: Noun
    field: str
    at: int


def parts_below(noun: Noun) -> Iterator[Found]:
    """Everything that hangs from a noun, however deep, parents first."""
    for each in fields(noun):
        held = getattr(noun, each.name)
        if not isinstance(held, tuple):
            continue
        for i, child in enumerate(held):
            if isinstance(child, Noun):
                yield Found(child, noun, each.name, i)
                yield from parts_below(child)


def find_part(job: Job, kind: type[Noun], noun_id: str) -> Found:
    """A part of a job by its kind and id. KeyError where it is not there."""
    for found in parts_below(job):
        if type(found.noun) is kind and found.noun.id == noun_id:
            return found
    raise KeyError(noun_id)


def edit_part(job: Job, kind: type[Noun], noun_id: str, edit: Callable[[Noun], Noun]) -> Job:
    """The job with one part edited. KeyError where it is not there."""
    find_part(job, kind, noun_id)
    edited: Job = _changed(job, kind, noun_id, lambda held, at: (*held[:at], edit(held[at]), *held[at + 1 :]))
    return edited


def take_out_part(job: Job, kind: type[Noun], noun_id: str) -> Job:
    """The job without one part, and without what hangs from it. KeyError where it is not there."""
    find_part(job, kind, noun_id)
    left: Job = _changed(job, kind, noun_id, lambda held, at: (*held[:at], *held[at + 1 :]))
    return left


def put_in_part(job: Job, parent_id: str, parent_kind: type[Noun], field: str, at: int, part: Noun) -> Job:
    """The job with a part put where it hung; at the end where others have gone meanwhile.

    KeyError where its parent is not there.
    """

    def insert(noun: Noun) -> Noun:
        held: tuple[Any, ...] = getattr(noun, field)
        changed: dict[str, Any] = {field: (*held[:at], part, *held[at:])}
        return replace(noun, **changed)

    if parent_kind is Job:
        put = insert(job)
        assert isinstance(put, Job)
        return put
    return edit_part(job, parent_kind, parent_id, insert)


def _changed(
    noun: Any, kind: type[Noun], noun_id: str, change: Callable[[tuple[Any, ...], int], tuple[Any, ...]]
) -> Any:
    """A noun with the tuple changed that holds the part; the very same noun where it holds it nowhere."""
    for each in fields(noun):
        held = getattr(noun, each.name)
        if not isinstance(held, tuple):
            continue
        for i, child in enumerate(held):
            if not isinstance(child, Noun):
                break
            if type(child) is kind and child.id == noun_id:
                return replace(noun, **{each.name: change(held, i)})
            below = _changed(child, kind, noun_id, change)
            if below is not child:
                return replace(noun, **{each.name: (*held[:i], below, *held[i + 1 :])})
    return noun
