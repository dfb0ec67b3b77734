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
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class Editable:
    """A field that can be set right: its name, what it is called, and the unit of a figure (none for a text)."""

    key: str
    caption: str
    unit: str = ""


FIELDS: Final[dict[type[Noun], tuple[Editable, ...]]] = {
    Job: (Editable("title", tr("Title")), Editable("note", tr("Note"))),
    Port: (Editable("name", tr("Name")),),
    Cut: (Editable("name", tr("Name")), Editable("date", tr("Date")), Editable("note", tr("Note"))),
    Operation: (
        Editable("tool", tr("Tool")),
        Editable("finish", tr("Finish")),
        Editable("duration", tr("Minutes"), "duration"),
        Editable("note", tr("Note")),
    ),
    Work: (Editable("place", tr("Place")), Editable("depth", tr("Depth"), "length")),
    WallReading: (
        Editable("place", tr("Place")),
        Editable("thickness", tr("Metal left"), "length"),
        Editable("behind", tr("What lies behind")),
        Editable("date", tr("Date")),
    ),
    Pour: (Editable("volume", tr("Volume"), "volume"), Editable("how", tr("How")), Editable("date", tr("Date"))),
    Trial: (Editable("name", tr("Name")), Editable("place", tr("Place")), Editable("note", tr("Note"))),
    Photo: (Editable("moment", tr("Before or after")), Editable("caption", tr("Caption"))),
    Scan: (Editable("unit", tr("Unit")), Editable("note", tr("Note"))),
    Tube: (Editable("size", tr("Size"), "length"), Editable("adhesive", tr("Set in")), Editable("note", tr("Note"))),
    Fault: (Editable("size", tr("How far"), "length"), Editable("note", tr("Note"))),
    Observation: (Editable("text", tr("What")), Editable("place", tr("Where"))),
    Traverse: (Editable("station", tr("Station")), Editable("probe", tr("Probe"))),
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
    found = [Part(job, tr("job: {}", job.title)), Part(port, tr("port: {}", port.name), 1)]
    found.append(Part(cut, tr("cut {}: {}", cut.number, cut.name or tr("no name")), 2))
    for op in cut.operations:
        found.append(Part(op, tr("operation: {}", ", ".join(op.places) or op.kind), 3))
        found += [Part(w, f"{w.place}{', ' + w.side if w.side else ''}", 4) for w in op.works]
    found += [Part(w, tr("wall: {} {}", w.place, units.length.text(w.thickness)), 3) for w in cut.walls]
    found += [Part(p, tr("pour: {}", units.volume.with_unit(p.volume)), 3) for p in cut.pours]
    found += [Part(t, tr("trial: {} {}", t.kind, t.name).rstrip(), 3) for t in cut.trials]
    found += [Part(t, tr("hole {}: {}", t.work, t.place), 3) for t in cut.tubes]
    found += [Part(p, tr("photo: {}", p.caption or p.moment or p.file), 3) for p in cut.photos]
    found += [Part(o, f"{o.kind}: {o.text or o.place}".rstrip(": "), 3) for o in cut.observations]
    found += [Part(t, tr("traverse: {}", t.station), 3) for t in cut.traverses]
    for i, run in enumerate(cut.runs, 1):
        counted = sum(r.struck is None for r in run.readings)
        whose = "claim" if run.claimed else "run"
        found.append(
            Part(run, tr("{} {}: {} readings{}", whose, i, counted, ", " + run.date[:10] if run.date else ""), 3)
        )
    found += [Part(f, tr("fault: {}, {}", f.kind, f.place), 2) for f in port.faults]
    return found


def field_text(noun: Noun, field: Editable, units: Units) -> str:
    """A field as it is shown."""
    value: Any = getattr(noun, field.key)
    if value is None:
        return ""
    return units[field.unit].text(value) if field.unit else str(value)
