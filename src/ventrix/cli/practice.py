"""`ventrix practice`: the heads that do not exist, and a practice played again."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated, Any

import typer

from ventrix.cli.app import JsonOption, app, of_file, print_json
from ventrix.core.quantity.units import from_si
from ventrix.records.bad_input import InputError
from ventrix.words import tr


@app.command()
def practice(
    list_heads: Annotated[bool, typer.Option("--list", help="Every head there is to practise on.")] = False,
    replay: Annotated[Path | None, typer.Option(metavar="PRACTICE.json", help="Play a practice again.")] = None,
    as_json: JsonOption = False,
) -> None:
    """Practice heads, and what a practice came to against what was to be had."""
    from ventrix.bench.simulator.practice.catalogue import HEADS

    if list_heads == (replay is not None):
        raise InputError("either --list or --replay PRACTICE.json", field="practice")
    if replay is None:
        rows = [{"id": h.id, "title": h.title, "teaches": h.teaches} for h in HEADS]
        if as_json:
            print_json(rows)
        else:
            print("\n".join(f"{h['id']:16} {h['title']}. {h['teaches']}" for h in rows))
        return
    found = _played(replay)
    print_json(found) if as_json else print(_text(found))


def _played(path: Path) -> dict[str, Any]:
    from ventrix.bench.simulator.practice.reckoning import reckon
    from ventrix.records.files.practice_document import read_practice
    from ventrix.workspace.practice import practice_of

    document = read_practice(path)
    found = of_file(path, lambda: reckon(practice_of(document)))
    return {
        "head": document.head,
        "seed": document.seed,
        "gain_cfm": from_si(found.gain, "cfm"),
        "share": found.share,
        "oracle_cfm": from_si(found.oracle, "cfm"),
        "hours": found.hours,
        "walls_broken": found.walls_broken,
        "seats_nicked": found.seats_nicked,
        "beliefs": [
            {
                "cut": b.cut,
                "place": b.place.value,
                "seen_cfm": None if b.seen is None else from_si(b.seen, "cfm"),
                "true_cfm": from_si(b.true, "cfm"),
                "verdict": b.verdict,
            }
            for b in found.beliefs
        ],
    }


def _text(found: dict[str, Any]) -> str:
    share = 100 * found["share"]
    rows = [
        tr(
            "You found {:.0f} % of what was there: {:+z.1f} of {:+z.1f} CFM in {:.1f} h.",
            share,
            found["gain_cfm"],
            found["oracle_cfm"],
            found["hours"],
        ),
        tr("Walls broken: {}. Seats nicked: {}.", found["walls_broken"], found["seats_nicked"]),
    ]
    for b in found["beliefs"]:
        seen = tr("never flowed") if b["seen_cfm"] is None else tr("seen {:+z.1f}", b["seen_cfm"])
        rows.append(tr("{}  {}: {}, true {:+z.1f} CFM: {}", b["cut"], b["place"], seen, b["true_cfm"], b["verdict"]))
    return "\n".join(rows)
