"""Taking parts out of the open job into its bin, putting them back, emptying it."""

from __future__ import annotations

from dataclasses import replace
from typing import Final

from ventrix.core.edits.anywhere import find_part, parts_below, put_in_part, take_out_part
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Binned
from ventrix.core.model.noun import Noun
from ventrix.core.model.run import Reading
from ventrix.core.quantity.refused import Refused
from ventrix.records.book.tables import CHILDREN, NOUNS
from ventrix.records.files.job_document import from_document, to_document
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text
from ventrix.workspace.workspace import Workspace

_KINDS: Final = {kind.__name__: kind for kind in NOUNS}


def holds_readings(noun: Noun) -> bool:
    """Whether anything measured on a bench hangs from a part."""
    return isinstance(noun, Reading) or any(isinstance(f.noun, Reading) for f in parts_below(noun))


def take_out(space: Workspace, kind: type[Noun], noun_id: str, name: str, reason: str) -> None:
    """Put a part into the bin.

    Raises
    ------
    ValueError
        With a sentence: a port's cut 0, the only port, a reading by itself, or readings without a reason.
    """
    found = find_part(space.job, kind, noun_id)
    if kind is Reading:
        raise Refused("a reading is struck with its reason, never deleted")
    if kind is Port and len(space.job.ports) == 1:
        raise Refused("a job has at least one port")
    if isinstance(found.noun, Cut) and isinstance(found.parent, Port):
        if len(found.parent.cuts) == 1:
            raise Refused("a port has at least the state it was received in")
        if found.at == 0:
            raise Refused("the cuts after it stand on cut 0: take those out first")
    if holds_readings(found.noun) and not reason.strip():
        raise Refused("it holds readings: say why it goes")
    parent = "" if isinstance(found.parent, Job) else found.parent.id
    binned = Binned(
        id=new_id(),
        noun=kind.__name__,
        name=name,
        parent_id=parent,
        at=found.at,
        document=to_document(found.noun) | {"hangs_from": type(found.parent).__name__},
        reason=reason.strip(),
        date=now_text(),
    )
    job = take_out_part(space.job, kind, noun_id)
    space.apply(tr("{} into the bin", name), replace(job, bin=(*job.bin, binned)))


def put_back(space: Workspace, binned_id: str) -> None:
    """Put a part of the bin back where it hung.

    Raises
    ------
    ValueError
        With a sentence: what it hung from is gone, or something took its place.
    """
    binned = next((b for b in space.job.bin if b.id == binned_id), None)
    if binned is None:
        raise Refused("it is no longer in the bin")
    document = dict(binned.document)
    kind, parent_kind = _KINDS[binned.noun], _KINDS[str(document.pop("hangs_from", "Job"))]
    part = from_document(kind, document)
    there = {(type(f.noun), f.noun.id) for f in parts_below(space.job)}
    if any((type(f.noun), f.noun.id) in there for f in parts_below(part)) or (kind, part.id) in there:
        raise Refused("a part of it is in the job already")
    field = next(name for name, held in CHILDREN[parent_kind].items() if held is kind)
    try:
        job = put_in_part(space.job, binned.parent_id, parent_kind, field, binned.at, part)
    except KeyError:
        raise Refused("what it belonged to is no longer there") from None
    space.apply(tr("{} put back", binned.name), replace(job, bin=tuple(b for b in job.bin if b.id != binned_id)))


def empty_bin(space: Workspace) -> None:
    """Let go of everything in the bin."""
    if space.job.bin:
        space.apply(tr("the bin emptied"), replace(space.job, bin=()))
