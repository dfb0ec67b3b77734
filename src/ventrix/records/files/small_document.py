"""Small documents of our own as JSON: read with a sentence for whatever they are not."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

from ventrix.records.bad_input import InputError
from ventrix.records.files.whole_file import read_whole
from ventrix.words import tr

Model = TypeVar("Model", bound=BaseModel)


def read_object(path: Path, largest: int, what: str) -> Any:
    """What a file holds as JSON. InputError where it is none, or too large for `what`."""
    data = read_whole(path, largest, what)
    try:
        return json.loads(data.decode("utf-8-sig"))
    except (ValueError, RecursionError):  # no text, no JSON, a number of ten thousand digits
        raise InputError(tr("is not JSON"), file=path.name) from None


def validated(model: type[Model], document: object, version: tuple[str, int], name: str, what: str) -> Model:
    """A document of a model, its version's key taken off. InputError naming file and field where it is none."""
    key, number = version
    if not isinstance(document, dict) or document.get(key) != number or isinstance(document.get(key), bool):
        raise InputError(tr("is not a {} that this Ventrix reads", what), file=name, field=key)
    try:
        return model.model_validate({k: v for k, v in document.items() if k != key})
    except ValidationError as error:
        first = error.errors()[0]
        where = ".".join(str(part) for part in first["loc"])
        raise InputError(str(first["msg"])[:120].lower(), file=name, field=where[:80]) from None
