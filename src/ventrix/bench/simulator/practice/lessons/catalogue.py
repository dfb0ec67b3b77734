"""Every lesson, the six deep ones first."""

from __future__ import annotations

from typing import Final

import numpy as np

from ventrix.bench.simulator.practice.lessons.at_the_bench import AT_THE_BENCH
from ventrix.bench.simulator.practice.lessons.in_the_head import IN_THE_HEAD
from ventrix.bench.simulator.practice.lessons.lesson import Lesson, Puzzle

LESSONS: Final[tuple[Lesson, ...]] = (*AT_THE_BENCH, *IN_THE_HEAD)


def puzzle(lesson: Lesson, seed: int) -> Puzzle:
    """The puzzle of a lesson and seed: the same seed puts the same one."""
    return lesson.put(np.random.default_rng((seed, LESSONS.index(lesson), 83)))
