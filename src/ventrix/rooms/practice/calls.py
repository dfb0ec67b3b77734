"""Calls said first, as lines: over time, and the eye's own record by place."""

from __future__ import annotations

from ventrix.core.judging.calls import EyeRecord, eye_record, scored_calls
from ventrix.core.judging.findings import Findings


def call_lines(findings: Findings) -> tuple[str, ...]:
    """How what was said first came out; nothing where nothing was said."""
    scores = scored_calls(findings)
    if not scores:
        return ("No prediction scored yet. F4 predicts before a run, on this head or a real one.",)
    gains = [s.gains_right for s in scores if s.gains_right is not None]
    places = [s.place_right for s in scores if s.place_right is not None]
    rows = [f"Predictions scored: {len(scores)}."]
    if gains:
        rows.append(f"Whether it gains: right {sum(gains)} of {len(gains)} times.")
    if places:
        rows.append(f"The best place: right {sum(places)} of {len(places)} times.")
    offs = [s.off for s in scores if s.off is not None]
    if len(offs) >= 4:
        half = len(offs) // 2
        first, last = (sum(abs(v) for v in part) / len(part) for part in (offs[:half], offs[half:]))
        rows.append(f"Flow lay {100 * first:.1f} % off at first, {100 * last:.1f} % of late.")
    rows += [_eye(r) for r in eye_record(scores)]
    return tuple(rows)


def _eye(r: EyeRecord) -> str:
    way = "too high" if r.bias >= 0 else "too low"
    spread = "" if r.spread is None else f", scattering by {100 * r.spread:.1f} %"
    return f"{r.place}: your eye says {100 * abs(r.bias):.1f} % {way}{spread}, {r.calls} calls."
