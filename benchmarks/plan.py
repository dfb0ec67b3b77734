"""The planner judged on virtual ports of other structures: coverage of its intervals, and hours well spent.

``python -m benchmarks.plan [PORTS]`` prints a row a generator: coverage of the 80 % intervals of the first gains (aim
70 to 90 %), and gain averaged over hours 2 to 8 against an oracle that knows the truth, for the plan, the usual order,
and chance. A miss is a row that says so; the generators are never tuned with the chain.
"""

from __future__ import annotations

import sys
import time
from collections.abc import Callable

import numpy as np

from benchmarks.plan_ports import GENERATORS, LIFT, chain_of, state_of
from ventrix.bench.simulator.heads.virtual import MINUTES, VirtualPort
from ventrix.core.model.kinds import Place
from ventrix.core.planning.loss_chain import ChainState, ChainWork, fit_chain

HOURS = 8.0
REFLOW = 0.5  # h
DEPTH = 0.5e-3
LIMIT = 2.5e-3  # m of wall that stays
USUAL = (Place.BOWL, Place.SHORT_SIDE, Place.GUIDE, Place.PINCH, Place.THROAT, Place.OPENING)
WORTH = np.ones(len(LIFT)) / len(LIFT)
History = list[tuple[Place, float, bool]]


def hours_of(place: Place) -> float:
    start, each = MINUTES[place]
    return (start + each * DEPTH * 1e3) / 60 + REFLOW


def open_to(port: VirtualPort, read: dict[Place, float], done: dict[Place, float]) -> list[Place]:
    """Places that a pass may be meant at: what the gauge read, less what came off and a quarter more, stays above the
    limit."""
    found = []
    for place in USUAL:
        left = read[place] - 1.25 * (done[place] + DEPTH)
        wide = port.metal.sizes.throat_diameter + 2 * DEPTH <= 0.91 * port.metal.sizes.valve_diameter
        if left >= LIMIT and (place is not Place.THROAT or wide):
            found.append(place)
    return found


Choose = Callable[[VirtualPort, list[Place], list[ChainState], dict[Place, float]], Place]


def play(make: Callable[[int], VirtualPort], seed: int, choose: Choose) -> tuple[float, bool]:
    """Work a port for eight hours by one way of choosing; the mean share gained over hours 2 to 8, and whether it
    broke."""
    random = np.random.default_rng((seed, 5))
    port = make(seed)
    start = float(port.flow(LIFT) @ WORTH)
    read = {p: w * (1 + 0.02 * random.standard_normal()) for p, w in port.metal.walls.items()}
    done = dict.fromkeys(USUAL, 0.0)
    states = [state_of(port, port.measured(LIFT, random))]
    hour, track = 0.0, [(0.0, 0.0)]
    while True:
        places = open_to(port, read, done)
        if not places:
            break
        place = choose(port, places, states, done)
        hour += hours_of(place)
        if hour > HOURS:
            break
        port = port.work(place, DEPTH, random)
        states.append(state_of(port, port.measured(LIFT, random), [(place, DEPTH, done[place] > 0)]))
        done[place] += DEPTH
        track.append((hour, float(port.flow(LIFT) @ WORTH) / start - 1))
    times, gains = np.array(track).T
    at = np.linspace(2, HOURS, 25)
    return float(np.mean([gains[times <= t][-1] for t in at])), port.broken


def by_plan(port: VirtualPort, places: list[Place], states: list[ChainState], done: dict[Place, float]) -> Place:
    fit = fit_chain(chain_of(port, states))
    flow = states[-1].flow

    def rate(place: Place) -> float:
        gains = fit.gain([ChainWork(place.value, DEPTH, done[place] > 0)], LIFT)
        return float(np.mean((gains * flow) @ WORTH)) / hours_of(place)

    return max(places, key=rate)


def by_oracle(port: VirtualPort, places: list[Place], states: list[ChainState], done: dict[Place, float]) -> Place:
    now = float(port.flow(LIFT) @ WORTH)
    return max(places, key=lambda p: (float(port.work(p, DEPTH).flow(LIFT) @ WORTH) - now) / hours_of(p))


def by_habit(port: VirtualPort, places: list[Place], states: list[ChainState], done: dict[Place, float]) -> Place:
    return min(places, key=lambda p: (done[p], USUAL.index(p)))


def by_chance(seed: int) -> Choose:
    random = np.random.default_rng((seed, 9))
    return lambda _port, places, _states, _done: places[int(random.integers(len(places)))]


def coverage(make: Callable[[int], VirtualPort], ports: int) -> tuple[float, float]:
    """Share of true first gains inside the 80 % interval, and how long a fit takes [s]."""
    hit = count = 0
    spent = 0.0
    for seed in range(ports):
        random = np.random.default_rng(seed)
        port = make(seed)
        state = state_of(port, port.measured(LIFT, random))
        begun = time.perf_counter()
        fit = fit_chain(chain_of(port, [state]))
        spent += time.perf_counter() - begun
        flow = port.flow(LIFT)
        for place in USUAL:
            draws = (fit.gain([ChainWork(place.value, DEPTH)], LIFT) * flow) @ WORTH
            low, high = np.quantile(draws, [0.1, 0.9])
            true = float((port.work(place, DEPTH, random).flow(LIFT) - flow) @ WORTH)
            hit += bool(low <= true <= high)
            count += 1
    return hit / count, spent / ports


def main(ports: int) -> None:
    print("generator      coverage  plan  habit  chance  broken  fit")
    every = []
    for name, make in GENERATORS.items():
        covered, seconds = coverage(make, ports)
        rows = []
        for seed in range(ports):
            oracle, _ = play(make, seed, by_oracle)
            plan, broke = play(make, seed, by_plan)
            rows.append((oracle, plan, play(make, seed, by_habit)[0], play(make, seed, by_chance(seed))[0], broke))
        oracle, plan, habit, chance, broken = (sum(r[i] for r in rows) for i in range(5))
        every.append((covered, plan / oracle, habit / oracle, chance / oracle, broken))
        said = "" if 0.7 <= covered <= 0.9 else "  (coverage missed)"
        said += "" if plan / oracle >= 0.85 else "  (plan missed 0.85)"
        shares = f"{plan / oracle:5.2f} {habit / oracle:6.2f} {chance / oracle:7.2f}"
        print(f"{name:14} {100 * covered:6.0f} % {shares} {broken:7.0f}  {1e3 * seconds:3.0f} ms{said}")
    covered, plan, habit, chance, broken = np.mean(every, axis=0)
    print(f"{'all':14} {100 * covered:6.0f} % {plan:5.2f} {habit:6.2f} {chance:7.2f}   of the oracle's")


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 70)
