"""A plan as a JSON document (a contract) and as text."""

from __future__ import annotations

from typing import Any

import numpy as np

from ventrix.core.planning.loss_chain import place_name
from ventrix.core.planning.moves import HOUR, Move
from ventrix.core.planning.next_moves import Plan
from ventrix.core.quantity.units import from_si
from ventrix.words import tr


def plan_document(plan: Plan) -> dict[str, Any]:
    """JSON of a plan: what limits at each tested lift, candidates best first, and the stop rule."""
    lifts = plan.planned.lift
    limits = [
        {
            "lift_mm": from_si(float(x), "mm"),
            "places": {
                place: {
                    "share": limit.share,
                    "low": limit.low,
                    "high": limit.high,
                    "from": "data" if limit.from_data else "prior",
                }
                for place, limit in at.items()
            },
        }
        for x, at in zip(lifts, plan.fit.limits(lifts), strict=True)
    ]
    return {
        "limits": limits,
        "candidates": [move_document(m, plan) for m in plan.candidates],
        "stop": {"now": plan.stop.now, "reason": plan.stop.reason},
        "fit": {
            "chi_squared": plan.fit.chi_squared,
            "chi_squared_without_discrepancy": plan.fit.plain_chi_squared,
            "readings": plan.fit.count,
            "does_not_fit_at_mm": None if plan.fit.worst_lift is None else from_si(plan.fit.worst_lift, "mm"),
        },
        "separation": _separation(plan),
        "learned_from": plan.learned_from,
        "guessed": list(plan.planned.guessed),
        "flowed": plan.planned.run is not None,
    }


def _separation(plan: Plan) -> dict[str, float] | None:
    found = plan.fit.separation
    if found is None:
        return None
    lifts = {
        key: from_si(getattr(found, name), "mm")
        for key, name in (("lift_mm", "lift"), ("low", "low"), ("high", "high"))
    }
    return lifts | {"share": found.share}


def move_document(move: Move, plan: Plan) -> dict[str, Any]:
    """JSON of one candidate; figures in CFM are null on an uncalibrated bench."""

    def cfm(value: float) -> float | None:
        return None if plan.planned.chain.is_index else from_si(value, "cfm")

    return {
        "place": move.place,
        "side": move.side,
        "depth_mm": None if move.depth is None else from_si(move.depth, "mm"),
        "kind": move.kind.value,
        "gain_percent": 100 * move.share,
        "gain_cfm": cfm(move.gain),
        "low_cfm": cfm(move.low),
        "high_cfm": cfm(move.high),
        "low95_cfm": cfm(move.low95),
        "high95_cfm": cfm(move.high95),
        "points": [
            {
                "lift_mm": from_si(p.lift, "mm"),
                "gain_cfm": cfm(p.gain),
                "low_cfm": cfm(p.low),
                "high_cfm": cfm(p.high),
            }
            for p in move.points
        ],
        "minutes": from_si(move.seconds, "min"),
        "of_it_flowing_minutes": from_si(move.flowing, "min"),
        "volume_cc": from_si(move.volume, "cc"),
        "gain_per_hour": 100 * move.rate * HOUR / plan.worth
        if plan.planned.chain.is_index
        else from_si(move.rate * HOUR, "cfm"),
        "wall_left_mm": None if move.wall_left is None else from_si(move.wall_left, "mm"),
        "smallest_section_cm2": None if move.section is None else from_si(move.section, "cm2"),
        "mean_speed_m_s": move.speed,
        "named": move.named,
        "guess": move.guess,
        "passes": [
            {"place": p.place, "depth_mm": None if p.depth is None else from_si(p.depth, "mm"), "gain_cfm": cfm(p.gain)}
            for p in move.passes
        ],
        "blocked_by": list(move.blocked_by),
        "sentence": move.sentence,
    }


def plan_text(plan: Plan) -> str:
    """A plan in lines."""
    lines = [("Stop: " if plan.stop.now else tr("Go on: ")) + plan.stop.reason + "."]
    x = plan.planned.lift
    at = int(np.argmax(x))
    limits = plan.fit.limits(x[[at]])[0]
    lines.append(tr("What limits at {:.3f} in:", from_si(float(x[at]), "in")))
    for place, limit in limits.items():
        whose = tr("this port") if limit.from_data else tr("an estimate")
        share = tr("{:4.0f} % ({:.0f} to {:.0f})", 100 * limit.share, 100 * limit.low, 100 * limit.high)
        lines.append(f"  {place_name(place):18} {share}  {whose}")
    lines.append(tr("Next, best hour first:"))
    unit = "%" if plan.planned.chain.is_index else "CFM"
    for move in plan.candidates:
        document = move_document(move, plan)
        depth = "" if move.depth is None else f", {document['depth_mm']:.2f} mm"
        name = f"{move.kind.value} {move.place} {move.named}".strip() + depth
        rate = f"{document['gain_per_hour']:.1f} {unit}/h, {document['minutes']:.0f} min"
        blocked = tr("; blocked: {}", "; ".join(move.blocked_by)) if move.blocked_by else ""
        lines.append(f"  {name:28} {rate}{blocked}")
    return "\n".join(lines)
