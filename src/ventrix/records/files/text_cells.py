"""Text in tables: one line a cell, nothing that a spreadsheet would carry out, and all of it back again."""

from __future__ import annotations

import csv
import re
from collections.abc import Iterator
from typing import Final

from ventrix.records.bad_input import InputError
from ventrix.words import tr

LONGEST_CELL: Final = 20_000  # characters
_GUARDED: Final = ("=", "+", "-", "@", "\t", "\r", "#", "'")  # a formula to a spreadsheet, a remark to us
_ESCAPES: Final = {"\\": "\\\\", "\n": "\\n", "\r": "\\r"}
_WRITTEN: Final = re.compile(r"\\(\\|n|r)")
_BACK: Final = {"\\": "\\", "n": "\n", "r": "\r"}


def one_line(text: str) -> str:
    """Text on one line: line ends as \\n and \\r, a backslash doubled."""
    return "".join(_ESCAPES.get(c, c) for c in text)


def from_one_line(text: str) -> str:
    """The text behind `one_line`."""
    return _WRITTEN.sub(lambda m: _BACK[m[1]], text)


def cell_of(text: str) -> str:
    """Text for a cell: on one line, and with an apostrophe before what would be taken for a formula or a remark."""
    flat = one_line(text)
    return f"'{flat}" if text.lstrip().startswith(_GUARDED) or text[:1].isspace() else flat


def text_of(cell: str) -> str:
    """The text behind `cell_of`."""
    return from_one_line(cell[1:] if cell[:1] == "'" else cell)


def lines_of(data: bytes, name: str) -> list[str]:
    """The lines of a text file in UTF-8, parted at line feeds alone; InputError for what is no text."""
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise InputError(tr("is not a text file in UTF-8"), file=name) from None
    if "\0" in text:
        raise InputError(tr("is not a text file"), file=name)
    return [line.removesuffix("\r") for line in text.split("\n")]


def rows_of(lines: list[str], start: int, delimiter: str, most: int, name: str) -> Iterator[tuple[int, list[str]]]:
    """Line number and cells of every row from `start` on, remarks and empty lines left out.

    Raises InputError early where there are more than `most` rows, or a cell that is no cell.
    """
    count = 0
    for number, line in enumerate(lines[start:], start + 1):
        if not line.strip() or line.lstrip().startswith("#"):
            continue
        count += 1
        if count > most + 1:  # the header is one
            raise InputError(tr("has more than {} rows", most), file=name, line=number)
        if len(line) > LONGEST_CELL and any(len(part) > LONGEST_CELL for part in line.split(delimiter)):
            raise InputError(tr("has a cell of over {} characters", LONGEST_CELL), file=name, line=number)
        try:
            cells = next(csv.reader([line], delimiter=delimiter, strict=True))
        except csv.Error:
            long = len(line) > csv.field_size_limit()
            wrong = tr("has a cell without end") if long else tr("has a quotation mark that is not closed")
            raise InputError(wrong, file=name, line=number) from None
        if any(len(cell) > LONGEST_CELL for cell in cells):
            raise InputError(tr("has a cell of over {} characters", LONGEST_CELL), file=name, line=number)
        yield number, cells
