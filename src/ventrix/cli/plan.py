"""`ventrix plan`: what limits a port, what to do next, and when to stop."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from ventrix.cli.app import JsonOption, app, of_file, print_json
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job
from ventrix.core.planning.loss_chain import ChainWork
from ventrix.core.planning.priors import PLACES
from ventrix.core.quantity.units import parse_quantity
from ventrix.records.bad_input import InputError


@app.command()
def plan(
    job: Annotated[Path, typer.Argument(metavar="JOB.json")],
    port: Annotated[str | None, typer.Option(help="Of this port; the one with most flowed cuts without it.")] = None,
    what: Annotated[
        list[str] | None, typer.Option(metavar='"PLACE:DEPTH"', help="These moves only; may be repeated.")
    ] = None,
    as_json: JsonOption = False,
) -> None:
    """What limits a port, the next moves best hour first, and whether to stop."""
    from ventrix.core.judging.expectation import own_factors
    from ventrix.core.planning.next_moves import plan_port
    from ventrix.records.files.job_document import read_document
    from ventrix.reports.plan_document import plan_document, plan_text

    read, benches = read_document(job)
    findings = Findings(read, benches=benches)
    chosen = chosen_port(read, port, findings, job)
    works = tuple(_work(text) for text in what or ())
    factors = own_factors(findings.outcomes())
    found = of_file(job, lambda: plan_port(findings, chosen, factors, what=works))
    if as_json:
        print_json(plan_document(found))
    else:
        print(plan_text(found))


def chosen_port(job: Job, name: str | None, findings: Findings, path: Path, kind: str | None = None) -> Port:
    """The port named, or the one (of a kind) with most flowed cuts. InputError where there is none."""
    if name is not None:
        found = next((p for p in job.ports if p.name.lower() == name.strip().lower()), None)
        if found is None:
            names = ", ".join(p.name for p in job.ports) or "no port"
            raise InputError(f"'{name[:40]}' is not one of {names}", file=path.name, field="--port")
        return found
    ports = [p for p in job.ports if not p.witness and kind in (None, p.kind)]
    if not ports:
        raise InputError(f"has no {kind or ''} port".replace("  ", " "), file=path.name)
    return max(ports, key=lambda p: sum(bool(findings.runs_of(c, p)) for c in p.cuts))


def _work(text: str) -> ChainWork:
    """A move as it is typed: "bowl:0.5mm", "short side/floor:0.020in"."""
    where, colon, depth = text.rpartition(":")
    place = where.partition("/")[0].strip().lower()
    if not colon or place not in PLACES:
        raise InputError(f"'{text[:40]}' is not PLACE:DEPTH with a place of {', '.join(PLACES)}", field="--what")
    try:
        deep = parse_quantity(depth, "mm")
    except ValueError as error:
        raise InputError(str(error), field="--what") from None
    if not 0 < deep <= 0.01:
        raise InputError("a pass is deeper than nothing and at most 10 mm", field="--what")
    return ChainWork(place, deep)
