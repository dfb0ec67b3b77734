"""Where each parameter of a chain stands, and the chain as a function of all of them at once, as draws."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Final

import numpy as np

from ventrix.core.formulas.bench_flow import ideal_flux
from ventrix.core.formulas.valve import seat_opening_area
from ventrix.core.planning import priors
from ventrix.core.planning.chain import Chain, ChainClay, ChainSurvey, ChainWork
from ventrix.core.planning.learned import CastingPrior
from ventrix.core.planning.priors import CHAMBER, KNOTS, PLACES, SECTION_OF, SHORT_SIDE, VALVE
from ventrix.core.quantity.arrays import Array, Ints

TOLD: Final = 0.7  # of the book's spread: what is known better than that, the data say


def summed(terms: Mapping[str, Array]) -> Array:
    """The whole loss, shape (draws, n)."""
    return np.asarray(np.sum(list(terms.values()), axis=0))


def logit(p: float) -> float:
    """[-]"""
    return float(np.log(p / (1 - p)))


def expit(x: Array) -> Array:
    """[-]"""
    return np.asarray(1 / (1 + np.exp(-x)))


class Layout:
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
        self.lets_go = slice(n, n + 3)  # ln s, x0, ln of what a millimetre moves it
        n += 3
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
        self._of = np.repeat(np.arange(len(chain.states)), [len(s.lift) for s in chain.states])
        self._lifts = np.concatenate([s.lift for s in chain.states])
        self.mean = np.zeros(n)
        for place, i in self.k.items():
            self.mean[i] = np.log(max(chain.medians.get(place, 0.05), 1e-4))
        self.mean[self.cd] = np.log(priors.median_cd(chain.states[0].valve.seat_angle))
        for _, work, i in self.works:
            self.mean[i] = self.taken(work)
        moves, _ = priors.LETS_GO_MOVES
        self.mean[self.lets_go] = priors.LETS_GO_BY[0], priors.LETS_GO_AT[0], np.log(moves)
        self.prior = self.book = self._prior()
        if chain.learned is not None:
            self._learn(chain.learned)

    @property
    def shared(self) -> list[int]:
        """Where the parameters stand that ports of one casting have in common."""
        return [*self.k.values(), *range(self.size)[self.cd], *range(self.size)[self.lets_go]]

    def taken(self, work: ChainWork) -> float:
        """The logit of what a pass takes of its place's loss, as the book and this casting's ports have it."""
        learned = self.chain.learned
        return logit(work.taken) + (0.0 if learned is None else learned.removal.get(work.place, 0.0))

    def _learn(self, learned: CastingPrior) -> None:
        """Begin where finished ports of this casting say, in place of the book."""
        shared = self.shared
        root = np.linalg.cholesky(self.book[np.ix_(shared, shared)])
        self.mean[shared] = self.mean[shared] + root @ learned.mean
        self.prior = self.book.copy()
        self.prior[np.ix_(shared, shared)] = root @ learned.covariance @ root.T

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
        spread[self.lets_go] = priors.LETS_GO_BY[1], priors.LETS_GO_AT[1], priors.LETS_GO_MOVES[1]
        spread[self.clays] = [c.spread for c in self.chain.clays]
        found = np.diag(spread**2)
        knots = np.array(KNOTS)
        apart = np.abs(knots[:, None] - knots[None, :])
        found[self.cd, self.cd] = priors.CD_SPREAD**2 * np.exp(-apart / priors.CD_LENGTH)
        return found

    def terms(self, theta: Array, lift: Array, state: int | Ints) -> dict[str, Array]:
        """Loss by place, shape (draws, n); `state` is that of all lifts, or of each, shape (n,)."""
        states = self.chain.states
        diameter, seat_width, seat_angle, valves = (
            np.array([getattr(s.valve, name) for s in states])[state]
            for name in ("diameter", "seat_width", "seat_angle", "valves")
        )
        x = lift / diameter
        area = {
            p: np.array([s.areas.get(p, 1e-3) for s in states])[state] * np.exp(theta[:, i])[:, None]
            for p, i in self.a.items()
        }
        left = {p: np.zeros((len(theta), 1)) for p in PLACES}
        for s, work, i in self.works:
            done = np.asarray(s <= state)
            if done.any():
                left[work.place] = left[work.place] + np.log1p(-expit(theta[:, i]))[:, None] * done
        found: dict[str, Array] = {}
        for place, i in self.k.items():
            k = np.exp(theta[:, i][:, None] + left[place])
            grows = np.minimum((x / 0.25) ** 2, 1.0) if place == CHAMBER else np.ones_like(x)
            if place == SHORT_SIDE:
                k = k * (1 + self.let_go(theta, x, state))
            found[place] = k / area[SECTION_OF.get(place, place)] ** 2 * grows
        for near, far in zip(self.sections, self.sections[1:], strict=False):
            wider = np.maximum(1 / area[near] - 1 / area[far], 0.0)
            found[far] = found[far] + priors.RECOVERY * wider**2
        opening = seat_opening_area(diameter, seat_width, seat_angle, lift, valves)
        cd = np.exp(_between_knots(theta[:, self.cd], x))
        found[VALVE] = 1 / (cd * np.maximum(opening, 1e-9)) ** 2
        return found

    def let_go(self, theta: Array, x: Array, state: int | Ints, more: Array | float = 0.0) -> Array:
        """By what share the short side's loss has grown where the air let go of it, at L/D `x`, shape (draws, n);
        with `more` [m], shape (draws,), worked there since the state."""
        by, _, _ = theta[:, self.lets_go].T
        from_lift = self.lets_go_at(theta, state, more)
        return np.asarray(np.exp(by)[:, None] / (1 + np.exp(-(x - from_lift) / priors.LETS_GO_WIDTH)))

    def lets_go_at(self, theta: Array, state: int | Ints, more: Array | float = 0.0) -> Array:
        """L/D at which the air lets go of the short side in a state, shape (draws, 1), or (draws, n) in n of them."""
        _, at, moves = theta[:, self.lets_go].T
        worked = sum(w.depth * w.edge * np.asarray(s <= state) for s, w, _ in self.works if w.place == SHORT_SIDE)
        deeper = worked + np.reshape(more, (-1, 1))
        return np.asarray(at[:, None] + np.exp(moves)[:, None] * deeper * 1e3)

    def log_flow(self, theta: Array, state: int) -> Array:
        """ln Q at the tested lifts of a state, shape (draws, n)."""
        return self._log_flow(theta, self.chain.states[state].lift, state)

    def log_flows(self, theta: Array) -> Array:
        """ln Q at the tested lifts of all states, one after the other, shape (draws, n)."""
        return self._log_flow(theta, self._lifts, self._of)

    def _log_flow(self, theta: Array, lift: Array, state: int | Ints) -> Array:
        whole = summed(self.terms(theta, lift, state))
        flux = 1.0 if self.chain.is_index else float(ideal_flux(self.chain.pressure))
        found = np.log(flux) - 0.5 * np.log(whole)
        if self.chain.learned is not None:
            diameters = np.array([s.valve.diameter for s in self.chain.states])[state]
            found = found + self.chain.learned.residual_at(lift / diameters)
        return np.asarray(found if self.scale is None else found + theta[:, self.scale][:, None])

    def log_ratio(self, theta: Array, clay: ChainClay, i: int) -> Array:
        """ln(Q'/Q) with clay at a place, shape (draws, n): its section is narrower by what the clay took."""
        terms = self.terms(theta, clay.lift, clay.state)
        taken = np.minimum(clay.taken * np.exp(theta[:, self.clays][:, i]), 0.9)[:, None]
        whole = summed(terms)
        return np.asarray(-0.5 * np.log1p(terms[clay.place] / whole * ((1 - taken) ** -2 - 1)))

    def log_share(self, theta: Array, survey: ChainSurvey) -> Array:
        """ln of the share of the whole loss up to a surveyed place and its own with it, shape (draws,)."""
        terms = self.terms(theta, np.array([survey.lift]), survey.state)
        up_to = PLACES[: PLACES.index(survey.place) + 1]
        return np.asarray(np.log(sum(terms[p] for p in up_to) / summed(terms))[:, 0])

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
        now, book = (np.sqrt(np.diag(c)) for c in (covariance, self.book))
        found = {p: np.full(len(lift), now[i] < TOLD * book[i]) for p, i in self.k.items()}
        near = _between_knots(np.eye(len(KNOTS)), lift / self.chain.states[-1].valve.diameter)
        cd_now, cd_book = (np.sum(near * (c[self.cd, self.cd] @ near), axis=0) for c in (covariance, self.book))
        found[VALVE] = np.sqrt(cd_now) < TOLD * np.sqrt(cd_book)
        return found


def _between_knots(values: Array, x: Array) -> Array:
    """Straight lines between the knots of L/D, shape (draws, n); flat past the last."""
    knots = np.array(KNOTS)
    at = np.clip(x, knots[0], knots[-1])
    i = np.clip(np.searchsorted(knots, at, side="right") - 1, 0, len(knots) - 2)
    share = (at - knots[i]) / (knots[i + 1] - knots[i])
    return np.asarray(values[:, i] * (1 - share) + values[:, i + 1] * share)
