"""What Flow's control is at, as the far view and the list of readings show it."""

from __future__ import annotations

from dataclasses import replace

from ventrix.core.model.bench_kinds import ElementKind
from ventrix.core.model.run import Reading
from ventrix.rooms.flow.pictures import FarPicture
from ventrix.rooms.flow.shows import far_view, step_view
from ventrix.ui.flow.control import FlowControl


def far_picture(control: FlowControl) -> FarPicture:
    """The step or the lift in hand; over it what was just kept, looks odd or was refused."""
    units, connected = control.open_book.units, control.open_book.bench.connected
    view = (step_view if control.steps.on else far_view)(control.hand, connected, units)
    if not control.ground.kind:
        return view
    view = replace(view, ground=control.ground.kind, phase=control.ground.words, sentence="")
    if control.ground.step_kept is not None:  # one figure on the screen: the step's that was taken
        figure, unit = control.ground.step_kept
        view = replace(view, flow=figure, flow_unit=unit, tape=None, steady=None, spread="")
        return replace(view, lift="", lift_caption="", next_lift="", difference="", difference_words="")
    if control.ground.kept is not None and not connected:
        lift, flow = control.ground.kept  # typed: the ladder has moved on, the screen stays with what was kept
        return replace(view, lift=lift, flow=flow, next_lift=f"next {view.lift}" if view.lift else "")
    return view


def reading_text(control: FlowControl, reading: Reading) -> str:
    """One reading's figure as the flow, or index, it means; a dash where the element gave none."""
    kind = control.hand.element.kind
    figure = {
        ElementKind.PERCENT: reading.percent,
        ElementKind.ORIFICE: reading.element_pressure,
        ElementKind.MASS: reading.mass_flow,
        ElementKind.COLUMNS: reading.element_column,
        ElementKind.COLUMN: reading.port_column,
    }.get(kind, reading.flow)
    at = reading.port_column if kind == ElementKind.COLUMNS else reading.measured_pressure
    return "–" if figure is None else control.flow_text(figure, at)
