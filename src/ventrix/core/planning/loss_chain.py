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
from ventrix.core.planning.priors import CHAMBER, KNOTS, PLACES, SECTION_OF, VALVE
from ventrix.core.quantity.arrays import Array

SEED: Final = 20
DRAWS: Final = 400
TOLD: Final = 0.7  # of the book's spread: what is known better than that, the data say
FAR: Final = 2.0  # of chi-squared a reading: beyond, the port does something that the chain does not
STEP: Final = 1e-5  # of a logarithm, for slopes


@dataclass(frozen=True, slots=True)
class ChainValve:
    """The valve that a port was flowed with [m, rad]."""

    diameter: float
    stem: float
    seat_width: float
    seat_angle: float
    valves: int = 1


@dataclass(frozen=True, slots=True)
class ChainWork:
    """What was taken off one place on the way to a state: how deep [m], whether it had been worked before, and over
    what share of the edge that is worked there. `takes` is the median share of K, where no depth says it."""

    place: str
    depth: float
    before: bool = False
    edge: float = 1.0
    takes: float | None = None

    @property
    def taken(self) -> float:
        """Median share of the place's K that it takes away [-]."""
        if self.takes is not None:
            return self.takes
        return self.edge * priors.share_taken(self.place, self.depth, self.before)


@dataclass(frozen=True, slots=True)
class ChainState:
    """One flowed state of a port.

    areas : section by place [m2]; `measured` names those that were measured
    widths : how much of a section's edge is worked, by place [m]
    lift, flow : tested lifts [m] and flows [m3/s, or an index], shape (n,)
    repeat, mount : relative scatter of a reading and of the bolting-down
    works : what was taken off since the state before
    """

    areas: Mapping[str, float]
    measured: frozenset[str]
    widths: Mapping[str, float]
    valve: ChainValve
    lift: Array
    flow: Array
    repeat: float
    mount: float
    works: tuple[ChainWork, ...] = ()


@dataclass(frozen=True, slots=True)
class ChainClay:
    """A state flowed again with clay at a place: the share of the section it took and how well that is known
    (relative), lifts [m] and ln(Q'/Q), shape (n,), and the scatter of that: of a reading, and common to all."""

    state: int
    place: str
    taken: float
    spread: float
    lift: Array
    ratio: Array
    repeat: float
    common: float


@dataclass(frozen=True, slots=True)
class Chain:
    """What a port's chain begins with: its medians of K and its states, in order, and clay tried on them. `pressure` is
    the drop [Pa]; on an uncalibrated bench (`is_index`) the scale of flow is a parameter of the fit."""

    medians: Mapping[str, float]
    states: tuple[ChainState, ...]
    pressure: float
    is_index: bool = False
    clays: tuple[ChainClay, ...] = ()


