"""Rows of several ports lined up by the names of their flowed states: the same port N times over, at a glance."""

from __future__ import annotations

from ventrix.core.edits.several_ports import stood_for_by
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Port, state_name
from ventrix.core.model.kinds import Direction
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.gain_words import doubt_text, gain_text
from ventrix.words import tr


def lined_up(findings: Findings, kind: Direction, units: Units) -> tuple[list[str], list[list[str]]]:
    """Headings and rows: a row for each state that any port of a kind was flowed in, a column for each port.

    A cell is the gain over the port's own first flowed state; "first" there; "not flowed" where the port is in that
    state and was not flowed, with the port whose test stands for it; empty where it never was.
    """
    job = findings.job
    ports = [p for p in job.ports if p.kind == kind and p.of_head]
    flowed = [(p, [c for c in p.cuts if findings.runs_of(c, p)]) for p in ports]
    states = dict.fromkeys(state_name(c).lower() for _, cuts in flowed for c in cuts)
    shown = {state_name(c).lower(): state_name(c) for p in reversed(ports) for c in reversed(p.cuts)}  # the first wins
    rows = []
    for state in states:
        cells = [shown[state]]
        for port, cuts in flowed:
            here = next((c for c in reversed(port.cuts) if state_name(c).lower() == state), None)
            cells.append("" if here is None else _cell(findings, port, here, cuts, units))
        rows.append(cells)
    return ["state", *(p.name for p in ports)], rows


def _cell(findings: Findings, port: Port, cut: Cut, flowed: list[Cut], units: Units) -> str:
    if cut not in flowed:
        stands = stood_for_by(findings.job, port, cut)
        return tr("not flowed; the test of {} is used for it", stands.name) if stands is not None else "not flowed"
    if cut.id == flowed[0].id:
        return "first"
    gain = findings.gain(findings.pair(port, flowed[0], cut))
    if gain is None or not gain.comparable:
        return gain_text(gain, units)
    return f"{gain_text(gain, units)} ± {doubt_text(gain, units)}"
