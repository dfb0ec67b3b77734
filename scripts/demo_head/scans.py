"""Scans of the demo head's first intake before and after its second cut: the simulator's surface of such a port, with
less taken off the short side than was told. Writes the meshes that ship."""

from __future__ import annotations

from dataclasses import replace
from itertools import count
from pathlib import Path
from typing import Final

from ventrix.bench.simulator.scans import ScannedPort, Worked, scanned, surface
from ventrix.core.model.cut import Port
from ventrix.core.model.scan import Scan
from ventrix.core.scan.scanned import ScanAsked, asked_of, scan_of
from ventrix.core.scan.unit import KnownSize
from ventrix.records.files.mesh_files import mesh_of, stl_bytes
from ventrix.records.files.photos import keep_file
from ventrix.rooms.cuts.scan_rows import kept_taken, scan_rows, sizes_of
from ventrix.rooms.display_units import US

ROWS: Final = 84
COLUMNS: Final = 78
NOISE: Final = 0.03  # mm
BEFORE: Final = ScannedPort(
    runner=60.9,
    bend=40.0,
    turning=1.082,
    stations=(0.0, 0.2, 0.38, 0.66, 0.80, 0.90, 0.965, 1.0),
    widths=(30.0, 28.0, 25.8, 32.0, 36.0, 41.2, 39.2, 41.2),
    heights=(42.0, 42.2, 42.5, 38.5, 33.5, 41.2, 39.2, 41.2),
    squareness=(4.5, 4.5, 4.5, 3.0, 2.4, 2.0, 2.0, 2.0),
)
AFTER: Final = replace(BEFORE, worked=(Worked(0.70, 0.92, 0.0, 0.9, 0.82), Worked(0.86, 1.04, 0.0, 5.0, 1.12)))


def with_scans(port: Port, folder: Path) -> Port:
    """The port with a scan at its first and second cut, their files in a folder."""
    cuts = list(port.cuts)
    numbers = count(1)
    kept: list[tuple[Scan, bytes]] = []
    for number, shape, seed in ((1, BEFORE, 31), (2, AFTER, 32)):
        data = stl_bytes(*scanned(*surface(shape, ROWS, COLUMNS), seed=seed, noise=NOISE))
        name = keep_file(folder, data, ".stl", "a scan")
        known = cuts[number].throat_diameter
        assert known is not None
        scan = Scan(
            id=f"intake-{number}-scan", file=name, unit="mm", known=f"throat={1e3 * known:.2f}mm",
            date=cuts[number].date,
        )  # fmt: skip
        if kept:
            earlier, before = kept[0]
            mesh, was = mesh_of(data, name), mesh_of(before, name)
            asked = ScanAsked("mm", KnownSize("throat", known))
            found = scan_of(mesh.points, mesh.faces, asked, (was.points, was.faces), asked_before=asked_of(earlier))
            assert found.taken is not None
            rows = scan_rows(port, cuts[number], found.measured, US)
            scan = replace(scan, sizes=sizes_of(rows, lambda: f"intake-size-{next(numbers)}"))
            scan = kept_taken(scan, earlier, found.taken, lambda: f"intake-scan-{next(numbers)}")
        kept.append((scan, data))
        cuts[number] = replace(cuts[number], scans=(scan,))
    return replace(port, cuts=tuple(cuts))
