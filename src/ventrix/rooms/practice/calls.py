"""Calls said first, as lines: over time, and the eye's own record by place."""

from __future__ import annotations

from ventrix.core.judging.calls import EyeRecord, eye_record, scored_calls
from ventrix.core.judging.findings import Findings
from ventrix.words import tr


def call_lines(findings: Findings) -> tuple[str, ...]:
    """How what was said first came out; nothing where nothing was said."""
    scores = scored_calls(findings)
    if not scores:
        return (tr("No prediction scored yet. F4 predicts before a run, on this head or a real one."),)
    gains = [s.gains_right for s in scores if s.gains_right is not None]
    places = [s.place_right for s in scores if s.place_right is not None]
    rows = [tr("Predictions scored: {}.", len(scores))]
    if gains:
        rows.append(tr("Whether it gains: right {} of {} times.", sum(gains), len(gains)))
    if places:
        rows.append(tr("The best place: right {} of {} times.", sum(places), len(places)))
    offs = [s.off for s in scores if s.off is not None]
    if len(offs) >= 4:
        half = len(offs) // 2
        first, last = (sum(abs(v) for v in part) / len(part) for part in (offs[:half], offs[half:]))
        rows.append(tr("Flow lay {:.1f} % off at first, {:.1f} % of late.", 100 * first, 100 * last))
    rows += [_eye(r) for r in eye_record(scores)]
    return tuple(rows)


def _eye(r: EyeRecord) -> str:
    way = tr("too high") if r.bias >= 0 else tr("too low")
    spread = "" if r.spread is None else tr(", scattering by {:.1f} %", 100 * r.spread)
    return tr("{}: your eye says {:.1f} % {}{}, {} calls.", r.place, 100 * abs(r.bias), way, spread, r.calls)
