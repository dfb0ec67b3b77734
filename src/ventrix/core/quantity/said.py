"""Sentences that keep their figures: as they stand in the unit they were made in, told again in a shop's own."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Any

from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, to_si
from ventrix.words import tr


class Amount(str):
    """A figure in a sentence: its SI value and what kind of figure it is, as a shop's units name it ("length", "lift",
    "pressure"); as text in the unit that it was made with."""

    value: float
    kind: str
    _written: tuple[str, str]

    def __new__(cls, value: float, kind: str, unit: str, spec: str = "g") -> Amount:
        found = super().__new__(cls, f"{from_si(float(value), unit):{spec}} {unit}")
        found.value, found.kind, found._written = float(value), kind, (unit, spec)
        return found

    def __getnewargs__(self) -> tuple[float, str, str, str]:  # type: ignore[override]
        return self.value, self.kind, *self._written


def millimetres(value: float, digits: int = 2) -> Amount:
    """A length given in millimetres."""
    return Amount(to_si(value, "mm"), "length", "mm", f".{digits}f")


class Said(str):
    """A sentence: its words with gaps, and the figures that fill them, themselves sentences or amounts."""

    code: str
    figures: tuple[object, ...]

    def __new__(cls, code: str, *figures: object) -> Said:
        found = super().__new__(cls, tr(code, *figures))
        found.code, found.figures = code, figures
        return found

    def __getnewargs__(self) -> tuple[Any, ...]:
        return self.code, *self.figures


def joined(sentences: Sequence[str], between: str = " ") -> str:
    """Sentences one after the other, each as it was."""
    return Said(between.join(["{}"] * len(sentences)), *sentences)


def said_in(told: object, tell: Callable[[Amount], str]) -> str:
    """Words, or a refusal, with every amount as it is told here."""
    if isinstance(told, Amount):
        return tell(told)
    if isinstance(told, Said | Refused) and told.figures:
        kept = [said_in(f, tell) if isinstance(f, Amount | Said | Refused) else f for f in told.figures]
        return tr(told.code, *kept)
    return str(told)
