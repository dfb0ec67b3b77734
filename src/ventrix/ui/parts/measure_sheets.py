"""Side sheets that measure: a wall reading, a pour, a trial."""

from __future__ import annotations

from typing import Final

from ventrix.core.edits.cuts import add_pour, add_trial, add_wall
from ventrix.core.metal.unrolled import BAND_NAMES, BANDS, ZONE_NAMES, unroll, zone_named
from ventrix.core.metal.walls import STEEL_LIKE
from ventrix.core.model.cut import Pour, Trial, WallReading
from ventrix.ui.parts.form_sheet import FormSheet
from ventrix.ui.session import Session
from ventrix.workspace.ids import new_id, now_text

BEHIND: Final = ("nothing known", "water", "oil", "a pushrod hole", "a bolt boss", "the next port", "outside")
POURS: Final = (
    ("burette and plate, valve in", "burette and plate, valve in"),
    ("burette and plate, valve out", "burette and plate, valve out"),
    ("to the seat, valve's volume taken off", "to the seat, valve's volume taken off"),
)
TRIALS: Final = (
    ("clay, narrowing a place", "clay"),
    ("another valve", "valve"),
    ("another entry", "entry"),
    ("a pipe", "pipe"),
)


def _share(value: float) -> None:
    if not -1 <= value <= 1:
        raise ValueError("must lie between -1 and 1")


class WallSheet(FormSheet):
    """Keeps an ultrasonic reading of metal left at a place of this port."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Keep the reading")
        self.place = self.add_choice("Where", [(n, n) for n in ZONE_NAMES])
        self.band = self.add_choice("On which side", [(BAND_NAMES[b], b) for b in BANDS])
        self.along = self.add_figure("From the opening, along the port", "length", None)
        self.across = self.add_figure("Across the side, -1 to 1", "ratio", _share)
        self.thickness = self.add_figure("Metal left", "length")
        self.behind = self.add_choice("What lies behind", [(w, "" if w == BEHIND[0] else w) for w in BEHIND])
        self.probe = self.add_text("Probe", "5 MHz, 6 mm")
        self.sound = self.add_figure("Speed of sound it is set to", "sound")
        self.doubt = self.add_figure("Doubt of the reading (±)", "length")
        self.finish()
        self.caution.setText(
            "Couple well, and hold the probe square: a gauge on a curved, rough wall reads long. Castings shift: "
            "read every port. What is reported is what was measured; it never means that a wall is safe."
        )

    def open(self, place: str = "", band: str = "", along: float | None = None, across: float = 0.0) -> None:
        """Show the sheet for a place of the port in hand."""
        space = self.session.workspace
        if space is None or space.port is None or space.real_cut is None:
            return
        self.title.setText(f"Wall of {space.port.name.lower()}, cut {space.real_cut.number}")
        zone = zone_named(place)
        if zone is not None:
            self.place.setCurrentText(place)
            self.band.setCurrentIndex(self.band.findData(band if band in zone.bands else zone.bands[-1]))
            if along is None:
                port = unroll(space.port, space.real_cut, space.job.valve_of(space.port))
                along = (zone.start + zone.end) / 2 * port.length
        if along is not None:
            self.along.set_value(round(along, 4))
        self.across.set_value(round(across, 1))
        if self.sound.value is None and space.job.material in STEEL_LIKE:
            self.sound.set_value(STEEL_LIKE[space.job.material])
        self.come_up()
        self.thickness.box.setFocus()

    def take(self) -> None:
        space = self.session.workspace
        if space is None or space.real_cut is None or not self.settle_fields():
            return
        if self.thickness.value is None:
            self.problem.setText("How much metal does the gauge read?")
            self.thickness.box.setFocus()
            return
        place = self.place.currentText()
        wall = WallReading(
            id=new_id(),
            place=place,
            thickness=self.thickness.value,
            band=self.band.currentData(),
            along=self.along.value,
            across=self.across.value or 0.0,
            behind=self.behind.currentData(),
            probe=self.probe.text().strip(),
            sound_speed=self.sound.value,
            uncertainty=self.doubt.value,
            date=now_text(),
        )
        words = self.session.units.length.text(wall.thickness)
        space.apply(f"wall {words} at the {place}", add_wall(space.job, space.real_cut.id, wall))
        self.thickness.forget()
        self.thickness.box.clear()
        self.thickness.set_value(None)
        self.problem.clear()
        self.closed.emit()


class PourSheet(FormSheet):
    """Keeps one filling of the port; repeats are averaged."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Keep the pour")
        self.volume = self.add_figure("Poured volume", "volume")
        self.how = self.add_choice("How it was poured", POURS)
        self.finish()
        self.caution.setText("Pour twice: the mean is used, and their difference is its doubt. Wipe up: fluids burn.")

    def open(self) -> None:
        space = self.session.workspace
        if space is None or space.real_cut is None or space.port is None:
            return
        had = [self.session.units.volume.text(p.volume) for p in space.real_cut.pours]
        self.title.setText(f"Pour of {space.port.name.lower()}, cut {space.real_cut.number}")
        self.warning.setText(f"Poured before at this cut: {', '.join(had)} cc." if had else "")
        self.come_up()
        self.volume.box.setFocus()

    def take(self) -> None:
        space = self.session.workspace
        if space is None or space.real_cut is None or not self.settle_fields():
            return
        if self.volume.value is None:
            self.problem.setText("How much went in?")
            return
        pour = Pour(id=new_id(), volume=self.volume.value, how=self.how.currentData(), date=now_text())
        words = self.session.units.volume.with_unit(pour.volume)
        space.apply(f"pour {words}", add_pour(space.job, space.real_cut.id, pour))
        self.clear_fields()
        self.closed.emit()


