"""A head's ports side by side as a JSON document (a contract) and as text."""

from __future__ import annotations

from datetime import date
from typing import Any

from ventrix.core.judging.findings import Findings
from ventrix.core.judging.model_port import developed_port
from ventrix.core.matching.alike import Alike, Spread, ports_alike, spreads, worth_flowing
from ventrix.core.matching.copying import Copy, copies
from ventrix.core.matching.core_shift import NO_CLEARANCE, core_shift, hands, zone_walls
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.units import from_si
from ventrix.core.work.hours import hours_of
from ventrix.core.work.record import Record, record_of
from ventrix.words import tr

KINDS = tuple(Direction)


def figure_name(lift: float | None) -> str:
    """A figure as documents name it: flow at a lift, or the volume."""
    return "volume" if lift is None else tr("flow at {:.2f} mm", from_si(lift, "mm"))


def match_document(findings: Findings, today: date) -> dict[str, Any]:
    """JSON of a job's ports, what differs, hours, and what may be copied. Hours in h, flow in CFM by lift in mm."""
    job = findings.job
    alike = [a for kind in KINDS for a in ports_alike(findings, kind)]
    record = record_of(findings)
    hours = hours_of(record, today)
    return {
        "ports": [_port(a, record) for a in alike],
        "spread": {kind: [_spread(s) for s in spreads(ports_alike(findings, kind))] for kind in KINDS},
        "hours": {
            "used": from_si(hours.used, "h"),
            "low": from_si(hours.low, "h"),
            "likely": from_si(hours.likely, "h"),
            "high": from_si(hours.high, "h"),
            "beyond_quote": from_si(hours.beyond_quote, "h"),
            "quoted": None if job.quoted is None else from_si(job.quoted, "h"),
            "promise": job.promise_date,
            "promise_holds": hours.holds,
        },
        "copy": [_copy(c) for kind in KINDS for c in _copies(findings, kind)],
        "worth_flowing": [p.name for kind in KINDS for p in worth_flowing(ports_alike(findings, kind))],
        "walls": [w for kind in KINDS for w in _walls(findings, kind)],
    }


def _port(a: Alike, record: Record) -> dict[str, Any]:
    return {
        "name": a.port.name,
        "kind": a.port.kind,
        "cut": a.cut.number,
        "developed": a.developed,
        "mirrored": a.mirrored,
        "behind": a.behind,
        "held_to_cut": None if a.state is None else a.state.number,
        "volume_cc": None if a.volume is None else from_si(a.volume, "cc"),
        "flow_cfm": {f"{from_si(x, 'mm'):.2f}": from_si(q, "cfm") for x, q in a.flow.items()},
        "thinnest_mm": None if a.thinnest is None else from_si(a.thinnest.left, "mm"),
        "thinnest_at": None if a.thinnest is None else a.thinnest.reading.place,
        "thin": a.thin,
        "in_row": a.in_row,
        "not_known": a.not_known,
        "differs": [figure_name(d.lift) for d in a.differs],
        "differences": [
            {
                "figure": figure_name(d.lift),
                "value": from_si(d.value, "cc") if d.lift is None else 100 * d.value,
                "expanded": from_si(d.expanded, "cc") if d.lift is None else 100 * d.expanded,
                "tolerance": from_si(d.tolerance, "cc") if d.lift is None else 100 * d.tolerance,
                "unit": "cc" if d.lift is None else "%",
                "proven": d.proven,
            }
            for d in a.differences
        ],
        "stages": {stage.key: record.at(stage.key, a.port).state.value for stage in record.stages},
    }


def _spread(s: Spread) -> dict[str, Any]:
    unit = "cc" if s.lift is None else "cfm"
    values = {key: from_si(getattr(s, key), unit) for key in ("mean", "spread", "low", "high")}
    return {"figure": figure_name(s.lift), "unit": unit, "count": s.count, **values}


def _copies(findings: Findings, kind: Direction) -> list[Copy]:
    model = developed_port(findings, kind)
    if model is None:
        return []
    ports = [p for p in findings.job.ports if p.of_head and p.kind == kind and p is not model]
    return [c for p in ports for c in copies(findings.job, model, model.cuts[-1], p)]


def _copy(c: Copy) -> dict[str, Any]:
    return {
        "port": c.port.name,
        "place": c.place,
        "side": c.side,
        "depth_mm": None if c.depth is None else from_si(c.depth, "mm"),
        "answer": c.answer.value,
        "sentence": c.sentence,
    }


def _walls(findings: Findings, kind: Direction) -> list[dict[str, Any]]:
    found = []
    for (_, mirrored), ports in hands(findings.job, kind).items():
        for wall in zone_walls(ports):
            found.append(
                {
                    "kind": kind,
                    "mirrored": mirrored,
                    "place": wall.place,
                    "side": wall.band,
                    "count": wall.count,
                    "mean_mm": from_si(wall.mean, "mm"),
                    "spread_mm": from_si(wall.spread, "mm"),
                    "least_mm": from_si(wall.least, "mm"),
                    "bound_mm": None if wall.bound is None else from_si(wall.bound, "mm"),
                    "sentence": NO_CLEARANCE,
                }
            )
        for shift in core_shift(ports):
            if shift.right is not None or shift.up is not None:
                found.append(
                    {
                        "kind": kind,
                        "port": shift.port.name,
                        "shift_right_mm": None if shift.right is None else from_si(shift.right, "mm"),
                        "shift_up_mm": None if shift.up is None else from_si(shift.up, "mm"),
                        "uncertainty_mm": from_si(shift.uncertainty, "mm"),
                    }
                )
    return found


def match_text(document: dict[str, Any]) -> str:
    """The document in lines."""
    rows = [tr("port          cc      thinnest mm   differs")]
    for p in document["ports"]:
        cc = "     –" if p["volume_cc"] is None else f"{p['volume_cc']:6.1f}"
        wall = "   –" if p["thinnest_mm"] is None else f"{p['thinnest_mm']:.2f}" + (" thin" if p["thin"] else "")
        odd = f"{tr('odd in its row: ') if p['in_row'] else ''}{', '.join(p['differs'])}" if p["differs"] else ""
        not_known = tr("not known: {}", p["not_known"]) if p["not_known"] else "alike"
        said = "developed" if p["developed"] else odd or not_known
        rows.append(f"{p['name']:12} {cc}   {wall:10}   {said}" + (" (behind)" if p["behind"] else ""))
    h = document["hours"]
    rows.append(tr("{:.1f} h used, {:.0f} to {:.0f} h to go.", h["used"], h["low"], h["high"]))
    if h["promise_holds"] is not None:
        rows.append(tr("Chance of meeting {}: {:.0f} %.", h["promise"][:10], 100 * h["promise_holds"]))
    for c in document["copy"]:
        rows.append(f"{c['port']}, {c['place']}: {c['sentence']}")
    if document["worth_flowing"]:
        rows.append(tr("Worth a flow test: {}.", ", ".join(document["worth_flowing"])))
    return "\n".join(rows)
