"""Edits of traverses and of what was seen and heard."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from ventrix.core.edits.cuts import edit_cut
from ventrix.core.edits.swap import swapped
from ventrix.core.model.job import Job
from ventrix.core.model.traverse import Observation, Traverse


def add_traverse(job: Job, cut_id: str, traverse: Traverse) -> Job:
    return edit_cut(job, cut_id, lambda c: replace(c, traverses=(*c.traverses, traverse)))


def edit_traverse(job: Job, cut_id: str, traverse_id: str, edit: Callable[[Traverse], Traverse]) -> Job:
    """The job with one traverse of a cut edited. KeyError if it is not there."""
    return edit_cut(job, cut_id, lambda c: replace(c, traverses=swapped(c.traverses, traverse_id, edit)))


def set_observations(job: Job, cut_id: str, observations: tuple[Observation, ...]) -> Job:
    return edit_cut(job, cut_id, lambda c: replace(c, observations=observations))
