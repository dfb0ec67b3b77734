"""`ventrix engine`: what a cut is worth on the job's engine."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from ventrix.cli.app import JsonOption, app, of_file, print_json
from ventrix.cli.plan import chosen_port
from ventrix.core.engine.of_job import OnTheEngine
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Port
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.records.bad_input import InputError
from ventrix.words import tr


@app.command()
def engine(
    job: Annotated[Path, typer.Argument(metavar="JOB.json")],
    port: Annotated[str | None, typer.Option(help="An intake; the one with most flowed cuts without it.")] = None,
    cut: Annotated[int | None, typer.Option(help="The cut; the last flowed without it.")] = None,
    against: Annotated[int | None, typer.Option(help="Held against this one; the first flowed without it.")] = None,
    cam_lift: Annotated[str | None, typer.Option(help="Another cam's lift at the valve, as 0.500in.")] = None,
    cam_duration: Annotated[str | None, typer.Option(help="Its duration at 0.050 in; the job's without it.")] = None,
    rocker: Annotated[float | None, typer.Option(help="Another rocker ratio, on the job's cam.")] = None,
    as_json: JsonOption = False,
) -> None:
    """VE over engine speed before and after a cut, or with another cam, and the rev-limit card."""
    from ventrix.core.engine.of_job import on_the_engine
    from ventrix.core.engine.other_cam import other_cam
    from ventrix.records.files.job_document import read_document
    from ventrix.reports.engine_document import engine_document, engine_text

    read, benches = read_document(job)
    findings = Findings(read, benches=benches)
    chosen = chosen_port(read, port, findings, job, "intake")
    after, before = (_cut(chosen, n, job, o) for n, o in ((cut, "--cut"), (against, "--against")))
    lift, duration = (_typed(*t) for t in ((cam_lift, "in", "--cam-lift"), (cam_duration, "deg", "--cam-duration")))
    asked = lift is not None or duration is not None or rocker is not None
    if asked and against is not None:
        raise InputError(
            tr("another cam is compared with the job's on one cut: leave --against out"), field="--against"
        )

    def reckon() -> OnTheEngine:
        cam = other_cam(findings, lift, duration, rocker) if asked else None
        return on_the_engine(findings, chosen, after, before, cam)

    found = of_file(job, reckon)
    if as_json:
        print_json(engine_document(found))
    else:
        print(engine_text(found))


def _typed(text: str | None, unit: str, option: str) -> float | None:
    if text is None:
        return None
    try:
        return parse_quantity(text, unit)
    except Refused as error:
        raise InputError(str(error), field=option) from None


def _cut(port: Port, number: int | None, path: Path, option: str) -> Cut | None:
    if number is None:
        return None
    found = next((c for c in port.cuts if c.number == number), None)
    if found is None:
        has = ", ".join(str(c.number) for c in port.cuts)
        raise InputError(tr("{} has no cut {}: it has {}", port.name, number, has), file=path.name, field=option)
    return found
