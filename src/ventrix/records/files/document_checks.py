"""What a document may say: figures that can be, text that is whole, and names of things that are there."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import Any, Final

from ventrix.core.model.job import Job
from ventrix.core.model.noun import Noun, words_of
from ventrix.core.model.plausible import implausible
from ventrix.records.bad_input import InputError
from ventrix.records.book.rows import flatten
from ventrix.records.files.document_keys import KEYS
from ventrix.words import tr

DEEPEST: Final = 60  # levels of a document


def check_values(document: Any, name: str) -> None:
    """Refuse what no store takes, wherever it stands: numbers without end, broken characters, endless nesting."""
    waiting: list[tuple[Any, str, int]] = [(document, "", 0)]
    while waiting:
        value, where, depth = waiting.pop()
        if depth > DEEPEST:
            raise InputError(tr("is nested too deep"), file=name, field=short(where))
        if isinstance(value, dict):
            for key, each in value.items():
                _check_text(key, name, where)
                waiting.append((each, f"{where}.{key}" if where else key, depth + 1))
        elif isinstance(value, list):
            waiting += [(each, f"{where}.{i}", depth + 1) for i, each in enumerate(value)]
        elif isinstance(value, float) and not math.isfinite(value):
            raise InputError(tr("is too large a number"), file=name, field=short(where))
        elif isinstance(value, str):
            _check_text(value, name, where)


def _check_text(text: str, name: str, where: str) -> None:
    if any("\ud800" <= c <= "\udfff" or c == "\0" for c in text):
        raise InputError(tr("holds a broken character"), file=name, field=short(where))


def short(where: str) -> str:
    clean = where.encode("utf-8", "replace").decode()
    return clean if len(clean) < 120 else f"{clean[:117]}…"


def check_plausible(noun: Noun, name: str, where: str) -> None:
    for flat in flatten(noun):
        for field_name, sentence in implausible(flat.noun):
            key = KEYS[type(flat.noun)][field_name][0]
            what = words_of(type(flat.noun))
            raise InputError(sentence, file=name, field=f"{where}{what} '{short(flat.noun.id)}' {key}")


def check_references(job: Job, name: str) -> None:
    seen: set[tuple[type, str]] = set()
    for flat in flatten(job):
        key = type(flat.noun), flat.noun.id
        if key in seen:
            raise InputError(tr("two {}s have the id '{}'", words_of(key[0]), short(key[1])), file=name, field="id")
        seen.add(key)
    setups = {s.id for s in job.setups}
    mounts = {m.id for m in job.mounts}
    for what, setup_id, mount_id in _references(job):
        if setup_id is not None and setup_id not in setups:
            raise InputError(tr("{} names a set-up that is not here", what), file=name, field="setup_id")
        if mount_id is not None and mount_id not in mounts:
            raise InputError(tr("{} names a mount that is not here", what), file=name, field="mount_id")
    for port in job.ports:
        if port.valve_id is not None and all(v.id != port.valve_id for v in job.valves):
            raise InputError(
                tr("port '{}' names a valve that is not here", port.name[:40]), file=name, field="valve_id"
            )
        files = [p.file for p in (*job.photos, *(p for c in port.cuts for p in c.photos))]
        files += [s.file for c in port.cuts for s in c.scans]
        for file in (*files, *(f.photo for f in port.faults if f.photo)):
            if not is_photo_name(file):
                raise InputError(
                    tr("a photo or a scan is named by its file alone, without a folder"), file=name, field="file"
                )


def is_photo_name(text: str) -> bool:
    """Whether a photo's name stays inside its folder."""
    return bool(text) and text not in (".", "..") and not any(c in text for c in "/\\:\0")


def _references(job: Job) -> Iterator[tuple[str, str | None, str | None]]:
    for run in job.runs():
        yield f"run '{short(run.id)}'", run.setup_id, run.mount_id
    for port in job.ports:
        for cut in port.cuts:
            for traverse in cut.traverses:
                yield f"traverse '{short(traverse.id)}'", traverse.setup_id, traverse.mount_id
