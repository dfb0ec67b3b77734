"""The stage board as rows of texts and states."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ventrix.core.matching.board import Box, stages_of, waits_now
from ventrix.core.model.cut import Port
from ventrix.core.model.job import Job
from ventrix.core.quantity.units import from_si


@dataclass(frozen=True, slots=True)
class BoardRow:
    """A stage over all ports: a text a port, and one band where the whole head waits."""

    stage: str
    texts: tuple[str, ...]
    states: tuple[str, ...]
    band: str = ""


def board_rows(job: Job, ports: Sequence[Port], boxes: Mapping[tuple[str, str], Box]) -> tuple[BoardRow, ...]:
    """The rows of the board over these ports."""
    rows = []
    for stage in stages_of(job):
        mine = [boxes[stage, p.id] for p in ports if (stage, p.id) in boxes]
        texts = tuple(
            f"{from_si(b.seconds, 'min'):.0f}" if b.done and b.seconds else "✓" if b.done else "" for b in mine
        )
        states = tuple(
            "done" if b.done else "running" if b.running_since else "waiting" if b.wait else "open" for b in mine
        )
        whole = next((w for w in waits_now(job, stage) if not w.port_ids), None)
        band = ""
        if whole is not None:
            told = [f"out at {whole.who}" if whole.who else "out"]
            if whole.since:
                told.append(f"since {whole.since[:10]}")
            if whole.promised:
                told.append(f"promised {whole.promised[:10]}")
            band = ", ".join(told)
        rows.append(BoardRow(stage, texts, states, band))
    return tuple(rows)
