"""A port as a chain of losses, fitted to its own flow tests: what limits, and what a cut would bring.

.. math:: \\frac{\\Delta p}{\\tfrac12 \\rho Q^2} = \\sum_i \\frac{K_i}{A_i^2} + \\frac{1}{(C_d A_v)^2}

The chain is wrong somewhere, and carries by how much: see `priors`. SI throughout.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Final

import numpy as np

from ventrix.core.formulas.bench_flow import ideal_flux
from ventrix.core.formulas.valve import seat_opening_area
from ventrix.core.model.kinds import Place
from ventrix.core.planning import priors
from ventrix.core.planning.chain import Chain, ChainWork
from ventrix.core.planning.chain_layout import TOLD, AtLifts, Layout, expit
from ventrix.core.planning.chain_readings import ChainReadings, flow_noise
from ventrix.core.planning.priors import PLACES, SECTION_OF, SHORT_SIDE, VALVE
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

SEED: Final = 20
DRAWS: Final = 400
FAR: Final = 2.0  # of chi-squared a reading: beyond, the port does something that the chain does not
LEAST_LET_GO: Final = 0.02  # of the loss at the highest lift: less is not told from a smooth curve


@dataclass(frozen=True, slots=True)
class Limit:
    """A place's share of the loss at a lift, with its 80 % interval, and whether this port's data say so."""

    share: float
    low: float
    high: float
    from_data: bool


@dataclass(frozen=True, slots=True)
class Separation:
    """Where the air lets go of the short side: the lift [m] with its 80 % interval, and the share of the loss at the
    highest tested lift that comes of it."""

    lift: float
    low: float
    high: float
    share: float


@dataclass(frozen=True)
class ChainFit:
    """The fitted chain: the most likely parameters and their covariance, shape (m,) and (m, m)."""

    chain: Chain
    best: Array
    covariance: Array
    chi_squared: float  # of the flows, the chain's own wrongness counted
    plain_chi_squared: float  # not counted: how far the bare chain is off, in units of the bench's scatter
    count: int
    worst_lift: float | None  # where the chain is off by most, if it is off by more than its own wrongness
    layout: Layout = field(repr=False)
    _drawn: dict[tuple[bytes, int], dict[str, Array]] = field(
        default_factory=dict, init=False, repr=False, compare=False
    )

    @cached_property
    def draws(self) -> Array:
        """Draws of the parameters from the posterior, shape (400, m); the same every time. By Cholesky's root: it moves
        as little as the covariance does, where eigenvectors may turn at a rounding."""
        random = np.random.default_rng(SEED)
        root = np.linalg.cholesky(self.covariance)
        return np.asarray(self.best + random.standard_normal((DRAWS, len(self.best))) @ root.T)

    def terms(self, lift: Array, state: int = -1, theta: Array | None = None) -> dict[str, Array]:
        """Loss by place at lifts, dp/(rho/2 Q^2) [1/m4], shape (draws, n); "valve" is the opening at the seat."""
        at = self._at(lift, state)
        if theta is not None:
            return _by_place(self.layout.terms(np.atleast_2d(theta), at))
        asked = (at.lift.tobytes(), state % len(self.chain.states))
        if asked not in self._drawn:  # every candidate asks for the same
            self._drawn[asked] = _by_place(self.layout.terms(self.draws, at))
        return self._drawn[asked]

    def _at(self, lift: Array, state: int = -1) -> AtLifts:
        return self.layout.at(np.atleast_1d(np.asarray(lift, dtype=float)), state % len(self.chain.states))

    def limits(self, lift: Array, state: int = -1) -> list[dict[str, Limit]]:
        """What limits at each lift: shares by place that sum to one."""
        drawn = self.shares(lift, state)
        best = self.terms(lift, state, self.best)
        most_likely = _summed(best)
        told = self.layout.told(self.covariance, np.atleast_1d(np.asarray(lift, dtype=float)))
        found = []
        for i in range(len(np.atleast_1d(lift))):
            here = {}
            for place, share in drawn.items():
                low, high = np.quantile(share[:, i], [0.1, 0.9])
                value = float(best[place][0, i] / most_likely[0, i])
                here[place] = Limit(value, float(min(low, value)), float(max(high, value)), bool(told[place][i]))
            found.append(here)
        return found

    def shares(self, lift: Array, state: int = -1) -> dict[str, Array]:
        """Shares of the loss by place and draw, shape (draws, n), the doubt of the chain's own structure in them."""
        draw = np.random.default_rng(SEED + 3)
        told = self.layout.told(self.covariance, np.atleast_1d(np.asarray(lift, dtype=float)))
        wide = {}
        for place, term in self.terms(lift, state).items():
            spread = np.where(told[place], priors.SHARE_SPREAD_TOLD, priors.SHARE_SPREAD)
            if place == SHORT_SIDE:  # what the separated air loses is the part that a chain misjudges most
                grown = self.layout.let_go(self.draws, self._at(lift, state))
                spread = np.hypot(spread, priors.LET_GO_SPREAD * grown / (1 + grown))
            wide[place] = term * np.exp(spread * draw.standard_normal((len(term), 1)))
        whole = _summed(wide)
        return {place: term / whole for place, term in wide.items()}

    @cached_property
    def separation(self) -> Separation | None:
        """Where the flow separates from the short side, where the data tell it: within the tested lifts, and worth at
        least `LEAST_LET_GO` of the loss in nine draws of ten."""
        state = self.chain.states[-1]
        if not self.count or not len(state.lift):
            return None
        last, d, top = len(self.chain.states) - 1, state.valve.diameter, float(np.max(state.lift))
        grown = self.layout.let_go(self.draws, self._at(np.array([top])))[:, 0]
        eaten = self.terms(np.array([top]))
        share = (eaten[SHORT_SIDE] / _summed(eaten))[:, 0] * grown / (1 + grown)
        astray = priors.LETS_GO_DOUBT * np.random.default_rng(SEED + 4).standard_normal(DRAWS)
        begins = (self.layout.lets_go_at(self.draws, last)[:, 0] + astray) * d
        told = np.sqrt(self.covariance[self.layout.lets_go, self.layout.lets_go].diagonal()[1])
        if np.quantile(share, 0.1) < LEAST_LET_GO or told > TOLD * priors.LETS_GO_AT[1]:
            return None
        low, middle, high = (float(v) for v in np.quantile(begins, [0.1, 0.5, 0.9]))
        return Separation(middle, low, high, float(np.median(share))) if middle < top else None

    def split(self, lift: Array, weights: Array) -> dict[str, tuple[float, float, float]]:
        """How the last state's work shares its gain by place: low, middle and high in eight draws of ten [-]; empty
        where it was worked at fewer than two places. `weights` of `lift`, shape (n,), both.

        An estimate: flow was read before and after all of it, and the chain says whose loss went.
        """
        last = len(self.chain.states) - 1
        places = list(dict.fromkeys(w.place for w in self.chain.states[-1].works if w.place in PLACES))
        if last < 1 or len(places) < 2:
            return {}
        before, after = self.terms(lift, last - 1), self.terms(lift, last)
        over = weights / np.sum(weights)
        gone = {}
        for place in places:
            section = SECTION_OF.get(place, place)
            own = [p for p in PLACES if p == place or (SECTION_OF.get(p) == section and p not in places)]
            gone[place] = np.maximum(sum(before[p] - after[p] for p in own) / _summed(before), 0.0) @ over
        whole = np.maximum(sum(gone.values()), 1e-12)
        return {
            place: (float(low), float(middle), float(high))
            for place, part in gone.items()
            for low, middle, high in [np.quantile(part / whole, [0.1, 0.5, 0.9])]
        }

    def gain(self, works: Sequence[ChainWork], lift: Array, random: np.random.Generator | None = None) -> Array:
        """Relative gain of flow by draws at lifts, shape (draws, n), of works done to the last state."""
        draw = random or np.random.default_rng(SEED + 1)
        x = np.asarray(lift, dtype=float)
        state = self.chain.states[-1]
        terms = self.terms(x)
        before = _summed(terms)
        after = dict(terms)
        count = len(self.draws)
        for work in works:
            if work.place not in PLACES:
                continue
            section = SECTION_OF.get(work.place, work.place)
            area = state.areas.get(section, 1.0)
            deep = work.depth * np.exp(priors.DEPTH_SPREAD * draw.standard_normal(count))
            grown = (1 + work.edge * deep * state.widths.get(section, 0.0) / area)[:, None]
            taken = self.layout.taken(work)
            share = expit(taken + priors.TAKES_SPREAD * draw.standard_normal(count))[:, None]
            kept = 1 - share
            if work.place == SHORT_SIDE:
                held = self.layout.let_go(self.draws, self._at(x))
                later = self.layout.let_go(self.draws, self._at(x), work.edge * deep)
                # Whether what the separated air loses shrinks with the place's own loss, nobody can say.
                kept = (kept + later * (1 - share * draw.random((count, 1)))) / (1 + held)
            after[work.place] = after[work.place] * kept
            for place in PLACES:
                if SECTION_OF.get(place, place) == section:
                    after[place] = after[place] / grown**2
        ratio = np.sqrt(before / _summed(after))
        wide = np.exp(priors.GAIN_SPREAD * draw.standard_normal(count))[:, None]
        floor = priors.GAIN_FLOOR * draw.standard_normal(count)[:, None]
        return np.asarray(np.expm1(np.log(ratio) * wide) + floor)

    def gain_of_valve(self, diameter: float, lift: Array, random: np.random.Generator | None = None) -> Array:
        """Relative gain of flow by draws at lifts, shape (draws, n), of a larger valve: its opening by geometry, the
        seat ring opened in proportion, every K as it is."""
        draw = random or np.random.default_rng(SEED + 1)
        x = np.asarray(lift, dtype=float)
        state = self.chain.states[-1]
        terms = self.terms(x)
        before = _summed(terms)
        wider = (diameter / state.valve.diameter) ** 2
        after = {p: t / wider**2 if SECTION_OF.get(p, p) == Place.THROAT.value else t for p, t in terms.items()}
        v = state.valve
        old, new = (np.maximum(seat_opening_area(d, v.seat_width, v.seat_angle, x, v.valves), 1e-9)
                    for d in (v.diameter, diameter))  # fmt: skip
        after[VALVE] = after[VALVE] * (old / new) ** 2
        wide = np.exp(priors.GAIN_SPREAD * draw.standard_normal(len(self.draws)))[:, None]
        floor = priors.GAIN_FLOOR * draw.standard_normal(len(self.draws))[:, None]
        return np.asarray(np.expm1(0.5 * np.log(before / _summed(after)) * wide) + floor)


