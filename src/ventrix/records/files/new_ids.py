"""A job under new ids: the same in everything else, so that it can stand in the book beside the one it came from."""

from __future__ import annotations

import uuid
from collections.abc import Iterator
from typing import Any

from ventrix.core.model.job import Job
from ventrix.records.files.job_document import from_document, to_document


def renewed(job: Job) -> Job:
    """The job with an id of its own for everything in it; what named one of the old ids names the new one."""
    document = to_document(job)
    new = {old: uuid.uuid4().hex for old in _ids(document)}
    found: Job = from_document(Job, _with(document, new))
    return found


def _ids(document: Any) -> Iterator[str]:
    if isinstance(document, dict):
        if isinstance(document.get("id"), str):
            yield document["id"]
        for value in document.values():
            yield from _ids(value)
    elif isinstance(document, list):
        for value in document:
            yield from _ids(value)


def _with(document: Any, new: dict[str, str], key: str = "") -> Any:
    if isinstance(document, dict):
        return {name: _with(value, new, name) for name, value in document.items()}
    if isinstance(document, list):
        return [_with(value, new, key) for value in document]
    # Only what names something: a title that happens to read like an id stays what it is.
    names = key == "id" or key.endswith(("_id", "_ids")) or key in ("mirror_of", "noun")
    return new.get(document, document) if names and isinstance(document, str) else document
