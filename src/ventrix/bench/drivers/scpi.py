"""Driver for a bench that speaks plain SCPI; see docs/formats/scpi.md for the lines."""

from __future__ import annotations

import math
from typing import Final

from ventrix.bench.drivers.sample import Sample
from ventrix.bench.links.tcp import Link, LinkError, OutOfStep
from ventrix.core.model.bench_kinds import ElementKind, TraverseKind
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.units import from_si, to_si
from ventrix.words import tr

SIMULATOR = "Simulated bench"
# What is asked for the main reading, and its unit, by the kind of flow element.
_HELD: Final = {TraverseKind.PITOT: "PROB", TraverseKind.TOTAL_HEAD: "TOT", TraverseKind.BALL: "BALL"}
MAIN: Final[dict[ElementKind, tuple[str, str]]] = {
    ElementKind.FLOW: ("MEAS:FLOW?", "cfm"),
    ElementKind.PERCENT: ("MEAS:PERC?", "%"),
    ElementKind.ORIFICE: ("MEAS:DIFF?", "Pa"),
    ElementKind.MASS: ("MEAS:MASS?", "kg/s"),
    ElementKind.COLUMNS: ("MEAS:DIFF?", "Pa"),
    ElementKind.COLUMN: ("MEAS:PRES?", "inH2O"),
}


class ScpiBench:
    """A bench at the other end of a link. LinkError from every method when the wire or the answer fails.

    `element` says what its main reading is. Without `meters` swirl and probe are asked of the simulated bench alone: a
    bench that lacks them would never answer.
    """

    def __init__(
        self, link: Link, element: ElementKind = ElementKind.FLOW, meters: tuple[str, ...] | None = None
    ) -> None:
        self._link, self._main = link, MAIN[element]
        try:
            self.identity = link.ask("*IDN?")
        except LinkError:
            link.close()
            raise
        usual = ("swirl", "probe") if self.is_simulated else ()
        self._meters = usual if meters is None else meters

    @property
    def is_simulated(self) -> bool:
        return SIMULATOR in self.identity

    def _number(self, query: str, unit: str) -> float:
        answer = self._link.ask(query)
        try:
            value = float(answer)
        except ValueError:
            raise LinkError(tr("the bench answered '{}' to {}", answer[:40], query)) from None
        if not math.isfinite(value) or abs(value) >= 9.9e37:  # SCPI-99: 9.91E37 is not a number
            raise LinkError(tr("the bench has no value for {}", query))
        return to_si(value, unit)

    def sample(self, time: float) -> Sample:
        """Read the element, pressure, lift, temperature, and the meters there are.

        Last it is asked who it is: an answer that was late or lost has moved every answer after it, and then that one
        is not its name. OutOfStep where it is not.
        """
        found = Sample(
            time=time,
            flow=self._number(*self._main),
            pressure=self._number("MEAS:PRES?", "inH2O"),
            lift=self._number("MEAS:LIFT?", "mm"),
            temperature=self._number("MEAS:TEMP?", "degC"),
            swirl=self._number("MEAS:SWIR?", "rpm") if "swirl" in self._meters else None,
            probe=self._number("MEAS:PIT?", "inH2O") if "probe" in self._meters else None,
        )
        told = self._link.ask("*IDN?")
        if told != self.identity:
            raise OutOfStep(
                tr("answers are out of step ('{}' to *IDN?): readings are dropped until in step", told[:40])
            )
        return found

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

    def choose_range(self, number: int) -> None:
        """Choose a range of the element, counted from 1."""
        self._send(f"SENS:RANG {number}")

    def tell(self, lie: str, on: bool) -> None:
        """Switch one of the simulated bench's lies."""
        self._send(f"SIM:LIE {lie},{'ON' if on else 'OFF'}")

    def put_on(self, what: str) -> None:
        """Put the simulated head, sealed head, open port or plate on the bench."""
        self._send(f"SIM:ON {what.upper()}")

    def hold(self, station: str | None, u: float = 0.0, v: float = 0.0, *, what: str = TraverseKind.PITOT) -> None:
        """Hold the simulated probe, its total tube or the ball at a place; None takes it out."""
        place = "OUT" if station is None else f"{station.upper()},{u:.3f},{v:.3f}"
        self._send(f"SIM:{_HELD[TraverseKind(what)]} {place}")

    def remount(self) -> None:
        """Take the simulated head off and bolt it down again."""
        self._send("SIM:MOUN")

    def _send(self, command: str) -> None:
        self._link.write(command)
        error = self._link.ask("SYST:ERR?")
        code, _, text = error.partition(",")
        if code.strip() != "0":
            raise LinkError(tr("the bench refused {}: {}", command, text.strip().strip(chr(34))))

    def interrupt(self) -> None:
        """From another thread: end a wait for an answer."""
        self._link.interrupt()

    def close(self) -> None:
        self._link.close()
