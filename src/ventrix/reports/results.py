"""Results of `reduce` and `compare` as JSON documents (a contract) and as plain text tables."""

from __future__ import annotations

import math
from dataclasses import fields
from itertools import pairwise
from typing import Any, Final

from ventrix.core.judging.comparison import RunComparison
from ventrix.core.judging.findings import Findings, Pair
from ventrix.core.judging.targets import JudgedTarget, judged_targets
from ventrix.core.judging.verdict import Verdict
from ventrix.core.metal.between import metal_between
from ventrix.core.metal.walls import wall_sentence, walls_at
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.job import Job
from ventrix.core.model.run import SetUp
from ventrix.core.quantity.units import from_si
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.words import tr

_CONDITION_UNITS = {"test_pressure": "inH2O", "leak_pressure": "inH2O"}


def key_with_unit(name: str, symbol: str) -> str:
    """A document key that ends in its unit: ``bore_mm``, ``energy_density_J_m3``."""
    plain = {"%": "percent", "-": ""}.get(symbol, symbol.replace("/", "_").replace(".", "_"))
    return f"{name}_{plain}" if plain else name


def _number(value: float) -> float | None:
    return None if not math.isfinite(value) else float(value)


def conditions_document(setup: SetUp) -> dict[str, Any]:
    """The conditions of a run; every dimensional key ends in its unit, null where not recorded."""
    found: dict[str, Any] = {}
    for each in fields(setup):
        if each.name in ("id", "extra"):
            continue
        value = getattr(setup, each.name)
        symbol = _CONDITION_UNITS.get(each.name, each.metadata.get("unit"))
        if symbol is None:
            found[each.name] = value
        else:
            found[key_with_unit(each.name, symbol)] = None if value is None else round(from_si(value, symbol), 9)
    return found


def _flow_key(kind: FlowKind) -> str:
    return "flow_cfm" if kind == "flow" else "index"


def _flow(value: float, kind: FlowKind) -> float:
    return from_si(float(value), "cfm") if kind == "flow" else float(value)


def reduced_document(run: ReducedRun) -> dict[str, Any]:
    """JSON of a reduced run. Figures whose inputs are missing are null."""
    kind, d = run.kind, run.derived
    points = [
        {
            "lift_mm": from_si(float(run.lift[i]), "mm"),
            _flow_key(kind): _flow(run.flow[i], kind),
            "u_cfm" if kind == FlowKind.FLOW else "u_index": _flow(run.uncertainty[i], kind),
            "lift_ratio": _number(d.lift_ratio[i]),
            "cd_curtain": _number(d.cd_curtain[i]),
            "cd_valve": _number(d.cd_valve[i]),
            "cd_least": _number(d.cd_least[i]),
            "mean_velocity_ft_s": _number(from_si(float(d.mean_velocity[i]), "ft/s")),
            "energy_density_J_m3": _number(d.energy_density[i]),
        }
        for i in range(len(run.lift))
    ]
    peak = points[run.peak]
    return {
        "conditions": conditions_document(run.setup) | {"mount": run.mount},
        "points": points,
        "peak": {key: peak[key] for key in ("lift_mm", _flow_key(kind))},
        "stall_lift_mm": None if run.stall is None else from_si(float(run.lift[run.stall]), "mm"),
        "flags": list(run.notes),
    }


