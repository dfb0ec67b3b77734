"""What may stand in a field that is typed into: a check answers with a sentence, or nothing."""

from __future__ import annotations

from collections.abc import Callable

from ventrix.core.quantity.refused import Refused

Check = Callable[[float], None]


def positive(value: float) -> None:
    """ValueError with a sentence unless above zero."""
    if value <= 0:
        raise Refused("must be above zero")


def place_across(value: float) -> None:
    """ValueError with a sentence unless it lies on the side: -1 to 1."""
    if not -1 <= value <= 1:
        raise Refused("must lie between -1 and 1")
