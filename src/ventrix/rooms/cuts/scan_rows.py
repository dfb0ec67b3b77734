"""What a scan measured beside what was typed: rows to take over one by one, and the stations along the port."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, fields, replace
from typing import Final

import numpy as np

from ventrix.core.edits.cuts import BY_SCAN
from ventrix.core.model.cut import Cut, Port, Station, carried_figure
from ventrix.core.model.scan import Scan, ScannedDepth, ScannedSize, ScannedStrip
from ventrix.core.quantity.units import to_si
from ventrix.core.scan.compare import Taken
from ventrix.core.scan.measure import Measured
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.scan_words import volume_words
from ventrix.words import tr

VOLUME: Final = "volume"
DEPTH: Final = tr("depth of ")  # and the id of the work
STATIONS: Final = 9
LENGTHS: Final = tuple(f.name for f in fields(Cut) if f.metadata.get("unit") == "mm")
EVERY: Final = 2  # rows of a map of metal taken that one is kept of: 4 mm
DIFFERS: Final = 0.01  # of the larger: less is the same figure twice


@dataclass(frozen=True, slots=True)
class ScanRow:
    """One figure: its field, caption, what was typed and what the scan says [SI], as texts, and whether they differ."""

    key: str
    caption: str
    typed: float | None
    scanned: float
    typed_text: str
    scanned_text: str
    differs: bool
    doubt: float = 0.0


def scan_rows(port: Port, cut: Cut, found: Measured, units: Units) -> tuple[ScanRow, ...]:
    """Every figure that the scan has, in the order of the Head room."""
    rows = []
    for key, caption, value, kind, doubt in _figures(found):
        if value is None:
            continue
        shown = units[kind]
        typed = carried_figure(port, cut, key)
        differs = typed is not None and abs(typed - value) > DIFFERS * max(abs(typed), abs(value))
        u = f" ± {shown.text(doubt)}" if doubt else ""
        rows.append(
            ScanRow(
                key, caption, typed, value, shown.text(typed), f"{shown.text(value)}{u} {shown.label}", differs, doubt
            )
        )
    return tuple(rows)


def _figures(found: Measured) -> list[tuple[str, str, float | None, str, float]]:
    """Field, caption, value [SI], what it is, and U(0.05)."""

    def mm(value: float | None) -> float | None:
        return None if value is None else to_si(value, "mm")

    fine, coarse = to_si(0.05, "mm") + to_si(found.noise, "mm"), to_si(0.1, "mm") + to_si(found.noise, "mm")
    picks = found.picks
    rows: list[tuple[str, str, float | None, str, float]] = []
    for name in ("opening", "pinch"):
        pick = picks.get(name)
        if pick is not None:
            rows += [
                (f"{name}_width", tr("{}, width", name.capitalize()), mm(pick.width), "length", coarse),
                (f"{name}_height", tr("{}, height", name.capitalize()), mm(pick.height), "length", coarse),
                (f"{name}_corner", tr("{}, corner", name.capitalize()), mm(pick.corner), "length", 3 * coarse),
            ]
    short, bowl, throat = (picks.get(n) for n in ("short_side", "bowl", "throat"))
    if short is not None:
        radius = None if short.radius is None else to_si(short.radius, "mm")
        doubt = 0.08 * radius if radius is not None else 0.0
        rows.append(("short_side_radius", tr("Short side, radius"), radius, "length", doubt))
        rows.append(("short_side_height", tr("Short side, height"), mm(short.height), "length", coarse))
    if bowl is not None:
        rows.append(("bowl_diameter", tr("Bowl"), mm(bowl.diameter), "length", coarse))
    if throat is not None:
        rows.append(("throat_diameter", tr("Throat"), mm(throat.diameter), "length", fine))
    rows += [
        ("floor_length", tr("Floor"), mm(found.floor), "length", 0.0055 * to_si(found.floor, "mm")),
        ("roof_length", tr("Roof"), mm(found.roof), "length", 0.002 * to_si(found.roof, "mm")),
        ("port_angle", tr("Port angle"), np.pi / 2 - found.turning, "angle", float(np.radians(0.12))),
        (VOLUME, tr("Volume"), found.volume * 1e-9, "volume", 0.002 * found.volume * 1e-9),
    ]
    return rows


def depth_rows(cut: Cut, taken: Taken, units: Units) -> tuple[ScanRow, ...]:
    """What each pass of a cut took off by two scans, the one before it and the one after, beside what was told: the
    deepest side of its place, or its own."""
    length, mm = units.length, to_si(1.0, "mm")
    rows = []
    for work in (w for operation in cut.operations for w in operation.works):
        sides = [p for p in taken.places if p.place == work.place and work.side in (None, p.side)]
        found = max(sides, key=lambda p: p.depth, default=None)
        if found is None or found.depth <= found.u:
            continue
        depth, u = found.depth * mm, found.u * mm
        where = f"{work.place}, {work.side}" if work.side else work.place
        rows.append(
            ScanRow(
                f"{DEPTH}{work.id}",
                tr("{}{}, taken off", where[:1].upper(), where[1:]),
                work.depth,
                depth,
                length.text(work.depth),
                f"{length.text(depth)} ± {length.text(u)} {length.label}",
                work.depth is not None and abs(work.depth - depth) > u,
            )
        )
    return tuple(rows)


def stations_of(found: Measured, new_id: Callable[[], str]) -> tuple[Station, ...]:
    """Sections along the port at even shares, as stations of the cut."""
    along = np.array([s.along for s in found.stations])
    wanted = np.linspace(0.06, 0.94, STATIONS) * found.length
    chosen = dict.fromkeys(int(np.argmin(np.abs(along - at))) for at in wanted)
    return tuple(
        Station(
            id=new_id(),
            along=to_si(found.stations[i].along, "mm"),
            name=f"{BY_SCAN} {n}",
            area=found.stations[i].flow_area * 1e-6,
        )
        for n, i in enumerate(chosen, 1)
    )


def sizes_of(rows: Sequence[ScanRow], new_id: Callable[[], str]) -> tuple[ScannedSize, ...]:
    """The lengths among what was measured, to stand beside what is typed."""
    return tuple(
        ScannedSize(id=new_id(), name=row.key, size=row.scanned, uncertainty=row.doubt)
        for row in rows
        if row.key in LENGTHS
    )


def kept_taken(scan: Scan, earlier: Scan, taken: Taken, new_id: Callable[[], str]) -> Scan:
    """A scan with what came off since an earlier one: places over their doubt, and every other row of the map."""

    def metres(value: float) -> float | None:
        return to_si(value, "mm") if np.isfinite(value) else None

    places = tuple(
        ScannedDepth(id=new_id(), place=p.place, side=p.side, depth=to_si(p.depth, "mm"), uncertainty=to_si(p.u, "mm"))
        for p in taken.places
        if p.depth > p.u
    )
    strips = []
    for along, depths in list(zip(taken.along, taken.strips, strict=True))[::EVERY]:
        floor, right, roof, left = (metres(float(d)) for d in depths)
        strips.append(
            ScannedStrip(id=new_id(), along=to_si(float(along), "mm"), left=left, roof=roof, right=right, floor=floor)
        )
    return replace(
        scan,
        held_against=earlier.file,
        taken_volume=taken.volume * 1e-9,
        taken_uncertainty=taken.u_volume * 1e-9,
        least_told=to_si(taken.detection, "mm"),
        places=places,
        strips=tuple(strips),
    )


def taken_lines(taken: Taken, units: Units) -> tuple[str, ...]:
    """Where metal came off, with its doubt; and what is to be said of the two scans."""
    length, mm = units.length, to_si(1.0, "mm")
    lines = [volume_words(taken.volume * 1e-9, taken.u_volume * 1e-9)]
    lines += [
        f"{p.place}, {p.side}: {length.text(p.depth * mm)} ± {length.with_unit(p.u * mm)}"
        for p in taken.places
        if p.depth > p.u
    ]
    if len(lines) == 1:
        lines.append(tr("Nothing over {} at any place.", length.with_unit(taken.detection * mm)))
    return (*lines, *(units.say(note) for note in taken.notes))
