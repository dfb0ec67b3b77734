"""`ventrix match`: the ports of a head side by side, what may be copied, and the hours that are left."""

from __future__ import annotations

from datetime import date
from pathlib import Path
from typing import Annotated

import typer

from ventrix.cli.app import JsonOption, app, of_file, print_json


@app.command()
def match(
    job: Annotated[Path, typer.Argument(metavar="JOB.json")],
    as_json: JsonOption = False,
) -> None:
    """Which port really differs, what of the developed port may be copied onto each, and what is left to do."""
    from ventrix.core.judging.findings import Findings
    from ventrix.records.files.job_document import read_document
    from ventrix.reports.match_document import match_document, match_text

    read, benches = read_document(job)
    found = of_file(job, lambda: match_document(Findings(read, benches=benches), date.today()))
    print_json(found) if as_json else print(match_text(found))
