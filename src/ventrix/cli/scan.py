"""`ventrix scan`: what a scan of a port measures, and what came off since another one."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING, Annotated

import numpy as np
import typer

from ventrix.cli.app import JsonOption, app, of_file, print_json
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, parse_quantity
from ventrix.records.bad_input import InputError
from ventrix.words import tr

if TYPE_CHECKING:
    from ventrix.core.scan.unit import KnownSize


@app.command()
def scan(
    mesh: Annotated[Path, typer.Argument(metavar="MESH")],
    unit: Annotated[str | None, typer.Option(help="Of the file: mm, in or m. Believed where no size is known.")] = None,
    before: Annotated[Path | None, typer.Option(metavar="MESH", help="An earlier scan of the same port.")] = None,
    known: Annotated[str | None, typer.Option(metavar='"throat=41.8mm"', help="A size measured by hand.")] = None,
    face: Annotated[str | None, typer.Option(metavar="x,y,z", help="A point on the manifold face.")] = None,
    seat: Annotated[str | None, typer.Option(metavar="x,y,z", help="A point on the seat.")] = None,
    guide_bore: Annotated[str | None, typer.Option(metavar="8mm", help="Bore of the guide that stands in it.")] = None,
    left_alone: Annotated[str | None, typer.Option(metavar="64-98mm", help="A stretch that was not worked.")] = None,
    as_json: JsonOption = False,
) -> None:
    """Sections, volume, lengths and the places of a scanned port; with --before, the metal that came off."""
    from ventrix.core.scan.scanned import ScanAsked, scan_of
    from ventrix.core.scan.unit import UNITS
    from ventrix.records.files.mesh_files import read_mesh
    from ventrix.reports.scan_document import scan_document, scan_text

    if unit is not None and unit not in UNITS:
        raise InputError(tr("'{}' is not one of {}", unit[:20], ", ".join(UNITS)), field="--unit")
    asked = ScanAsked(
        unit,
        None if known is None else _known(known),
        (_point(face, "--face"), _point(seat, "--seat")),
        None if guide_bore is None else _length(guide_bore, "--guide-bore"),
        None if left_alone is None else _stretch(left_alone),
    )
    data = read_mesh(mesh)
    earlier = None if before is None else read_mesh(before)
    pair = None if earlier is None else (earlier.points, earlier.faces)
    found = of_file(mesh, lambda: scan_of(data.points, data.faces, asked, pair))
    document = scan_document(found.unit, found.measured, found.taken, found.notes)
    print_json(document) if as_json else print(scan_text(document))


def _known(text: str) -> KnownSize:
    from ventrix.core.scan.unit import SIZES, KnownSize

    name, equals, size = text.partition("=")
    name = name.strip().lower().replace("_", " ").replace("-", " ")
    if not equals or name not in SIZES:
        raise InputError(tr("'{}' is not NAME=SIZE with a name of {}", text[:40], ", ".join(SIZES)), field="--known")
    value = _length(size, "--known") / 1e3
    return KnownSize(name, value)


def _length(text: str, field: str) -> float:
    """A length [mm]."""
    try:
        value = from_si(parse_quantity(text, "mm"), "mm")
    except Refused as error:
        raise InputError(str(error), field=field) from None
    if not 0 < value < 1000:
        raise InputError(tr("'{}' is not a size of a port", text[:20]), field=field)
    return value


def _point(text: str | None, field: str) -> Array | None:
    if text is None:
        return None
    try:
        point = np.array([float(part) for part in text.split(",")])
    except ValueError:
        point = np.zeros(0)
    if point.shape != (3,) or not np.isfinite(point).all():
        raise InputError(tr("'{}' is not x,y,z in the file's own unit", text[:40]), field=field)
    return point


def _stretch(text: str) -> tuple[float, float]:
    from ventrix.core.scan.unit import stretch_typed

    try:
        return stretch_typed(text)
    except Refused as error:
        raise InputError(str(error), field="--left-alone") from None
