"""A port on the engine as a JSON document (a contract) and as text."""

from __future__ import annotations

from typing import Any

import numpy as np

from ventrix.core.engine.of_job import OnTheEngine
from ventrix.core.engine.words import blow_down_sentence, engine_sentence, lift_sentences
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import from_si, from_si_array
from ventrix.words import tr


def engine_document(found: OnTheEngine) -> dict[str, Any]:
    """JSON: lists over `speeds_rpm`. Filling, its doubt and residual are shares, null without the cam's timing;
    `difference` is the change of filling as a share of the filling before. Eight in ten lie between low and high."""

    def listed(values: Array | None) -> list[float] | None:
        return None if values is None else [float(v) for v in values]

    return {
        "before": found.before.number,
        "after": found.after.number,
        "speeds_rpm": listed(from_si_array(found.speeds, "rpm")),
        "filling": listed(found.filling),
        "filling_before": listed(found.filling_before),
        "low": listed(found.low),
        "high": listed(found.high),
        "residual": listed(found.residual),
        "limit_rpm": None if found.limit_speed is None else from_si(found.limit_speed, "rpm"),
        "limit_rpm_before": None if found.limit_speed_before is None else from_si(found.limit_speed_before, "rpm"),
        "mach_index": listed(found.index),
        "choke_rpm": None if found.choke_speed is None else from_si(found.choke_speed, "rpm"),
        "least_section_cm2": from_si(found.least_section, "cm2"),
        "difference": listed(found.difference),
        "difference_low": listed(found.difference_low),
        "difference_high": listed(found.difference_high),
        "mean_speed_m_s": listed(found.mean_speed),
        "effective_area_mm2_deg": from_si(found.area, "mm2.deg"),
        "effective_area_before_mm2_deg": from_si(found.area_before, "mm2.deg"),
        "manifold_kPa": listed(from_si_array(found.manifold, "kPa")),
        "left_at_bottom": listed(found.left_at_bottom),
        "blow_down_low_share": found.low_share,
        "blow_down_low_lift_mm": None if found.low_lift is None else from_si(found.low_lift, "mm"),
        "flow_stops_at_mm": None if found.stops_at is None else from_si(found.stops_at, "mm"),
        "not_tested_beyond_mm": None if found.untested_from is None else from_si(found.untested_from, "mm"),
        "missing": list(found.missing),
        "guessed": list(found.guessed),
        "sentence": engine_sentence(found),
    }


def engine_text(found: OnTheEngine) -> str:
    """A port on the engine in lines."""
    rows = [engine_sentence(found), "", tr("    rpm    VE  before  change      8 in 10        Z")]
    for i, rpm in enumerate(from_si_array(found.speeds, "rpm")):
        filling, before = (
            "      –" if v is None else f"{100 * v[i]:5.1f} %" for v in (found.filling, found.filling_before)
        )
        spread = tr("{:+z5.1f} to {:+z5.1f}", 100 * found.difference_low[i], 100 * found.difference_high[i])
        z = "   –" if found.index is None else f"{found.index[i]:.2f}"
        rows.append(f"{rpm:7,.0f}  {filling} {before}  {100 * found.difference[i]:+z5.1f} %  {spread} %  {z:>5}")
    if found.limit_speed is not None:
        rows.append(tr("Valve and cam limit (Z = 0.6) at {:,.0f} rpm.", from_si(found.limit_speed, "rpm")))
    if found.choke_speed is not None:
        rows.append(tr("The smallest section chokes at {:,.0f} rpm.", from_si(found.choke_speed, "rpm")))
    rpm = from_si(float(np.max(found.speeds)), "rpm")
    least = from_si(found.least_section, "cm2")
    rows.append(tr("For {:,.0f} rpm at Mach 0.55 a section of {:.2f} cm2 is needed.", rpm, least))
    area, had = (f"{from_si(a, 'mm2.deg'):,.0f}" for a in (found.area, found.area_before))
    rows.append(tr("Effective area over the cam {} to {} mm2 deg.", had, area))
    rows += [*lift_sentences(found), blow_down_sentence(found)]
    if found.missing:
        rows.append(tr("No absolute volumetric efficiency: {} not given (Head).", " and ".join(found.missing)))
    if found.guessed:
        rows.append(tr("Taken as usual: {}.", "; ".join(found.guessed)))
    return "\n".join(rows)