@dataclass(frozen=True, slots=True)
class Limit:
    """A place's share of the loss at a lift, with its 80 % interval, and whether this port's data say so."""

    share: float
    low: float
    high: float
    from_data: bool


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
    _layout: _Layout = field(repr=False)

    @cached_property
    def draws(self) -> Array:
        """Draws of the parameters from the posterior, shape (400, m); the same every time."""
        random = np.random.default_rng(SEED)
        values, vectors = np.linalg.eigh(self.covariance)
        root = vectors * np.sqrt(np.maximum(values, 0.0))
        return np.asarray(self.best + random.standard_normal((DRAWS, len(self.best))) @ root.T)

    def terms(self, lift: Array, state: int = -1, theta: Array | None = None) -> dict[str, Array]:
        """Loss by place at lifts, dp/(rho/2 Q^2) [1/m4], shape (draws, n); "valve" is the opening at the seat."""
        at = self.draws if theta is None else np.atleast_2d(theta)
        return self._layout.terms(at, np.asarray(lift, dtype=float), state % len(self.chain.states))

    def limits(self, lift: Array, state: int = -1) -> list[dict[str, Limit]]:
        """What limits at each lift: shares by place that sum to one."""
        drawn = self.terms(lift, state)
        best = self.terms(lift, state, self.best)
        whole, most_likely = _sum(drawn), _sum(best)
        told = self._layout.told(self.covariance, np.atleast_1d(np.asarray(lift, dtype=float)))
        found = []
        for i in range(len(np.atleast_1d(lift))):
            here = {}
            for place, term in drawn.items():
                share = term[:, i] / whole[:, i]
                low, high = np.quantile(share, [0.1, 0.9])
                value = float(best[place][0, i] / most_likely[0, i])
                here[place] = Limit(value, float(min(low, value)), float(max(high, value)), bool(told[place][i]))
            found.append(here)
        return found

    def gain(self, works: Sequence[ChainWork], lift: Array, random: np.random.Generator | None = None) -> Array:
        """Relative gain of flow by draws at lifts, shape (draws, n), of works done to the last state."""
        draw = random or np.random.default_rng(SEED + 1)
        x = np.asarray(lift, dtype=float)
        state = self.chain.states[-1]
        terms = self.terms(x)
        before = _sum(terms)
        after = dict(terms)
        count = len(self.draws)
        for work in works:
            if work.place not in PLACES:
                continue
            section = SECTION_OF.get(work.place, work.place)
            area = state.areas.get(section, 1.0)
            deep = work.depth * np.exp(priors.DEPTH_SPREAD * draw.standard_normal(count))
            grown = (1 + work.edge * deep * state.widths.get(section, 0.0) / area)[:, None]
            taken = _logit(work.taken)
            share = _expit(taken + priors.TAKES_SPREAD * draw.standard_normal(count))[:, None]
            after[work.place] = after[work.place] * (1 - share)
            for place in PLACES:
                if SECTION_OF.get(place, place) == section:
                    after[place] = after[place] / grown**2
        ratio = np.sqrt(before / _sum(after))
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
        before = _sum(terms)
        wider = (diameter / state.valve.diameter) ** 2
        after = {p: t / wider**2 if SECTION_OF.get(p, p) == Place.THROAT.value else t for p, t in terms.items()}
        v = state.valve
        old, new = (np.maximum(seat_opening_area(d, v.seat_width, v.seat_angle, x, v.valves), 1e-9)
                    for d in (v.diameter, diameter))  # fmt: skip
        after[VALVE] = after[VALVE] * (old / new) ** 2
        wide = np.exp(priors.GAIN_SPREAD * draw.standard_normal(len(self.draws)))[:, None]
        floor = priors.GAIN_FLOOR * draw.standard_normal(len(self.draws))[:, None]
        return np.asarray(np.expm1(0.5 * np.log(before / _sum(after)) * wide) + floor)


def _sum(terms: Mapping[str, Array]) -> Array:
    return np.asarray(np.sum(list(terms.values()), axis=0))


def _logit(p: float) -> float:
    return float(np.log(p / (1 - p)))


def _expit(x: Array) -> Array:
    return np.asarray(1 / (1 + np.exp(-x)))


