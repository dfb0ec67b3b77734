"""The book's library as rows, and whether a ready casting is worth more than the hours that reaching it would take."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ventrix.core.judging.findings import Findings
from ventrix.core.judging.job_summary import CutSummary
from ventrix.core.judging.worth_the_hours import FEWEST_CUTS, hours_for, own_pace
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.kinds import LibraryKind
from ventrix.core.model.library import LibraryItem
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, from_si_array
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.core.runs.reduction import reduce_run
from ventrix.records.bad_input import InputError, sentence_of
from ventrix.records.library.items import casting_of, claim_of, face_of, seat_of
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.plot_values import Line, Picture
from ventrix.rooms.shared.seat_profile import seat_words
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class ItemRow:
    """A line of the library."""

    item: LibraryItem
    kind: str
    name: str
    says: str
    price: str


def item_rows(items: Sequence[LibraryItem], units: Units) -> list[ItemRow]:
    """Every thing of the library in a line."""
    return [
        ItemRow(
            item,
            LibraryKind(item.kind).words,
            item.name,
            _says(item, units),
            "" if item.price is None else f"{item.price:g}",
        )
        for item in items
    ]


def _says(item: LibraryItem, units: Units) -> str:
    try:
        if item.kind == LibraryKind.SEAT:
            return f"{item.of}: {seat_words(seat_of(item), units)}"
        if item.kind == LibraryKind.OUTLINE:
            face = face_of(item)
            return tr("{}: {} openings, {} bolts", face.part, len(face.outlines), len(face.bolts))
        if item.kind == LibraryKind.CLAIM:
            run, setup = claim_of(item)
            known = [r for r in run.readings if r.flow is not None]
            top = max(known, key=lambda r: r.flow or 0.0)
            flow = tr("{} at {}", units.flow.with_unit(top.flow), units.lift.text(top.lift))
            at = f", {units.pressure.with_unit(setup.test_pressure)}" if setup.test_pressure is not None else ""
            return f"{item.of}, {item.source}: {flow}{at}"
        if item.kind == LibraryKind.CASTING:
            held = casting_of(item)
            sawn = tr(", {} sawn", len(held.sections)) if held.sections else ""
            return tr("{}: {} heads, {} walls{}", held.whose or tr("your own"), held.heads, len(held.walls), sawn)
    except Refused as error:
        return sentence_of(error) if isinstance(error, InputError) else str(error)
    return item.note


def claim_picture(item: LibraryItem, findings: Findings, port: Port, cut: Cut, units: Units) -> Picture | None:
    """A claim's curve, dotted since nobody measured it, over the last run of the cut looked at; None where it cannot be
    drawn beside it."""
    if item.kind != LibraryKind.CLAIM or item.of != port.kind:
        return None
    try:
        claimed = reduce_run(*claim_of(item))
    except Refused:
        return None
    mine = [r for r in findings.runs_of(cut, port) if r.kind == FlowKind.FLOW]
    pressure = mine[-1].test_pressure if mine else claimed.test_pressure
    lines = [_line(claimed.at_pressure(pressure), "worse", 2, "dotted", "claimed", units)]
    if mine:
        lines.append(_line(mine[-1], port.kind, 3, "solid", tr("cut {}", cut.number), units))
    right, top = (max(float(v.max()) for v in values) for values in zip(*((x.x, x.y) for x in lines), strict=True))
    return Picture(lines, x_range=(0.0, right * 1.12), y_range=(0.0, top * 1.08), digits=units.lift.digits)


def _line(run: ReducedRun, colour: str, width: float, style: str, label: str, units: Units) -> Line:
    x = from_si_array(np.r_[0.0, run.lift], units.lift.unit)
    return Line(x, from_si_array(np.r_[0.0, run.flow], units.flow.unit), colour, width, style, None, label)


def worth_the_hours(
    item: LibraryItem,
    findings: Findings,
    port: Port,
    cut: Cut,
    past: Sequence[CutSummary],
    rate: float | None,
    units: Units,
) -> tuple[str, ...]:
    """A claimed casting against the hours that reaching it would take from the cut looked at, in sentences."""
    if item.of != port.kind:
        return (tr("It is an {} port: look at an {} of your job to compare it with.", item.of, item.of),)
    try:
        run, setup = claim_of(item)
        claimed = reduce_run(run, setup)
    except Refused as error:
        return (tr("Its curve cannot be read: {}.", error),)
    pair = findings.compare_across((claimed,), port, cut)
    c = pair.comparison
    if c is None:
        return (pair.missing,)
    if c.kind != FlowKind.FLOW:
        return (tr("An uncalibrated bench has percent alone: a claim in CFM cannot be compared with it."),)
    gain = -c.weighted
    over = tr("over the cam") if c.cam is not None else tr("over the lifts")
    shown = f"{units.flow.text(abs(gain))} {units.flow.label} {over}"
    where = tr("cut {} of {}", cut.number, port.name.lower())
    claim = tr("claimed by {}, not measured here", item.source) if item.source else tr("claimed, not measured here")
    if gain <= 0:
        return (tr("It is {} below {} ({}): you are past it.", shown, where, claim),)
    said = [tr("It is {} above {} ({}).", shown, where, claim)]
    pace = own_pace(past, port.kind)
    if pace is None:
        return (
            *said,
            tr(
                "Your book has fewer than {} timed and flowed {} cuts that gained: no pace to go by.",
                FEWEST_CUTS,
                port.kind,
            ),
        )
    hours = hours_for(gain, pace)
    low, likely = hours.low / 3600, hours.likely / 3600
    span = tr("{:.0f} h or more", low) if hours.high is None else tr("{:.0f} to {:.0f} h", low, hours.high / 3600)
    per = from_si(pace.mean, units.flow.unit) * 3600
    said.append(
        tr(
            "Your {} timed cuts gained {:.1f} {} an hour: {:.0f} h at that pace, {} "
            "by the middle half. Later gains come slower than earlier ones, and some ports never get there.",
            pace.cuts,
            per,
            units.flow.label,
            likely,
            span,
        )
    )
    if rate is not None and item.price is not None:
        cost = rate * likely
        cheaper = tr("The casting costs less") if item.price < cost else tr("The hours cost less")
        said.append(tr("At {:g} an hour that is {:.0f}; the casting costs {:g}. {}.", rate, cost, item.price, cheaper))
    elif item.price is not None:
        said.append(tr("The casting costs {:g}: say what your hour costs, and the two stand side by side.", item.price))
    return tuple(said)
