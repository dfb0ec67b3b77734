"""Driver for a bench that speaks plain SCPI; see docs/formats/scpi.md for the lines."""

from __future__ import annotations

import math
from dataclasses import dataclass

from ventrix.bench.link import Link, LinkError
from ventrix.core.model import Direction
from ventrix.core.units import from_si, to_si

SIMULATOR = "Simulated bench"


@dataclass(frozen=True, slots=True)
class Sample:
    """One look at the bench, SI. `time` is in seconds on the reader's own clock."""

    time: float
    flow: float
    pressure: float
    lift: float | None = None
    temperature: float | None = None


class ScpiBench:
    """A bench at the other end of a link. LinkError from every method when the wire or the answer fails."""

    def __init__(self, link: Link) -> None:
        self._link = link
        self.identity = link.ask("*IDN?")

    @property
    def is_simulated(self) -> bool:
        return SIMULATOR in self.identity

    def _number(self, query: str, unit: str) -> float:
        answer = self._link.ask(query)
        try:
            value = float(answer)
        except ValueError:
            raise LinkError(f"the bench answered '{answer[:40]}' to {query}") from None
        if not math.isfinite(value) or abs(value) >= 9.9e37:  # SCPI-99: 9.91E37 is not a number
            raise LinkError(f"the bench has no value for {query}")
        return to_si(value, unit)

    def sample(self, time: float) -> Sample:
        """Read flow, pressure, lift and temperature."""
        return Sample(
            time=time,
            flow=self._number("MEAS:FLOW?", "cfm"),
            pressure=self._number("MEAS:PRES?", "inH2O"),
            lift=self._number("MEAS:LIFT?", "mm"),
            temperature=self._number("MEAS:TEMP?", "degC"),
        )

    def set_pressure(self, pressure: float) -> None:
        """Ask for a test pressure [Pa]."""
        self._send(f"SOUR:PRES {from_si(pressure, 'inH2O'):.2f}")

    def set_lift(self, lift: float) -> None:
        """Move the simulated valve opener [m]; a real bench is opened by hand."""
        self._send(f"SIM:LIFT {from_si(lift, 'mm'):.3f}")

    def fit(self, direction: Direction, cut: int) -> None:
        """Put a port of the invented head on the simulated bench."""
        self._send(f"SIM:PORT {direction.upper()},{cut}")

    def work(self, direction: Direction, cut: int, place: str) -> None:
        """Grind the simulated port: its state `cut` becomes the one before, worked at `place`."""
        self._send(f"SIM:WORK {direction.upper()},{cut},{place.upper()}")

    def remount(self) -> None:
        """Take the simulated head off and bolt it down again."""
        self._send("SIM:MOUN")

    def _send(self, command: str) -> None:
        self._link.write(command)
        error = self._link.ask("SYST:ERR?")
        code, _, text = error.partition(",")
        if code.strip() != "0":
            raise LinkError(f"the bench refused {command}: {text.strip().strip(chr(34))}")

    def close(self) -> None:
        self._link.close()
