"""What every figure that the book keeps may plausibly be: one table, a sentence each, wherever figures come in."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import fields
from typing import Any, Final

from ventrix.core.model.limits import LIMITS, Limit
from ventrix.core.model.noun import Noun
from ventrix.core.quantity.field_checks import Check
from ventrix.core.quantity.refused import Refused

LONGEST_TEXT: Final = 20_000  # characters of a note or name


class Outside(Refused):
    """A figure outside its limit."""

    def __init__(self, limit: Limit) -> None:
        super().__init__(limit.sentence)
        self.limit = limit


def limit_of(kind: type[Noun], name: str) -> Limit | None:
    """The limit of a noun's field, None where it holds no figure."""
    return LIMITS[kind].get(name)


def check_of(kind: type[Noun], name: str, also: Check | None = None) -> Check:
    """What may stand in a field that a noun's figure is typed into: inside its limit, and what else is asked."""
    limit = limit_of(kind, name)

    def check(value: float) -> None:
        if also is not None:
            also(value)
        if limit is not None and not limit.allows(value):
            raise Outside(limit)

    return check


def implausible(noun: Noun) -> Iterator[tuple[str, str]]:
    """Field and sentence for every figure of a noun that cannot be, its children left aside; and texts too long."""
    limits = LIMITS[type(noun)]
    for each in fields(noun):
        value: Any = getattr(noun, each.name)
        if isinstance(value, str) and len(value) > LONGEST_TEXT:
            yield each.name, f"a text of more than {LONGEST_TEXT} characters"
        limit = limits.get(each.name)
        if limit is None or value is None:
            continue
        for number in value if isinstance(value, tuple) else (value,):
            if not limit.allows(float(number)):
                yield each.name, limit.sentence


def check_plausible(noun: Noun) -> None:
    """ValueError with a sentence where a figure of the noun cannot be."""
    for name, sentence in implausible(noun):
        raise Refused("{}: {}", name.replace("_", " "), sentence)
