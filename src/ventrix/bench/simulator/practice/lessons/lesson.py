"""A lesson: a change that was read, looks that cost minutes, an answer that is graded, and why."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.bench.simulator.heads.two_streams import two_streams
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.units import from_si, to_si
from ventrix.words import tr

LIFTS: Final[Array] = np.arange(1.0, 7.0) * to_si(0.1, "in")
BEST: Final = 3  # points of the best answer
ENOUGH: Final = 2  # looks that a good eye needs at most


@dataclass(frozen=True, slots=True)
class Exhibit:
    """Two flow tests that are held against each other, over LIFTS [m3/s], and what they are called."""

    before: Array
    after: Array
    names: tuple[str, str] = ("before", "after")


@dataclass(frozen=True, slots=True)
class Look:
    """Something that can be looked at: what, for how many minutes, and what it shows."""

    words: str
    minutes: int
    shows: str


@dataclass(frozen=True, slots=True)
class Choice:
    """An answer, its points of 3, and why."""

    words: str
    points: int
    why: str


@dataclass(frozen=True, slots=True)
class Puzzle:
    """A lesson as it is put: `story` and a question, an exhibit or none, looks and choices in the order shown."""

    story: str
    exhibit: Exhibit | None
    looks: tuple[Look, ...]
    choices: tuple[Choice, ...]
    explains: str


@dataclass(frozen=True, slots=True)
class Lesson:
    """`deep` ones come first. `put` makes the puzzle of a seed: figures and the order of the answers are its own."""

    id: str
    title: str
    deep: bool
    put: Callable[[np.random.Generator], Puzzle]


@dataclass(frozen=True, slots=True)
class Grade:
    """Points of 3, and what is said to it."""

    points: int
    said: str


def grade(puzzle: Puzzle, answer: int, looked: int) -> Grade:
    """Points of an answer (counted from 0); one less where more was looked at than a good eye needs."""
    choice = puzzle.choices[answer]
    spare = looked > ENOUGH and choice.points == BEST
    more = tr(" You looked {} times: {} would have done.", looked, ENOUGH) if spare else ""
    return Grade(choice.points - spare, f"{choice.why}{more}")


def shuffled(random: np.random.Generator, *choices: Choice) -> tuple[Choice, ...]:
    """Answers in an order of their own."""
    return tuple(choices[i] for i in random.permutation(len(choices)))


def port_flow(random: np.random.Generator) -> tuple[Callable[[Array], Array], float]:
    """The true flow of some port [m3/s], and its valve's diameter [m]."""
    port = two_streams(int(random.integers(1, 400)))
    return port.flow, port.metal.sizes.valve_diameter


def read(flow: Array, random: np.random.Generator, scatter: float = 0.0015) -> Array:
    """Flow as a good bench reads it, to a tenth of a CFM."""
    seen = np.asarray(flow) * (1 + scatter * random.standard_normal(len(flow)))
    return np.asarray([to_si(round(from_si(float(q), "cfm"), 1), "cfm") for q in seen])


def cfm(flow: float) -> float:
    """[CFM]"""
    return from_si(flow, "cfm")
