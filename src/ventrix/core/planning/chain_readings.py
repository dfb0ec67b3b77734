"""All that was read at a port, how it scatters, what a chain says of it, and how that answers to its parameters."""

from __future__ import annotations

import numpy as np

from ventrix.core.planning import priors
from ventrix.core.planning.chain import Chain, ChainClay
from ventrix.core.planning.chain_layout import AtLifts, Layout, expit
from ventrix.core.planning.priors import KNOTS, PLACES, SHORT_SIDE
from ventrix.core.quantity.arrays import Array

MOST_TAKEN = 0.9  # of a section, by clay


class ChainReadings:
    """Flows of all states, flows with clay, and surveyed shares, one after the other: N logarithms."""

    def __init__(self, layout: Layout) -> None:
        chain = layout.chain
        self._layout = layout
        of = np.repeat(np.arange(len(chain.states)), [len(s.lift) for s in chain.states])
        self.flows = layout.at(np.concatenate([s.lift for s in chain.states]), of)
        self._clays = [(c, layout.at(c.lift, c.state)) for c in chain.clays]
        self._surveys = [(PLACES.index(s.place) + 1, layout.at(np.array([s.lift]), s.state)) for s in chain.surveys]
        surveyed = np.array([np.log(s.share) - priors.SURVEY_BIAS[0] for s in chain.surveys])
        flows = np.log(np.concatenate([s.flow for s in chain.states]))
        self._read = np.concatenate([flows, *(c.ratio for c in chain.clays), surveyed])

    def root_of_noise(self, of_flows: Array) -> Array:
        """Cholesky's root of the covariance of all of them, shape (N, N), with that of the flows' logarithms."""
        from scipy.linalg import block_diag

        chain = self._layout.chain
        parts = [of_flows, *(_clay_noise(c) for c in chain.clays)]
        if chain.surveys:
            parts.append(_survey_noise(chain))
        return np.asarray(block_diag(*(np.linalg.cholesky(part) for part in parts)))

    def off(self, theta: Array) -> Array:
        """What was read less what the chain says, shape (N,), at one set of parameters, shape (m,)."""
        layout, one = self._layout, theta[None, :]
        said = [layout.log_flow(one, self.flows)[0]]
        for i, (clay, at) in enumerate(self._clays):
            terms = layout.terms(one, at)[0]
            grown, _ = _narrowed(clay, theta[layout.clays][i])
            said.append(-0.5 * np.log1p(terms[layout.k[clay.place]] / terms.sum(axis=0) * (grown - 1)))
        for up_to, at in self._surveys:
            terms = layout.terms(one, at)[0]
            said.append(np.log(terms[:up_to].sum(axis=0) / terms.sum(axis=0)))
        return np.asarray(self._read - np.concatenate(said))

    def slopes(self, theta: Array) -> Array:
        """How what the chain says answers to each parameter, shape (N, m), at one set of them."""
        layout = self._layout
        terms, rises = _slopes(layout, theta, self.flows)
        found = [-0.5 * rises.sum(axis=1) / terms.sum(axis=0)]
        if layout.scale is not None:
            found[0][layout.scale] = 1.0
        for i, (clay, at) in enumerate(self._clays):
            terms, rises = _slopes(layout, theta, at)
            place, whole = layout.k[clay.place], terms.sum(axis=0)
            grown, rise = _narrowed(clay, theta[layout.clays][i])
            share = terms[place] / whole
            of_ratio = (grown - 1) * (rises[:, place] - share * rises.sum(axis=1)) / whole
            of_ratio[layout.clays.start + i] += share * rise
            found.append(-0.5 * of_ratio / (1 + share * (grown - 1)))
        for up_to, at in self._surveys:
            terms, rises = _slopes(layout, theta, at)
            before = rises[:, :up_to].sum(axis=1) / terms[:up_to].sum(axis=0)
            found.append(before - rises.sum(axis=1) / terms.sum(axis=0))
        return np.concatenate(found, axis=1).T


