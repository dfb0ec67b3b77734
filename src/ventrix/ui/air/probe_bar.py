"""Leads from point to point of a traverse, and keeps what the probe reads there: by key, by pedal, typed or pasted."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any, Final

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QApplication, QHBoxLayout, QLabel, QLineEdit, QWidget

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.procedure.probe_procedure import ProbeProcedure
from ventrix.core.air.layouts import Place, layout_named
from ventrix.core.air.sections import places_on, size_of
from ventrix.core.air.traverse import AirThere, air_of, point_speed
from ventrix.core.edits.traverses import edit_traverse
from ventrix.core.metal.unrolled import unroll
from ventrix.core.model.bench_kinds import TraverseKind
from ventrix.core.model.kinds import Direction
from ventrix.core.model.traverse import ProbePoint, Traverse
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity, tidy
from ventrix.core.quantity.words import sentence
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr
from ventrix.workspace.ids import new_id

MOST_SPEED: Final = 340.0  # m/s, about the speed of sound: no port's air goes faster on a bench


class ProbeBar(QWidget):
    """Which point is wanted, the live reading, and the field to type it."""

    moved = Signal()

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self.open_book = open_book
        self.leading: str | None = None
        self.procedure = ProbeProcedure()
        self._hand = ""
        self.entry = QLineEdit()
        self.entry.setAccessibleName(tr("Reading at this point"))
        self.entry.setFixedWidth(130)
        self.entry.returnPressed.connect(self.keep_typed)
        self.lead = QLabel()
        self.lead.setStyleSheet("font-size: 20px; font-weight: 600")
        self.problem = QLabel()
        self.problem.setObjectName("error")
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.addWidget(self.lead, 1)
        row.addWidget(self.problem)
        row.addWidget(self.entry)
        open_book.bench.sampled.connect(self._sampled)

    def traverse(self) -> Traverse | None:
        """The traverse that is being read."""
        space = self.open_book.workspace
        cut = space.real_cut if space is not None else None
        return next((t for t in cut.traverses if t.id == self.leading), None) if cut is not None else None

    def _pressure_of(self, traverse: Traverse) -> float:
        space = self.open_book.workspace
        if space is None or traverse.setup_id is None:
            return parse_quantity("28", "inH2O")
        return space.job.setup(traverse.setup_id).test_pressure or parse_quantity("28", "inH2O")

    def _air(self, traverse: Traverse) -> AirThere:
        space = self.open_book.workspace
        return AirThere() if space is None else air_of(space.job, traverse)

    def lead_on(self, traverse_id: str | None) -> None:
        """Read this traverse: stand on its first open point. None ends the reading."""
        self.leading = traverse_id
        self.problem.clear()
        self._stand_on_open()
        self.moved.emit()

    def _places(self, traverse: Traverse) -> tuple[Place, ...]:
        """The layout's points where they lie on the station's own section."""
        space, layout = self.open_book.workspace, layout_named(traverse.layout)
        if space is None or space.port is None or space.real_cut is None or layout is None:
            return ()
        here = unroll(space.port, space.real_cut, space.job.valve_of(space.port, space.real_cut))
        return places_on(layout, size_of(here, traverse.station))

    def _stand_on_open(self) -> None:
        traverse = self.traverse()
        if traverse is None:
            return
        self.procedure = ProbeProcedure([p.name for p in self._places(traverse)], traverse.kind == TraverseKind.BALL)
        self.procedure.stand_on_open(p.name for p in traverse.points if p.struck is None)
        self._hold()

    def stand_on(self, name: str) -> None:
        """Stand on a point by its name."""
        if self.traverse() is not None and self.procedure.stand_on(name):
            self._hold()
            self.moved.emit()

    def wanted(self) -> str:
        """Name of the point stood on."""
        return self.procedure.wanted if self.traverse() is not None else ""

    def _hold(self) -> None:
        """Hold the simulated probe or ball at the point stood on, the valve open and the blower on."""
        space, bench = self.open_book.workspace, self.open_book.bench
        traverse = self.traverse()
        if space is None or traverse is None or not bench.is_simulated:
            return
        places = self._places(traverse)
        if self.procedure.at >= len(places):
            bench.send(lambda b: b.hold(None, what=traverse.kind))
            return
        place, lift = places[self.procedure.at], traverse.lift or 0.0
        station = "seat" if traverse.station == "exit" else traverse.station
        pressure = self._pressure_of(traverse)
        if self._hand != traverse.id:
            self._hand = traverse.id
            kind, number = (
                (space.port.kind, space.real_cut.number) if space.port and space.real_cut else (Direction.INTAKE, 0)
            )
            bench.send(lambda b: b.fit(kind, number))
            bench.send(lambda b: b.set_pressure(pressure))
            bench.send(lambda b: b.set_lift(lift))
        bench.send(lambda b: b.hold(station, place.u, place.v, what=traverse.kind))

    def _sampled(self, samples: list[Sample]) -> None:
        if self.leading is None or not self.isVisible():
            return
        self.procedure.feed(samples)
        self.show_lead()

    def show_lead(self) -> None:
        """Say which point is wanted, and what the probe reads there."""
        traverse = self.traverse()
        if traverse is None:
            self.lead.clear()
            return
        units = self.open_book.units
        if not self.procedure.wanted:
            self.lead.setText(tr("every point is read"))
            return
        value = self.procedure.live() if self.open_book.bench.connected else None
        shown = ""
        if value is not None and traverse.kind == TraverseKind.BALL:
            shown = f": {units.flow.with_unit(value)}"
        elif value is not None and traverse.kind == TraverseKind.TOTAL_HEAD:
            shown = tr(": {} under the room's", units.pressure.with_unit(value))
        elif value is not None:
            there = ProbePoint(id="", name="", reading=max(value, 0.0))
            speed = point_speed(there, traverse.coefficient or 1.0, self._air(traverse))
            told = "–" if speed is None else units.speed.with_unit(float(speed.reference))
            shown = f": {units.pressure.with_unit(value)}, {told}"
        self.lead.setText(f"{self.procedure.wanted}{shown}")

    def keep_live(self) -> None:
        """Keep what the probe reads at this point."""
        traverse = self.traverse()
        if traverse is None:
            return
        try:
            value = self.procedure.kept()
        except Refused as error:
            self.problem.setText(str(error))
            return
        self._keep(traverse, **({"flow": value} if traverse.kind == TraverseKind.BALL else {"reading": value}))

    def keep_typed(self) -> None:
        """Keep a figure typed: a pressure, or a speed by its unit; with a ball, the flow."""
        traverse = self.traverse()
        text = self.entry.text().strip()
        if traverse is None or not text:
            return
        try:
            values = self._parse(text, traverse)
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        self.entry.clear()
        self._keep(traverse, **values)

    def _parse(self, text: str, traverse: Traverse) -> dict[str, Any]:
        units = self.open_book.units
        main, _, rest = text.partition("/") if not re.search(r"/s\s*$", text) else (text, "", "")
        total = traverse.kind == TraverseKind.TOTAL_HEAD
        if traverse.kind == TraverseKind.BALL:
            value, key = parse_quantity(text, units.flow.unit), "flow"
        elif total:
            value, key = parse_quantity(text, units.pressure.unit), "reading"
        elif re.search(r"(ft|m)/s\s*$", text):
            value, key = parse_quantity(text, units.speed.unit), "speed"
        else:
            value, key = parse_quantity(main, units.pressure.unit), "reading"
        if value < 0:
            raise Refused("the figure cannot be negative")
        figures: dict[str, Any] = {key: value}
        if total:
            most = self._pressure_of(traverse)
            if value >= most:
                raise Refused("more than the test pressure of {} cannot be lost", units.pressure.with_unit(most))
            return figures
        if key == "reading" and rest.strip():
            figures["static"] = parse_quantity(rest, units.pressure.unit)
        if key == "speed" and value > MOST_SPEED:
            raise Refused("that is faster than sound")
        if key == "reading":  # sonic: its sentence
            point_speed(ProbePoint(id="", name="", **figures), traverse.coefficient or 1.0, self._air(traverse))
        return figures

    def _keep(self, traverse: Traverse, **values: float) -> None:
        self._keep_all(traverse, {self.procedure.wanted: values}, tr("probe {}", self.procedure.wanted))

    def _keep_all(self, traverse: Traverse, figures: dict[str, dict[str, float]], act: str) -> None:
        """Keep figures at their points, in one edit; what was read there before is struck."""
        space = self.open_book.workspace
        places = {p.name: p for p in self._places(traverse)}
        if space is None or space.real_cut is None or not all(name in places for name in figures):
            return
        had = tuple(replace(p, struck=p.struck or "read again") if p.name in figures else p for p in traverse.points)
        new = []
        for name, values in figures.items():
            kept: dict[str, Any] = {key: tidy(value) for key, value in values.items()}
            new.append(ProbePoint(id=new_id(), name=name, u=tidy(places[name].u), v=tidy(places[name].v), **kept))
        job = edit_traverse(space.job, space.real_cut.id, traverse.id, lambda t: replace(t, points=(*had, *new)))
        self.problem.clear()
        space.apply(act, job)
        self._stand_on_open()
        self.moved.emit()

    def strike(self) -> None:
        """Strike the last point that counts; it stays, and is asked for again."""
        space = self.open_book.workspace
        traverse = self.traverse()
        if space is None or space.real_cut is None or traverse is None:
            return
        counted = [p for p in traverse.points if p.struck is None]
        if not counted:
            return
        last = counted[-1]
        points = tuple(replace(p, struck="struck at the bench") if p.id == last.id else p for p in traverse.points)
        job = edit_traverse(space.job, space.real_cut.id, traverse.id, lambda t: replace(t, points=points))
        space.apply(tr("strike {}", last.name), job)
        self.stand_on(last.name)

    def paste(self) -> None:
        """Points from a spreadsheet, name and reading a line, or readings alone in the layout's order: all of them or,
        with a sentence, none."""
        traverse = self.traverse()
        if traverse is None:
            self.open_book.say(tr("Begin a traverse first (N)."))
            return
        rows = [line.split("\t") for line in QApplication.clipboard().text().splitlines() if line.strip()]
        names = self.procedure.names
        figures: dict[str, dict[str, float]] = {}
        for number, cells in enumerate(rows, 1):
            name = cells[0].strip() if len(cells) > 1 else (names[number - 1] if number <= len(names) else "")
            if name not in names:
                self.problem.setText(tr("Row {}: '{}' is not a point of this layout.", number, name))
                return
            try:
                figures[name] = self._parse(cells[-1].strip(), traverse)
            except Refused as error:
                self.problem.setText(tr("Row {}: {}.", number, error))
                return
        if figures:
            self._keep_all(traverse, figures, tr("{} points pasted", len(figures)))
