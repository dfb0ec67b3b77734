"""What Air's pages say below their pictures: of a station's traverses, and of a ball held in the port."""

from __future__ import annotations

from collections.abc import Sequence

from ventrix.core.air.hints import change_sentences
from ventrix.core.air.traverse import Field
from ventrix.core.judging.findings import Findings
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.traverse import Traverse
from ventrix.rooms.air.shows import field_sentences, survey_sentences
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.unrolled_map import MapSpot
from ventrix.words import tr


def section_words(
    findings: Findings,
    port: Port,
    cut: Cut,
    station: str,
    traverses: tuple[Traverse | None, Traverse | None],
    fields: Sequence[Field | None],
    limit: float,
    units: Units,
) -> list[str]:
    """What a station's traverses say, before and after; `limit` is the Mach number that is looked out for."""
    before, after = traverses
    surveyed = survey_sentences(findings, cut, units)
    if after is None or fields[1] is None:
        return [
            *surveyed,
            tr(
                "The {} has not been probed at cut {}. N begins a traverse: the program leads from "
                "point to point, Space or the pedal keeps what the probe reads, or type it.",
                station,
                cut.number,
            ),
        ]
    lift = tr(" at {}", units.lift.with_unit(after.lift)) if after.lift is not None else ""
    said = [tr("{}, cut {}{}.", station.capitalize(), cut.number, lift)]
    said += surveyed
    said += field_sentences(findings, port, cut, after, fields[1], units, limit)
    if fields[0] is not None and before is not None:
        if before.lift != after.lift:
            said.append(tr("The two were probed at different lifts: their difference is not the cut's alone."))
        said += change_sentences(fields[0], fields[1])
    return said


def ball_words(spots: Sequence[MapSpot], units: Units) -> str:
    """Where the air is busiest and idlest by a flow ball."""
    if not spots:
        return tr(
            "No ball was held in this port yet. N, with a flow ball: the flow falls most where the air is busiest."
        )
    names = [
        tr("{} {} at the {}, {} from the opening", s.text, units.flow.label, s.band, units.length.with_unit(s.along))
        for s in sorted(spots, key=lambda s: -s.share)
    ]
    busiest = tr("Busiest: {}.\n\nIdlest: {}.", names[0], names[-1]) if len(names) > 1 else tr("Read: {}.", names[0])
    return tr("The flow falls most with a ball where the air is busiest. {}", busiest)
