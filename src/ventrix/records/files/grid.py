"""A table from anywhere as a grid of texts: CSV, TSV, a spreadsheet, the clipboard. Nothing in it is worked out."""

from __future__ import annotations

import csv
import io
import re
import zipfile
from collections import Counter
from pathlib import Path
from typing import Final, NamedTuple

from ventrix.records.bad_input import InputError
from ventrix.records.files.whole_file import read_whole
from ventrix.words import tr

LARGEST_TEXT: Final = 16 * 1024 * 1024  # bytes
LARGEST_WORKBOOK: Final = 32 * 1024 * 1024
LARGEST_UNPACKED: Final = 96 * 1024 * 1024
LARGEST_WORDS: Final = 24 * 1024 * 1024  # the texts that cells share: six million of them are no table of flows
GREATEST_SWELL: Final = 400  # times its packed size: sheets of like numbers pack well
MOST_ROWS: Final = 20_000
MOST_COLUMNS: Final = 256
LONGEST_CELL: Final = 2000  # characters
WORKBOOKS: Final = (".xlsx", ".xlsm")


class Grid(NamedTuple):
    """Rows of cells as texts, all of one width; `sheet` is a workbook's, `sheets` are all it has."""

    rows: tuple[tuple[str, ...], ...]
    name: str = ""
    sheet: str = ""
    sheets: tuple[str, ...] = ()

    def at(self, row: int, column: int) -> str:
        """A cell; empty past the edges."""
        if not 0 <= row < len(self.rows) or not 0 <= column < self.width:
            return ""
        return self.rows[row][column]

    @property
    def width(self) -> int:
        return len(self.rows[0]) if self.rows else 0


def read_grid(path: Path, sheet: str = "") -> Grid:
    """A file as a grid. InputError naming what is wrong: no table, too large, or a file that does harm."""
    if path.suffix.lower() in WORKBOOKS:
        return workbook_grid(read_whole(path, LARGEST_WORKBOOK, tr("a spreadsheet")), path.name, sheet)
    return text_grid(read_whole(path, LARGEST_TEXT, tr("a table")), path.name)


def text_grid(data: bytes | str, name: str = "") -> Grid:
    """A text table: comma, semicolon, tab or runs of blanks between its cells, whichever parts it most evenly."""
    text = data if isinstance(data, str) else _decoded(data, name)
    if "\0" in text:
        raise InputError(tr("is not a text file"), file=name)
    lines = [line for line in text.replace("\r\n", "\n").replace("\r", "\n").split("\n") if line.strip()]
    if not lines:
        raise InputError(tr("holds no table"), file=name)
    if len(lines) > MOST_ROWS:
        raise InputError(tr("has more than {} rows", MOST_ROWS), file=name, line=MOST_ROWS + 1)
    mark = delimiter_of(lines)
    if mark == " ":
        rows = [line.split() for line in lines]
    else:
        try:
            rows = [list(row) for row in csv.reader(io.StringIO("\n".join(lines)), delimiter=mark)]
        except csv.Error:
            raise InputError(tr("has a quotation mark that is not closed, or a cell without end"), file=name) from None
    return Grid(_squared(rows, name), name)


def _decoded(data: bytes, name: str) -> str:
    if data[:2] in (b"\xff\xfe", b"\xfe\xff"):
        try:
            return data.decode("utf-16")
        except UnicodeDecodeError:
            raise InputError(tr("is not a text file"), file=name) from None
    for encoding in ("utf-8-sig", "cp1252"):
        try:
            return data.decode(encoding)
        except UnicodeDecodeError:
            continue
    raise InputError(tr("is not a text file"), file=name)


def delimiter_of(lines: list[str]) -> str:
    """What parts the cells: of the marks that part most lines alike, the one that parts them most."""
    best, best_score = " ", (0.0, 0)
    for mark in ("\t", ";", ","):
        counts = [line.count(mark) for line in lines[:200]]
        usual, times = Counter(counts).most_common(1)[0]
        if usual == 0:
            with_any = [c for c in counts if c]
            if len(with_any) < 2:
                continue
            usual, times = Counter(with_any).most_common(1)[0]
        if mark == "," and usual and _decimal_commas(lines) and any("\t" in x or ";" in x for x in lines):
            continue
        if mark == "," and _only_decimal_commas(lines):
            continue
        score = times / len(counts), usual
        if score > best_score:
            best, best_score = mark, score
    return best


