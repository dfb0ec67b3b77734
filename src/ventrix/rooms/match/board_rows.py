"""The stage board as rows of texts and states."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ventrix.core.model.cut import Port
from ventrix.core.model.job_parts import Wait
from ventrix.core.quantity.units import from_si
from ventrix.core.work.record import Record, StageState
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class BoardRow:
    """A stage over all ports: a text, a state and what is missing a port, and one band where the whole head waits.
    `joined` says where a box goes on from the one before it: one chamber, one head."""

    key: str
    stage: str
    texts: tuple[str, ...]
    states: tuple[str, ...]
    missing: tuple[str, ...] = ()
    joined: tuple[bool, ...] = ()
    band: str = ""


def board_rows(record: Record, ports: Sequence[Port]) -> tuple[BoardRow, ...]:
    """The rows of the board over these ports."""
    rows = []
    for stage in record.stages:
        boxes = [record.at(stage.key, port) for port in ports]
        joined = tuple(i > 0 and boxes[i] is boxes[i - 1] for i in range(len(boxes)))
        wait = next((b.wait for b in boxes if b.wait is not None and not b.wait.port_ids and not b.done), None)
        band = "" if wait is None else _wait_words(wait)
        texts = tuple("" if together else _text(box) for box, together in zip(boxes, joined, strict=True))
        states, missing = tuple(b.state.value for b in boxes), tuple(b.missing for b in boxes)
        rows.append(BoardRow(stage.key, stage.name, texts, states, missing, joined, band))
    return tuple(rows)


def _text(box: StageState) -> str:
    """Minutes in a box that is done, a tick where none were noted; a dash where it is only begun."""
    if box.done:
        return f"{from_si(box.seconds, 'min'):.0f}" if box.seconds else "✓"
    return "–" if box.state == "begun" else ""


def _wait_words(wait: Wait) -> str:
    told = [tr("out at {}", wait.who) if wait.who else "out"]
    if wait.since:
        told.append(tr("since {}", wait.since[:10]))
    if wait.promised:
        told.append(tr("promised {}", wait.promised[:10]))
    return ", ".join(told)
