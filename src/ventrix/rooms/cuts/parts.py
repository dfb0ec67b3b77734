"""What hangs from the cut looked at, as a list to choose from: what each is called, and what of it can be set right."""

from __future__ import annotations

from dataclasses import MISSING, dataclass, fields
from typing import Any, Final

from ventrix.core.model.cut import Cut, Fault, Operation, Photo, Port, Pour, Trial, Tube, WallReading, Work
from ventrix.core.model.job import Job
from ventrix.core.model.noun import Noun
from ventrix.core.model.run import FlowRun
from ventrix.core.model.scan import Scan
from ventrix.core.model.traverse import Observation, Traverse
from ventrix.rooms.display_units import Units


@dataclass(frozen=True, slots=True)
class Editable:
    """A field that can be set right: its name, what it is called, and the unit of a figure (none for a text)."""

    key: str
    caption: str
    unit: str = ""


FIELDS: Final[dict[type[Noun], tuple[Editable, ...]]] = {
    Job: (Editable("title", "Title"), Editable("note", "Note")),
    Port: (Editable("name", "Name"),),
    Cut: (Editable("name", "Name"), Editable("date", "Date"), Editable("note", "Note")),
    Operation: (
        Editable("tool", "Tool"),
        Editable("finish", "Finish"),
        Editable("duration", "Minutes", "duration"),
        Editable("note", "Note"),
    ),
    Work: (Editable("place", "Place"), Editable("depth", "Depth", "length")),
    WallReading: (
        Editable("place", "Place"),
        Editable("thickness", "Metal left", "length"),
        Editable("behind", "What lies behind"),
        Editable("date", "Date"),
    ),
    Pour: (Editable("volume", "Volume", "volume"), Editable("how", "How"), Editable("date", "Date")),
    Trial: (Editable("name", "Name"), Editable("place", "Place"), Editable("note", "Note")),
    Photo: (Editable("moment", "Before or after"), Editable("caption", "Caption")),
    Scan: (Editable("unit", "Unit"), Editable("note", "Note")),
    Tube: (Editable("size", "Size", "length"), Editable("adhesive", "Set in"), Editable("note", "Note")),
    Fault: (Editable("size", "How far", "length"), Editable("note", "Note")),
    Observation: (Editable("text", "What"), Editable("place", "Where")),
    Traverse: (Editable("station", "Station"), Editable("probe", "Probe")),
    FlowRun: (),
}


def must_stand(kind: type[Noun], key: str) -> bool:
    """Whether a noun is nothing without this field."""
    field = next(f for f in fields(kind) if f.name == key)
    return field.default is MISSING and field.default_factory is MISSING


@dataclass(frozen=True, slots=True)
class Part:
    """One part: the noun, what it is called, and how deep it hangs."""

    noun: Noun
    label: str
    depth: int = 0


def parts_of(job: Job, port: Port, cut: Cut, units: Units) -> list[Part]:
    """The job, the port, the cut, and everything that hangs from the cut and can be set right or taken out."""
    found = [Part(job, f"job: {job.title}"), Part(port, f"port: {port.name}", 1)]
    found.append(Part(cut, f"cut {cut.number}: {cut.name or 'no name'}", 2))
    for op in cut.operations:
        found.append(Part(op, f"operation: {', '.join(op.places) or op.kind}", 3))
        found += [Part(w, f"{w.place}{', ' + w.side if w.side else ''}", 4) for w in op.works]
    found += [Part(w, f"wall: {w.place} {units.length.text(w.thickness)}", 3) for w in cut.walls]
    found += [Part(p, f"pour: {units.volume.with_unit(p.volume)}", 3) for p in cut.pours]
    found += [Part(t, f"trial: {t.kind} {t.name}".rstrip(), 3) for t in cut.trials]
    found += [Part(t, f"hole {t.work}: {t.place}", 3) for t in cut.tubes]
    found += [Part(p, f"photo: {p.caption or p.moment or p.file}", 3) for p in cut.photos]
    found += [Part(o, f"{o.kind}: {o.text or o.place}".rstrip(": "), 3) for o in cut.observations]
    found += [Part(t, f"traverse: {t.station}", 3) for t in cut.traverses]
    for i, run in enumerate(cut.runs, 1):
        counted = sum(r.struck is None for r in run.readings)
        whose = "claim" if run.claimed else "run"
        found.append(Part(run, f"{whose} {i}: {counted} readings{', ' + run.date[:10] if run.date else ''}", 3))
    found += [Part(f, f"fault: {f.kind}, {f.place}", 2) for f in port.faults]
    return found


def field_text(noun: Noun, field: Editable, units: Units) -> str:
    """A field as it is shown."""
    value: Any = getattr(noun, field.key)
    if value is None:
        return ""
    return units[field.unit].text(value) if field.unit else str(value)
