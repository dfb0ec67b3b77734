"""Side sheets that measure: a wall reading, a pour, a trial."""

from __future__ import annotations

from PySide6.QtWidgets import QWidget

from ventrix.core.edits.cuts import add_wall
from ventrix.core.metal.unrolled import ZONE_NAMES, unroll, zone_named
from ventrix.core.metal.walls import DOUBT_OF, STEEL_LIKE
from ventrix.core.model.cut import WallReading
from ventrix.core.model.kept_words import Behind
from ventrix.core.model.kinds import Band, KnownBy
from ventrix.core.quantity.field_checks import place_across
from ventrix.ui.cuts.practice_button import PracticeButton
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.ui.widgets.kept_choice import choose, taken
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class WallSheet(FormSheet):
    """Keeps an ultrasonic reading of metal left at a place of this port, and is there for the next place."""

    stays = True

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Keep the reading"))
        self._asked: object = None
        self.place = self.add_choice(tr("Where"), [(n, n) for n in ZONE_NAMES])
        self.band = self.add_choice(tr("On which side"), [(b.words, b) for b in Band])
        self.along = self.add_figure(tr("From the opening, along the port"), "length", None)
        self.across = self.add_figure(tr("Across the side, -1 to 1"), "ratio", place_across)
        self.thickness = self.add_figure(tr("Metal left"), "length", small=True)
        self.known_by = self.add_choice(
            tr("How it is known"), [(tr("a gauge on this very wall"), ""), *((k.words, k.value) for k in KnownBy)]
        )
        self.known_by.currentIndexChanged.connect(lambda _i: self._of_gauge())
        self.gauge = PracticeButton(
            self,
            tr("Read it with the gauge (5 min)"),
            lambda p, port: p.read_wall(taken(self.place), port),
            self.thickness,
        )
        self.column.addWidget(self.gauge)
        self.behind = self.add_choice(
            tr("What lies behind"), [(w, "" if w == Behind.NOTHING_KNOWN else w) for w in Behind]
        )
        self.port_behind = self.add_choice(tr("Which port, where one is"), [(tr("none"), None)])
        self.probe = self.add_text(tr("Probe"), tr("5 MHz, 6 mm"))
        self.sound = self.add_figure(tr("Speed of sound it is set to"), "sound")
        self.doubt = self.add_figure(tr("Uncertainty of the reading (±)"), "length", small=True)
        self.finish()
        self.caution.setText(
            tr(
                "Couple well, and hold the probe square: a gauge on a curved, rough wall reads long. Castings shift: "
                "read every port. What is reported is what was measured; it never means that a wall is safe."
            )
        )

    def _of_gauge(self) -> None:
        """A probe and its sound are asked of a gauge; what is known otherwise carries a doubt of its own."""
        known = str(self.known_by.currentData())
        for field in (self.probe, self.sound):
            field.setEnabled(not known)
        if known:
            self.doubt.set_value(DOUBT_OF[known])

    def open(self, place: str = "", band: str = "", along: float | None = None, across: float = 0.0) -> None:
        """Show the sheet for a place of the port in hand."""
        space = self.open_book.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        asked = space.port.id, place or taken(self.place), band
        if asked != self._asked:
            self._start_clean()
        self._asked = asked
        self.title.setText(tr("Wall of {}, cut {}", space.port.name.lower(), space.real_cut.number))
        self.port_behind.clear()
        self.port_behind.addItem(tr("none"), None)
        for other in (p for p in space.job.ports if p.id != space.port.id):
            self.port_behind.addItem(other.name, other.id)
        zone = zone_named(place)
        if zone is not None:
            choose(self.place, place)
            self.band.setCurrentIndex(self.band.findData(band if band in zone.bands else zone.bands[-1]))
            if along is None:
                port = unroll(space.port, space.real_cut, space.job.valve_of(space.port, space.real_cut))
                along = (zone.start + zone.end) / 2 * port.length
        if along is not None:
            self.along.set_value(round(along, 4))
        self.across.set_value(round(across, 1))
        if self.sound.value is None and space.job.material in STEEL_LIKE:
            self.sound.set_value(STEEL_LIKE[space.job.material])
        self.gauge.appear()
        self.come_up()
        self.thickness.box.setFocus()

    def first_field(self) -> QWidget:
        return self.place

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or space.real_cut is None or not self.settle_fields():
            return
        if self.thickness.value is None:
            self.problem.setText(tr("How much metal does the gauge read?"))
            self.thickness.box.setFocus()
            return
        place, behind = taken(self.place), self.port_behind.currentData()
        wall = WallReading(
            id=new_id(),
            place=place,
            thickness=self.thickness.value,
            band=self.band.currentData(),
            along=self.along.value,
            across=self.across.value or 0.0,
            behind=self.behind.currentData() or (self.port_behind.currentText() if behind is not None else ""),
            behind_port_id=behind,
            probe=self.probe.text().strip(),
            sound_speed=self.sound.value,
            uncertainty=self.doubt.value,
            known_by=str(self.known_by.currentData()),
            date=now_text(),
            at=now_text(),
        )
        words = self.open_book.units.length.text(wall.thickness)
        space.apply(tr("wall {} at the {}", words, place), add_wall(space.job, space.real_cut.id, wall))
        self._start_clean()
        self.was_kept()

    def _start_clean(self) -> None:
        """What was said of one place is not said of the next; the gauge, its sound and its doubt stay as they are."""
        for field in (self.thickness, self.across):
            field.forget()
            field.box.clear()
            field.set_value(None)
        self.behind.setCurrentIndex(0)
        self.problem.clear()
