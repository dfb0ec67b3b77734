"""Units and rounding of the sentences of a verdict."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from ventrix.core.judging.comparison import RunComparison
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.quantity.said import Amount, said_in
from ventrix.core.quantity.units import from_si
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class Wording:
    """Units a sentence is spoken in."""

    lift_unit: str = "in"
    flow_unit: str = "cfm"

    def lift(self, value: float) -> str:
        number = from_si(value, self.lift_unit)
        return f"{number:.3f}" if self.lift_unit == "in" else f"{number:g}"

    def small(self, value: float) -> str:
        """A clearance: to a tenth of a thousandth, or a micrometre."""
        return f"{from_si(value, self.lift_unit):.{4 if self.lift_unit == 'in' else 3}f}"

    def flow(self, value: float) -> str:
        return f"{from_si(value, self.flow_unit):.1f}"

    @property
    def flow_name(self) -> str:
        return "CFM" if self.flow_unit == "cfm" else self.flow_unit

    @property
    def speed_unit(self) -> str:
        return "ft/s" if self.lift_unit == "in" else "m/s"

    def speed(self, value: float) -> str:
        return f"{from_si(value, self.speed_unit):.0f}"

    @property
    def pressure_unit(self) -> str:
        return "inH2O" if self.lift_unit == "in" else "mmH2O"

    def say(self, told: str) -> str:
        """Words of the core with every amount in these units."""

        def tell(amount: Amount) -> str:
            if amount.kind == "pressure":
                return f"{from_si(amount.value, self.pressure_unit):.4g} {self.pressure_unit}"
            return f"{self.lift(amount.value)} {self.lift_unit}"

        return said_in(told, tell)

    def amount(self, value: float, c: RunComparison) -> str:
        """A difference: in the unit of flow, or of an index in percent of the cut held against."""
        if c.kind == FlowKind.INDEX:
            return f"{100 * value / c.weighted_before:.1f}"
        return self.flow(value)

    def amount_name(self, c: RunComparison) -> str:
        return "%" if c.kind == FlowKind.INDEX else self.flow_name


def day_words(date: str | None) -> str:
    """A day as it is said: "3 May"; "the run before" where it was not recorded."""
    try:
        day = datetime.fromisoformat(date or "")
    except ValueError:
        return tr("the run before")
    return f"{day.day} {day:%b}"
