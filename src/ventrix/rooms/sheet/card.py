"""A grinder card made from a job: how far each place may go, what gauges are set to, and sections to hold against."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from typing import Final

from ventrix.core.castings.casting_file import Casting
from ventrix.core.edits.faults import state_at
from ventrix.core.judging.findings import Findings
from ventrix.core.metal.unrolled import ZONES, unroll
from ventrix.core.metal.walls import WallLeft, limit_at, spare_at, spare_of, walls_at
from ventrix.core.model.cut import Cut, Port, Station, carried, carried_figure
from ventrix.core.model.kinds import FaultState, Place
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si
from ventrix.reports.sheet.card_contents import Card, Gauge, Stop, Template
from ventrix.rooms.cuts.fault_grid import fault_words
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.seat_profile import seat_profile, seat_words
from ventrix.rooms.sheet.contents import usual_pair
from ventrix.words import tr

TOLERANCE: Final = to_si(0.25, "mm")  # between go and no-go: common practice, no source
_WIDTHS: Final = (
    (tr("opening, width"), "opening_width"),
    (tr("opening, height"), "opening_height"),
    (tr("pinch, width"), "pinch_width"),
    (tr("pinch, height"), "pinch_height"),
    (tr("guide boss, width"), "boss_width"),
    (tr("short side, height"), "short_side_height"),
    ("bowl", "bowl_diameter"),
    ("throat", "throat_diameter"),
)
# Which places bound a width on both of its sides.
_BOUND_BY: Final = {"pinch_width": Place.PINCH, "bowl_diameter": Place.BOWL, "throat_diameter": Place.THROAT}
CAUTIONS: Final = (
    tr(
        "No depth here is a promise: it is what was read, less its uncertainty, down to your limit. Castings shift; "
        "one slip takes more. Never grind to a depth on a port whose wall was not read."
    ),
    tr("Eye protection, respirator, hearing protection. Never into a seat. Clearances and seats by the maker's data."),
)


def card_of(
    findings: Findings,
    port: Port,
    units: Units,
    today: date,
    paper: str = "A4",
    ink: str = "colour",
    castings: Sequence[Casting] = (),
) -> Card:
    """The card of a port, as it stands at its last cut; beside "read first" what other heads of the casting had."""
    job, cut = findings.job, port.cuts[-1]
    seat = job.seat_of(port, cut)
    seat_lines: tuple[str, ...] = (tr("No seat is recorded: the valve job comes first."),)
    line: tuple[tuple[float, float], ...] = ()
    if seat is not None:
        throat = carried_figure(port, cut, "throat_diameter")
        seat_lines = (seat_words(seat, units), *_seat_more(seat.margin, throat or seat.throat, units))
        try:
            line = seat_profile(seat).line
        except Refused:
            line = ()
    faults = [
        f"{state.words}: {fault_words(f, units)}"
        for f in port.faults
        if (state := state_at(f, cut)) is not None and state is not FaultState.GONE
    ]
    developed = _developed(findings, port)
    gauges = _gauges(findings, port, cut, developed, units)
    name = tr("{}, cut {}", developed[0].name, developed[1].number) if developed is not None else ""
    note = (
        tr("Go: the developed port ({}). No-go: {} more, or what the walls leave.", name, units.length.text(TOLERANCE))
        if developed is not None
        else tr("No port of this kind is developed yet: what this one measures now is all there is.")
    )
    stands = tr("cut {}", cut.number) + (f", {cut.name}" if cut.name else "")
    return Card(
        title=f"{job.title}, {port.name}",
        line=tr("as it stands at {}", stands),
        date=today.isoformat(),
        stops=_stops(findings, port, cut, units, castings),
        gauges=gauges,
        gauge_note=note,
        seat=seat_lines,
        seat_line=line,
        faults=tuple(faults) or (tr("None noted."),),
        templates=_templates(findings, port, *(developed or (port, cut)), units),
        cautions=CAUTIONS,
        length_label=units.length.label,
        paper=paper,
        ink=ink,
    )


def _seat_more(margin: float | None, throat: float | None, units: Units) -> tuple[str, ...]:
    said = []
    if margin is not None:
        said.append(tr("margin {}", units.length.with_unit(margin)))
    if throat is not None:
        said.append(tr("throat {}", units.length.with_unit(throat)))
    return tuple(said)


def _developed(findings: Findings, port: Port) -> tuple[Port, Cut] | None:
    """The port of this kind that was worked out by flowing, and its last flowed cut."""
    alike = [p for p in findings.job.ports if p.kind == port.kind and p.of_head]
    found = [pair for p in alike if (pair := usual_pair(findings, p)) is not None]
    best = max(found, key=lambda pair: len([c for c in pair[0].cuts if c.runs]), default=None)
    return (best[0], best[2]) if best is not None else None


def _stops(findings: Findings, port: Port, cut: Cut, units: Units, castings: Sequence[Casting]) -> tuple[Stop, ...]:
    """A line for every zone of the port: what may still come off there, on its latest reading."""
    job, walls = findings.job, walls_at(findings.job, port, cut)
    rows = []
    for zone in ZONES:
        if zone.name == Place.SEAT:
            continue
        here = [w for w in walls if w.reading.place == zone.name]
        limit = limit_at(job, port, cut, zone.name)
        if not here:
            had = _of_casting(castings, port, zone.name, units)
            rows.append(Stop(zone.name, had, "", units.length.text(limit), "read first", "", True))
            continue
        for wall in here:
            rows.append(_stop(wall, limit, units))
    return tuple(rows)


def _of_casting(castings: Sequence[Casting], port: Port, place: str, units: Units) -> str:
    """What other heads of the casting had there at least: it clears nothing."""
    found = [w.least for c in castings if (w := c.least_at(port.kind, place)) is not None]
    return tr("casting {}", units.length.text(min(found))) if found else ""


def _stop(wall: WallLeft, limit: float, units: Units) -> Stop:
    reading = wall.reading
    where = reading.place if reading.band in (None, reading.place) else f"{reading.place}, {reading.band}"
    day = reading.date[:10] if reading.date else tr("day not noted")
    read = tr("{} on {}", units.length.text(reading.thickness), day)
    if wall.unknown:
        return Stop(where, read, "", units.length.text(limit), tr("worked since: read again"), reading.behind, True)
    spare = spare_of(wall, limit)
    take = units.length.text(spare) if spare > 0 else tr("nothing: stop")
    left = units.length.text(max(wall.left, 0.0))
    return Stop(where, read, left, units.length.text(limit), take, reading.behind, stops=spare <= 0)


def _gauges(
    findings: Findings, port: Port, cut: Cut, developed: tuple[Port, Cut] | None, units: Units
) -> tuple[Gauge, ...]:
    rows = []
    for what, key in _WIDTHS:
        now = carried(port, cut, key)
        go = carried(*developed, key) if developed is not None else None
        if now is None and go is None:
            continue
        most = None if go is None else go.value + TOLERANCE
        if most is not None and now is not None and key in _BOUND_BY:
            spare = spare_at(findings.job, port, cut, _BOUND_BY[key])
            if spare is not None:
                most = min(most, now.value + 2 * spare)
        if key == "boss_width":  # what is left standing, not what is opened
            most = None if go is None else go.value - TOLERANCE
        rows.append(
            Gauge(
                what,
                units.length.text(now.value if now is not None else None),
                units.length.text(go.value if go is not None else None),
                units.length.text(most),
            )
        )
    return tuple(rows)


def _templates(findings: Findings, own: Port, port: Port, cut: Cut, units: Units) -> tuple[Template, ...]:
    """The measured sections of the developed port, true to size; a bore that is past its own already is drawn as it
    is."""
    try:
        here = unroll(port, cut, findings.job.valve_of(port, cut))
    except Refused:
        return ()
    found = []
    corners = {s.name: s.corner_radius or 0.0 for s in _stations(port, cut)}
    corners["opening"] = _corner(port, cut, "opening_corner")
    corners["pinch"] = _corner(port, cut, "pinch_corner")
    for s in here.sections:
        if not s.measured:
            continue
        if s.name in ("throat", "bowl"):
            size = carried(port, cut, f"{s.name!s}_diameter")
            if size is not None:
                now = carried_figure(own, own.cuts[-1], f"{s.name!s}_diameter") or 0.0
                across = max(size.value, now)
                words = tr("{} across", units.length.text(across)) + (tr(", as it is") if now > size.value else "")
                found.append(Template(s.name, across, across, 0.0, words, round=True))
            continue
        words = f"{units.length.text(s.width)} x {units.length.text(s.height)}"
        corner = min(corners.get(s.name, 0.0), s.width / 2, s.height / 2)
        found.append(Template(s.name or "section", s.width, s.height, corner, words))
    return tuple(found)


def _stations(port: Port, cut: Cut) -> tuple[Station, ...]:
    found = carried(port, cut, "stations")
    return found.value if found is not None else ()


def _corner(port: Port, cut: Cut, key: str) -> float:
    return carried_figure(port, cut, key) or 0.0
