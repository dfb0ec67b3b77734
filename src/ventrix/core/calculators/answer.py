"""The registry of calculators: one table from which the command line, the search box and the manual are made.

Ids, input names and units are a contract. `calculate` takes text as people type it and does the units.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Final

import numpy as np

from ventrix.core.calculators.bare_numbers import ask_unit
from ventrix.core.calculators.contract import Calculator, Input
from ventrix.core.calculators.table_air_and_engine import AIR_AND_ENGINE
from ventrix.core.calculators.table_bench_and_port import BENCH_AND_PORT
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, parse_quantity, quoted
from ventrix.words import tr

REGISTRY: Final = {c.id: c for c in (*BENCH_AND_PORT, *AIR_AND_ENGINE)}


@dataclass(frozen=True, slots=True)
class Answer:
    """What a calculator answered, in the contract's units. `inputs` are as understood."""

    id: str
    inputs: dict[str, Any]
    outputs: dict[str, tuple[float, str]]
    notes: tuple[str, ...]

    def as_json(self) -> dict[str, Any]:
        return {
            "id": self.id,
            "inputs": self.inputs,
            "outputs": {k: {"value": v, "unit": u} for k, (v, u) in self.outputs.items()},
            "notes": list(self.notes),
        }


def registry() -> dict[str, Calculator]:
    """Every calculator by id, in the formula book's order."""
    return dict(REGISTRY)


def find(identifier: str) -> Calculator:
    """The calculator of that id. ValueError with the nearest names where there is none."""
    known = registry()
    if identifier in known:
        return known[identifier]
    from difflib import get_close_matches

    near = get_close_matches(identifier, known, n=3, cutoff=0.5)
    hint = tr("; did you mean {}?", " or ".join(near)) if near else tr("; `ventrix calc --list` shows all")
    raise Refused("there is no calculator '{}'{}", identifier, hint)


def read_input(spec: Input, text: str) -> Any:
    """Text of one input as SI (float, list of floats, or one of the choices). ValueError with a sentence."""
    if spec.choices:
        if text.strip() not in spec.choices:
            raise Refused("{} is not one of {}", quoted(text), ", ".join(spec.choices))
        return text.strip()
    if spec.many:
        return [parse_quantity(part, spec.unit) for part in text.split(",")]
    ask_unit(spec.name, spec.unit, text)
    return parse_quantity(text, spec.unit)


def split_pairs(pairs: Sequence[str]) -> dict[str, str]:
    """``name=value`` arguments as a dict. ValueError for a bare, repeated or empty one."""
    found: dict[str, str] = {}
    for pair in pairs:
        name, mark, text = pair.partition("=")
        if not mark or not name:
            raise Refused("{} is not name=value", quoted(pair))
        if name in found:
            raise Refused("{}: given twice", name)
        found[name] = text
    return found


def calculate(identifier: str, given: Mapping[str, str]) -> Answer:
    """Answer one calculator from text.

    Parameters
    ----------
    identifier : str
        Id of the contract table.
    given : mapping
        Input names to text with or without a unit.

    Raises
    ------
    ValueError
        One sentence that names the input it is about.
    """
    calculator = find(identifier)
    for name in given:
        calculator.input(name)
    values: dict[str, Any] = {}
    shown: dict[str, Any] = {}
    for spec in calculator.inputs:
        text = given.get(spec.name, spec.default)
        if text is None:
            if spec.required:
                raise Refused("{}: is missing", spec.name)
            continue
        try:
            values[spec.name] = read_input(spec, text)
        except Refused as error:
            raise Refused("{}: {}", spec.name, error) from None
        shown[spec.name] = _shown(spec, values[spec.name])
    outputs, notes = evaluate(calculator, values)
    answered = {out.name: (from_si(outputs[out.name], out.unit), out.unit) for out in calculator.outputs}
    if "stage" in answered:
        answered["stage"] = (int(answered["stage"][0]), "-")
    return Answer(identifier, shown, answered, tuple(notes))


def evaluate(calculator: Calculator, values: Mapping[str, Any]) -> tuple[dict[str, float], list[str]]:
    """Outputs [SI] and notes of a calculator from inputs in SI.

    Parameters
    ----------
    calculator : Calculator
        Of the registry.
    values : mapping
        Every input without a default, by name; defaults are filled in.

    Raises
    ------
    ValueError
        One sentence that names what is missing or makes no sense.
    """
    given = dict(values)
    for spec in calculator.inputs:
        if spec.name not in given and spec.default is not None:
            given[spec.name] = read_input(spec, spec.default)
        if spec.name not in given and spec.required:
            raise Refused("{}: is missing", spec.name)
    with np.errstate(over="ignore", invalid="ignore", divide="ignore"):  # what is not finite is refused below
        try:
            outputs, notes = calculator.compute(**given)
        except (ZeroDivisionError, OverflowError):
            raise Refused("there is no finite answer for these figures") from None
    answered = {out.name: float(outputs[out.name]) for out in calculator.outputs}
    for name, value in answered.items():
        if not math.isfinite(value):
            raise Refused("{} has no finite answer for these figures", name)
    return answered, notes


def search(text: str) -> list[Calculator]:
    """Calculators that every typed word stands in somewhere, those with it in the title first."""
    words = text.lower().split()
    found = []
    for calculator in registry().values():
        title = calculator.title.lower()
        everywhere = f"{title} {calculator.id.replace('_', ' ')} {calculator.id} {calculator.words.lower()}"
        if all(word in everywhere for word in words):
            found.append((sum(word not in title for word in words), calculator))
    return [calculator for _, calculator in sorted(found, key=lambda pair: pair[0])]


def _shown(spec: Input, value: Any) -> Any:
    if spec.choices:
        return value
    if spec.many:
        return {"value": [from_si(v, spec.unit) for v in value], "unit": spec.unit}
    return {"value": from_si(value, spec.unit), "unit": spec.unit}
