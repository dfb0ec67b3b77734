"""What is known of a bench, as one object that goes everywhere: scatter, instrument, what carries one run over to
another, and how large a mistake passes unnoticed there. All SI; relative figures are fractions.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Final

import numpy as np

from ventrix.core.formulas.uncertainty import CONFIDENCE, Instrument, Scatter, student_t
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import CFM, INCH

# How large a mistake may be and still pass unnoticed: common practice, no source; a bench's own figures win.
EASY_DIAL: Final = 0.003 * INCH
EASY_FACTOR: Final = 0.01
EASY_LEAK: Final = 1.0 * CFM


@dataclass(frozen=True, slots=True)
class Adjustment:
    """A factor on the flows of the side after, with its relative standard uncertainty and freedom.

    From parts flowed on both benches, from one cut flowed both ways, or from a witness port that was not cut.
    `sentence` says which. Where it was found lift by lift, `lifts` [m] carry factors and uncertainties of their own.
    """

    factor: float
    uncertainty: float
    freedom: float
    sentence: str
    lifts: tuple[float, ...] = ()
    factors: tuple[float, ...] = ()
    uncertainties: tuple[float, ...] = ()

    def factor_at(self, lift: Array) -> Array:
        """The factor at lifts [m]: straight between those it was found at, held beyond them."""
        if not self.lifts:
            return np.full(lift.shape, self.factor)
        return np.interp(lift, self.lifts, self.factors)

    def careful_at(self, lift: Array) -> Array:
        """Uncertainty at lifts, widened so that a normal factor covers its few degrees of freedom."""
        widened = float(student_t(CONFIDENCE, self.freedom) / student_t(CONFIDENCE, np.inf))
        if not self.lifts:
            return np.full(lift.shape, self.uncertainty * widened)
        return np.asarray(np.interp(lift, self.lifts, self.uncertainties) * widened)

    def turned(self) -> Adjustment:
        """The same knowledge the other way round."""
        return Adjustment(
            1 / self.factor,
            self.uncertainty,
            self.freedom,
            self.sentence,
            self.lifts,
            tuple(1 / f for f in self.factors),
            self.uncertainties,
        )


@dataclass(frozen=True, slots=True)
class Check:
    """What was flowed at both of two settings-up of a bench to see whether it changed: `kind` is what, `drift` how much
    more it read at the later one [-], with its relative standard uncertainty and freedom."""

    kind: str
    drift: float
    uncertainty: float
    freedom: float

    @property
    def widened(self) -> float:
        """The uncertainty, so that a normal factor covers its few degrees of freedom [-]."""
        return self.uncertainty * float(student_t(CONFIDENCE, self.freedom) / student_t(CONFIDENCE, np.inf))

    @property
    def counts(self) -> float:
        """What it adds to a comparison across it [-]: the drift as far as it is more than its own uncertainty, and half
        of that. All of it would call one true 3 % in ten a nothing, and keep no fewer faults (simulated)."""
        return float(np.sqrt(max(self.drift**2 - self.uncertainty**2, 0.0) + (self.uncertainty / 2) ** 2))

    @property
    def moved(self) -> bool:
        """The drift is proven: the bench changed between."""
        return abs(self.drift) > float(student_t(CONFIDENCE, np.inf)) * self.widened


@dataclass(frozen=True, slots=True)
class EasyMistakes:
    """The largest mistake of each kind that passes unnoticed: dial zero [m], factor [-], leak [m3/s]."""

    dial: float = EASY_DIAL
    factor: float = EASY_FACTOR
    leak: float = EASY_LEAK


@dataclass(frozen=True, slots=True)
class Known:
    """Everything that is known of the bench, and of what lies between the two sides of a comparison.

    transfer : carries the side after over to the bench of the side before
    witness : what an untouched port says that setting up changed
    bridge : what a change of sleeve, entry, pipe or bench did to one cut flowed both ways
    house : what two sheets of one other shop, declared flowed the same way, are judged under
    checks : what was flowed at both settings-up to see whether the bench changed
    """

    scatter: Scatter = field(default_factory=Scatter)
    instrument: Instrument = field(default_factory=Instrument)
    easy: EasyMistakes = field(default_factory=EasyMistakes)
    transfer: Adjustment | None = None
    witness: Adjustment | None = None
    bridge: Adjustment | None = None
    house: Adjustment | None = None
    checks: tuple[Check, ...] = ()

    @property
    def check(self) -> Check | None:
        """The check that counts: the one that leaves most open."""
        return max(self.checks, key=lambda c: c.counts, default=None)

    @property
    def factor_is_out(self) -> bool:
        """A factor on the whole curve has been taken out, or a check has told how large it may be: nobody need ask
        whether it is one."""
        return self.witness is not None or self.bridge is not None or bool(self.checks)
