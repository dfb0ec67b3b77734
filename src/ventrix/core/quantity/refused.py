"""What is refused to a porter: a code, the field it is about, and the figures that its sentence is made of."""

from __future__ import annotations

from typing import Any, Final

from ventrix.words import tr

LONGEST: Final = 160  # characters of what was typed that are repeated


def on_one_line(text: str, most: int) -> str:
    """Text from outside fit for one line: what cannot be printed shows as a question mark, what is endless is cut."""
    shown = "".join(c if c.isprintable() else "?" for c in text)
    return shown if len(shown) <= most else f"{shown[: most - 1]}…"


class Refused(ValueError):
    """Input that makes no sense, said so that a porter understands it: the only error whose text is ever shown.

    code : the sentence without its figures: what it is found and translated by
    figures : what stands in the gaps of the code, in order
    field : what the sentence is about, where one field is to blame
    """

    def __init__(self, code: str, *figures: Any, field: str = "") -> None:
        self.code, self.figures, self.field = code, figures, field
        said = [on_one_line(f, LONGEST) if isinstance(f, str) else f for f in figures]
        super().__init__(tr(code, *said))
