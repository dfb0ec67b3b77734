"""The thinnest wall of a cut, as Compare tells it."""

from __future__ import annotations

from ventrix.core.judging.findings import Findings, Pair
from ventrix.core.metal.walls import walls_at
from ventrix.core.model.cut import Cut


def _walls(findings: Findings, pair: Pair, cut: Cut) -> list[tuple[float, float, str]]:
    return [(w.left - w.limit, max(w.left, 0.0), w.reading.place) for w in walls_at(findings.job, pair.port, cut)]


def thinnest(findings: Findings, pair: Pair, cut: Cut) -> float | None:
    found = _walls(findings, pair, cut)
    return min(found)[1] if found else None


def thinnest_place(findings: Findings, pair: Pair, cut: Cut) -> str:
    found = _walls(findings, pair, cut)
    return min(found)[2] if found else ""
