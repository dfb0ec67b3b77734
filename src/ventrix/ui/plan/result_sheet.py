"""A result on the engine, as it was stated: dyno, strip, road or fuel."""

from __future__ import annotations

from dataclasses import replace

from ventrix.core.judging.engine_results import NOTHING
from ventrix.core.model.job_parts import EngineResult
from ventrix.core.model.kinds import ResultKind
from ventrix.core.model.plausible import check_of
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import parse_quantity
from ventrix.ui.open_book import OpenBook
from ventrix.ui.widgets.form_sheet import FormSheet
from ventrix.words import tr
from ventrix.workspace.ids import new_id, now_text


class ResultSheet(FormSheet):
    """Keeps one result; what else was changed is asked, since without it nothing is laid at the head's door."""

    def __init__(self, open_book: OpenBook) -> None:
        super().__init__(open_book, tr("Keep the result"))
        self.title.setText(tr("A result on the engine"))
        self.kind = self.add_choice(tr("Where"), [(k.words, k.value) for k in ResultKind])
        self.moment = self.add_choice(
            tr("With the head"), [(tr("after this work"), "after"), (tr("before this work"), "before")]
        )
        self.date = self.add_text(tr("Date"), "2026-05-02")
        self.table = self.add_text(tr("Dyno: rpm and power"), "3000 62; 4500 96; 6000 118")
        self.table.setMaxLength(2000)
        self.time = self.add_text(tr("Strip: time, s"), "12.480")
        self.speed = self.add_figure(tr("Speed"), "road_speed", check_of(EngineResult, "speed"))
        self.fuel = self.add_text(tr("Fuel, L/100 km"), "9.4")
        self.also = self.add_text(tr("What else was changed"), tr("{}, or: camshaft, jets", NOTHING))
        self.conditions = self.add_text(tr("Conditions, as stated"), tr("24 °C, 1006 hPa"))
        self.correction = self.add_text(tr("Correction, as stated"), tr("none"))
        self.note = self.add_text(tr("Note"))
        self.finish()
        self.caution.setText(tr("An engine that is loaded is dangerous: a dyno's own rules and guards go first."))

    def open(self) -> None:
        self.come_up()
        self.kind.setFocus()

    def take(self) -> None:
        space = self.open_book.workspace
        if space is None or not self.settle_fields():
            return
        speeds, powers = self._pairs()
        result = EngineResult(
            id=new_id(),
            kind=str(self.kind.currentData()),
            moment=str(self.moment.currentData()),
            date=self.date.text().strip() or now_text(),
            speeds=speeds,
            powers=powers,
            time=self._number(self.time.text(), "s", "time"),
            speed=self.speed.value,
            fuel=self._number(self.fuel.text(), "L/100km", "fuel"),
            also_changed=self.also.text().strip(),
            conditions=self.conditions.text().strip(),
            correction=self.correction.text().strip(),
            note=self.note.text().strip(),
        )
        if not powers and result.time is None and result.speed is None and result.fuel is None:
            self.problem.setText(tr("No figure was typed: a dyno table, a time, a speed or fuel."))
            return
        space.apply(
            tr("result on the {}", result.kind), replace(space.job, engine_results=(*space.job.engine_results, result))
        )
        self.clear_fields()
        self.was_kept()

    def _pairs(self) -> tuple[tuple[float, ...], tuple[float, ...]]:
        speeds, powers = [], []
        for pair in (p for p in self.table.text().replace("\n", ";").split(";") if p.strip()):
            cells = pair.split()
            if len(cells) != 2:
                raise Refused("'{}' is not an engine speed and a power", pair.strip())
            speed, power = (
                parse_quantity(c, u) for c, u in zip(cells, ("rpm", self.open_book.units.power.unit), strict=True)
            )
            check_of(EngineResult, "speeds")(speed)
            check_of(EngineResult, "powers")(power)
            speeds.append(speed)
            powers.append(power)
        return tuple(speeds), tuple(powers)

    @staticmethod
    def _number(text: str, unit: str, name: str) -> float | None:
        if not text.strip():
            return None
        value = parse_quantity(text, unit)
        check_of(EngineResult, name)(value)
        return value