class _Layout:
    """Where each parameter stands, and the chain as a function of all of them at once."""

    def __init__(self, chain: Chain) -> None:
        self.chain = chain
        self.sections = [p for p in PLACES if p not in SECTION_OF]
        self.k = {p: i for i, p in enumerate(PLACES)}
        n = len(PLACES)
        self.a = {p: n + i for i, p in enumerate(self.sections)}
        n += len(self.sections)
        self.cd = slice(n, n + len(KNOTS))
        n += len(KNOTS)
        self.works: list[tuple[int, ChainWork, int]] = []
        for s, state in enumerate(chain.states):
            for work in state.works:
                if work.place in self.k:
                    self.works.append((s, work, n))
                    n += 1
        self.scale = n if chain.is_index else None
        n += self.scale is not None
        self.clays = slice(n, n + len(chain.clays))
        n += len(chain.clays)
        self.size = n
        self.mean = np.zeros(n)
        for place, i in self.k.items():
            self.mean[i] = np.log(max(chain.medians.get(place, 0.05), 1e-4))
        self.mean[self.cd] = np.log(priors.median_cd(chain.states[0].valve.seat_angle))
        for _, work, i in self.works:
            self.mean[i] = _logit(work.taken)
        self.prior = self._prior()

    def _prior(self) -> Array:
        """Prior covariance of the parameters."""
        spread = np.zeros(self.size)
        for place, i in self.k.items():
            spread[i] = priors.spread_of(place)
        known = self.chain.states[0].measured
        for place, i in self.a.items():
            spread[i] = priors.AREA_SPREAD if place in known else priors.GUESSED_SPREAD
        for _, _, i in self.works:
            spread[i] = priors.TAKES_SPREAD
        if self.scale is not None:
            spread[self.scale] = 2.0
        spread[self.clays] = [c.spread for c in self.chain.clays]
        found = np.diag(spread**2)
        knots = np.array(KNOTS)
        apart = np.abs(knots[:, None] - knots[None, :])
        found[self.cd, self.cd] = priors.CD_SPREAD**2 * np.exp(-apart / priors.CD_LENGTH)
        return found

    def terms(self, theta: Array, lift: Array, state: int) -> dict[str, Array]:
        """Loss by place, shape (draws, n)."""
        here = self.chain.states[state]
        x = lift / here.valve.diameter
        area = {p: here.areas.get(p, 1e-3) * np.exp(theta[:, i])[:, None] for p, i in self.a.items()}
        left = {p: np.zeros(len(theta)) for p in PLACES}
        for s, work, i in self.works:
            if s <= state:
                left[work.place] = left[work.place] + np.log1p(-_expit(theta[:, i]))
        found: dict[str, Array] = {}
        for place, i in self.k.items():
            k = np.exp(theta[:, i] + left[place])[:, None]
            grows = np.minimum((x / 0.25) ** 2, 1.0) if place == CHAMBER else np.ones_like(x)
            found[place] = k / area[SECTION_OF.get(place, place)] ** 2 * grows
        for near, far in zip(self.sections, self.sections[1:], strict=False):
            wider = np.maximum(1 / area[near] - 1 / area[far], 0.0)
            found[far] = found[far] + priors.RECOVERY * wider**2
        v = here.valve
        opening = seat_opening_area(v.diameter, v.seat_width, v.seat_angle, lift, v.valves)
        cd = np.exp(_between_knots(theta[:, self.cd], x))
        found[VALVE] = 1 / (cd * np.maximum(opening, 1e-9)) ** 2
        return found

    def log_flow(self, theta: Array, state: int) -> Array:
        """ln Q at the tested lifts of a state, shape (draws, n)."""
        here = self.chain.states[state]
        whole = _sum(self.terms(theta, here.lift, state))
        flux = 1.0 if self.chain.is_index else float(ideal_flux(self.chain.pressure))
        found = np.log(flux) - 0.5 * np.log(whole)
        return np.asarray(found if self.scale is None else found + theta[:, self.scale][:, None])

    def log_ratio(self, theta: Array, clay: ChainClay, i: int) -> Array:
        """ln(Q'/Q) with clay at a place, shape (draws, n): its section is narrower by what the clay took."""
        terms = self.terms(theta, clay.lift, clay.state)
        taken = np.minimum(clay.taken * np.exp(theta[:, self.clays][:, i]), 0.9)[:, None]
        whole = _sum(terms)
        return np.asarray(-0.5 * np.log1p(terms[clay.place] / whole * ((1 - taken) ** -2 - 1)))

    def noise(self) -> tuple[Array, Array]:
        """Covariance of ln Q of all states together: the bench's part, and the chain's own wrongness."""
        x = np.concatenate([s.lift / s.valve.diameter for s in self.chain.states])
        which = np.concatenate([np.full(len(s.lift), i) for i, s in enumerate(self.chain.states)])
        same = which[:, None] == which[None, :]
        near = np.exp(-0.5 * ((x[:, None] - x[None, :]) / priors.WRONG_LENGTH) ** 2)
        one = priors.WRONG**2 * ((1 - priors.WRONG_WHITE) * near + priors.WRONG_WHITE * (x[:, None] == x[None, :]))
        steps = 1 + priors.STEP_SHARE**2 * np.minimum(which[:, None], which[None, :])
        repeat = np.concatenate([np.full(len(s.lift), s.repeat) for s in self.chain.states])
        mount = np.concatenate([np.full(len(s.lift), s.mount) for s in self.chain.states])
        bench = np.diag(repeat**2) + same * np.outer(mount, mount)
        return bench, one * steps

    def told(self, covariance: Array, lift: Array) -> dict[str, Array]:
        """Of each place whether the data say its loss at lifts, and not the book alone, shape (n,): the valve's
        coefficient lift by lift, every K at all of them alike."""
        now, book = (np.sqrt(np.diag(c)) for c in (covariance, self.prior))
        found = {p: np.full(len(lift), now[i] < TOLD * book[i]) for p, i in self.k.items()}
        near = _between_knots(np.eye(len(KNOTS)), lift / self.chain.states[-1].valve.diameter)
        cd_now, cd_book = (np.sum(near * (c[self.cd, self.cd] @ near), axis=0) for c in (covariance, self.prior))
        found[VALVE] = np.sqrt(cd_now) < TOLD * np.sqrt(cd_book)
        return found


