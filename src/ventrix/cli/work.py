"""`ventrix work`: what is left on a head, and what the next hour is best spent on."""

from __future__ import annotations

from datetime import date
from pathlib import Path
from typing import Annotated

import typer

from ventrix.cli.app import JsonOption, app, of_file, print_json
from ventrix.core.judging.findings import Findings
from ventrix.words import tr


@app.command()
def work(
    job: Annotated[Path, typer.Argument(metavar="JOB.json")],
    hours: Annotated[float | None, typer.Option(help="What fits into so many hours, in order.")] = None,
    as_json: JsonOption = False,
) -> None:
    """The head's record of work, what is next with its worth and what it waits for, and the hours to go."""
    from ventrix.core.next_hour.evening import evening
    from ventrix.core.next_hour.work_list import work_list
    from ventrix.records.files.job_document import read_document
    from ventrix.reports.work_document import work_document, work_text

    read, benches = read_document(job)
    if hours is not None and not 0 < hours <= 24:
        raise typer.BadParameter(tr("an evening has more than 0 hours and no more than 24"), param_hint="--hours")
    found = of_file(job, lambda: work_list(Findings(read, benches=benches), date.today()))
    chosen = found.items if hours is None else evening(found.items, hours * 3600)
    if as_json:
        print_json(work_document(found, chosen))
    else:
        print(work_text(found, chosen))
