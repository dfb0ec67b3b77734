"""The side sheet that logs work: a new cut, or one more operation of the cut looked at."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Final

from ventrix.core.edits.cuts import add_cut, add_operation
from ventrix.core.formulas.port import break_even_flow
from ventrix.core.judging.expectation import BY_PLAN
from ventrix.core.metal.unrolled import ZONE_NAMES
from ventrix.core.metal.walls import cut_warnings
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Operation, Port, Pour, poured_volume
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import CutKind, Direction, ExpectedAs, Place
from ventrix.core.model.port_names import ports_named
from ventrix.core.model.school_questions import own_way, side_taken
from ventrix.core.planning.moves import Move
from ventrix.core.quantity.field_checks import positive
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si
from ventrix.records.bad_input import sentence_of
from ventrix.ui.cuts.kind_boxes import KindBoxes
from ventrix.ui.cuts.work_rows import WorkRows, parse_places
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.kept_choice import choose
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text

TOOLS: Final = (
    "oval carbide burr", "tree carbide burr", "flame carbide burr", "ball carbide burr", "cylinder carbide burr",
    "mounted stone", "abrasive roll, 60 grit", "abrasive roll, 80 grit", "abrasive roll, 120 grit", "flap wheel",
    "file", "seat cutter", "epoxy",
)  # fmt: skip
DUST: Final = tr("Eye protection and respirator on: cast iron and aluminum dust, abrasive grit.")
CAUTIONS: Final = {
    CutKind.PORT: tr(
        "{} No gloves near a spinning burr: it winds them in, and the hand with them. Keep to its speed "
        "limit; a cheap brazed burr throws its head; long shanks whip near the seats. Chips are hot. "
        "Read the wall before metal comes off: water, oil or a pushrod hole may be behind it.",
        DUST,
    ),
    CutKind.VALVE: tr(
        "Valve limits, hardened or sodium-filled valves: follow the maker's data and a licensed machine shop."
    ),
    CutKind.SEAT: tr(
        "A seat cut that is sunk or too narrow is a trip to the machine shop. Hardened seats and inserts: "
        "follow the maker's data and a licensed machine shop."
    ),
    CutKind.CHAMBER: tr("{} Protect the seats with old valves; leave no sharp edge: it glows.", DUST),
    CutKind.CLEAN: tr("Solvents need ventilation; carbon dust needs a respirator; no flame near either."),
    CutKind.FINISH: tr("{} Wash every passage afterwards.", DUST),
    CutKind.FILL: tr(
        "Epoxy and weld: ventilation, skin and eyes covered. Exhausts see heat that epoxy does not stand. Whether a "
        "repair holds is for the maker's data and a licensed shop."
    ),
}
PLACE_CAUTIONS: Final[dict[str, str]] = {
    Place.FLOOR: tr("The floor is almost never worth cutting, and often has water under it."),
    Place.OPENING: tr("Keep the gasket land wide enough to seal, and leave no step facing the air."),
    Place.SEAT: tr("A slip into the seat is a new seat."),
    Place.THROAT: tr("A throat opened past the seat leaves none of it: see the largest throat in the Head room."),
    Place.GUIDE: tr("Deburr the guide afterwards; keep enough of it to hold the valve."),
}


def again(work: Operation) -> Operation:
    """The same work on another port."""
    return replace(work, id=new_id(), works=tuple(replace(w, id=new_id()) for w in work.works))


SAME_GAIN: Final = to_si(0.05, "cfm")  # the field's own rounding


class NewCutSheet(FormSheet):
    """Logs a cut of the port in hand, or an operation of the cut looked at."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Log the cut"))
        self._adding_to: str | None = None
        self._planned: Move | None = None
        self.name = self.add_text(tr("Name"), tr("what was done, in a few words"))
        self.kinds = KindBoxes()
        self.kinds.edited.connect(self.edited)
        self.column.addWidget(self.kinds)
        self.places = self.add_text(tr("Where"), tr("bowl, guide, short side"))
        self.works = WorkRows(open_book)
        self.works.edited.connect(self.edited)
        self.column.addWidget(self.works)
        self.tool = self.add_text(tr("Tool"), tr("oval carbide burr"))
        self.tool_diameter = self.add_figure(tr("Its diameter"), "length")
        self.finish_text = self.add_text(tr("Finish"), tr("60 grit"))
        self.minutes = self.add_figure(tr("Minutes of work"), "duration", positive)
        self.each = self.add_check(tr("minutes were given for each port, not shared"))
        self.volume = self.add_figure(tr("Poured volume after"), "volume", positive)
        self.others = self.add_text(tr("Done on other ports too"), tr("Intake 2, Intake 3: minutes are shared"))
        self.expected_gain = self.add_figure(tr("Predict first: gain"), "flow", None)
        self.expected_as = self.add_choice(tr("… meant"), [(e.words, e.value) for e in ExpectedAs])
        self.expected_lift = self.add_figure(tr("… at the lift"), "lift")
        self.expected_lift.hide()
        self.expected_as.currentIndexChanged.connect(
            lambda _i: self.expected_lift.setVisible(self.expected_as.currentData() == ExpectedAs.LIFT)
        )
        self.expected_growth = self.add_figure(tr("… growth of the port"), "volume", None)
        self.expected_time = self.add_figure(tr("… minutes"), "duration")
        self.finish()
        self.places.textChanged.connect(lambda _t: self._ask_depths())
        self.edited.connect(self._say_caution)
        self.edited.connect(self._warn)

    def open(
        self,
        place: str = "",
        *,
        operation: bool = False,
        planned: Move | None = None,
        is_index: bool = False,
        edge: str = "",
        depth: float = 0.0,
    ) -> None:
        """Show the sheet for a new cut of the port in hand."""
        space = self.open_book.workspace
        cut = space.real_cut if space is not None and operation else None
        self._open(None if cut is None else cut.id, place)
        if planned is not None:
            self._say_first(planned, is_index)
        if edge:
            self._plan_edge(edge, depth)

    def _say_first(self, move: Move, is_index: bool) -> None:
        """Fill in what was planned: each place's depth, and gain, growth and minutes as said first; gains of an
        uncalibrated bench are shares, which no field holds."""
        if move.passes:
            self.places.setText(", ".join(each.place for each in move.passes))
        for each in move.passes or (move,):
            for row in self.works.rows:
                if row.place == each.place and each.depth is not None:
                    row.how_deep.set_value(each.depth)
        self._planned = None if is_index else move
        self.expected_as.setCurrentIndex(0)
        self.expected_gain.set_value(None if is_index else move.gain)
        self.expected_growth.set_value(move.volume or None)
        self.expected_time.set_value(move.seconds - move.flowing)
        self.name.setText(tr("{}, as planned", move.place))
        self._warn()

    def _plan_edge(self, edge: str, depth: float) -> None:
        """An edge of the opening as planned: its side and depth."""
        for row in self.works.rows:
            choose(row.side, edge)
            row.how_deep.set_value(depth)
        self.name.setText(tr("opening, {}, to line up", edge))
        self._warn()

    def _meant(self) -> dict[str, Any]:
        """As which number the gain was meant; what the plan said, where its own figure still stands in the field."""
        move, said = self._planned, self.expected_gain.value
        meant = {"expected_as": self.expected_as.currentData()}
        if meant["expected_as"] == ExpectedAs.LIFT:
            meant["expected_lift"] = self.expected_lift.value
        if move is None or said is None or abs(said - move.gain) > SAME_GAIN:
            return meant
        return {**meant, "expected_low": move.low, "expected_high": move.high, "expected_by": BY_PLAN}

    def _open(self, adding_to: str | None, place: str) -> None:
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        self.begin_about((space.port.id, adding_to))
        self._adding_to = adding_to
        self._planned = None
        operation = adding_to is not None
        for widget in (
            self.name,
            self.kinds,
            self.volume,
            self.expected_gain,
            self.expected_as,
            self.expected_lift,
            self.expected_growth,
            self.expected_time,
        ):
            widget.setEnabled(not operation)
        cut = space.real_cut
        words = tr("Operation of cut {}", cut.number) if operation and cut is not None else tr("New cut")
        self.title.setText(f"{words}, {space.port.name.lower()}")
        self.take_button.setText(tr("Log the operation") if operation else tr("Log the cut"))
        if place in tuple(Place):
            self.places.setText(place)
        self.works.use_units()
        self._say_caution()
        self._warn()
        self.come_up()
        (self.places if operation else self.name).setFocus()

    def _places(self) -> tuple[str, ...]:
        try:
            return parse_places(self.places.text())
        except Refused:
            return ()

    def _ask_depths(self) -> None:
        """A row for every place named: each is asked its own depth."""
        places = self._places()
        if places or not self.places.text().strip():
            self.works.ask_for(places)
            self._say_caution()
            self._warn()

    def _say_caution(self) -> None:
        kinds, places = self.kinds.chosen(), self._places()
        words = [CAUTIONS[kind] for kind in kinds]
        words += [PLACE_CAUTIONS[p] for p in places if p in PLACE_CAUTIONS]
        space = self.open_book.workspace
        if space is not None and space.port is not None:
            words += own_way(space.job, space.port.kind, kinds, places)
            surface = "exhaust_surface" if space.port.kind == Direction.EXHAUST else "surface"
            self.finish_text.setPlaceholderText(side_taken(space.job, surface).words)
        self.caution.setText(" ".join(words))

    def _warn(self) -> None:
        """What the wall says about the planned depth, and what the new volume asks of the flow."""
        space = self.open_book.workspace
        if space is None or space.port is None or not space.port.cuts:
            return
        said = []
        base = self._base(space.port)
        if set(self.kinds.chosen()) & {CutKind.PORT, CutKind.FINISH, CutKind.SEAT, CutKind.CHAMBER}:
            unit = self.open_book.units.length.unit
            works = [w for w in self.works.works() if w.place in ZONE_NAMES]
            said += cut_warnings(space.job, space.port, base, works, unit)
        volume = self.volume.typed()
        if volume is not None:
            said.append(self._break_even(base, volume))
        self.warning.setText("\n".join(s for s in said if s))

    def _base(self, port: Port) -> Cut:
        """The state that is worked: the last cut, or the one before the cut an operation is added to."""
        if self._adding_to is None:
            return port.cuts[-1]
        return next(c for c in port.cuts if c.id == self._adding_to)

    def _break_even(self, base: Cut, volume: float) -> str:
        space = self.open_book.workspace
        assert space is not None and space.port is not None
        before = poured_volume(base)
        runs = space.findings.runs_of(base, space.port)
        if before is None or not runs or runs[-1].kind != FlowKind.FLOW:
            return ""
        units, peak = self.open_book.units, float(runs[-1].flow[runs[-1].peak])
        needed = float(break_even_flow(peak, before, volume))
        grown = units.volume.text(volume - before, sign=True)
        need = tr("to keep its air speed it now needs {} at peak", units.flow.with_unit(needed))
        return tr("{} cc: {}, where it had {}.", grown, need, units.flow.text(peak))

    def take(self) -> None:
        self.log()

    def log(self) -> None:
        """Put the work in the book: a cut at the end of the row, or an operation of the cut looked at."""
        space = self.open_book.workspace
        if space is None or space.port is None or not (self.settle_fields() and self.works.settle()):
            return
        name = self.name.text().strip()
        if self._adding_to is None and not name:
            self.problem.setText(tr("Give the cut a short name: what was done."))
            self.name.setFocus()
            return
        if self._meant().get("expected_lift", 0.0) is None and self.expected_gain.value is not None:
            self.problem.setText(tr("At which lift was that gain predicted?"))
            self.expected_lift.box.setFocus()
            return
        others = self._other_ports(space.job, space.port)
        if others is None:
            return
        ports = [space.port, *others]
        duration = self.minutes.value
        if duration is not None and not self.each.isChecked():
            duration /= len(ports)
        try:
            parse_places(self.places.text())
        except Refused as error:
            self.problem.setText(f"{error}.")
            self.places.setFocus()
            return
        work = Operation(
            id=new_id(),
            kind=", ".join(k.words for k in self.kinds.chosen()),
            works=tuple(self.works.works()),
            tool=self.tool.text().strip(),
            tool_diameter=self.tool_diameter.value,
            finish=self.finish_text.text().strip(),
            duration=duration,
            date=now_text(),
            at=now_text(),
            port_ids=tuple(p.id for p in ports) if others else (),
        )
        if self._adding_to is not None:
            self._log_operation(space.job, ports, work)
        else:
            self._log_cut(space.job, ports, name, work)

    def _other_ports(self, job: Job, port: Port) -> list[Port] | None:
        """The ports named besides this one; None, with a sentence, where one is not there."""
        try:
            return ports_named(job.ports, self.others.text(), port)
        except Refused as error:
            self.problem.setText(sentence_of(error))
            self.others.setFocus()
            return None

    def _log_operation(self, job: Job, ports: list[Port], work: Operation) -> None:
        space = self.open_book.workspace
        assert space is not None and self._adding_to is not None
        for i, port in enumerate(ports):
            cut_id = self._adding_to if i == 0 else port.cuts[-1].id
            job = add_operation(job, cut_id, work if i == 0 else again(work))
        first = work.places[0] if work.places else ""
        space.apply(tr("operation at the {}", first) if first else "operation", job)
        cut_id = self._adding_to
        self.clear_fields()
        self.kinds.choose((CutKind.PORT,))
        self._work_simulated_port(cut_id, first)
        self.closed.emit()

    def _log_cut(self, job: Job, ports: list[Port], name: str, work: Operation) -> None:
        space = self.open_book.workspace
        assert space is not None
        volume, first = self.volume.value, ""
        for i, port in enumerate(ports):
            own = work if i == 0 else again(work)
            cut = Cut(
                id=new_id(),
                number=0,
                name=name,
                kinds=self.kinds.chosen(),
                date=now_text(),
                operations=(own,),
                pours=() if volume is None or i else (Pour(id=new_id(), volume=volume, date=now_text()),),
                expected_gain=self.expected_gain.value,
                expected_growth=self.expected_growth.value,
                expected_time=self.expected_time.value,
                **self._meant(),
            )
            first = first or cut.id
            job = add_cut(job, port.id, cut)
        space.apply(tr("cut '{}'", name), job)
        self.clear_fields()
        self.kinds.choose((CutKind.PORT,))
        self._work_simulated_port(first, work.places[0] if work.places else "")
        space.look_at(first)
        self.closed.emit()

    def _work_simulated_port(self, cut_id: str, place: str) -> None:
        """A cut logged while the simulated bench is on changes its port too."""
        space, bench = self.open_book.workspace, self.open_book.bench
        if space is None or not bench.is_simulated:
            return
        port, cut = space.job.cut_of(cut_id)
        bench.send(lambda b: b.work(port.kind, cut.number, place))