def comparison_document(c: RunComparison, verdict: Verdict) -> dict[str, Any]:
    """JSON of a comparison and its verdict."""
    kind = c.kind
    suffix = "cfm" if kind == FlowKind.FLOW else "index"

    def shown(value: float | None) -> float | None:
        return None if value is None else _flow(value, kind)

    return {
        "comparable": c.comparability.level,
        "basis": "claim" if c.claimed else "house" if any(r.house for r in c.before_runs) else "bench",
        "differences": [
            {"key": d.key, "before": d.before, "after": d.after, "sentence": d.sentence}
            for d in c.comparability.differences
        ],
        "points": [
            {
                "lift_mm": from_si(float(c.lift[i]), "mm"),
                f"before_{suffix}": _flow(c.before[i], kind),
                f"after_{suffix}": _flow(c.after[i], kind),
                f"difference_{suffix}": _flow(c.change[i], kind),
                f"expanded_uncertainty_{suffix}": _flow(c.expanded[i], kind),
                "result": c.results[i],
                "interpolated": bool(c.interpolated[i]),
            }
            for i in range(len(c.lift))
        ],
        "summary": {
            f"weighted_difference_{suffix}": shown(verdict.weighted),
            f"expanded_uncertainty_{suffix}": shown(verdict.expanded),
            f"worthwhile_{suffix}": shown(verdict.worthwhile),
            "further_mounts": verdict.further_mounts,
            "further_mounts_sure": verdict.further_mounts_sure,
            "holds_to_percent": None if verdict.holds_to is None else 100 * verdict.holds_to,
            "result": verdict.result,
            "kind": verdict.kind,
            "school": verdict.school,
        },
        "verdict": f"{verdict.headline} {verdict.sentence}",
        "flags": [*c.notes, *verdict.warnings, *verdict.dissent],
    }


def job_pairs(findings: Findings) -> list[Pair]:
    """Every flowed cut of every port against the flowed one before it, and the last against the first."""
    found = []
    for port in findings.job.ports:
        flowed = [c for c in port.cuts if findings.runs_of(c, port) or findings.problem(c)]
        steps = list(pairwise(flowed))
        if len(flowed) > 2:
            steps.append((flowed[0], flowed[-1]))
        found += [findings.pair(port, before, after) for before, after in steps]
    return found


def unflowed_pairs(findings: Findings) -> list[Pair]:
    """Every cut against the one before it, of the ports that nobody flowed."""
    ports = [p for p in findings.job.ports if not any(findings.runs_of(c, p) or findings.problem(c) for c in p.cuts)]
    return [findings.pair(port, before, after) for port in ports for before, after in pairwise(port.cuts)]


METAL_UNITS: Final = {"length": "mm", "area": "cm2", "volume": "cc", "duration": "min"}


def metal_document(findings: Findings, pair: Pair) -> list[dict[str, Any]]:
    """JSON of what happened to the metal between two cuts."""
    changes = metal_between(findings.job, pair.port, pair.before, pair.after)
    return [
        {
            "name": c.name,
            "unit": METAL_UNITS[c.kind],
            "before": None if c.before is None else from_si(c.before, METAL_UNITS[c.kind]),
            "after": None if c.after is None else from_si(c.after, METAL_UNITS[c.kind]),
        }
        for c in changes
    ]


def pair_document(findings: Findings, pair: Pair) -> dict[str, Any]:
    """JSON of two cuts of a job held against each other."""
    whose = {
        "port": pair.port.name,
        "before": pair.before.number,
        "after": pair.after.number,
        "before_name": pair.before.name,
        "after_name": pair.after.name,
    }
    verdict = findings.verdict(pair)
    if pair.comparison is None or verdict is None:
        nothing: dict[str, Any] = {"comparable": "unknown", "basis": "bench", "differences": [], "points": []}
        nothing |= {"summary": None, "target": []}
        return whose | nothing | {"verdict": pair.missing, "flags": [], "metal": metal_document(findings, pair)}
    targets = judged_targets(pair.after_runs[-1], findings.job, pair.port.kind)
    return whose | comparison_document(pair.comparison, verdict) | {"target": [_target(each) for each in targets]}


def _target(judged: JudgedTarget) -> dict[str, Any]:
    return {
        "lift_mm": from_si(judged.target.lift, "mm"),
        "kind": judged.target.kind,
        "state": judged.state.value,
        "short_cfm": from_si(max(-judged.over, 0.0), "cfm"),
        "mounts": judged.mounts,
    }