def _between_knots(values: Array, x: Array) -> Array:
    """Straight lines between the knots of L/D, shape (draws, n); flat past the last."""
    knots = np.array(KNOTS)
    at = np.clip(x, knots[0], knots[-1])
    i = np.clip(np.searchsorted(knots, at, side="right") - 1, 0, len(knots) - 2)
    share = (at - knots[i]) / (knots[i + 1] - knots[i])
    return np.asarray(values[:, i] * (1 - share) + values[:, i + 1] * share)


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
    from scipy.linalg import block_diag, solve_triangular
    from scipy.optimize import least_squares  # late: it costs a tenth of a second

    if not chain.states:
        raise ValueError("a port has at least one state")
    layout = _Layout(chain)
    if not sum(len(s.lift) for s in chain.states):  # never flowed: the book is all there is
        return ChainFit(chain, layout.mean, layout.prior, 0.0, 0.0, 0, None, layout)
    bench, wrong = layout.noise()
    whole = np.linalg.cholesky(bench + wrong)
    prior = np.linalg.cholesky(layout.prior)
    flows = np.log(np.concatenate([s.flow for s in chain.states]))
    seen = np.concatenate([flows, *(c.ratio for c in chain.clays)])
    whole = block_diag(whole, *(np.linalg.cholesky(_clay_noise(c)) for c in chain.clays))

    def said(theta: Array) -> Array:
        states = [layout.log_flow(theta, i) for i in range(len(chain.states))]
        clays = [layout.log_ratio(theta, c, i) for i, c in enumerate(chain.clays)]
        return np.concatenate([*states, *clays], axis=1)

    def off(theta: Array) -> Array:
        return np.asarray(seen - said(theta[None, :])[0])

    def residuals(theta: Array) -> Array:
        data = solve_triangular(whole, off(theta), lower=True)
        book = solve_triangular(prior, theta - layout.mean, lower=True)
        return np.concatenate([data, book])

    flat = solve_triangular(prior, np.eye(layout.size), lower=True)

    def slopes(theta: Array) -> Array:
        """All parameters moved at once: the chain takes them as draws."""
        moved = said(np.vstack([theta + STEP * np.eye(layout.size), theta - STEP * np.eye(layout.size)]))
        rise = (moved[: layout.size] - moved[layout.size :]).T / (2 * STEP)
        return np.concatenate([solve_triangular(whole, -rise, lower=True), flat])

    start = layout.mean.copy()
    if layout.scale is not None:
        start[layout.scale] = float(np.mean(off(start)[: len(flows)]))
    found = least_squares(residuals, start, jac=slopes, method="lm", max_nfev=200)
    jacobian = np.asarray(found.jac, dtype=float)
    covariance = np.linalg.pinv(jacobian.T @ jacobian)
    data = found.fun[: len(flows)]
    left = off(found.x)[: len(flows)]
    bare = np.sqrt(np.diag(bench))
    plain = float(np.sum((left / bare) ** 2))
    inverse = np.linalg.inv(bench + wrong)
    alone = inverse @ left / np.sqrt(np.diag(inverse))  # each against what all others say of it
    worst = int(np.argmax(np.abs(alone)))
    lifts = np.concatenate([s.lift for s in chain.states])
    does_not_fit = float(data @ data) > FAR * len(flows)
    return ChainFit(
        chain,
        np.asarray(found.x),
        np.asarray(covariance),
        float(data @ data),
        plain,
        len(flows),
        float(lifts[worst]) if does_not_fit else None,
        layout,
    )


def _clay_noise(clay: ChainClay) -> Array:
    """Covariance of ln(Q'/Q): both readings scatter, what is common does so at all lifts alike, and clay is no cut."""
    n = len(clay.lift)
    common = np.hypot(clay.common, priors.CLAY_WRONG)
    return np.asarray(2 * clay.repeat**2 * np.eye(n) + common**2 * np.ones((n, n)))


def guessed_flow(chain: Chain, lift: Array) -> Array:
    """What the book alone says a port flows at lifts [m3/s], shape (n,): for a port that nobody flowed."""
    layout = _Layout(chain)
    whole = _sum(layout.terms(layout.mean[None, :], np.asarray(lift, dtype=float), len(chain.states) - 1))
    return np.asarray(float(ideal_flux(chain.pressure)) / np.sqrt(whole[0]))


def place_name(place: str) -> str:
    """A place as it is said: the throat is the seat ring, the valve the opening at the seat."""
    return {Place.THROAT.value: "throat, seat ring", VALVE: "valve and seat"}.get(place, place)
