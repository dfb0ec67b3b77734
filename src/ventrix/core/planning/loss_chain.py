"""A port as a chain of losses, fitted to its own flow tests: what limits, and what a cut would bring.

.. math:: \\frac{\\Delta p}{\\tfrac12 \\rho Q^2} = \\sum_i \\frac{K_i}{A_i^2} + \\frac{1}{(C_d A_v)^2}

The chain is wrong somewhere, and carries by how much: see `priors`. SI throughout.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import cached_property
from typing import Final

import numpy as np

from ventrix.core.formulas.bench_flow import ideal_flux
from ventrix.core.formulas.valve import seat_opening_area
from ventrix.core.model.kinds import Place
from ventrix.core.planning import priors
from ventrix.core.planning.chain import Chain, ChainClay, ChainWork
from ventrix.core.planning.chain_layout import TOLD, Layout, expit, summed
from ventrix.core.planning.priors import PLACES, SECTION_OF, SHORT_SIDE, VALVE
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

SEED: Final = 20
DRAWS: Final = 400
FAR: Final = 2.0  # of chi-squared a reading: beyond, the port does something that the chain does not
LEAST_LET_GO: Final = 0.02  # of the loss at the highest lift: less is not told from a smooth curve
STEP: Final = 1e-5  # of a logarithm, for slopes


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
        return self.layout.terms(at, np.asarray(lift, dtype=float), state % len(self.chain.states))

    def limits(self, lift: Array, state: int = -1) -> list[dict[str, Limit]]:
        """What limits at each lift: shares by place that sum to one."""
        drawn = self.shares(lift, state)
        best = self.terms(lift, state, self.best)
        most_likely = summed(best)
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
                at, of = np.atleast_1d(np.asarray(lift, dtype=float)), state % len(self.chain.states)
                grown = self.layout.let_go(self.draws, at / self.chain.states[of].valve.diameter, of)
                spread = np.hypot(spread, priors.LET_GO_SPREAD * grown / (1 + grown))
            wide[place] = term * np.exp(spread * draw.standard_normal((len(term), 1)))
        whole = summed(wide)
        return {place: term / whole for place, term in wide.items()}

    @cached_property
    def separation(self) -> Separation | None:
        """Where the flow separates from the short side, where the data tell it: within the tested lifts, and worth at
        least `LEAST_LET_GO` of the loss in nine draws of ten."""
        state = self.chain.states[-1]
        if not self.count or not len(state.lift):
            return None
        last, d, top = len(self.chain.states) - 1, state.valve.diameter, float(np.max(state.lift))
        grown = self.layout.let_go(self.draws, np.array([top / d]), last)[:, 0]
        eaten = self.terms(np.array([top]))
        share = (eaten[SHORT_SIDE] / summed(eaten))[:, 0] * grown / (1 + grown)
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
            gone[place] = np.maximum(sum(before[p] - after[p] for p in own) / summed(before), 0.0) @ over
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
        before = summed(terms)
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
                last, at = len(self.chain.states) - 1, x / state.valve.diameter
                held = self.layout.let_go(self.draws, at, last)
                later = self.layout.let_go(self.draws, at, last, work.edge * deep)
                # Whether what the separated air loses shrinks with the place's own loss, nobody can say.
                kept = (kept + later * (1 - share * draw.random((count, 1)))) / (1 + held)
            after[work.place] = after[work.place] * kept
            for place in PLACES:
                if SECTION_OF.get(place, place) == section:
                    after[place] = after[place] / grown**2
        ratio = np.sqrt(before / summed(after))
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
        before = summed(terms)
        wider = (diameter / state.valve.diameter) ** 2
        after = {p: t / wider**2 if SECTION_OF.get(p, p) == Place.THROAT.value else t for p, t in terms.items()}
        v = state.valve
        old, new = (np.maximum(seat_opening_area(d, v.seat_width, v.seat_angle, x, v.valves), 1e-9)
                    for d in (v.diameter, diameter))  # fmt: skip
        after[VALVE] = after[VALVE] * (old / new) ** 2
        wide = np.exp(priors.GAIN_SPREAD * draw.standard_normal(len(self.draws)))[:, None]
        floor = priors.GAIN_FLOOR * draw.standard_normal(len(self.draws))[:, None]
        return np.asarray(np.expm1(0.5 * np.log(before / summed(after)) * wide) + floor)


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
        raise Refused("a port has at least one state")
    layout = Layout(chain)
    if not sum(len(s.lift) for s in chain.states):  # never flowed: the book is all there is
        return ChainFit(chain, layout.mean, layout.prior, 0.0, 0.0, 0, None, layout)
    bench, wrong = layout.noise()
    whole = np.linalg.cholesky(bench + wrong)
    prior = np.linalg.cholesky(layout.prior)
    flows = np.log(np.concatenate([s.flow for s in chain.states]))
    surveyed = np.array([np.log(s.share) - priors.SURVEY_BIAS[0] for s in chain.surveys])
    seen = np.concatenate([flows, *(c.ratio for c in chain.clays), surveyed])
    whole = block_diag(whole, *(np.linalg.cholesky(_clay_noise(c)) for c in chain.clays))
    if chain.surveys:
        whole = block_diag(whole, np.linalg.cholesky(_survey_noise(chain)))

    def said(theta: Array) -> Array:
        clays = [layout.log_ratio(theta, c, i) for i, c in enumerate(chain.clays)]
        shares = [layout.log_share(theta, s)[:, None] for s in chain.surveys]
        return np.concatenate([layout.log_flows(theta), *clays, *shares], axis=1)

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


def _survey_noise(chain: Chain) -> Array:
    """Covariance of ln of the surveyed shares: each has its own doubt, and one probe's bias is in all."""
    own = np.diag([s.doubt**2 for s in chain.surveys])
    return np.asarray(own + priors.SURVEY_BIAS[1] ** 2)


def guessed_flow(chain: Chain, lift: Array) -> Array:
    """What the book alone says a port flows at lifts [m3/s], shape (n,): for a port that nobody flowed."""
    layout = Layout(chain)
    whole = summed(layout.terms(layout.mean[None, :], np.asarray(lift, dtype=float), len(chain.states) - 1))
    return np.asarray(float(ideal_flux(chain.pressure)) / np.sqrt(whole[0]))


def place_name(place: str) -> str:
    """A place as it is said: the throat is the seat ring, the valve the opening at the seat."""
    return {Place.THROAT.value: tr("throat, seat ring"), VALVE: tr("valve and seat")}.get(place, place)
