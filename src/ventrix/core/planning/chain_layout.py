"""Where each parameter of a chain stands, and the chain as a function of all of them at once, as draws."""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.core.formulas.bench_flow import ideal_flux
from ventrix.core.formulas.valve import seat_opening_area
from ventrix.core.planning import priors
from ventrix.core.planning.chain import Chain, ChainWork
from ventrix.core.planning.learned import CastingPrior
from ventrix.core.planning.priors import CHAMBER, KNOTS, PLACES, SECTION_OF, SHORT_SIDE, VALVE
from ventrix.core.quantity.arrays import Array, Ints

TOLD: Final = 0.7  # of the book's spread: what is known better than that, the data say


def logit(p: float) -> float:
    """[-]"""
    return float(np.log(p / (1 - p)))


def expit(x: Array) -> Array:
    """[-]"""
    return np.asarray(1 / (1 + np.exp(-x)))


class AtLifts:
    """Lifts in states of a chain, and what stands there whatever the parameters are.

    lift, state, x : lift [m], index of its state, L/D; shape (n,)
    flat : 1/A [1/m2] of the sections as they were measured or guessed, shape (sections, n)
    shape : what each place's K is divided and weighted by [1/m4], shape (places, n): its section, and how much of the
        chamber's loss is there at this lift
    opening : between valve and seat [m2], shape (n,)
    done : of each work of the layout whether it was done by then, shape (works, n)
    """

    def __init__(self, layout: Layout, lift: Array, state: Ints) -> None:
        valves = [(v.diameter, v.seat_width, v.seat_angle, v.valves) for v in (s.valve for s in layout.chain.states)]
        diameter, seat_width, seat_angle, count = np.array(valves)[state].T
        self.lift, self.state, self.x = lift, state, lift / diameter
        self.flat = layout.flat[:, state]
        self.shape = self.flat[layout.section] ** 2
        self.shape[PLACES.index(CHAMBER)] *= np.minimum((self.x / 0.25) ** 2, 1.0)
        self.opening = np.maximum(seat_opening_area(diameter, seat_width, seat_angle, lift, count), 1e-9)
        self.done = np.array([since <= state for since, _, _ in layout.works]).reshape(len(layout.works), len(lift))
        knots = np.array(KNOTS)
        within = np.clip(self.x, knots[0], knots[-1])
        self._knot = np.clip(np.searchsorted(knots, within, side="right") - 1, 0, len(knots) - 2)
        self._past = (within - knots[self._knot]) / (knots[self._knot + 1] - knots[self._knot])

    def between_knots(self, values: Array) -> Array:
        """Straight lines between values at the knots of L/D, shape (draws, knots) to (draws, n); flat past the last."""
        return np.asarray(values[:, self._knot] * (1 - self._past) + values[:, self._knot + 1] * self._past)


