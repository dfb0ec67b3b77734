"""Two ports held against each other by their scans: which there are, and where one is larger than the other."""

from __future__ import annotations

from dataclasses import dataclass

from ventrix.core.judging.findings import Findings
from ventrix.core.judging.model_port import developed_port
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.kinds import Direction
from ventrix.core.model.scan import Scan
from ventrix.core.quantity.units import from_si, to_si
from ventrix.core.quantity.words import number_text
from ventrix.core.scan.compare import PlaceTaken, Taken
from ventrix.rooms.display_units import Units
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class ScannedPort:
    """A port at a cut that was scanned."""

    port: Port
    cut: Cut
    scan: Scan

    @property
    def words(self) -> str:
        return tr("{}, cut {}", self.port.name, self.cut.number)

    def mirrors(self, other: ScannedPort) -> bool:
        """Whether the two are of different hands."""
        return (self.port.mirror_of is None) != (other.port.mirror_of is None)


def scanned_ports(findings: Findings, kind: Direction) -> list[ScannedPort]:
    """Every scan of a kind, the developed port's newest first."""
    model = developed_port(findings, kind)
    ports = sorted(
        (p for p in findings.job.ports if p.of_head and p.kind == kind),
        key=lambda p: model is None or p.id != model.id,
    )
    return [ScannedPort(p, c, s) for p in ports for c in reversed(p.cuts) for s in reversed(c.scans)]


def held_lines(model: ScannedPort, other: ScannedPort, found: Taken, units: Units) -> tuple[str, ...]:
    """Where the other port differs from the model, the most first, and by how much altogether."""
    hand = tr(", mirrored first") if model.mirrors(other) else ""
    off = sorted((p for p in found.places if abs(p.depth) > p.u), key=lambda p: -abs(p.depth))
    if not off:
        within = units.length.with_unit(to_si(found.detection, "mm"))
        lines = [tr("{}{}: within {} of {} at every place.", other.words, hand, within, model.words)]
    else:
        lines = [tr("{} against {}{}:", other.words, model.words, hand), *(_place_words(p, units) for p in off)]
    volume, doubt = (from_si(v * 1e-9, "cc") for v in (found.volume, found.u_volume))
    if abs(volume) > doubt:
        size = "larger" if volume > 0 else "smaller"
        lines.append(tr("{} ± {:.2f} cc {} in all.", number_text(abs(volume), 2), doubt, size))
    return (*lines, *(units.say(note) for note in found.notes))


def _place_words(place: PlaceTaken, units: Units) -> str:
    size = "larger" if place.depth > 0 else "smaller"
    depth, doubt = (units.length.text(to_si(v, "mm")) for v in (abs(place.depth), place.u))
    return f"{place.place}, {place.side}: {depth} ± {doubt} {units.length.label} {size}"
