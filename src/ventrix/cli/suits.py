"""`ventrix suits`: what an engine a head suits."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated, Any

import typer

from ventrix.cli.app import JsonOption, app, of_file, print_json
from ventrix.cli.plan import chosen_port
from ventrix.core.engine.suits import Suits
from ventrix.core.judging.findings import Findings
from ventrix.core.quantity.units import from_si


@app.command()
def suits(
    job: Annotated[Path, typer.Argument(metavar="JOB.json")],
    port: Annotated[str | None, typer.Option(help="An intake; the one with most flowed cuts without it.")] = None,
    as_json: JsonOption = False,
) -> None:
    """Displacement and speeds that valves and smallest section can feed, the lift that pays, air and power."""
    from ventrix.core.engine import suits as of_engine
    from ventrix.records.files.job_document import read_document

    read, benches = read_document(job)
    findings = Findings(read, benches=benches)
    chosen = chosen_port(read, port, findings, job, "intake")
    found = of_file(job, lambda: of_engine.suits(findings, chosen))
    if as_json:
        print_json(_document(found))
    else:
        print(_text(found))


def _pair(values: tuple[float, float], unit: str) -> list[float]:
    return [from_si(v, unit) for v in values]


def _document(found: Suits) -> dict[str, Any]:
    return {
        "displacement_cc": _pair(found.displacement, "cc"),
        "speeds_rpm": _pair(found.speeds, "rpm"),
        "lift_pays_mm": None if found.lift_pays is None else from_si(found.lift_pays, "mm"),
        "air_cfm": from_si(found.air, "cfm"),
        "power_kw": None if found.power is None else _pair(found.power, "kW"),
        "because": list(found.because),
    }


def _text(found: Suits) -> str:
    from ventrix.rooms.display_units import US
    from ventrix.rooms.sheet.suits_words import suits_rows

    return "\n".join([*(f"{caption:22}{figure}" for caption, figure in suits_rows(found, US)), *found.because])
