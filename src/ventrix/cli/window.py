"""The window, and the simulated bench alone."""

from __future__ import annotations

from pathlib import Path
from typing import Annotated

import typer

from ventrix.cli.app import app
from ventrix.records.bad_input import InputError
from ventrix.words import tr


@app.command()
def simbench(
    port: Annotated[int, typer.Option(min=0, max=65535, help="TCP port on loopback; 0 takes a free one.")] = 5025,
    seed: Annotated[int, typer.Option(min=0, max=2**63 - 1, help="Seed of its noise.")] = 1,
) -> None:
    """The simulated bench alone: SCPI over TCP on loopback, until interrupted."""
    from ventrix.bench.simulator.server import serve_forever

    try:
        serve_forever(port, seed)
    except OSError as error:
        raise InputError(
            tr("cannot listen on port {}: {}", port, (error.strerror or "").lower()), field="--port"
        ) from None


@app.command(hidden=True)
def window(
    file: Annotated[Path | None, typer.Argument(metavar="FILE")] = None,
    demo: Annotated[bool, typer.Option("--demo", help="Demo data in a throw-away book.")] = False,
    shot: Annotated[list[str] | None, typer.Option(metavar="ROOM=PATH", help="Render a room and leave.")] = None,
    theme: Annotated[str | None, typer.Option(help="dye or paper.")] = None,
    book: Annotated[str | None, typer.Option("--book", metavar="FILE|URL", help="Not the user's own book.")] = None,
) -> None:
    """Open the window."""
    from ventrix.ui.launch import Start, run

    raise typer.Exit(run(Start(file=file, demo=demo, shots=tuple(shot or ()), theme=theme, book=book)))


@app.command("install-desktop")
def install_desktop(
    remove: Annotated[bool, typer.Option("--remove", help="Take them away again.")] = False,
) -> None:
    """Put menu entry, icon, file types and manual page into the user's own folders."""
    from ventrix.records.files import desktop_files

    if remove:
        print(tr("{} files taken away", len(desktop_files.remove_desktop())))
        return
    files = desktop_files.install_desktop()
    print(tr("{} files put under {}", len(files), desktop_files.data_home()))
