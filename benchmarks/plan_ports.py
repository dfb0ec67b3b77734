"""Virtual ports as the planner sees them: sizes and noisy flows in, and nothing of the truth behind them."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Final

import numpy as np

from ventrix.bench.simulator.heads.contractions import contractions
from ventrix.bench.simulator.heads.kinetic import kinetic
from ventrix.bench.simulator.heads.two_streams import two_streams
from ventrix.bench.simulator.heads.virtual import PRESSURE, WORKED, VirtualPort
from ventrix.core.model.kinds import Place
from ventrix.core.planning.chain import Chain, ChainState, ChainValve, ChainWork
from ventrix.core.planning.chain_layout import Layout
from ventrix.core.planning.priors import median_losses
from ventrix.core.quantity.arrays import Array

GENERATORS: Final[dict[str, Callable[[int], VirtualPort]]] = {
    "two streams": two_streams,
    "contractions": contractions,
    "kinetic": kinetic,
}
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
    bench, wrong = layout.noise()
    whole, prior = np.linalg.cholesky(bench + wrong), np.linalg.cholesky(layout.prior)
    seen = np.log(np.concatenate([s.flow for s in chain.states]))

    def residuals(theta: Array) -> Array:
        said = np.concatenate([layout.log_flow(theta[None, :], i)[0] for i in range(len(chain.states))])
        return np.concatenate(
            [
                solve_triangular(whole, seen - said, lower=True),
                solve_triangular(prior, theta - layout.mean, lower=True),
            ]
        )

    least_squares(residuals, layout.mean, method="lm")


def chain_of(port: VirtualPort, states: Sequence[ChainState]) -> Chain:
    """The chain of a virtual port."""
    s = port.metal.sizes
    medians = median_losses("radius", s.short_side_radius, s.short_side_height, s.turning)
    return Chain(medians, tuple(states), PRESSURE)
