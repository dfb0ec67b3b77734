"""Virtual ports as the planner sees them: sizes and noisy flows in, and nothing of the truth behind them."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Final

import numpy as np

from ventrix.bench.simulator.heads.contractions import contractions
from ventrix.bench.simulator.heads.kinetic import kinetic
from ventrix.bench.simulator.heads.letting_go import letting_go
from ventrix.bench.simulator.heads.two_streams import two_streams
from ventrix.bench.simulator.heads.virtual import PRESSURE, WORKED, Draws, VirtualPort
from ventrix.core.model.kinds import Place
from ventrix.core.planning.chain import Chain, ChainState, ChainValve, ChainWork
from ventrix.core.planning.chain_layout import Layout
from ventrix.core.planning.chain_readings import flow_noise
from ventrix.core.planning.learned import CastingPrior
from ventrix.core.planning.loss_chain import ChainFit, fit_chain
from ventrix.core.planning.priors import median_losses
from ventrix.core.quantity.arrays import Array

GENERATORS: Final[dict[str, Callable[[int | Draws], VirtualPort]]] = {
    "two streams": two_streams,
    "contractions": contractions,
    "kinetic": kinetic,
    "letting go": letting_go,
}
WITHIN: Final = 0.45  # of a spread of 1 between castings: what ports of one casting differ by


class OfCasting:
    """Numbers of one port of a casting: each normal score is the casting's own, and the port's part of it."""

    def __init__(self, casting: int, port: int, within: float = WITHIN) -> None:
        self._within = within
        self._casting, self._port = (np.random.default_rng(s) for s in ((casting, 71), (casting, port, 72)))

    def standard_normal(self) -> float:
        own, shared = self._port.standard_normal(), self._casting.standard_normal()
        return float(self._within * own + (1 - self._within**2) ** 0.5 * shared)

    def normal(self, mean: float = 0.0, spread: float = 1.0, /) -> float:
        return mean + spread * self.standard_normal()

    def uniform(self, low: float = 0.0, high: float = 1.0, /) -> float:
        from scipy.special import ndtr

        return low + (high - low) * float(ndtr(self.standard_normal()))


def finished(make: Callable[[OfCasting], VirtualPort], casting: int, port: int) -> ChainFit:
    """A port of a casting that was worked at every place and flowed after each, fitted from the book's prior."""
    random = np.random.default_rng((casting, port, 73))
    each = make(OfCasting(casting, port))
    states = [state_of(each, each.measured(LIFT, random))]
    for place in WORKED:
        each = each.work(place, 0.5e-3, random)
        states.append(state_of(each, each.measured(LIFT, random), [(place, 0.5e-3, False)]))
    return fit_chain(chain_of(each, states))


LIFT: Final = np.arange(1, 13) * 0.00127
REPEAT, MOUNT = 0.003, 0.003


def state_of(port: VirtualPort, flow: Array, works: Sequence[tuple[Place, float, bool]] = ()) -> ChainState:
    """A flowed state of a virtual port, as it can be measured."""
    s = port.metal.sizes
    return ChainState(
        areas={p.value: a for p, a in s.areas.items()},
        measured=frozenset(p.value for p in WORKED),
        widths={p.value: w for p, w in s.widths.items()},
        valve=ChainValve(s.valve_diameter, s.stem_diameter, s.seat_width, s.seat_angle),
        lift=LIFT,
        flow=flow,
        repeat=REPEAT,
        mount=MOUNT,
        works=tuple(ChainWork(p.value, d, b) for p, d, b in works),
    )


def bare_fit(chain: Chain) -> None:
    """`least_squares` on the residuals that `fit_chain` has, and nothing around it."""
    from scipy.linalg import solve_triangular
    from scipy.optimize import least_squares

    layout = Layout(chain)
    bench, wrong = flow_noise(chain)
    whole, prior = np.linalg.cholesky(bench + wrong), np.linalg.cholesky(layout.prior)
    seen = np.log(np.concatenate([s.flow for s in chain.states]))

    def residuals(theta: Array) -> Array:
        one = theta[None, :]
        said = np.concatenate([layout.log_flow(one, layout.at(s.lift, i))[0] for i, s in enumerate(chain.states)])
        return np.concatenate(
            [
                solve_triangular(whole, seen - said, lower=True),
                solve_triangular(prior, theta - layout.mean, lower=True),
            ]
        )

    least_squares(residuals, layout.mean, method="lm")


def chain_of(port: VirtualPort, states: Sequence[ChainState], learned: CastingPrior | None = None) -> Chain:
    """The chain of a virtual port."""
    s = port.metal.sizes
    medians = median_losses("radius", s.short_side_radius, s.short_side_height, s.turning)
    return Chain(medians, tuple(states), PRESSURE, learned=learned)
