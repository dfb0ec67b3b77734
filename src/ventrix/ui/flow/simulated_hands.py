"""What hands do at the simulated bench: its blower, its valve opener, what is bolted on it."""

from __future__ import annotations

from typing import Final

from ventrix.bench.procedure.flow_procedure import Phase
from ventrix.core.model.kinds import StepKind
from ventrix.ui.flow.control import FlowControl
from ventrix.ui.flow.simulator_panel import SimulatorControl
from ventrix.ui.open_book import OpenBook
from ventrix.words import tr

ON_THE_BENCH: Final = {StepKind.LEAK: "sealed", StepKind.PLATE: "plate", StepKind.OPEN_PORT: "open"}


class SimulatedHands:
    """Joins the panel of the simulated bench to the bench itself; nothing while another bench is connected."""

    def __init__(self, open_book: OpenBook, control: FlowControl, panel: SimulatorControl) -> None:
        self._open_book, self._control, self._panel = open_book, control, panel
        bench = open_book.bench
        panel.lift_set.connect(lambda lift: bench.send(lambda b: b.set_lift(lift)))
        control.stepped.connect(self._put_on)
        panel.to_rung.clicked.connect(self.open_to_rung)
        panel.blower.clicked.connect(self.toggle_blower)
        panel.lie_told.connect(lambda lie, on: bench.send(lambda b: b.tell(lie, on)))

    def fit(self) -> None:
        """Put the port and cut looked at on the bench."""
        space, bench = self._open_book.workspace, self._open_book.bench
        if space is None or space.port is None or space.cut is None or not bench.is_simulated:
            return
        kind, number = space.port.kind, space.cut.number
        bench.send(lambda b: b.fit(kind, number))

    def follow_bench(self) -> None:
        """After another bench was connected: the simulated one stands still, with this port on it."""
        bench = self._open_book.bench
        if bench.is_simulated and bench.connected:
            self.fit()
            bench.send(lambda b: b.set_pressure(0.0))
            self._control.blower = False
        self._name_blower()

    def remount(self) -> None:
        """Take the head off and bolt it down again."""
        if self._open_book.bench.is_simulated:
            self._open_book.bench.send(lambda b: b.remount())

    def open_to_rung(self) -> None:
        """Move the valve opener to where the hands would set it."""
        lift = self.lift_wanted()
        if lift is not None and self._open_book.bench.is_simulated:
            self._panel.open_to(lift)

    def toggle_blower(self) -> None:
        hand, control = self._control.hand, self._control
        control.blower = not control.blower
        pressure = (hand.test.test_pressure or hand.setup.test_pressure or 0.0) if control.blower else 0.0
        self._open_book.bench.send(lambda b: b.set_pressure(pressure))
        self._name_blower()

    def lift_wanted(self) -> float | None:
        """Where hands would set the valve now [m]."""
        hand = self._control.hand
        if self._control.steps.on:
            return hand.lifts[len(hand.lifts) // 2] if hand.preparation.step is StepKind.WARM_UP else 0.0
        test = hand.test
        return test.next_lift if test.phase is Phase.KEPT and test.next_lift is not None else test.lift

    def _put_on(self) -> None:
        """Put on the bench what the step or the test wants."""
        if not self._open_book.bench.is_simulated:
            return
        step = self._control.hand.preparation.step if self._control.steps.on else None
        what = "head" if step is None else ON_THE_BENCH.get(step, "head")
        self._open_book.bench.send(lambda b: b.put_on(what))

    def _name_blower(self) -> None:
        self._panel.blower.setText(tr("Blower off (B)") if self._control.blower else tr("Blower on (B)"))
