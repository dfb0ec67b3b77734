"""What was done, how long it took, and every port of the job in a line."""

from __future__ import annotations

from typing import Final

from ventrix.core.judging.expectation import time_worked
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.like_sizes import flow_of_run
from ventrix.core.metal.walls import walls_at
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port, poured_volume
from ventrix.reports.sheet.contents import (
    Mark,
)
from ventrix.rooms.cuts.card import operation_lines
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.gain_words import doubt_text, gain_text
from ventrix.words import tr

MOST_DONE: Final = 36  # lines of work on a sheet; what goes beyond is counted


def cut_words(cut: Cut) -> str:
    """A cut by its number and name."""
    return tr("cut {}", cut.number) + (f", {cut.name}" if cut.name else "")


def done_lines(port: Port, before: Cut, after: Cut, units: Units, *, own: bool) -> tuple[str, ...]:
    """What was done to the metal between the two, a line an operation; for the shop with minutes and its own notes."""
    low, high = sorted((before.number, after.number))
    lines = []
    for cut in (c for c in port.cuts if low < c.number <= high):
        worked = operation_lines(cut, units)
        for line in worked:
            said = f"{line.caption}: {line.text}" if line.text else line.caption
            lines.append(said + (f", {line.result}" if own and line.result else ""))
        if not worked:
            lines.append(cut.name or tr("cut {}, not described", cut.number))
        if own and cut.note:
            lines.append(tr("cut {}, note: {}", cut.number, cut.note))
    more = len(lines) - MOST_DONE
    return (*lines[:MOST_DONE], *((tr("and {} operations more", more),) if more > 0 else ()))


def hours_rows(port: Port, before: Cut, after: Cut, units: Units) -> tuple[tuple[str, str], ...]:
    low, high = sorted((before.number, after.number))
    rows, total = [], 0.0
    for cut in (c for c in port.cuts if low < c.number <= high):
        time = time_worked(cut)
        total += time or 0.0
        rows.append((cut_words(cut), units.duration.with_unit(time) if time is not None else tr("not noted")))
    return (*rows, ("together", units.duration.with_unit(total))) if rows else ()


def ports_head(units: Units, lift: float | None) -> tuple[str, ...]:
    at = tr("{} at {}", units.flow.label, units.lift.text(lift)) if lift is not None else units.flow.label
    return ("port", "state", "cc", at, "gain", tr("thinnest wall"))


def ports_rows(findings: Findings, units: Units, lift: float | None) -> tuple[tuple[str, ...], ...]:
    """Every port in a line: its last flowed state, volume, flow, what it gained, and its thinnest wall."""
    rows = []
    for port in findings.job.ports:
        if not port.cuts:
            continue
        flowed = [c for c in port.cuts if findings.runs_of(c, port)]
        cut = flowed[-1] if flowed else port.cuts[-1]
        flow = "not flowed"
        if flowed and lift is not None:
            run = findings.runs_of(cut, port)[-1]
            pressure = findings.job.test_pressure or run.test_pressure
            shown = run.at_pressure(pressure)
            value = flow_of_run(shown, lift)
            sign = Mark.CONVERTED.sign if shown.converted else ""
            flow = f"{units.flow.text(value)}{sign}" if run.kind == FlowKind.FLOW else "index"
        stands = _flowed_for(findings, port)
        if not flowed and stands:
            flow = tr("like {}{}", stands[0], Mark.NOT_FLOWED.sign)
        gain = findings.gain(findings.pair(port, flowed[0], cut)) if len(flowed) > 1 else None
        walls = walls_at(findings.job, port, cut)
        known = next((w for w in walls if not w.unknown), None)
        rows.append(
            (
                port.name + (tr(", witness") if port.witness else ""),
                cut_words(cut),
                units.volume.text(poured_volume(cut)) if poured_volume(cut) is not None else "–",
                flow,
                (gain_text(gain, units) + (f" ± {doubt_text(gain, units)}" if gain and gain.comparable else ""))
                if gain is not None
                else "–",
                units.length.text(max(known.left, 0.0)) if known is not None else tr("not read"),
            )
        )
    return tuple(rows)


def _flowed_for(findings: Findings, port: Port) -> list[str]:
    """Names of ports whose test is taken to speak for this one."""
    ports = findings.job.ports
    return [p.name for p in ports for c in p.cuts for r in c.runs if port.id in r.stands_for_port_ids]