class Layout:
    """Where each parameter stands, and the chain as a function of all of them at once."""

    def __init__(self, chain: Chain) -> None:
        self.chain = chain
        self.sections = [p for p in PLACES if p not in SECTION_OF]
        self.k = {p: i for i, p in enumerate(PLACES)}
        n = len(PLACES)
        self.a = {p: n + i for i, p in enumerate(self.sections)}
        self.sizes = slice(n, n + len(self.sections))
        self.far = [self.k[p] for p in self.sections[1:]]  # places, whose section another leads into
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
        self.section = [self.sections.index(SECTION_OF.get(p, p)) for p in PLACES]  # of each place
        self.worked = [self.k[work.place] for _, work, _ in self.works]  # the place of each work
        self.takes = slice(self.works[0][2], self.works[-1][2] + 1) if self.works else slice(0, 0)
        self.flat = np.array([[1 / s.areas.get(p, 1e-3) for s in chain.states] for p in self.sections])
        on_short_side = [(s, w.depth * w.edge) for s, w, _ in self.works if w.place == SHORT_SIDE]
        self.short_side_worked = np.array(
            [sum(depth for since, depth in on_short_side if since <= s) for s in range(len(chain.states))]
        )  # m, by state
        self._flux = 1.0 if chain.is_index else float(ideal_flux(chain.pressure))
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

    def at(self, lift: Array, state: int | Ints) -> AtLifts:
        """Lifts [m], shape (n,), in one state, or each in its own."""
        return AtLifts(self, lift, np.broadcast_to(state, np.shape(lift)))

    def terms(self, theta: Array, at: AtLifts) -> Array:
        """Loss by place, the valve's last, shape (draws, places + 1, n)."""
        found = self.own_terms(theta, at)
        _, wider = self.widening(theta, at)
        found[:, self.far] += priors.RECOVERY * wider**2
        return found

    def own_terms(self, theta: Array, at: AtLifts) -> Array:
        """As `terms`, without what air loses where a section widens into the next."""
        k, a = theta[:, : len(PLACES)], theta[:, self.sizes][:, self.section]
        found = np.empty((len(theta), len(PLACES) + 1, len(at.x)))
        found[:, :-1] = np.exp(k - 2 * a)[:, :, None] * at.shape
        left = 1 - expit(theta[:, self.takes])
        for i, place in enumerate(self.worked):
            found[:, place] *= np.where(at.done[i], left[:, i, None], 1.0)
        found[:, self.k[SHORT_SIDE]] *= 1 + self.let_go(theta, at)
        found[:, -1] = 1 / (np.exp(at.between_knots(theta[:, self.cd])) * at.opening) ** 2
        return found

    def widening(self, theta: Array, at: AtLifts) -> tuple[Array, Array]:
        """1/A of the sections, and by how much it falls from each to the next, 0 where it rises [1/m2], shape
        (draws, sections, n) and one section less."""
        flat = np.exp(-theta[:, self.sizes])[:, :, None] * at.flat
        return flat, np.maximum(flat[:, :-1] - flat[:, 1:], 0.0)

    def let_go(self, theta: Array, at: AtLifts, more: Array | float = 0.0) -> Array:
        """By what share the short side's loss has grown where the air let go of it, shape (draws, n); with `more` [m],
        shape (draws,), worked there since the state."""
        by = theta[:, self.lets_go.start, None]
        from_lift = self.lets_go_at(theta, at.state, more)
        return np.asarray(np.exp(by) * expit((at.x - from_lift) / priors.LETS_GO_WIDTH))

    def lets_go_at(self, theta: Array, state: int | Ints, more: Array | float = 0.0) -> Array:
        """L/D at which the air lets go of the short side in a state, shape (draws, 1), or (draws, n) in n of them."""
        _, at, moves = theta[:, self.lets_go].T
        deeper = self.short_side_worked[state] + np.reshape(more, (-1, 1))
        return np.asarray(at[:, None] + np.exp(moves)[:, None] * deeper * 1e3)

    def log_flow(self, theta: Array, at: AtLifts) -> Array:
        """ln Q, shape (draws, n)."""
        found = np.log(self._flux) - 0.5 * np.log(self.terms(theta, at).sum(axis=1))
        if self.chain.learned is not None:
            found = found + self.chain.learned.residual_at(at.x)
        return np.asarray(found if self.scale is None else found + theta[:, self.scale, None])

    def told(self, covariance: Array, lift: Array) -> dict[str, Array]:
        """Of each place whether the data say its loss at lifts, and not the book alone, shape (n,): the valve's
        coefficient lift by lift, every K at all of them alike."""
        now, book = (np.sqrt(np.diag(c)) for c in (covariance, self.book))
        found = {p: np.full(len(lift), now[i] < TOLD * book[i]) for p, i in self.k.items()}
        near = self.at(lift, len(self.chain.states) - 1).between_knots(np.eye(len(KNOTS)))
        cd_now, cd_book = (np.sum(near * (c[self.cd, self.cd] @ near), axis=0) for c in (covariance, self.book))
        found[VALVE] = np.sqrt(cd_now) < TOLD * np.sqrt(cd_book)
        return found
