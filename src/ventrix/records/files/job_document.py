"""Job documents: a whole job as JSON. Every dimensional key ends in its unit; unknown keys are kept.

The pydantic models are made from the nouns of `core.model`, so the two cannot drift apart; their
JSON schema is published in docs/formats.
"""

from __future__ import annotations

import json
import re
from collections.abc import Mapping
from dataclasses import MISSING, fields
from enum import StrEnum
from pathlib import Path
from typing import Any, Final, Literal, NamedTuple, NoReturn, get_type_hints

from pydantic import BaseModel, ConfigDict, ValidationError, create_model
from pydantic import Field as DocumentField

from ventrix.core.judging.opening import try_opening
from ventrix.core.model.bench import Bench, bench_named
from ventrix.core.model.job import Job
from ventrix.core.model.noun import Noun
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, tidy, to_si
from ventrix.records.bad_input import InputError
from ventrix.records.book.tables import CHILDREN, TABLES
from ventrix.records.files.document_checks import check_plausible, check_references, check_values, short
from ventrix.records.files.document_keys import KEYS
from ventrix.records.files.document_versions import faces_as_written, from_version_1
from ventrix.records.files.whole_file import read_whole, write_whole
from ventrix.words import tr

VERSION: Final = 5  # versions 1 to 4 are always read
VERSION_KEY: Final = "ventrix_job"
BENCHES_KEY: Final = "benches"
DIALECT: Final = "https://json-schema.org/draft/2020-12/schema"  # what the published schema is written in
LARGEST_FILE: Final = 256 * 1024 * 1024  # bytes


# A flag, a text or a word that says its default is left out, unless it always stands there.
_NOTHING_SAID: Final = {
    (kind, each.name): (each.default,)
    for kind in TABLES
    for each in fields(kind)
    if each.default is False or each.default == "" or isinstance(each.default, StrEnum)
    if not each.metadata.get("always")
}
_MODELS: dict[type[Noun], type[BaseModel]] = {}


def document_model(kind: type[Noun]) -> type[BaseModel]:
    """The pydantic model of a noun's document."""
    if kind not in _MODELS:
        _MODELS[kind] = _make_model(kind)
    return _MODELS[kind]


def _as_written(hint: Any) -> Any:
    """A closed vocabulary as the list of its words; one that may be left out checks itself."""
    if isinstance(hint, type) and issubclass(hint, StrEnum):
        return Literal[tuple(word.value for word in hint)]
    return hint


def _make_model(kind: type[Noun]) -> type[BaseModel]:
    hints = get_type_hints(kind)
    shape: dict[str, Any] = {}
    for each in fields(kind):
        if each.name == "extra":
            continue
        key, _ = KEYS[kind][each.name]
        child = CHILDREN.get(kind, {}).get(each.name)
        hint = list[document_model(child)] if child else _as_written(hints[each.name])  # type: ignore[misc]
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
    own = {key for key, _ in KEYS[kind].values()}
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
    # A key we did not understand never stands in for one of ours.
    return document | {k: v for k, v in noun.extra.items() if k not in own}


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
        elif isinstance(value, list | tuple):
            value = tuple(tuple(each) if isinstance(each, list) else each for each in value)
        values[name] = value
    return kind(**values)


def from_document(kind: type[Noun], document: Any, name: str = "") -> Any:
    """A noun from its own document; InputError naming the field where a value is wrong."""
    return _noun_of(kind, document, name, "")


class JobDocument(NamedTuple):
    """What a job document holds: the job, and the benches that its set-ups name."""

    job: Job
    benches: tuple[Bench, ...] = ()


def benches_of(job: Job, benches: tuple[Bench, ...]) -> tuple[Bench, ...]:
    """The benches that a job's set-ups name, each once, in the order they are named."""
    named = (bench_named(benches, s.bench) for s in job.setups)
    return tuple({b.id: b for b in named if b is not None}.values())


def dumps_job(job: Job, benches: tuple[Bench, ...] = ()) -> str:
    """The text of a job document, with the benches that the job's set-ups name."""
    document = {VERSION_KEY: VERSION} | to_document(job)
    carried = benches_of(job, benches)
    if carried:
        document[BENCHES_KEY] = [to_document(b) for b in carried]
    return json.dumps(document, ensure_ascii=False, allow_nan=False, indent=1) + "\n"


def write_job(job: Job, path: Path, benches: tuple[Bench, ...] = ()) -> None:
    """Write a job document, whole or not at all. InputError where the place cannot be written."""
    write_whole(path, dumps_job(job, benches))


def read_document(path: Path) -> JobDocument:
    """Read a job document from a file; see `loads_document`."""
    return loads_document(read_whole(path, LARGEST_FILE, tr("a job document")), path.name)


def read_job(path: Path) -> Job:
    """The job of a document, read from a file; see `loads_document`."""
    return read_document(path).job


def loads_job(data: bytes | str, name: str = "") -> Job:
    """The job of a document; see `loads_document`."""
    return loads_document(data, name).job


