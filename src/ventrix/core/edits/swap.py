"""One noun put in the place of another with its id."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar

from ventrix.core.model.noun import Noun

NounT = TypeVar("NounT", bound=Noun)


def swapped(items: tuple[NounT, ...], wanted: str, edit: Callable[[NounT], NounT]) -> tuple[NounT, ...]:
    if all(item.id != wanted for item in items):
        raise KeyError(wanted)
    return tuple(edit(item) if item.id == wanted else item for item in items)
