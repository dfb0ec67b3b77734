"""What is refused: bad input from outside, in one line with file, line and field; and what the book does not take."""

from __future__ import annotations

from typing import Final

from ventrix.core.quantity.refused import Refused, on_one_line
from ventrix.core.quantity.words import sentence
from ventrix.words import tr

LONGEST_PLACE: Final = 80  # characters of a file's or field's name that are repeated
LONGEST_SENTENCE: Final = 240


class InputError(Refused):
    """What is wrong with a file, where, and what was expected there."""

    def __init__(self, sentence: str, *, file: str = "", line: int | None = None, field: str = "") -> None:
        self.sentence, self.file, self.line = sentence, file, line
        sentence = on_one_line(sentence, LONGEST_SENTENCE)
        where = [on_one_line(file, LONGEST_PLACE)] if file else []
        if line is not None:
            where.append(tr("line {}", line))
        if field:
            where.append(on_one_line(field, LONGEST_PLACE))
        super().__init__(": ".join([", ".join(where), sentence] if where else [sentence]), field=field)


class BookError(Exception):
    """The book did not take an edit: nothing of it is on disk. The text is a sentence for the screen."""


class ActGone(BookError):
    """An act that was to be taken back is no longer kept: another window took it back."""


class AlreadyThere(BookError):
    """What was to be put in, or a part of it, is in the book already, or hangs from something that is not."""


class BookLocked(BookError):
    """Another program is writing the book just now."""


class BookAway(BookError):
    """The server that the book lies on is not there just now."""


class Conflict(BookError):
    """Another window changed the same thing meanwhile; the text shows both values."""


def sentence_of(error: Exception) -> str:
    """An error's text as a sentence: a capital in front, a full stop behind."""
    return sentence(str(error).strip() or tr("Something went wrong"))
