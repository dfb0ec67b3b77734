"""What a milling does, in sentences, with the line-up it leaves."""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.core.lineup.chambers import compression_of
from ventrix.core.lineup.fitting import Fit
from ventrix.core.lineup.milling import Milling, Stack, stack_up
from ventrix.core.lineup.of_job import line_up
from ventrix.core.model.cut import mean_poured
from ventrix.core.model.job import Job
from ventrix.core.model.kept_words import EngineLayout
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, to_si
from ventrix.rooms.display_units import Units
from ventrix.words import tr

MEETS: Final = to_si(100, "mm")


def milling_rows(job: Job, milling: Milling, face_area: float | None, units: Units) -> tuple[str, ...]:
    """What it moves and what it wants, one sentence each. ValueError as `stack_up`."""
    poured = [v for c in job.chambers if (v := mean_poured(c.pours)) is not None]
    chamber = float(np.mean(poured)) if poured else None
    found = stack_up(milling, chamber, face_area)
    length = units.length.with_unit
    rows = [tr("The head comes down {}.", length(found.drop))]
    if job.engine_layout == EngineLayout.V:
        rows += _of_v(job, found, milling, units)
    elif job.engine_layout == EngineLayout.INLINE:
        rows.append(tr("An inline head takes its manifold along: nothing has to come off that."))
    else:
        rows.append(tr("Inline or V? Say which: only a V's manifold stands between two heads."))
    if found.chamber is not None:
        rows.append(tr("Chamber {:.1f} cc.", from_si(found.chamber, "cc")))
    else:
        rows.append(tr("The chamber needs a pour and the area of its outline, not the bore's."))
    rows += _compression(job, chamber, found, milling)
    return tuple(rows)


def _of_v(job: Job, found: Stack, milling: Milling, units: Units) -> list[str]:
    length = units.length.with_unit
    rows = [
        tr(
            "Off the manifold's face {} in all, off the valley {}: then its ports line up again.",
            length(found.face_cut),
            length(found.valley_cut),
        )
    ]
    if milling.manifold:
        more = tr("still to come off") if found.face_left >= 0 else tr("too much came off")
        rows.append(
            tr("Of that {} came off its face; {} {}.", length(milling.manifold), length(abs(found.face_left)), more)
        )
    way = "up" if found.slide_left >= 0 else "down"
    rows.append(tr("As it is its ports stand {} further {} the head's face.", length(abs(found.slide_left)), way))
    return rows + _lines_up(job, found.slide_left, units)


def _compression(job: Job, chamber: float | None, found: Stack, milling: Milling) -> list[str]:
    """Compression before and after, on the basis that the chambers' page has."""
    if chamber is None or found.chamber is None:
        return []
    was = compression_of(job, chamber)
    now = compression_of(job, found.chamber, milling.deck, milling.gasket)
    if was is None or now is None:
        return [tr("Compression needs bore, stroke and the gasket's thickness, or the ratio as it is (Head, Engine).")]
    basis = tr("gasket, deck and piston") if job.gasket_thickness is not None else tr("the stated ratio")
    return [tr("Compression {:.2f} before, {:.2f} after, by {}.", was, now, basis)]


def _lines_up(job: Job, up: float, units: Units) -> list[str]:
    """How many edges face the air with the other face so much further up, and what the worst of them would want."""
    if abs(up) > MEETS:
        return [tr("So far off the faces don't meet at all.")]
    try:
        now = line_up(job)
        then = line_up(job, moved=Fit((now.fit.shift[0], now.fit.shift[1] + up), now.fit.turn))
    except Refused:
        return []  # no faces to lay on each other: the room says so
    before, after = ([e for j in each.joints for e in j.edges if e.faces_air] for each in (now, then))
    said = tr(
        "On {}, {} edges of {} face the air then, {} do now.", now.head.name, len(after), now.other.name, len(before)
    )
    if not after:
        return [said]
    worst = max(after, key=lambda e: abs(e.step))
    return [
        tr(
            "{} Worst: {}, {}, {} to open it instead.",
            said,
            worst.port,
            worst.edge,
            units.length.with_unit(abs(worst.step)),
        )
    ]
