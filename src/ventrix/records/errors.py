"""Bad input from outside, said in one line that names the file, the line and the field."""

from __future__ import annotations


class InputError(ValueError):
    """What is wrong with a file, where, and what was expected there."""

    def __init__(self, sentence: str, *, file: str = "", line: int | None = None, field: str = "") -> None:
        self.sentence, self.file, self.line, self.field = sentence, file, line, field
        where = [file] if file else []
        if line is not None:
            where.append(f"line {line}")
        if field:
            where.append(field)
        super().__init__(": ".join([", ".join(where), sentence] if where else [sentence]))
