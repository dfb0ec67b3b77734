"""Job documents: a whole job as JSON. Every dimensional key ends in its unit; unknown keys are kept.

The pydantic models are made from the nouns of `core.model`, so the two cannot drift apart; their
JSON schema is published in docs/formats.
"""

from __future__ import annotations

import json
import os
from collections.abc import Mapping
from dataclasses import MISSING, fields
from pathlib import Path
from typing import Any, Final, get_type_hints

from pydantic import BaseModel, ConfigDict, ValidationError, create_model
from pydantic import Field as DocumentField

from ventrix.core.model import Job, Noun
from ventrix.core.units import from_si, tidy, to_si
from ventrix.records.errors import InputError
from ventrix.records.mapping import CHILDREN, TABLES, flatten

VERSION: Final = 1
VERSION_KEY: Final = "ventrix_job"
LARGEST_FILE: Final = 256 * 1024 * 1024  # bytes
_UNIT_WORDS: Final = {"%": "percent"}


def _keys_of(kind: type[Noun]) -> dict[str, tuple[str, str | None]]:
    found: dict[str, tuple[str, str | None]] = {}
    for each in fields(kind):
        if each.name == "extra":
            continue
        unit = each.metadata.get("unit")
        suffix = "" if unit in (None, "-") else f"_{_UNIT_WORDS.get(unit, unit)}"
        found[each.name] = each.name + suffix, unit
    return found


# Of each noun: field name to (document key, unit or None).
KEYS: Final = {kind: _keys_of(kind) for kind in TABLES}
# A flag or a text that says its default is left out.
_NOTHING_SAID: Final = {
    (kind, each.name): (each.default,)
    for kind in TABLES
    for each in fields(kind)
    if each.default is False or each.default == ""
}
_MODELS: dict[type[Noun], type[BaseModel]] = {}


def document_model(kind: type[Noun]) -> type[BaseModel]:
    """The pydantic model of a noun's document."""
    if kind not in _MODELS:
        _MODELS[kind] = _make_model(kind)
    return _MODELS[kind]


def _make_model(kind: type[Noun]) -> type[BaseModel]:
    hints = get_type_hints(kind)
    shape: dict[str, Any] = {}
    for each in fields(kind):
        if each.name == "extra":
            continue
        key, _ = KEYS[kind][each.name]
        child = CHILDREN.get(kind, {}).get(each.name)
        hint = list[document_model(child)] if child else hints[each.name]  # type: ignore[misc]
        if each.default_factory is not MISSING and not child:
            shape[key] = (hint, DocumentField(default_factory=each.default_factory))
        elif each.default is not MISSING:
            shape[key] = (hint, each.default)
        else:
            shape[key] = (hint, ...)
        if child:
            shape[key] = (hint, DocumentField(default_factory=list))
    config = ConfigDict(extra="allow", allow_inf_nan=False, frozen=True)
    return create_model(kind.__name__, __config__=config, __doc__=(kind.__doc__ or "").strip(), **shape)


def _out(value: float, unit: str) -> float:
    """The shortest number in `unit` that reads back as the same SI value (to 15 digits)."""
    exact = from_si(value, unit)
    for digits in (12, 15, 16):
        short = float(f"{exact:.{digits}g}")
        if tidy(to_si(short, unit)) == value:
            return short
    return exact


def to_document(noun: Noun) -> dict[str, Any]:
    """A noun as a JSON-ready dict; what was not recorded is left out."""
    kind = type(noun)
    document: dict[str, Any] = {}
    for name, (key, unit) in KEYS[kind].items():
        value = getattr(noun, name)
        if name in CHILDREN.get(kind, {}):
            if value:
                document[key] = [to_document(child) for child in value]
        elif unit is not None and isinstance(value, tuple):
            if value:
                document[key] = [_out(each, unit) for each in value]
        elif unit is not None:
            if value is not None:
                document[key] = _out(value, unit)
        elif isinstance(value, Mapping):
            if value:
                document[key] = dict(value)
        elif isinstance(value, tuple):
            if value:
                document[key] = list(value)
        elif value is not None and value not in _NOTHING_SAID.get((kind, name), ()):
            document[key] = value
    return document | dict(noun.extra)


