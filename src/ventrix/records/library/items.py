"""Things of the book's library and the nouns of a job: into it, and out of it again under ids of their own."""

from __future__ import annotations

import uuid
from dataclasses import replace

from ventrix.core.castings.casting_file import Casting
from ventrix.core.model.job_parts import Face, Seat
from ventrix.core.model.kinds import Direction, LibraryKind
from ventrix.core.model.library import LibraryItem
from ventrix.core.model.run import FlowRun, SetUp
from ventrix.records.bad_input import InputError
from ventrix.records.files.casting_document import casting_document, casting_from
from ventrix.records.files.job_document import from_document, to_document
from ventrix.words import tr


def _new_id() -> str:
    return uuid.uuid4().hex


def claim_item(run: FlowRun, setup: SetUp, name: str, price: float | None, date: str) -> LibraryItem:
    """A claimed curve for the library."""
    return LibraryItem(
        id=_new_id(),
        kind=LibraryKind.CLAIM,
        name=name,
        source=run.claimed or "",
        of=setup.direction,
        price=price,
        date=date,
        document={"run": to_document(run), "setup": to_document(setup)},
    )


def claim_of(item: LibraryItem) -> tuple[FlowRun, SetUp]:
    """A claim of the library as a run and its conditions. InputError where its document is damaged."""
    try:
        run = from_document(FlowRun, item.document["run"], item.name)
        setup = from_document(SetUp, item.document["setup"], item.name)
    except KeyError:
        raise InputError(tr("holds no curve"), file=item.name) from None
    setup = replace(setup, id=_new_id())
    readings = tuple(replace(r, id=_new_id()) for r in run.readings)
    return replace(run, id=_new_id(), setup_id=setup.id, mount_id=None, readings=readings), setup


def seat_item(seat: Seat, date: str, of: Direction) -> LibraryItem:
    """A seat recipe for the library."""
    return LibraryItem(
        id=_new_id(),
        kind=LibraryKind.SEAT,
        name=seat.recipe or "seat",
        of=of,
        date=date,
        document={"seat": to_document(seat)},
    )


def seat_of(item: LibraryItem) -> Seat:
    """A recipe of the library as a seat. InputError where its document is damaged."""
    try:
        seat: Seat = from_document(Seat, item.document["seat"], item.name)
    except KeyError:
        raise InputError(tr("holds no recipe"), file=item.name) from None
    return replace(seat, id=_new_id())


def casting_item(found: Casting, whose: str, date: str) -> LibraryItem:
    """A casting file for the library: another shop's, or one's own sawn sections."""
    document = casting_document(found, whose, date)
    return LibraryItem(
        id=_new_id(), kind=LibraryKind.CASTING, name=found.number, source=whose, date=date, document=document
    )


def casting_of(item: LibraryItem) -> Casting:
    """A casting file of the library. InputError where its document is damaged."""
    return casting_from(dict(item.document), item.name)


def face_item(face: Face, date: str) -> LibraryItem:
    """A gasket's, manifold's or header's face for the library."""
    return LibraryItem(
        id=_new_id(),
        kind=LibraryKind.OUTLINE,
        name=face.name,
        source=face.part,
        date=date,
        document={"face": to_document(face)},
    )


def face_of(item: LibraryItem) -> Face:
    """A face of the library under ids of its own. InputError where its document is damaged."""
    try:
        face = from_document(Face, item.document["face"], item.name)
    except KeyError:
        raise InputError(tr("holds no face"), file=item.name) from None
    assert isinstance(face, Face)
    return replace(
        face,
        id=_new_id(),
        outlines=tuple(replace(o, id=_new_id()) for o in face.outlines),
        bolts=tuple(replace(b, id=_new_id()) for b in face.bolts),
    )
