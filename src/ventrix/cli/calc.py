"""`ventrix calc`: any calculator of the formula book."""

from __future__ import annotations

from typing import Annotated

import typer

from ventrix.cli.app import JsonOption, app, print_json
from ventrix.core.calculators.answer import calculate, registry, split_pairs
from ventrix.core.quantity.refused import Refused
from ventrix.records.bad_input import InputError
from ventrix.words import tr


@app.command()
def calc(
    identifier: Annotated[str | None, typer.Argument(metavar="ID", help="Which calculator.")] = None,
    pairs: Annotated[list[str] | None, typer.Argument(metavar="name=value…")] = None,
    as_json: JsonOption = False,
    list_all: Annotated[bool, typer.Option("--list", help="List every calculator.")] = False,
) -> None:
    """Answer one calculator; values may carry units: valve_diameter=45mm."""

    if list_all:
        for each in registry().values():
            inputs = " ".join(f"{i.name}[{i.unit}]" + (f"={i.default}" if i.default else "") for i in each.inputs)
            outputs = " ".join(f"{o.name}[{o.unit}]" for o in each.outputs)
            print(f"{each.id}: {each.title}. {inputs} -> {outputs}")
        return
    if identifier is None:
        raise InputError(tr("which calculator? `ventrix calc --list` shows all"), field="ID")
    try:
        answer = calculate(identifier, split_pairs(pairs or []))
    except Refused as error:
        raise InputError(str(error), field=tr("calc {}", identifier)) from None
    if as_json:
        print_json(answer.as_json())
        return
    for name, (value, symbol) in answer.outputs.items():
        print(f"{name} = {value:.6g}{'' if symbol == '-' else ' ' + symbol}")
    for note in answer.notes:
        print(tr("note: {}", note))
