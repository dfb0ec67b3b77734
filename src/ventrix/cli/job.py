"""Commands about one job document: walls, sheet."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from ventrix.cli.app import JsonOption, app, port_of_file, print_json
from ventrix.words import tr


@app.command()
def walls(
    job: Annotated[Path, typer.Argument(metavar="JOB.json")],
    port: Annotated[str | None, typer.Option(help="Of this port alone, by its name.")] = None,
    as_json: JsonOption = False,
) -> None:
    """What is left of every wall that was read, after all that was taken off since."""
    from ventrix.records.files.job_document import read_job
    from ventrix.reports import results

    read = read_job(job)
    rows = results.walls_document(read, None if port is None else port_of_file(read.ports, port, job).name)
    if as_json:
        print_json(rows)
        return
    for row in rows:
        print(f"{row['port']}: {row['sentence']}")
    if not rows:
        print(tr("No wall has been read."))


@app.command()
def sheet(
    job: Annotated[Path, typer.Argument(metavar="JOB.json")],
    out: Annotated[Path, typer.Argument(metavar="OUT.pdf")],
    port: Annotated[str | None, typer.Option(help="Of this port, by its name.")] = None,
    cut: Annotated[int | None, typer.Option(help="The cut after; the last flowed one without it.")] = None,
    against: Annotated[int | None, typer.Option(help="The cut before; the first flowed one without it.")] = None,
    paper: Annotated[str, typer.Option(help="A4 or Letter.")] = "A4",
    ink: Annotated[str, typer.Option(help="colour or grey.")] = "colour",
    units: Annotated[str, typer.Option(help="us or metric.")] = "us",
    whole: Annotated[bool, typer.Option("--whole", help="All ports in one table too.")] = False,
    card: Annotated[str | None, typer.Option(metavar="PORT", help="Its grinder card instead; 'all' for every.")] = None,
    paper_kind: Annotated[
        str | None, typer.Option(help="baseline, work, judged or pair; the best the job can fill without it.")
    ] = None,
) -> None:
    """The sheet that a shop hands over, or a port's grinder card, as PDF."""
    from ventrix.cli.sheet_command import Wanted, write_sheet

    print(write_sheet(job, out, Wanted(port, cut, against, paper, ink, units, whole, card, paper_kind)))
