"""What is refused: bad input from outside, in one line with file, line and field; and what the book does not take."""

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


class BookError(Exception):
    """The book did not take an edit: nothing of it is on disk. The text is a sentence for the screen."""


class BookLocked(BookError):
    """Another program is writing the book just now."""


class Conflict(BookError):
    """Another window changed the same thing meanwhile; the text shows both values."""


def sentence_of(error: Exception) -> str:
    """An error's text as a sentence: a capital in front, a full stop behind."""
    text = str(error).strip() or "Something went wrong"
    return f"{text[0].upper()}{text[1:]}{'' if text.endswith(('.', '?')) else '.'}"
