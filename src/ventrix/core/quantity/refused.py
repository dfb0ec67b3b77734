"""What is refused to a porter: a code, the field it is about, and the figures that its sentence is made of."""

from __future__ import annotations

from typing import Any


class Refused(ValueError):
    """Input that makes no sense, said so that a porter understands it: the only error whose text is ever shown.

    code : the sentence without its figures: what it is found and translated by
    figures : what stands in the gaps of the code, in order
    field : what the sentence is about, where one field is to blame
    """

    def __init__(self, code: str, *figures: Any, field: str = "") -> None:
        self.code, self.figures, self.field = code, figures, field
        super().__init__(code.format(*figures) if figures else code)