def _decimal_commas(lines: list[str]) -> bool:
    return any(re.search(r"\d,\d", line) for line in lines)


def _only_decimal_commas(lines: list[str]) -> bool:
    """Commas stand inside numbers alone, and blanks part the cells: "0,1  31,2"."""
    return all(re.fullmatch(r"[^,]*(\d,\d+\s+[^,]*)*(\d,\d+)?\s*", line) for line in lines) and any(
        re.search(r"\d,\d+\s+\d", line) for line in lines
    )


def workbook_grid(data: bytes, name: str = "", sheet: str = "") -> Grid:
    """A sheet of a workbook as a grid: values as they were last worked out, no formula run, no link followed."""
    _check_workbook(data, name)
    from openpyxl import load_workbook  # late: it costs a quarter of a second
    from openpyxl.utils.exceptions import InvalidFileException

    try:
        book = load_workbook(io.BytesIO(data), read_only=True, data_only=True, keep_links=False)
    except (
        InvalidFileException,
        KeyError,
        ValueError,
        OSError,
        zipfile.BadZipFile,
        TypeError,
        AttributeError,
    ) as error:
        raise InputError(tr("is not a spreadsheet, or is damaged"), file=name) from error
    except Exception as error:  # defusedxml and openpyxl raise classes of their own for XML that does harm
        raise InputError(tr("is refused: its XML is not what a spreadsheet holds"), file=name) from error
    try:
        names = tuple(str(n) for n in book.sheetnames)
        chosen = sheet if sheet in names else names[0] if names else ""
        if not chosen:
            raise InputError(tr("holds no sheet"), file=name)
        rows: list[list[str]] = []
        for values in book[chosen].iter_rows(max_row=MOST_ROWS + 1, max_col=MOST_COLUMNS + 1, values_only=True):
            rows.append([_text(v) for v in values])
            if len(rows) > MOST_ROWS:
                raise InputError(tr("has more than {} rows", MOST_ROWS), file=name)
    except InputError:
        raise
    except Exception as error:
        raise InputError(tr("is refused: its XML is not what a spreadsheet holds"), file=name) from error
    finally:
        book.close()
    kept = [row for row in rows if any(cell.strip() for cell in row)]
    if not kept:
        raise InputError(tr("its sheet is empty"), file=name, field=chosen)
    return Grid(_squared(kept, name), name, chosen, names)


def _check_workbook(data: bytes, name: str) -> None:
    """Refuse an archive that swells, before anything in it is read."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            entries = archive.infolist()
    except (zipfile.BadZipFile, ValueError, OSError, NotImplementedError):
        raise InputError(tr("is not a spreadsheet, or is damaged"), file=name) from None
    if len(entries) > 2000 or sum(e.file_size for e in entries) > LARGEST_UNPACKED:
        raise InputError(tr("unpacks to more than {} MiB", LARGEST_UNPACKED // 1024**2), file=name)
    if any("sharedStrings" in e.filename and e.file_size > LARGEST_WORDS for e in entries):
        raise InputError(tr("holds more than {} MiB of words", LARGEST_WORDS // 1024**2), file=name)
    if any(e.file_size > 4 * 1024**2 and e.file_size > GREATEST_SWELL * max(e.compress_size, 1) for e in entries):
        raise InputError(tr("holds a file that swells beyond reason"), file=name)


def _text(value: object) -> str:
    """A cell's value as a person would type it."""
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return f"{value:.12g}"
    return str(value)


def _squared(rows: list[list[str]], name: str) -> tuple[tuple[str, ...], ...]:
    """Rows of one width: empty cells behind the short ones, empty columns at the right cut off."""
    width = max(len(r) for r in rows)
    while width > 1 and all(len(r) < width or not r[width - 1].strip() for r in rows):
        width -= 1
    if width > MOST_COLUMNS:
        raise InputError(tr("has more than {} columns", MOST_COLUMNS), file=name)
    long = next((i for i, r in enumerate(rows) if any(len(c) > LONGEST_CELL for c in r)), None)
    if long is not None:
        raise InputError(tr("has a cell of over {} characters", LONGEST_CELL), file=name, line=long + 1)
    return tuple(tuple(" ".join(c.split()) for c in (*r[:width], *("",) * (width - len(r)))) for r in rows)
