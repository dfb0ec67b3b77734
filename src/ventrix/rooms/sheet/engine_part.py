"""The sheet's part about the engine: the rev-limit card before and after, and results as they were stated."""

from __future__ import annotations

from ventrix.core.engine.of_job import rev_limit
from ventrix.core.engine.words import what_changed
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Port
from ventrix.core.quantity.refused import Refused
from ventrix.rooms.display_units import Units
from ventrix.rooms.plan.engine_shows import card_lines, limit_words
from ventrix.rooms.plan.results_shows import engine_results_words
from ventrix.words import tr


def engine_part(findings: Findings, port: Port, before: Cut, after: Cut, units: Units) -> tuple[str, ...]:
    """Sentences of the card and of results; why there is no card where there is none."""
    said = []
    try:
        card = rev_limit(findings, port, after, before)
        said += [f"{what_changed(card)}: {limit_words(card, units)}", *card_lines(card, units)]
    except Refused as error:
        said.append(tr("No rev-limit card: {}.", error))
    return (*said, *engine_results_words(findings, None, units))
