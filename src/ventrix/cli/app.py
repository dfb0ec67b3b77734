"""The command line's own object, and what its commands share.

Names, options and JSON keys are a contract: see the manual's page.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Iterable
from pathlib import Path
from typing import TYPE_CHECKING, Annotated, Any, TypeVar

import typer

from ventrix.core.quantity.refused import Refused
from ventrix.records.bad_input import InputError
from ventrix.words import tr

if TYPE_CHECKING:
    from ventrix.core.model.cut import Port

T = TypeVar("T")

app = typer.Typer(
    add_completion=False,
    pretty_exceptions_enable=False,
    rich_markup_mode=None,
    help=tr(
        "Ventrix: flow bench, port and cut records and judgment for people who port cylinder heads. "
        "Without a command it opens the window: ventrix [--demo] [FILE]."
    ),
)


@app.callback()
def _one_of_several() -> None:
    # With one command alone there would be no command to name: each is imported only when it is asked for.
    pass


JsonOption = Annotated[bool, typer.Option("--json", help=tr("Print JSON."))]


def print_json(document: Any) -> None:
    """A document on standard output; a number that is none never gets out."""
    print(json.dumps(document, ensure_ascii=False, allow_nan=False, indent=1))


def port_of_file(ports: Iterable[Port], name: str, path: Path, field: str = "--port") -> Port:
    """The port of a name typed; InputError, naming the file and the option, where it is none."""
    from ventrix.core.model.port_names import port_named

    try:
        return port_named(ports, name)
    except Refused as error:
        raise InputError(str(error), file=path.name, field=field) from None


def of_file(path: Path, work: Callable[[], T]) -> T:
    """Run `work`, and let a core sentence name the file it is about."""
    try:
        return work()
    except InputError:
        raise
    except Refused as error:
        raise InputError(str(error), file=path.name) from None
