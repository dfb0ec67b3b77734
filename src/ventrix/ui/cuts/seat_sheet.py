"""A valve job: the seat's recipe, drawn in section true to size, logged once for all the ports it was cut at."""

from __future__ import annotations

from typing import Any, Final

from PySide6.QtCore import QPointF, QRectF, Qt
from PySide6.QtGui import QPainter, QPainterPath, QPaintEvent, QPen
from PySide6.QtWidgets import QLabel, QWidget

from ventrix.core.edits.valves import VALVE_JOB, log_valve_job, next_version, same_seat
from ventrix.core.model.cut import Operation, Work
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import Seat
from ventrix.core.model.kinds import Direction, LibraryKind, Place
from ventrix.core.model.plausible import implausible
from ventrix.core.model.port_names import ports_named
from ventrix.core.model.school_questions import side_taken
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, parse_quantity, to_si
from ventrix.core.quantity.words import sentence
from ventrix.records.library.items import seat_item, seat_of
from ventrix.rooms.shared.seat_profile import Profile, recipe_gains, seat_hint, seat_profile, seat_words
from ventrix.ui.look import theme
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text

BAR: Final = 0.001  # m: the check bar beside the section
CAUTION: Final = tr(
    "Blend up to the seat and never past it: a slip into the seat is a new seat. Sunk or narrow seats, hardened seats "
    "and inserts: follow the maker's data and a licensed machine shop. Lap and look at the contact afterwards."
)


class SeatSection(QWidget):
    """The seat's line at one scale both ways, the contact bold, a bar of one millimetre beside it."""

    def __init__(self) -> None:
        super().__init__()
        self.profile: Profile | None = None
        self.setFixedHeight(120)
        self.setAccessibleName(tr("Seat in section"))

    def show_profile(self, profile: Profile | None) -> None:
        self.profile = profile
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self.profile is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        wide, deep = (max(v, BAR) for v in self.profile.size)
        scale = min((self.width() - 110) / wide, (self.height() - 30) / deep)

        def at(point: tuple[float, float]) -> QPointF:
            return QPointF(14 + point[0] * scale, 14 + point[1] * scale)

        path = QPainterPath(at(self.profile.line[0]))
        for point in self.profile.line[1:]:
            path.lineTo(at(point))
        painter.setPen(QPen(theme.colour("scribe"), 2))
        painter.drawPath(path)
        if self.profile.contact is not None:
            painter.setPen(QPen(theme.colour("brass"), 5))
            painter.drawLine(*(at(p) for p in self.profile.contact))
        bar = BAR * scale
        x, y = self.width() - 20 - bar, self.height() - 14.0
        painter.setPen(QPen(theme.colour("text"), 2))
        painter.drawLine(QPointF(x, y), QPointF(x + bar, y))
        painter.setFont(theme.font(12))
        painter.drawText(QRectF(x - 80, y - 22, bar + 84, 18), Qt.AlignmentFlag.AlignRight, "1 mm")


