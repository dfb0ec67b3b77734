"""Results on the engine as they are read: each change and whether it may be laid at the work's door, beside the
ceilings of the head."""

from __future__ import annotations

from ventrix.core.formulas.engine import POWER_COEFFICIENT, horsepower_potential
from ventrix.core.judging.engine_results import Change, ShopPower, best_intake_flow, changes_on_the_engine
from ventrix.core.judging.findings import Findings
from ventrix.core.model.job_parts import EngineResult
from ventrix.core.model.kinds import ResultKind
from ventrix.core.quantity.units import from_si, to_si
from ventrix.core.quantity.words import number_text, sentence
from ventrix.rooms.display_units import Units
from ventrix.words import tr


def result_words(result: EngineResult, units: Units) -> str:
    """One result in a line, conditions and correction as they were stated."""
    kind = ResultKind(result.kind).words if result.kind in tuple(ResultKind) else result.kind
    parts = []
    if result.powers:
        top = max(range(len(result.powers)), key=lambda i: result.powers[i])
        parts.append(
            tr("{} at {:,.0f} rpm", units.power.with_unit(result.powers[top]), from_si(result.speeds[top], "rpm"))
        )
    if result.time is not None:
        parts.append(f"{result.time:.3f} s")
    if result.speed is not None:
        parts.append(units.road_speed.with_unit(result.speed))
    if result.fuel is not None:
        parts.append(tr("{:.1f} L/100 km", from_si(result.fuel, "L/100km")))
    stated = "; ".join(p for p in (result.conditions, result.correction and tr("corrected {}", result.correction)) if p)
    head = f"{kind}, {result.moment}" + (f", {result.date[:10]}" if result.date else "")
    return f"{head}: {', '.join(parts) or tr('no figure')}" + (f" ({stated})" if stated else "")


def change_words(change: Change, units: Units) -> str:
    """What changed, and why it may or may not be laid at the work's door."""
    if change.what == "power":
        text = tr("{} {} at its peak", units.power.text(change.value, sign=True), units.power.label)
    elif change.what == "time":
        text = f"{number_text(change.value, 3, sign=True)} s"
    elif change.what == "speed":
        text = f"{units.road_speed.text(change.value, sign=True)} {units.road_speed.label}"
    else:
        text = tr("{} L/100 km", number_text(from_si(change.value, "L/100km"), 1, sign=True))
    if change.attributed:
        return tr("{}: {} but the head.", text, change.reason)
    return tr("{}, and not credited to the head: {}.", text, change.reason)


def engine_results_words(findings: Findings, power: ShopPower | None, units: Units) -> list[str]:
    """Every result of a job, what changed, the ceiling of its flow, and the shop's own power for flow."""
    job = findings.job
    said = [sentence(result_words(r, units)) for r in job.engine_results]
    said += [sentence(change_words(c, units)) for c in changes_on_the_engine(job)]
    flow = best_intake_flow(findings)
    if flow is not None and not job.engine_cylinders:
        head = tr(" The {} of this head may not be all.", job.cylinders) if job.cylinders else ""
        said.append(
            tr("How many cylinders has the whole engine? Its power ceiling needs that (Head, Casting).{}", head)
        )
    if flow is not None and job.engine_cylinders:
        ceiling = float(horsepower_potential(flow, to_si(28, "inH2O"), job.engine_cylinders))
        at = tr("{} hp a CFM at 28 inH2O a cylinder", POWER_COEFFICIENT)
        said.append(tr("Ceiling of this flow: {} ({}, common practice).", units.power.with_unit(ceiling), at))
        if job.power_wanted is not None:
            asked = flow * job.power_wanted / ceiling
            said.append(
                tr(
                    "The {} wanted ask {} of it at 28 inH2O, where the best intake passes {}.",
                    units.power.with_unit(job.power_wanted),
                    units.flow.with_unit(asked),
                    units.flow.text(flow),
                )
            )
        if power is not None:
            own = ceiling * power.mean / POWER_COEFFICIENT
            said.append(
                tr(
                    "By this shop's own {} results ({:.3f} ± {:.3f} hp a CFM): {}.",
                    power.count,
                    power.mean,
                    power.spread,
                    units.power.with_unit(own),
                )
            )
        else:
            said.append(tr("The shop's own power for flow is told from three dyno results on."))
    return said