def fit_chain(chain: Chain) -> ChainFit:
    """Fit a port's chain to its flow tests.

    Parameters
    ----------
    chain : Chain
        Medians and states.

    Returns
    -------
    ChainFit
        The most likely parameters, Laplace's covariance in their logarithms, and how well the chain fits.

    Raises
    ------
    ValueError
        No state.

    References
    ----------
    Maximum a posteriori by Levenberg-Marquardt (`scipy.optimize.least_squares`); Laplace's approximation: Gelman et
    al., *Bayesian Data Analysis*, ch. 4.
    """
    from scipy.optimize import least_squares  # late: it costs a tenth of a second

    if not chain.states:
        raise Refused("a port has at least one state")
    layout = Layout(chain)
    if not sum(len(s.lift) for s in chain.states):  # never flowed: the book is all there is
        return ChainFit(chain, layout.mean, layout.prior, 0.0, 0.0, 0, None, layout)
    readings = ChainReadings(layout)
    bench, wrong = flow_noise(chain)
    # Both are made white once: what is left is in units of its own scatter.
    white = np.linalg.inv(readings.root_of_noise(bench + wrong))
    flat = np.linalg.inv(np.linalg.cholesky(layout.prior))
    count = len(readings.flows.x)

    def residuals(theta: Array) -> Array:
        return np.concatenate([white @ readings.off(theta), flat @ (theta - layout.mean)])

    def slopes(theta: Array) -> Array:
        return np.concatenate([-white @ readings.slopes(theta), flat])

    start = layout.mean.copy()
    if layout.scale is not None:
        start[layout.scale] = float(np.mean(readings.off(start)[:count]))
    found = least_squares(residuals, start, jac=slopes, method="lm", max_nfev=200)
    jacobian = np.asarray(found.jac, dtype=float)
    covariance = np.linalg.inv(jacobian.T @ jacobian)
    covariance = (covariance + covariance.T) / 2
    data = found.fun[:count]
    left = readings.off(found.x)[:count]
    bare = np.sqrt(np.diag(bench))
    plain = float(np.sum((left / bare) ** 2))
    inverse = np.linalg.inv(bench + wrong)
    alone = inverse @ left / np.sqrt(np.diag(inverse))  # each against what all others say of it
    worst = int(np.argmax(np.abs(alone)))
    lifts = np.concatenate([s.lift for s in chain.states])
    does_not_fit = float(data @ data) > FAR * count
    return ChainFit(
        chain,
        np.asarray(found.x),
        np.asarray(covariance),
        float(data @ data),
        plain,
        count,
        float(lifts[worst]) if does_not_fit else None,
        layout,
    )


def _by_place(terms: Array) -> dict[str, Array]:
    return {place: terms[:, i] for i, place in enumerate((*PLACES, VALVE))}


def _summed(terms: Mapping[str, Array]) -> Array:
    """The whole loss, shape (draws, n)."""
    return np.asarray(np.sum(list(terms.values()), axis=0))


def guessed_flow(chain: Chain, lift: Array) -> Array:
    """What the book alone says a port flows at lifts [m3/s], shape (n,): for a port that nobody flowed."""
    layout = Layout(chain)
    at = layout.at(np.asarray(lift, dtype=float), len(chain.states) - 1)
    whole = layout.terms(layout.mean[None, :], at).sum(axis=1)
    return np.asarray(float(ideal_flux(chain.pressure)) / np.sqrt(whole[0]))


def place_name(place: str) -> str:
    """A place as it is said: the throat is the seat ring, the valve the opening at the seat."""
    return {Place.THROAT.value: tr("throat, seat ring"), VALVE: tr("valve and seat")}.get(place, place)