def pair_text(findings: Findings, pair: Pair) -> str:
    """Two cuts of a job in one line."""
    verdict = findings.verdict(pair)
    said = pair.missing if verdict is None else f"{verdict.headline} {verdict.sentence}"
    return tr("{}, cut {} to {}: {}", pair.port.name, pair.before.number, pair.after.number, said)


def text_table(header: list[str], rows: list[list[str]]) -> str:
    """Columns set right under their headings."""
    widths = [max(len(r[i]) for r in [header, *rows]) for i in range(len(header))]
    return "\n".join("  ".join(cell.rjust(w) for cell, w in zip(r, widths, strict=True)) for r in [header, *rows])


def _cell(value: float | None, digits: int) -> str:
    return "-" if value is None else f"{value:.{digits}f}"


def reduced_text(run: ReducedRun, lift_unit: str) -> str:
    """A reduced run as text."""
    document = reduced_document(run)
    kind = run.kind
    digits = 1 if kind == FlowKind.FLOW else 4
    header = [
        tr("lift {}", lift_unit),
        "CFM" if kind == FlowKind.FLOW else "index",
        "u",
        "L/D",
        tr("Cd curtain"),
        tr("Cd valve"),
    ]
    header += [tr("Cd least"), "ft/s", "J/m3"]
    rows = [
        [
            _cell(from_si(float(run.lift[i]), lift_unit), 3 if lift_unit == "in" else 2),
            _cell(p[_flow_key(kind)], digits),
            _cell(p["u_cfm" if kind == FlowKind.FLOW else "u_index"], digits + 1),
            *(_cell(p[key], 3) for key in ("lift_ratio", "cd_curtain", "cd_valve", "cd_least")),
            _cell(p["mean_velocity_ft_s"], 0),
            _cell(p["energy_density_J_m3"], 0),
        ]
        for i, p in enumerate(document["points"])
    ]
    said = [tr("note: {}", flag) for flag in document["flags"]]
    return "\n".join([text_table(header, rows), *said])


def comparison_text(c: RunComparison, verdict: Verdict, lift_unit: str) -> str:
    """A comparison as text."""
    name = "CFM" if c.kind == FlowKind.FLOW else "index"
    digits = 1 if c.kind == FlowKind.FLOW else 4
    rows = [
        [
            f"{from_si(float(c.lift[i]), lift_unit):.{3 if lift_unit == 'in' else 2}f}",
            *(f"{_flow(v, c.kind):.{digits}f}" for v in (c.before[i], c.after[i])),
            f"{_flow(c.change[i], c.kind):+z.{digits}f}",
            f"{_flow(c.expanded_together[i], c.kind):.{digits}f}",
            c.marks[i] + (" (interpolated)" if c.interpolated[i] else ""),
        ]
        for i in range(len(c.lift))
    ]
    header = [tr("lift {}", lift_unit), tr("before {}", name), tr("after {}", name), "difference", "±", "result"]
    said = [tr("note: {}", n) for n in (*c.notes, *verdict.warnings)]
    return "\n".join(
        [c.comparability.sentence, text_table(header, rows), *said, f"{verdict.headline} {verdict.sentence}"]
    )


def walls_document(job: Job, port_name: str | None = None) -> list[dict[str, Any]]:
    """Every wall reading of a job, or of one port by its name, with what its last cut leaves: thinnest first."""
    rows = []
    for port in job.ports:
        if not port.cuts or (port_name is not None and port.name.lower() != port_name.lower()):
            continue
        for wall in walls_at(job, port, port.cuts[-1]):
            rows.append(
                {
                    "port": port.name,
                    "place": wall.reading.place,
                    "side": wall.reading.band,
                    "read_mm": _millimetres(wall.reading.thickness),
                    "taken_mm": _millimetres(wall.taken_since + wall.taken_behind),
                    "left_mm": None if wall.unknown else _millimetres(max(wall.left, 0.0)),
                    "limit_mm": _millimetres(wall.limit),
                    "sentence": wall_sentence(job, wall, "mm"),
                }
            )
    return rows


def _millimetres(value: float) -> float:
    return round(from_si(value, "mm"), 4)
