"""What may stand in a field that is typed into: a check answers with a sentence, or nothing."""

from __future__ import annotations

from collections.abc import Callable

Check = Callable[[float], None]


def positive(value: float) -> None:
    """ValueError with a sentence unless above zero."""
    if value <= 0:
        raise ValueError("must be above zero")
