"""Limits of fits as they are typed: "guide exhaust titanium 0.0015-0.003; coil bind 0.060-; flatness -0.002"."""

from __future__ import annotations

from ventrix.core.model.job_parts import FitLimit
from ventrix.core.model.kinds import Direction, FitKind, ValveMetal
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.thousandths import read_small
from ventrix.core.quantity.units import from_si

KINDS = tuple(Direction)


def fit_limit_text(limit: FitLimit, unit: str) -> str:
    """A limit as it is typed."""
    low, high = ("" if v is None else f"{from_si(v, unit):.4g}" for v in (limit.low, limit.high))
    return " ".join(part for part in (limit.what, limit.kind, limit.metal, f"{low}-{high}") if part)


def fit_limit_typed(text: str, unit: str, limit_id: str) -> FitLimit:
    """A limit from "what [intake|exhaust] [metal] low-high", either end left out.

    Raises
    ------
    ValueError
        With a sentence: a fit, kind or metal that there is none of; no figure; the ends the wrong way round.
    """
    words, _, span = text.strip().lower().rpartition(" ")
    what = next((k for k in FitKind if words == k or words.startswith(f"{k} ")), None)
    if what is None:
        raise Refused("'{}' is not one of {}", words[:40] or span[:40], ", ".join(FitKind))
    rest = words.removeprefix(what).split()
    kind = next((k for k in rest if k in KINDS), "")
    metal = next((m for m in rest if m in tuple(ValveMetal)), "")
    unknown = [w for w in rest if w not in (kind, metal)]
    if unknown:
        raise Refused("'{}' is not one of {}", unknown[0][:40], ", ".join((*KINDS, *ValveMetal)))
    low, dash, high = span.partition("-")
    if not dash or not (low.strip() or high.strip()):
        raise Refused("'{}' is not least-most: 0.001-0.003, 0.060-, -0.002", span[:40])
    least, most = (read_small(v, unit).value if v.strip() else None for v in (low, high))
    if least is not None and most is not None and not least <= most:
        raise Refused("the least is over the most in '{}'", span[:40])
    return FitLimit(id=limit_id, what=what, kind=kind, metal=metal, low=least, high=most)