def _to_noun(kind: type[Noun], read: BaseModel) -> Any:
    values: dict[str, Any] = {"extra": dict(read.__pydantic_extra__ or {})}
    for name, (key, unit) in KEYS[kind].items():
        value = getattr(read, key)
        child = CHILDREN.get(kind, {}).get(name)
        if child:
            value = tuple(_to_noun(child, each) for each in value)
        elif unit is not None and isinstance(value, tuple):
            value = tuple(tidy(to_si(each, unit)) for each in value)
        elif unit is not None and value is not None:
            value = tidy(to_si(value, unit))
        elif isinstance(value, list):
            value = tuple(value)
        values[name] = value
    return kind(**values)


def dumps_job(job: Job) -> str:
    """The text of a job document."""
    document = {VERSION_KEY: VERSION} | to_document(job)
    return json.dumps(document, ensure_ascii=False, allow_nan=False, indent=1) + "\n"


def write_job(job: Job, path: Path) -> None:
    """Write a job document, whole or not at all. InputError where the place cannot be written."""
    beside = path.with_name(f".{path.name}.{os.getpid()}")
    try:
        with open(beside, "w", encoding="utf-8") as file:
            file.write(dumps_job(job))
            file.flush()
            os.fsync(file.fileno())
        os.replace(beside, path)
    except OSError as error:
        beside.unlink(missing_ok=True)
        raise InputError(f"cannot be written: {(error.strerror or '').lower()}", file=path.name) from None


def read_job(path: Path) -> Job:
    """Read a job document from a file; see `loads_job`."""
    try:
        if path.stat().st_size > LARGEST_FILE:
            raise InputError("is too large for a job document", file=path.name)
        data = path.read_bytes()
    except OSError as error:
        raise InputError(f"cannot be read: {(error.strerror or '').lower()}", file=path.name) from None
    return loads_job(data, path.name)


def loads_job(data: bytes | str, name: str = "") -> Job:
    """Read a job document.

    Raises
    ------
    InputError
        Naming the file and the line (where it is no JSON) or the field (where a value is wrong).
    """
    if not data.strip():
        raise InputError("is empty", file=name)
    try:
        document = json.loads(data)
    except json.JSONDecodeError as error:
        raise InputError(f"is no JSON: {error.msg.lower()}", file=name, line=error.lineno) from None
    except (UnicodeDecodeError, RecursionError):
        raise InputError("is not a text file in UTF-8, or is nested too deep", file=name) from None
    if not isinstance(document, dict) or VERSION_KEY not in document:
        raise InputError("is no job document: the key is missing", file=name, field=VERSION_KEY)
    version = document.pop(VERSION_KEY)
    if version != VERSION:
        raise InputError(f"version {version!r} is not one this Ventrix reads", file=name, field=VERSION_KEY)
    try:
        read = document_model(Job).model_validate(document)
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(part) for part in first["loc"])
        raise InputError(str(first["msg"]).lower(), file=name, field=where) from None
    job: Job = _to_noun(Job, read)
    _check_references(job, name)
    return job


def _check_references(job: Job, name: str) -> None:
    seen: set[tuple[type, str]] = set()
    for flat in flatten(job):
        key = type(flat.noun), flat.noun.id
        if key in seen:
            raise InputError(f"two {key[0].__name__.lower()}s have the id '{key[1]}'", file=name, field="id")
        seen.add(key)
    setups = {s.id for s in job.setups}
    mounts = {m.id for m in job.mounts}
    for run in job.runs():
        if run.setup_id not in setups:
            raise InputError(f"run '{run.id}' names a set-up that is not here", file=name, field="setup_id")
        if run.mount_id is not None and run.mount_id not in mounts:
            raise InputError(f"run '{run.id}' names a mount that is not here", file=name, field="mount_id")


def schema() -> dict[str, Any]:
    """JSON schema of a job document."""
    found = document_model(Job).model_json_schema()
    found["properties"] = {VERSION_KEY: {"const": VERSION}} | found["properties"]
    found["required"] = [VERSION_KEY, *found.get("required", [])]
    found["title"] = "Ventrix job document"
    return found
