"""`ventrix lineup`: faces that meet, the steps between them, and what to take off."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from ventrix.cli.app import JsonOption, app, of_file, print_json


@app.command()
def lineup(
    job: Annotated[Path, typer.Argument(metavar="JOB.json")],
    face: Annotated[str | None, typer.Option(help="The face on the head's; the first other one without it.")] = None,
    as_json: JsonOption = False,
) -> None:
    """How a gasket, manifold or header lies on the head: every step, which way it faces the air, what to take off."""
    from ventrix.core.lineup.of_job import line_up
    from ventrix.records.files.job_document import read_document
    from ventrix.reports.lineup_document import lineup_document, lineup_text

    read, _ = read_document(job)
    found = lineup_document(of_file(job, lambda: line_up(read, face)))
    print_json(found) if as_json else print(lineup_text(found))