def _narrowed(clay: ChainClay, by: float) -> tuple[float, float]:
    """What the loss grows to where clay narrows a section [-], and how that answers to the logarithm `by`."""
    taken = min(clay.taken * float(np.exp(by)), MOST_TAKEN)
    return (1 - taken) ** -2, 2 * taken * (1 - taken) ** -3 if taken < MOST_TAKEN else 0.0


def _slopes(layout: Layout, theta: Array, at: AtLifts) -> tuple[Array, Array]:
    """Loss by place, shape (places + 1, n), and how it answers to each parameter, shape (m, places + 1, n)."""
    one = theta[None, :]
    own = layout.own_terms(one, at)[0]
    found = np.zeros((layout.size, *own.shape))
    places = np.arange(len(PLACES))
    sizes = layout.sizes.start + np.array(layout.section)
    found[places, places] = own[:-1]
    found[sizes, places] = -2 * own[:-1]
    taken = -expit(theta[layout.takes])[:, None] * own[layout.worked] * at.done
    found[np.arange(layout.size)[layout.takes], layout.worked] = taken
    found[layout.cd, -1] = -2 * own[-1] * at.between_knots(np.eye(len(KNOTS)))
    by, begins, moves = range(layout.size)[layout.lets_go]
    short_side = layout.k[SHORT_SIDE]
    grown = layout.let_go(one, at)[0]
    attached = own[short_side] / (1 + grown)
    later = -attached * grown * (1 - grown / np.exp(theta[by])) / priors.LETS_GO_WIDTH
    found[by, short_side] = attached * grown
    found[begins, short_side] = later
    found[moves, short_side] = later * np.exp(theta[moves]) * layout.short_side_worked[at.state] * 1e3
    flat, wider = (each[0] for each in layout.widening(one, at))
    near = np.arange(layout.sizes.start, layout.sizes.stop - 1)
    found[near, layout.far] -= 2 * priors.RECOVERY * wider * flat[:-1]
    found[near + 1, layout.far] += 2 * priors.RECOVERY * wider * flat[1:]
    own[layout.far] += priors.RECOVERY * wider**2
    return own, found


def flow_noise(chain: Chain) -> tuple[Array, Array]:
    """Covariance of ln Q of all states together: the bench's part, and the chain's own wrongness."""
    x = np.concatenate([s.lift / s.valve.diameter for s in chain.states])
    which = np.concatenate([np.full(len(s.lift), i) for i, s in enumerate(chain.states)])
    same = which[:, None] == which[None, :]
    near = np.exp(-0.5 * ((x[:, None] - x[None, :]) / priors.WRONG_LENGTH) ** 2)
    one = priors.WRONG**2 * ((1 - priors.WRONG_WHITE) * near + priors.WRONG_WHITE * (x[:, None] == x[None, :]))
    steps = 1 + priors.STEP_SHARE**2 * np.minimum(which[:, None], which[None, :])
    repeat = np.concatenate([np.full(len(s.lift), s.repeat) for s in chain.states])
    mount = np.concatenate([np.full(len(s.lift), s.mount) for s in chain.states])
    bench = np.diag(repeat**2) + same * np.outer(mount, mount)
    return bench, one * steps


def _clay_noise(clay: ChainClay) -> Array:
    """Covariance of ln(Q'/Q): both readings scatter, what is common does so at all lifts alike, and clay is no cut."""
    n = len(clay.lift)
    common = np.hypot(clay.common, priors.CLAY_WRONG)
    return np.asarray(2 * clay.repeat**2 * np.eye(n) + common**2 * np.ones((n, n)))


def _survey_noise(chain: Chain) -> Array:
    """Covariance of ln of the surveyed shares: each has its own doubt, and one probe's bias is in all."""
    own = np.diag([s.doubt**2 for s in chain.surveys])
    return np.asarray(own + priors.SURVEY_BIAS[1] ** 2)
