"""What is said of a scan: sentences whose lengths can be told in a shop's own unit."""

from __future__ import annotations

from collections.abc import Callable

from ventrix.core.quantity.refused import Refused


class Millimetres(float):
    """A length in a sentence [mm], and with how many digits it is written there."""

    digits: int

    def __new__(cls, value: float, digits: int = 2) -> Millimetres:
        found = super().__new__(cls, value)
        found.digits = digits
        return found

    def __str__(self) -> str:
        return f"{float(self):.{self.digits}f} mm"

    def __format__(self, spec: str) -> str:
        return format(float(self), spec) if spec else str(self)


class Note(str):
    """A sentence, in millimetres as it stands; `said` tells its lengths in another unit."""

    code: str
    figures: tuple[object, ...]

    def __new__(cls, code: str, *figures: object) -> Note:
        found = super().__new__(cls, code.format(*figures))
        found.code, found.figures = code, figures
        return found

    def said(self, length: Callable[[float], str]) -> str:
        """The sentence with its lengths [mm] as they are told here."""
        return said_in(self.code, self.figures, length)


def said_in(code: str, figures: tuple[object, ...], length: Callable[[float], str]) -> str:
    """A sentence whose figures are filled in, its lengths [mm] as they are told here."""

    def told(figure: object) -> object:
        if isinstance(figure, Millimetres):
            return length(float(figure))
        return said_in(figure.code, figure.figures, length) if isinstance(figure, Refused) else figure

    return code.format(*map(told, figures)) if figures else code
