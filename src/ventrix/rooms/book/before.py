"""What did that size flow before: cuts of the whole book nearest in size to one, with their curves behind it."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from ventrix.core.judging.job_summary import CutSummary
from ventrix.core.judging.like_sizes import FEWEST, flow_at, middle_half
from ventrix.core.quantity.units import from_si, from_si_array
from ventrix.records.book.index import Neighbour
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.plot_values import Line, Picture
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class BeforeRow:
    """A cut of the list: whose, its sizes, its flow, and why it is not counted."""

    job_id: str
    name: str
    sizes: str
    flow: str
    left_out: str


@dataclass(frozen=True, slots=True)
class Before:
    """The panel: one figure, what it is of, the picture, the rows, and who was left out."""

    figure: str
    beside: str
    rows: tuple[BeforeRow, ...]
    left_out: str
    picture: Picture
    caption: str


def before_of(
    of: CutSummary,
    title: str,
    neighbours: Sequence[Neighbour],
    lift: float,
    units: Units,
    came_from: CutSummary | None = None,
    *,
    show_left_out: bool = False,
) -> Before:
    """What cuts of the size of `of` flowed at a lift [m]. `came_from` is the cut looked at in the open job."""
    counted = [n for n in neighbours if not n.left_out]
    others = [n for n in neighbours if n.left_out]
    middle = middle_half([n.cut for n in counted], lift)
    at = units.lift.text(lift)
    if middle is not None:
        figure = tr("{} to {}", units.flow.text(middle.low), units.flow.text(middle.high))
        beside = tr("{} at {}\nmiddle half of {} cuts", units.flow.label, at, middle.count)
    else:
        reach = sum(flow_at(n.cut, lift) is not None for n in counted)
        figure = tr("too few")
        beside = tr("{} like it at {}: {} are needed\nfor a middle half", reach, at, FEWEST)
    shown = [*counted, *(others if show_left_out else [])]
    why = Counter(n.left_out for n in others)
    left = tr("{} left out: {}.", len(others), ", ".join(f"{w} {n}" for w, n in why.most_common())) if others else ""
    picture = _picture(of, title, shown, lift, units, came_from)
    caption = tr(
        "{} as tested against lift, {}: bold chosen, dashed your job, thin others", units.flow.label, units.lift.label
    )
    return Before(figure, beside, tuple(_row(n, lift, units) for n in shown), left, picture, caption)


def _row(n: Neighbour, lift: float, units: Units) -> BeforeRow:
    cut = n.cut
    sizes = " · ".join(
        shown.text(value)
        for value, shown in ((cut.section, units.area), (cut.throat, units.length))
        if value is not None
    )
    flow = None if cut.is_share else flow_at(cut, lift)
    return BeforeRow(
        n.job_id, tr("{}, {}, cut {}", n.title, cut.port_name, cut.number), sizes, units.flow.text(flow), n.left_out
    )


def _picture(
    of: CutSummary,
    title: str,
    shown: Sequence[Neighbour],
    lift: float,
    units: Units,
    came_from: CutSummary | None,
) -> Picture:
    lines = []

    def add(cut: CutSummary, colour: str, width: float, style: str, alpha: float, label: str = "") -> None:
        if not cut.is_share and cut.lifts:
            x = from_si_array(np.array((0.0, *cut.lifts)), units.lift.unit)
            y = from_si_array(np.array((0.0, *cut.flows)), units.flow.unit)
            lines.append(Line(x, y, colour, width, style, None, label, alpha))

    for n in shown:
        add(n.cut, "quiet", 1, "dotted" if n.left_out else "solid", 0.6)
    if came_from is not None and came_from.cut_id != of.cut_id and came_from.direction == of.direction:
        add(came_from, of.direction, 2, "dashed", 1.0)
    add(of, of.direction, 3, "solid", 1.0)
    if not lines:
        return Picture()
    right = max(float(line.x[-1]) for line in lines)
    top = max(float(line.y.max()) for line in lines)
    at = from_si(lift, units.lift.unit)
    return Picture(
        lines,
        verticals=[(at, units.lift.text(lift))] if at <= right else [],
        x_range=(0.0, right * 1.02),
        y_range=(0.0, top * 1.08),
        digits=units.lift.digits,
        value_digits=units.flow.digits,
    )
