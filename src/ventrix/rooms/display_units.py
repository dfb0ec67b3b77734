"""Units on screen: US shop or metric, switched in one place. Numbers come in SI and go out as text."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ventrix.core.judging.wording import Wording
from ventrix.core.quantity.said import said_in
from ventrix.core.quantity.units import from_si
from ventrix.core.quantity.words import number_text


@dataclass(frozen=True, slots=True)
class Shown:
    """How one kind of figure is shown: unit symbol, how it is written on screen, digits behind the point."""

    unit: str
    label: str
    digits: int

    def text(self, value: float | None, *, sign: bool = False) -> str:
        """The figure without its unit; a dash where it is not known."""
        if value is None or value != value:
            return "–"
        return number_text(from_si(value, self.unit), self.digits, sign=sign)

    def with_unit(self, value: float | None) -> str:
        return f"{self.text(value)} {self.label}"


@dataclass(frozen=True, slots=True)
class Units:
    """One system of units."""

    name: str
    lift: Shown
    length: Shown
    area: Shown
    flow: Shown
    speed: Shown
    pressure: Shown
    volume: Shown = Shown("cc", "cc", 1)
    angle: Shown = Shown("deg", "deg", 1)
    duration: Shown = Shown("min", "min", 0)
    energy: Shown = Shown("J/m3", "J/m³", 0)
    temperature: Shown = Shown("degC", "°C", 1)
    barometer: Shown = Shown("hPa", "hPa", 0)
    humidity: Shown = Shown("%", "%", 0)
    percent: Shown = Shown("%", "%", 1)
    speed_of_rotation: Shown = Shown("rpm", "rpm", 0)
    mass: Shown = Shown("g", "g", 1)
    force: Shown = Shown("N", "N", 0)
    power: Shown = Shown("kW", "kW", 0)
    sound: Shown = Shown("m/s", "m/s", 0)
    flux: Shown = Shown("cfm/in2", "CFM/in²", 1)
    swirl: Shown = Shown("rpm", "rpm", 0)
    ratio: Shown = Shown("-", "", 3)
    density: Shown = Shown("kg/m3", "kg/m³", 4)
    vacuum: Shown = Shown("inHg", "inHg", 1)
    absolute: Shown = Shown("kPa", "kPa", 1)
    hours: Shown = Shown("h", "h", 1)
    road_speed: Shown = Shown("km/h", "km/h", 1)

    @property
    def fine(self) -> Shown:
        """What a lift is set and misread by: a digit more than a lift carries."""
        return Shown(self.lift.unit, self.lift.label, self.lift.digits + 1)

    def __getitem__(self, kind: str) -> Shown:
        found = getattr(self, kind)
        assert isinstance(found, Shown)
        return found

    def say(self, told: object) -> str:
        """Words of the core, or a refusal, with every amount in these units."""
        return said_in(told, lambda amount: self[amount.kind].with_unit(amount.value))

    @property
    def wording(self) -> Wording:
        return Wording(self.lift.unit, self.flow.unit)


US: Final = Units(
    "us",
    lift=Shown("in", "in", 3),
    length=Shown("in", "in", 3),
    area=Shown("in2", "in²", 3),
    flow=Shown("cfm", "CFM", 1),
    speed=Shown("ft/s", "ft/s", 0),
    pressure=Shown("inH2O", "inH2O", 1),
    temperature=Shown("degF", "°F", 0),
    power=Shown("hp", "hp", 0),
    force=Shown("lbf", "lbf", 0),
    road_speed=Shown("mph", "mph", 1),
)
METRIC: Final = Units(
    "metric",
    lift=Shown("mm", "mm", 2),
    length=Shown("mm", "mm", 2),
    area=Shown("cm2", "cm²", 2),
    flow=Shown("l/s", "l/s", 2),
    speed=Shown("m/s", "m/s", 1),
    pressure=Shown("mmH2O", "mmH2O", 0),
)
SYSTEMS: Final = {u.name: u for u in (US, METRIC)}
