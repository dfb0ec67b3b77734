"""`ventrix casting`: what the heads of a casting number taught."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated, Any

import typer

from ventrix.cli.app import JsonOption, app, print_json
from ventrix.core.castings.casting_file import Casting, casting, castings_of
from ventrix.core.judging.findings import Findings
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si
from ventrix.records.bad_input import InputError
from ventrix.records.book.index import Index
from ventrix.words import tr
from ventrix.workspace.castings import CastingShelf


@app.command("casting")
def casting_command(
    name: Annotated[
        str | None, typer.Argument(metavar="NAME", help="Its number; all that the book has without.")
    ] = None,
    where: Annotated[str | None, typer.Option("--book", metavar="FILE|URL", help="Not the user's own book.")] = None,
    write: Annotated[Path | None, typer.Option(metavar="FILE", help="Write NAME for another shop.")] = None,
    whose: Annotated[str, typer.Option(help="The shop's name that stands on it.")] = "",
    read: Annotated[Path | None, typer.Option(metavar="FILE", help="Bring in another shop's file.")] = None,
    merge: Annotated[bool, typer.Option("--merge", help="Make one of the other shops' files of NAME.")] = False,
    as_json: JsonOption = False,
) -> None:
    """Walls, usual faults and ports as cast, over all heads of a casting in the book. It clears no warning."""
    from ventrix.records.book.book import Book
    from ventrix.records.book.store import as_location, default_book_path

    if read is not None or write is not None or merge:
        with Book.open(as_location(where or default_book_path())) as book:
            print(_between_shops(CastingShelf(book, Index(book)), name, write, whose, read, merge))
        return
    with Book.open(as_location(where or default_book_path())) as book:
        jobs = [book.load(entry.id) for entry in book.jobs()]
        benches = book.benches()
    known = castings_of(jobs)
    findings = [Findings(job, benches=benches) for job in jobs if name is not None]
    if name is None:
        told = [_document(casting(each, [Findings(job, benches=benches) for job in jobs])) for each in known]
        print_json(told) if as_json else print("\n".join(known) or tr("No head in the book bears a casting number."))
        return
    found = casting(name, findings)
    if not found.heads:
        others = ", ".join(known) or "none"
        raise InputError(tr("no head in the book bears '{}'; those it has: {}", name[:40], others), field="NAME")
    if as_json:
        print_json(_document(found))
    else:
        print(_text(found))


def _between_shops(
    shelf: CastingShelf, name: str | None, write: Path | None, whose: str, read: Path | None, merge: bool
) -> str:
    """Bring a file in, merge those of a number, or write one; what was done, in a sentence."""
    if read is not None:
        found = shelf.bring_in(read)
        return tr("{}: {} heads of {}, kept in the library as theirs.", found.number, found.heads, found.whose)
    if name is None:
        raise InputError(tr("which casting number?"), field="NAME")
    try:
        if merge:
            return tr("{}: one file of {}.", name, shelf.merge(name).whose)
        if not whose.strip():
            raise InputError(tr("say whose it is: the shop's name"), field="--whose")
        assert write is not None
        found = shelf.write_out(name, write, whose.strip())
    except InputError:
        raise
    except Refused as error:
        raise InputError(str(error), field="NAME") from None
    return tr("{}: {} heads written to {}, as {} has them.", found.number, found.heads, write.name, whose.strip())


def _document(found: Casting) -> dict[str, Any]:
    return {
        "casting": found.number,
        "heads": found.heads,
        "walls": [
            {
                "kind": w.kind,
                "place": w.place,
                "side": w.side,
                "least_mm": from_si(w.least, "mm"),
                "median_mm": from_si(w.median, "mm"),
                "spread_mm": None if w.spread is None else from_si(w.spread, "mm"),
                "count": w.count,
            }
            for w in found.walls
        ],
        "faults": [{"kind": f.kind, "place": f.place, "count": f.count} for f in found.faults],
        "as_cast": [
            {
                "kind": a.kind,
                "volume_cc": None if a.volume is None else from_si(a.volume, "cc"),
                "flow_cfm": None if a.flow is None else from_si(a.flow, "cfm"),
            }
            for a in found.as_cast
        ],
    }


def _text(found: Casting) -> str:
    lines = [
        tr("Casting {}, {} head{}. No warning is cleared by this.", found.number, found.heads, "s" * (found.heads != 1))
    ]
    for wall in found.walls:
        where = f"{wall.kind}, {wall.place}" + (f", {wall.side}" if wall.side else "")
        give = "" if wall.spread is None else tr(", spread {:.3f}", from_si(wall.spread, "in"))
        least, middle = from_si(wall.least, "in"), from_si(wall.median, "in")
        lines.append(tr("{:34} least {:.3f} in, median {:.3f}{}, of {}", where, least, middle, give, wall.count))
    lines += [tr("{} at the {}: {} times", f.kind, f.place, f.count) for f in found.faults]
    for each in found.as_cast:
        volume = "" if each.volume is None else f" {from_si(each.volume, 'cc'):.1f} cc"
        flow = "" if each.flow is None else tr(" {:.0f} CFM at its best lift", from_si(each.flow, "cfm"))
        lines.append(tr("{} as cast:{}{}", each.kind, volume, flow))
    return "\n".join(lines)
