"""The conditions of a pair on its sheet: in one line, and in full with what nobody recorded."""

from __future__ import annotations

from typing import Final

from ventrix.core.judging.findings import Findings, Pair
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.units import from_si
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.rooms.display_units import Units
from ventrix.words import tr


def casting_words(findings: Findings) -> str:
    job = findings.job
    parts = [h.casting for h in job.heads if h.casting]
    parts += [tr("{} cylinders", job.cylinders)] if job.cylinders else []
    parts += [tr("{} valves each", job.valves_per_cylinder)] if job.valves_per_cylinder else []
    parts += [job.material] if job.material else []
    return ", ".join(parts)


def bench_words(findings: Findings, pair: Pair, units: Units) -> str:
    """Valve, bench, plate, air, leak and mounts of the side after, in one line."""
    run = pair.after_runs[-1]
    setup, g = run.setup, run.geometry
    parts = []
    if g.valve_diameter is not None:
        angle = f", {from_si(g.seat_angle, 'deg'):.0f}°" if g.seat_angle is not None else ""
        parts.append(tr("{} valve{}", units.length.with_unit(g.valve_diameter), angle))
    if setup.bench:
        bench = next((b for b in findings.benches if b.name.lower() == setup.bench.lower()), None)
        plate = bench.plates[-1] if bench is not None and bench.plates else None
        held = (
            tr(", plate {} of {}", units.flow.text(plate.flow), units.flow.text(plate.nominal))
            if plate is not None and plate.nominal is not None and plate.flow is not None
            else ""
        )
        parts.append(tr("bench {}{}", setup.bench, held))
    if setup.temperature is not None:
        parts.append(units.temperature.with_unit(setup.temperature))
    if setup.leak is not None:
        parts.append(tr("leak {} taken off", units.flow.with_unit(setup.leak)))
    mounts = [findings.job.mount(r.mount) for r in (*pair.before_runs, *pair.after_runs)]
    numbers = sorted({m.number for m in mounts if m is not None})
    if numbers:
        parts.append(tr("mount{} {}", "s" * (len(numbers) > 1), ", ".join(str(n) for n in numbers)))
    return " · ".join(parts)


# Conditions in the order a reader asks for them: caption, field, unit of the screen or None.
_CONDITIONS: Final = (
    (tr("Test pressure"), "test_pressure", "pressure"),
    (tr("Bore sleeve"), "bore", "length"),
    (tr("Centered on it"), "centred", None),
    (tr("Entry"), "entry", None),
    (tr("Pipe"), "pipe", None),
    (tr("Valve fitted"), "valve", None),
    (tr("Valves opened"), "valves_open", None),
    (tr("Plug"), "plug", None),
    (tr("Clean"), "clean", None),
    ("Bench", "bench", None),
    (tr("Air"), "temperature", "temperature"),
    (tr("Barometer"), "pressure", "barometer"),
    (tr("Humidity"), "humidity", "humidity"),
    (tr("Leak, taken off"), "leak", "flow"),
    (tr("Seat leak, not taken off"), "seat_leak", "flow"),
)
_ALSO_UNSAID: Final = ("pipe", "valves_open", "seat_leak")  # said only where they were recorded


def full_conditions(findings: Findings, runs: tuple[ReducedRun, ReducedRun], units: Units) -> tuple[str, ...]:
    """Every condition, before and after where they differ; "not recorded" where nobody said."""
    said = []
    for caption, key, unit in _CONDITIONS:
        values = [_condition(r.setup, key, unit, units) for r in runs]
        if key in _ALSO_UNSAID and values == [NOT_RECORDED, NOT_RECORDED]:
            continue
        words = values[1] if values[0] == values[1] else tr("{} before, {} after", values[0], values[1])
        said.append(f"{caption}: {words}")
    dates = [_date_of(findings, r) for r in runs]
    if any(dates):
        said.append("Flowed: " + (dates[1] if dates[0] == dates[1] else tr("{} before, {} after", dates[0], dates[1])))
    return tuple(said)


NOT_RECORDED: Final = tr("not recorded")


def _condition(setup: SetUp, key: str, unit: str | None, units: Units) -> str:
    value = getattr(setup, key)
    if value is None:
        return NOT_RECORDED
    if unit is not None:
        return units[unit].with_unit(value)
    return {True: "yes", False: "no"}.get(value, str(value))


def _date_of(findings: Findings, run: ReducedRun) -> str:
    return next((r.date[:10] for r in findings.job.runs() if r.id == run.run_id and r.date), NOT_RECORDED)
