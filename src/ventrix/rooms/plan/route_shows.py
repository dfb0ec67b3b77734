"""Stages of the way through a port without a bench, as the Plan room shows them."""

from __future__ import annotations

from dataclasses import dataclass

from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Port
from ventrix.core.work.route import next_card, route
from ventrix.rooms.display_units import Units
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class StageLine:
    """A stage: done, the one that comes next, or a later one; what it says where it comes next."""

    stage: str
    done: bool
    now: bool
    says: tuple[str, ...]


def stage_lines(findings: Findings, port: Port, units: Units) -> tuple[StageLine, ...]:
    """The stages of one port, in order."""
    if not port.of_head:
        return ()  # a witness port and a runner have no stages
    cards = route(findings, port)
    coming = next_card(cards)
    lines = []
    for card in cards:
        now = card is coming
        says = (
            (card.cut, tr("Leave: {}", card.leave), tr("Stop when: {}", units.say(card.stop_when)), card.caution)
            if now
            else ()
        )
        lines.append(StageLine(card.stage, card.done, now, tuple(s for s in says if s and not s.endswith(": "))))
    return tuple(lines)
