"""What was seen with dyed fluid, and at which lifts the port got loud."""

from __future__ import annotations

import re
from pathlib import Path

from PySide6.QtCore import Qt
from PySide6.QtGui import QPixmap
from PySide6.QtWidgets import QFileDialog, QHBoxLayout, QLabel, QLineEdit, QPushButton, QVBoxLayout, QWidget

from ventrix.core.air.hints import seen_sentences
from ventrix.core.air.traverse import air_of, point_speed
from ventrix.core.edits.traverses import set_observations
from ventrix.core.model.cut import Cut
from ventrix.core.model.traverse import Observation, Traverse
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.core.quantity.words import sentence
from ventrix.records.bad_input import InputError
from ventrix.records.files.photos import keep_photo
from ventrix.ui.air.seat_clock import SeatClock
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text
from ventrix.workspace.workspace import Workspace

WORDS = tr(
    "The seat clock, 12 towards the opening. Click an hour: wet ●, streak /, dry ○, splash ✳. "
    "Figures are air speeds there."
)
NOTHING = tr("Blow dyed liquid through and set where it lands; note the lifts at which the port gets loud.")


class WetPage(QWidget):
    """The seat clock with the air speeds found there, a line for noise, and one for the chamber."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__()
        self.open_book = open_book
        self.clock = SeatClock()
        self.clock.state_set.connect(self._set_wet)
        self.noise = QLineEdit()
        self.noise.setAccessibleName(tr("Noise heard at lift"))
        self.noise.setPlaceholderText(tr("noise heard at lift"))
        self.noise.returnPressed.connect(self._keep_noise)
        self.chamber = QLineEdit()
        self.chamber.setAccessibleName(tr("Seen in the chamber"))
        self.chamber.setPlaceholderText(tr("seen in the chamber: streak across the plug"))
        self.chamber.returnPressed.connect(self._keep_chamber)
        self.take_back = QPushButton(tr("Take the last one back"))
        self.take_back.clicked.connect(self._take_back)
        self.add_photo = QPushButton(tr("Photo…"))
        self.add_photo.clicked.connect(self._choose_photo)
        self.photo = QLabel()
        self.photo.setAccessibleName(tr("Photo of the pattern"))
        self.photo.hide()
        self.problem = QLabel()
        self.problem.setObjectName("error")
        told = QLabel(WORDS)
        told.setObjectName("caption")
        told.setWordWrap(True)
        entries = QHBoxLayout()
        entries.addWidget(self.noise, 1)
        entries.addWidget(self.chamber, 2)
        entries.addWidget(self.add_photo)
        entries.addWidget(self.take_back)
        middle = QHBoxLayout()
        middle.addWidget(self.clock, 1)
        middle.addWidget(self.photo)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.addWidget(told)
        column.addLayout(middle, 1)
        column.addLayout(entries)
        column.addWidget(self.problem)

    def show_cut(self, space: Workspace, cut: Cut, seat: Traverse | None) -> list[str]:
        """Show a cut's observations beside the speeds of its seat; return what they say."""
        units = self.open_book.units
        states = {round(o.clock): o.text for o in cut.observations if o.kind == "wet" and o.clock is not None}
        speeds: dict[int, str] = {}
        open_job = self.open_book.workspace
        air = air_of(open_job.job, seat) if open_job is not None and seat is not None else None
        for p in seat.points if seat is not None else ():
            speed = point_speed(p, seat.coefficient or 1.0, air) if seat is not None else None
            named = re.match(r"(\d+) o'clock", p.name)
            if speed is not None and named is not None and p.struck is None:
                speeds[int(named[1])] = units.speed.text(float(speed.reference))
        self.clock.show_states(states, speeds)
        said = seen_sentences(cut.observations)
        said += [
            tr("Chamber: {}.", o.text) for o in cut.observations if o.kind == "wet" and o.place == "chamber" and o.text
        ]
        heard = [o for o in cut.observations if o.kind == "noise" and o.lift is not None]
        said += [tr("Noise heard at {}: separated air is loud.", units.lift.with_unit(o.lift)) for o in heard]
        run = cut.runs[-1] if cut.runs else None
        notes = run.rung_notes if run is not None else ()
        said += [tr("{} noted at {} while flowing.", n.kind.capitalize(), units.lift.with_unit(n.lift)) for n in notes]
        self._show_photo(space, cut)
        self.take_back.setEnabled(any(o.kind == "noise" or o.place == "chamber" for o in cut.observations))
        return said or [NOTHING]

    def _apply(self, what: str, observations: tuple[Observation, ...]) -> None:
        space = self.open_book.workspace
        if space is not None and space.real_cut is not None:
            self.problem.clear()
            space.apply(what, set_observations(space.job, space.real_cut.id, observations))

    def _had(self) -> tuple[Observation, ...]:
        space = self.open_book.workspace
        return space.real_cut.observations if space is not None and space.real_cut is not None else ()

    def _set_wet(self, hour: int, state: str) -> None:
        rest = tuple(o for o in self._had() if not (o.kind == "wet" and o.clock == hour))
        new = Observation(id=new_id(), kind="wet", text=state, place="seat", clock=float(hour), date=now_text())
        self._apply(tr("{} o'clock {}", hour, state or "nothing"), (*rest, new) if state else rest)

    def _keep_noise(self) -> None:
        try:
            lift = parse_quantity(self.noise.text(), self.open_book.units.lift.unit)
            if lift <= 0:
                raise Refused("the lift must be above zero")
        except Refused as error:
            self.problem.setText(sentence(str(error)))
            return
        heard = Observation(id=new_id(), kind="noise", lift=lift, date=now_text())
        self.noise.clear()
        self._apply(tr("noise at {}", self.open_book.units.lift.text(lift)), (*self._had(), heard))

    def _keep_chamber(self) -> None:
        text = self.chamber.text().strip().rstrip(".")
        if not text:
            return
        seen = Observation(id=new_id(), kind="wet", text=text, place="chamber", date=now_text())
        self.chamber.clear()
        self._apply(tr("chamber pattern"), (*self._had(), seen))

    def _show_photo(self, space: Workspace, cut: Cut) -> None:
        file = next((o.photo for o in reversed(cut.observations) if o.photo), "")
        self.photo.setVisible(bool(file))
        if file:
            picture = QPixmap(str(space.book.photo_folder / file))
            if picture.isNull():
                self.photo.setText(tr("the picture is not in the book's folder"))
            else:
                self.photo.setPixmap(picture.scaled(260, 320, Qt.AspectRatioMode.KeepAspectRatio))

    def _choose_photo(self) -> None:
        name, _ = QFileDialog.getOpenFileName(self, tr("Photo of the pattern"), "", tr("Pictures (*.jpg *.jpeg *.png)"))
        if name:
            self.keep_photo(Path(name))

    def keep_photo(self, path: Path) -> bool:
        """Copy a picture into the book's folder and hang it from the cut's wet pattern."""
        space = self.open_book.workspace
        if space is None:
            return False
        try:
            file = keep_photo(space.book.photo_folder, path)
        except InputError as error:
            self.problem.setText(str(error))
            return False
        seen = Observation(id=new_id(), kind="wet", place="chamber", photo=file, date=now_text())
        self._apply(tr("photo of the pattern"), (*self._had(), seen))
        return True

    def _take_back(self) -> None:
        kept = self._had()
        last = next(o for o in reversed(kept) if o.kind == "noise" or o.place == "chamber")
        self._apply(tr("one observation less"), tuple(o for o in kept if o.id != last.id))
