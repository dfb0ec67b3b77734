"""Casting files of a book: what its own heads taught, sections of sawn ones, and files that other shops sent."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from pathlib import Path

from ventrix.core.castings.casting_file import Casting, SawnSection, casting, merged
from ventrix.core.judging.findings import Findings
from ventrix.core.model.job_parts import plain_casting
from ventrix.core.model.kinds import Direction, LibraryKind
from ventrix.core.model.library import LibraryItem
from ventrix.core.quantity.refused import Refused
from ventrix.records.book.book import Book
from ventrix.records.book.index import Index
from ventrix.records.files.casting_document import read_casting, write_casting
from ventrix.records.library.items import casting_item, casting_of
from ventrix.workspace.ids import now_text


def files_of(items: Sequence[LibraryItem], number: str) -> list[tuple[LibraryItem, Casting]]:
    """The casting files of the library with a number, one's own sections first."""
    wanted = plain_casting(number)
    own = [i for i in items if i.kind == LibraryKind.CASTING and plain_casting(i.name) == wanted]
    return sorted(((item, casting_of(item)) for item in own), key=lambda found: found[1].whose)


class CastingShelf:
    """Castings of a book. The jobs of a number are found by the index and read when it is asked for, once a writing of
    the book.

    Parameters
    ----------
    book, index : Book, Index
        The shop's own.
    """

    def __init__(self, book: Book, index: Index) -> None:
        self._book, self._index = book, index
        self._read: tuple[dict[str, int], dict[str, list[Findings]]] = {}, {}

    def _jobs(self, number: str, but: str = "") -> list[Findings]:
        """Of every job but one, which may be written as often as it likes."""
        wanted = plain_casting(number)
        written = {owner: n for owner, n in self._book.revisions().items() if owner != but}
        if written != self._read[0]:
            self._read = written, {}
        if wanted not in self._read[1]:
            benches = self._book.benches()
            self._index.catch_up(but)
            same = [e for e in self._index.find() if e.binned is None and e.id != but]
            same = [e for e in same if wanted in map(plain_casting, e.casting.split(","))]
            jobs = (self._book.load(e.id) for e in same)
            self._read[1][wanted] = [Findings(j, benches=benches) for j in jobs if not j.practice]
        return self._read[1][wanted]

    def numbers(self) -> tuple[str, ...]:
        """Every casting number that a head of the book bears, or a file of the library has."""
        self._index.catch_up()
        entries = (e.casting.split(",") for e in self._index.find() if e.binned is None)
        names = [n.strip() for each in entries for n in each if n.strip()]
        names += [i.name for i in self._book.library() if i.kind == LibraryKind.CASTING]
        once = {plain_casting(n): n for n in reversed(names)}
        return tuple(sorted(once.values(), key=str.lower))

    def of(self, number: str, but: str = "") -> tuple[Casting, ...]:
        """What is known of a number: by one's own heads (those of job `but` left out) with the sections that were kept,
        then as each other shop sent it."""
        own = casting(number, self._jobs(number, but))
        files = [found for _, found in files_of(self._book.library(), number)]
        sections = tuple(s for found in files if not found.whose for s in found.sections)
        own = replace(own, sections=sections)
        return (*((own,) if own.heads or sections else ()), *(found for found in files if found.whose))

    def keep_section(self, number: str, section: SawnSection) -> None:
        """Keep a section of a sawn head. Refused without a number; BookError where it cannot be kept."""
        if not number.strip():
            raise Refused("a section belongs to a casting: type its number")
        had = next(((i, c) for i, c in files_of(self._book.library(), number) if not c.whose), None)
        found = had[1] if had is not None else Casting(number.strip(), 0, (), (), (), {})
        same = (section.kind, section.place)
        kept = tuple(s for s in found.sections if (s.kind, s.place) != same)
        item = casting_item(replace(found, sections=(*kept, section)), "", now_text())
        self._book.write((had[0] if had is not None else None, item if had is None else replace(item, id=had[0].id)))

    def bring_in(self, path: Path) -> Casting:
        """A file of another shop into the library; two of one number both stand until they are merged. InputError where
        it is none; BookError where it cannot be kept."""
        found = read_casting(path)
        if not found.whose:
            found = replace(found, whose=path.name)
        self._book.write((None, casting_item(found, found.whose, now_text())))
        return found

    def merge(self, number: str) -> Casting:
        """The files that other shops sent of a number made one. Refused where there are fewer than two."""
        files = [(i, c) for i, c in files_of(self._book.library(), number) if c.whose]
        if len(files) < 2:
            raise Refused("one file of {} is here: two are merged", number)
        whole = files[0][1]
        for _, other in files[1:]:
            whole = merged(whole, other, " and ".join(dict.fromkeys((*whole.whose.split(" and "), other.whose))))
        item = replace(casting_item(whole, whole.whose, now_text()), id=files[0][0].id)
        self._book.write((files[0][0], item), *((other, None) for other, _ in files[1:]))
        return whole

    def write_out(self, number: str, path: Path, whose: str) -> Casting:
        """What one's own heads taught of a number, for another shop: with what its finished ports tell of the next.
        Refused where no head bears it; InputError where the file cannot be written."""
        from ventrix.core.planning.casting_prior import learn  # late: fits every finished port

        own = next((c for c in self.of(number) if not c.whose), None)
        if own is None:
            raise Refused("no head of this book bears '{}'", number[:40])
        castings = {plain_casting(number)}
        told = {kind: learn(self._jobs(number), castings, kind) for kind in Direction}
        found = replace(own, told={kind: prior for kind, prior in told.items() if prior is not None})
        write_casting(found, path, whose, now_text()[:10])
        return found
