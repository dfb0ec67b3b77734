"""`ventrix route`: the way through a head without a bench, stage by stage."""

from __future__ import annotations

from dataclasses import asdict
from pathlib import Path
from typing import Annotated

import typer

from ventrix.cli.app import JsonOption, app, of_file, print_json
from ventrix.cli.plan import chosen_port
from ventrix.core.judging.findings import Findings
from ventrix.words import tr


@app.command()
def route(
    job: Annotated[Path, typer.Argument(metavar="JOB.json")],
    port: Annotated[str | None, typer.Option(help="Of this port alone.")] = None,
    as_json: JsonOption = False,
) -> None:
    """What to look at, measure, cut and leave at each stage of a head, in the order its use asks for."""
    from ventrix.core.work.route import next_card, route
    from ventrix.records.files.job_document import read_document

    read, benches = read_document(job)
    findings = Findings(read, benches=benches)
    chosen = None if port is None else chosen_port(read, port, findings, job)
    cards = of_file(job, lambda: route(findings, chosen))
    if as_json:
        print_json([asdict(card) for card in cards])
        return
    coming = next_card(cards)
    for card in cards:
        mark = "x" if card.done else ">" if card is coming else " "
        print(f"{mark} {card.port}, {card.stage}: {card.cut}")
        if card is coming:
            would = tr("{} It would sharpen this.", card.measure) if card.measure else ""
            shown = (("look", card.look), ("measure", would), ("leave", card.leave),
                     (tr("stop when"), card.stop_when), ("caution", card.caution))  # fmt: skip
            for name, words in shown:
                if words:
                    print(f"      {name}: {words}")