class SeatSheet(FormSheet):
    """Logs one valve job: a cut of kind seat at every port named, its minutes shared."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Log the valve job"))
        self.known = self.add_choice(tr("Recipe"), [(tr("a new one"), None)])
        self.known.activated.connect(lambda _i: self._take_recipe())
        self.recipe = self.add_text(tr("Its name"), tr("street, three angles"))
        self.angles = self.add_text(tr("Angles, chamber to throat"), "30 45 60")
        self.widths = self.add_text(tr("Width of each face"), "0.040 0.048 0.060")
        self.radius = self.add_figure(tr("Or a radius to the contact"), "length")
        self.section = SeatSection()
        self.column.addWidget(self.section)
        self.contact = self.add_figure(tr("Contact width"), "length", small=True)
        self.contact_angle = self.add_figure(tr("Contact angle"), "angle")
        self.margin = self.add_figure(tr("Margin"), "length", None, small=True)
        self.throat = self.add_figure(tr("Throat after it"), "length")
        self.sunk = self.add_figure(tr("Seat moved: sunk by"), "length", None, small=True)
        self.inserted = self.add_check(tr("an insert was pressed"))
        self.ports = self.add_text(tr("Cut at these ports"), tr("all intakes"))
        self.keep_recipe = self.add_check(tr("keep the recipe in the library, for every job"))
        self.minutes = self.add_figure(tr("Minutes, all ports together"), "duration")
        self.hint = QLabel()
        self.hint.setObjectName("caption")
        self.hint.setWordWrap(True)
        self.column.addWidget(self.hint)
        self.finish()
        self.caution.setText(CAUTION)
        self.edited.connect(self._draw)

    def open(self) -> None:
        """Show the sheet for the kind of port in hand."""
        space = self.open_book.workspace
        if space is None or space.port is None:
            return
        self.begin_about((space.job.id, space.port.kind))
        kind = space.port.kind
        self.title.setText(tr("Valve job, {}s", kind))
        self.known.clear()
        self.known.addItem(tr("a new one"), None)
        for seat in space.job.seats:
            self.known.addItem(seat_words(seat, self.open_book.units), seat)
        for item in self.open_book.book.library():
            if item.kind == LibraryKind.SEAT and item.of == kind:
                self.known.addItem(tr("library: {}", item.name), seat_of(item))
        if not self.angles.text() and side_taken(space.job, "seat_form").value == "angles":
            self.contact_angle.set_value(to_si(side_taken(space.job, "seat").value, "deg"))
        self.ports.setPlaceholderText(tr("empty: every {}", kind))
        gains = recipe_gains(space.findings, self.open_book.units)
        self.hint.setText("\n".join([seat_hint(kind, self.open_book.units), *gains]))
        self._draw()
        self.come_up()
        self.recipe.setFocus()

    def _take_recipe(self) -> None:
        """Fill the sheet from a seat that was cut before."""
        seat = self.known.currentData()
        if not isinstance(seat, Seat):
            return
        units = self.open_book.units
        self.recipe.setText(seat.recipe)
        self.angles.setText(" ".join(f"{from_si(a, 'deg'):g}" for a in seat.angles))
        self.widths.setText(" ".join(units.length.text(w) for w in seat.widths))
        for field, value in (
            (self.radius, seat.radius),
            (self.contact, seat.contact),
            (self.contact_angle, seat.contact_angle),
            (self.margin, seat.margin),
            (self.throat, seat.throat),
        ):
            field.set_value(value)
        self._draw()

    def _seat(self, job: Job) -> Seat:
        """What the sheet says. ValueError with a sentence for what makes no sense."""
        unit = self.open_book.units.length.unit
        angles = tuple(parse_quantity(t, "deg") for t in self.angles.text().replace("/", " ").split())
        widths = tuple(parse_quantity(t, unit) for t in self.widths.text().split())
        recipe = self.recipe.text().strip()
        values: dict[str, Any] = {
            key: field.typed()
            for key, field in (
                ("radius", self.radius),
                ("contact", self.contact),
                ("contact_angle", self.contact_angle),
                ("margin", self.margin),
                ("throat", self.throat),
                ("sunk", self.sunk),
            )
        }
        inserted = True if self.inserted.isChecked() else None
        seat = Seat(id=new_id(), recipe=recipe, angles=angles, widths=widths, insert=inserted, **values)
        for _, said in implausible(seat):
            raise Refused(said)
        seat_profile(seat)
        known = same_seat(job, seat)
        if known is not None:
            return known
        return Seat(
            id=seat.id, recipe=recipe, version=next_version(job, recipe), angles=angles, widths=widths,
            insert=inserted, **values,
        )  # fmt: skip

    def _draw(self) -> None:
        space = self.open_book.workspace
        try:
            profile = seat_profile(self._seat(space.job)) if space is not None else None
        except Refused:
            profile = None
        self.section.show_profile(profile)

    def _port_ids(self, job: Job, kind: Direction) -> list[str]:
        """The ports named, or every one of the kind. Refused for a name that is none."""
        if not self.ports.text().strip():
            return [p.id for p in job.ports if p.kind == kind and p.of_head]
        found = ports_named(job.ports, self.ports.text())
        witness = next((p for p in found if p.witness), None)
        if witness is not None:
            raise Refused("{} is the witness: nobody touches it", witness.name)
        return [p.id for p in found]

    def take(self) -> None:
        """Put the valve job in the book, in one edit."""
        space = self.open_book.workspace
        if space is None or space.port is None or not self.settle_fields():
            return
        try:
            seat = self._seat(space.job)
            port_ids = self._port_ids(space.job, space.port.kind)
            if not port_ids:
                raise Refused("there is no port that the valve job was done at")
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        share = None if self.minutes.value is None else self.minutes.value / len(port_ids)
        work = Operation(
            id=new_id(),
            kind=VALVE_JOB,
            stage=VALVE_JOB,
            works=(Work(id=new_id(), place=Place.SEAT),),
            tool="seat cutter",
            duration=share,
            date=now_text(),
            at=now_text(),
            port_ids=tuple(port_ids) if len(port_ids) > 1 else (),
        )
        cuts = [new_id() for _ in port_ids]
        name = tr("valve job, {} v{}", seat.recipe, seat.version) if seat.recipe else "valve job"
        job = log_valve_job(space.job, seat, port_ids, cuts, work, name, now_text())
        space.apply(name, job, tr("{}: {} ports. Blend again on each; throat and cc may wait.", name, len(port_ids)))
        if self.keep_recipe.isChecked():
            self.open_book.book.write((None, seat_item(seat, now_text(), space.port.kind)))
            self.keep_recipe.setChecked(False)
        self.clear_fields()
        self.closed.emit()
        here = dict(zip(port_ids, cuts, strict=True)).get(space.port.id)
        if here is not None:
            space.look_at(here)
