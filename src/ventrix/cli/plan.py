"""`ventrix plan`: what limits a port, what to do next, and when to stop."""

from __future__ import annotations

import re
from collections.abc import Sequence
from pathlib import Path
from typing import Annotated

import typer

from ventrix.cli.app import JsonOption, app, of_file, port_of_file, print_json
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import plain_casting
from ventrix.core.model.kinds import Band
from ventrix.core.planning.learned import CastingPrior
from ventrix.core.planning.moves import Asked
from ventrix.core.planning.of_job import edge_share
from ventrix.core.planning.priors import PLACES
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.records.bad_input import InputError
from ventrix.words import tr


@app.command()
def plan(
    job: Annotated[Path, typer.Argument(metavar="JOB.json")],
    port: Annotated[str | None, typer.Option(help="Of this port; the one with most flowed cuts without it.")] = None,
    what: Annotated[
        list[str] | None,
        typer.Option(metavar='"PLACE[/SIDE or HOURS]:DEPTH"', help="These moves only; may be repeated."),
    ] = None,
    book: Annotated[
        str | None, typer.Option(metavar="FILE|URL", help="Learn from its finished ports of this casting.")
    ] = None,
    as_json: JsonOption = False,
) -> None:
    """What limits a port, the next moves best hour first, and whether to stop."""
    from ventrix.core.judging.calls import called_outcomes
    from ventrix.core.judging.expectation import own_factors
    from ventrix.core.planning.next_moves import plan_port
    from ventrix.core.planning.own_record import own_record
    from ventrix.core.planning.reflow import flow_spans, reflow_time
    from ventrix.records.files.job_document import read_document
    from ventrix.reports.plan_document import plan_document, plan_text

    read, benches = read_document(job)
    findings = Findings(read, benches=benches)
    chosen = chosen_port(read, port, findings, job)
    asked = tuple(_asked(text) for text in what or ())
    shop = [] if read.practice else [findings]
    shop += [] if book is None else _others(book, read)
    outcomes = [o for each in shop for o in (*each.outcomes(), *called_outcomes(each))]
    spans = [span for each in shop for span in flow_spans(each.job)]
    factors, record = own_factors(outcomes), own_record(outcomes, reflow_time(spans))
    learned = None if book is None else _learned([f for f in shop if f is not findings], read, chosen)
    found = of_file(job, lambda: plan_port(findings, chosen, factors, what=asked, record=record, learned=learned))
    if as_json:
        print_json(plan_document(found))
    else:
        print(plan_text(found))


def _others(book: str, job: Job) -> list[Findings]:
    """The other jobs of a book, practices left out."""
    from ventrix.records.book.book import Book
    from ventrix.records.book.store import as_location

    with Book.open(as_location(book)) as opened:
        others = [opened.load(entry.id) for entry in opened.jobs() if entry.id != job.id]
        benches = opened.benches()
    return [Findings(other, benches=benches) for other in others if not other.practice]


def _learned(shop: Sequence[Findings], job: Job, port: Port) -> CastingPrior | None:
    """What other jobs with a head of this casting told."""
    from ventrix.core.planning.casting_prior import learn

    castings = {plain_casting(h.casting) for h in job.heads if h.casting.strip()}
    same = [f for f in shop if castings & {plain_casting(h.casting) for h in f.job.heads}]
    return learn(same, castings, port.kind)


def chosen_port(job: Job, name: str | None, findings: Findings, path: Path, kind: str | None = None) -> Port:
    """The port named, or the one (of a kind) with most flowed cuts. InputError where there is none."""
    if name is not None:
        return port_of_file(job.ports, name, path)
    ports = [p for p in job.ports if p.of_head and kind in (None, p.kind)]
    if not ports:
        raise InputError(tr("has no {} port", kind or "").replace("  ", " "), file=path.name)
    return max(ports, key=lambda p: sum(bool(findings.runs_of(c, p)) for c in p.cuts))


def _asked(text: str) -> Asked:
    """A move as it is typed: "bowl:0.5mm", "pinch/left:0.020in", "bowl/4-8:0.5mm"."""
    where, colon, depth = text.rpartition(":")
    place, _, side = (part.strip().lower() for part in where.partition("/"))
    if not colon or place not in PLACES:
        raise InputError(tr("'{}' is not PLACE:DEPTH with a place of {}", text[:40], ", ".join(PLACES)), field="--what")
    try:
        deep = parse_quantity(depth, "mm")
    except Refused as error:
        raise InputError(str(error), field="--what") from None
    if not 0 < deep <= 0.01:
        raise InputError(tr("a pass is deeper than nothing and at most 10 mm"), field="--what")
    return Asked(place, deep, side or None, _edge(place, side))


def _edge(place: str, side: str) -> float:
    """The share of a place's edge that a side or hours are."""
    hours = re.fullmatch(r"(\d{1,2}(?:\.\d+)?)-(\d{1,2}(?:\.\d+)?)", side)
    if hours:
        first, last = (float(h) for h in hours.groups())
        if max(first, last) <= 12:
            return edge_share(place, None, first, last)
    elif not side or side in tuple(Band):
        return edge_share(place, side or None, None, None)
    raise InputError(tr("'{}' is not a side ({}) and not hours as 4-8", side[:20], ", ".join(Band)), field="--what")