class TrialSheet(FormSheet):
    """Hangs a trial from the cut looked at: a try that can be taken back. It is flowed like a cut."""

    def __init__(self, session: Session) -> None:
        super().__init__(session, "Begin the trial")
        self.kind = self.add_choice("What is tried", TRIALS)
        self.name = self.add_text("Name", "clay on the roof at the pinch")
        self.place = self.add_choice("Where", [(n, n) for n in ZONE_NAMES])
        self.area = self.add_figure("Area that the clay takes", "area")
        self.doubt = self.add_figure("Doubt of that area (±)", "area")
        self.finish()
        self.caution.setText(
            "Prove it with clay before cutting: narrow the place; if the flow does not fall, opening it is unlikely "
            "to gain. The reverse is not promised. Press clay well: a piece that comes loose goes through the blower."
        )
        self.kind.currentIndexChanged.connect(self._for_clay)

    def _for_clay(self) -> None:
        clay = self.kind.currentData() == "clay"
        for widget in (self.place, self.area, self.doubt):
            widget.setEnabled(clay)

    def open(self, place: str = "") -> None:
        space = self.session.workspace
        if space is None or space.real_cut is None or space.port is None:
            return
        self.title.setText(f"Trial on cut {space.real_cut.number} of {space.port.name.lower()}")
        if place:
            self.place.setCurrentText(place)
        self.come_up()
        self.name.setFocus()

    def take(self) -> None:
        space = self.session.workspace
        if space is None or space.real_cut is None or not self.settle_fields():
            return
        kind = self.kind.currentData()
        clay = kind == "clay"
        trial = Trial(
            id=new_id(),
            kind=kind,
            name=self.name.text().strip(),
            place=self.place.currentText() if clay else "",
            area_taken=self.area.value if clay else None,
            area_uncertainty=self.doubt.value if clay else None,
            date=now_text(),
        )
        if not clay and not trial.name:
            self.problem.setText("Name what is tried: which valve, entry or pipe.")
            return
        space.apply(f"trial {kind} {trial.name or trial.place}", add_trial(space.job, space.real_cut.id, trial))
        self.clear_fields()
        space.look_at_trial(trial.id)
        self.session.say("Trial begun: flow it in the Flow room; it is held against its cut.")
        self.closed.emit()