def loads_document(data: bytes | str, name: str = "", *, own: bool = False) -> JobDocument:
    """Read a job document; it has been opened and judged when this returns, unless it is the package's `own`.

    Raises
    ------
    InputError
        Naming the file and the line (where it is no JSON) or the field (where a value is wrong).
    """
    if not data.strip():
        raise InputError(tr("is empty"), file=name)
    document = _parsed(data, name)
    if not isinstance(document, dict) or VERSION_KEY not in document:
        raise InputError(tr("is not a job document: the key is missing"), file=name, field=VERSION_KEY)
    version = document.pop(VERSION_KEY)
    if version not in range(1, VERSION + 1) or isinstance(version, bool):
        raise InputError(
            tr("version {} is not one this Ventrix reads", str(version)[:20]), file=name, field=VERSION_KEY
        )
    check_values(document, name)
    if version == 1:
        from_version_1(document)
    faces_as_written(document)
    carried = document.pop(BENCHES_KEY, [])
    if not isinstance(carried, list):
        raise InputError(tr("must be a list"), file=name, field=BENCHES_KEY)
    job: Job = _noun_of(Job, document, name, "")
    benches = tuple(_noun_of(Bench, each, name, f"{BENCHES_KEY}.{i}.") for i, each in enumerate(carried))
    check_references(job, name)
    for noun, where in ((job, ""), *((b, tr("bench '{}' ", b.name[:40])) for b in benches)):
        check_plausible(noun, name, where)
    if own:
        return JobDocument(job, benches)
    try:
        try_opening(job, benches)
    except Refused as error:
        raise InputError(str(error), file=name) from None
    except (ArithmeticError, LookupError, TypeError):
        raise InputError(tr("its figures contradict each other: it cannot be opened and judged"), file=name) from None
    return JobDocument(job, benches)


def _parsed(data: bytes | str, name: str) -> Any:
    try:
        text = data if isinstance(data, str) else data.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise InputError(tr("is not a text file in UTF-8"), file=name) from None
    try:
        return json.loads(text, parse_constant=_refuse_constant, parse_int=_whole)
    except json.JSONDecodeError as error:
        raise InputError(
            tr("is not JSON: something is wrong near column {}", error.colno), file=name, line=error.lineno
        ) from None
    except RecursionError:
        raise InputError(tr("is nested too deep"), file=name) from None
    except ValueError as error:
        raise InputError(str(error), file=name, **_where_no_number(text)) from None


_NO_NUMBER: Final = re.compile(r'(?:"(?P<key>[^"\n]{0,80})"\s*:\s*)?(?:NaN|-?Infinity|-?\d{19,})')


def _where_no_number(text: str) -> dict[str, Any]:
    """Line and key of the first number that is none."""
    found = _NO_NUMBER.search(text)
    if found is None:
        return {}
    return {"line": text.count("\n", 0, found.start()) + 1, "field": found["key"] or ""}


def _refuse_constant(word: str) -> NoReturn:
    raise Refused("holds {}, which is not a number", word)


def _whole(digits: str) -> int:
    if len(digits) > 18:
        raise Refused("holds a number of {} digits", len(digits))
    return int(digits)


def _noun_of(kind: type[Noun], document: Any, name: str, where: str) -> Any:
    try:
        return _to_noun(kind, document_model(kind).model_validate(document))
    except ValidationError as error:
        first = error.errors()[0]
        path = where + ".".join(str(part) for part in first["loc"])
        raise InputError(_said(first), file=name, field=short(path)) from None


_SAYS: Final = {
    "missing": tr("is missing"),
    "string": tr("must be text"),
    "int": tr("must be a whole number"),
    "float": tr("must be a number"),
    "finite_number": tr("must be a number with an end"),
    "bool": tr("must be true or false"),
    "list": tr("must be a list"),
    "tuple": tr("must be a list"),
    "dict": tr("must be an object with keys"),
    "model": tr("must be an object with keys"),
    "mapping": tr("must be an object with keys"),
    "none": tr("must be null"),
}


def _said(error: Any) -> str:
    """What pydantic refused, in our words."""
    kind = str(error["type"])
    if kind in ("literal_error", "enum"):
        return tr("is not one of {}", error["ctx"]["expected"]).replace("'", "")
    return next((words for start, words in _SAYS.items() if kind.startswith(start)), tr("is not what belongs here"))


def schema() -> dict[str, Any]:
    """JSON schema of a job document."""
    found = document_model(Job).model_json_schema()
    bench = document_model(Bench).model_json_schema()
    found["$defs"] |= bench.pop("$defs", {}) | {"Bench": bench}
    found = {"$schema": DIALECT, **found}
    found["properties"] = {VERSION_KEY: {"const": VERSION}} | found["properties"]
    found["properties"][BENCHES_KEY] = {"type": "array", "items": {"$ref": "#/$defs/Bench"}}
    found["required"] = [VERSION_KEY, *found.get("required", [])]
    found["title"] = "Ventrix job document"
    return found
