"""What a calculator is: inputs, outputs, and where its formula is from."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from ventrix.core.quantity.refused import Refused
from ventrix.words import tr

Outcome = tuple[dict[str, Any], list[str]]


@dataclass(frozen=True, slots=True)
class Input:
    """An input: its unit, and what stands in where it is left out. `many` takes a comma list."""

    name: str
    unit: str = "-"
    default: str | None = None
    choices: tuple[str, ...] = ()
    many: bool = False
    optional: bool = False

    @property
    def required(self) -> bool:
        return self.default is None and not self.optional


@dataclass(frozen=True, slots=True)
class Output:
    name: str
    unit: str = "-"


@dataclass(frozen=True, slots=True)
class Calculator:
    """One calculator. `compute` takes SI keyword arguments and returns SI outputs and notes."""

    id: str
    title: str
    words: str
    inputs: tuple[Input, ...]
    outputs: tuple[Output, ...]
    formula: str
    source: str
    compute: Callable[..., Outcome]

    def input(self, name: str) -> Input:
        for each in self.inputs:
            if each.name == name:
                return each
        known = ", ".join(i.name for i in self.inputs)
        raise Refused("there is no input '{}'; it takes {}", name, known)


DENSITY = Input("density", "kg/m3", "1.225")
TEST_PRESSURE = Input("test_pressure", "inH2O", "28")
PRACTICE = tr("common practice, no source")
GEOMETRY = "geometry"


def plain(function: Callable[..., Any], output: str) -> Callable[..., Outcome]:
    """A calculator that is one core function with one output and nothing to note."""

    def compute(**inputs: Any) -> Outcome:
        return {output: function(**inputs)}, []

    return compute
