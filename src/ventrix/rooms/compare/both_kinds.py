"""Exhaust and intake on one page: both curves, their ratio by lift, and what each port has gained."""

from __future__ import annotations

from dataclasses import dataclass, field

from ventrix.core.judging.exhaust_share import exhaust_share
from ventrix.core.judging.findings import Findings
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.kinds import Direction
from ventrix.core.model.school_questions import side_taken
from ventrix.core.quantity.units import from_si_array
from ventrix.core.quantity.words import percent_text
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.gain_words import doubt_text, gain_text
from ventrix.rooms.shared.plot_values import Line, Picture
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class BothKinds:
    """The page: a sentence a port, the table, and the plot; or, in `missing`, what there is not yet."""

    sentences: tuple[str, ...] = ()
    heads: tuple[str, ...] = ()
    rows: tuple[tuple[str, ...], ...] = ()
    picture: Picture = field(default_factory=Picture)
    missing: str = ""


@dataclass(frozen=True, slots=True)
class _Flowed:
    port: Port
    first: Cut
    last: Cut
    run: ReducedRun


def _flowed(findings: Findings, port: Port) -> _Flowed | None:
    cuts = [c for c in port.cuts if findings.runs_of(c, port)]
    return _Flowed(port, cuts[0], cuts[-1], findings.runs_of(cuts[-1], port)[-1]) if cuts else None


def both_kinds(findings: Findings, port: Port, units: Units) -> BothKinds:
    """A port at its last flowed cut beside what the other kind flowed then."""
    mine = _flowed(findings, port)
    if mine is None:
        return BothKinds(missing=tr("{} has not been flowed yet: both kinds stand here when it has.", port.name))
    if mine.run.kind == FlowKind.INDEX:
        return BothKinds(missing=tr("An uncalibrated bench gives ratios of one port alone: two ports have none."))
    share = exhaust_share(findings, port, mine.last)
    if share is None:
        wanted = "exhaust" if port.kind == Direction.INTAKE else "intake"
        return BothKinds(missing=tr("No {} port has been flowed yet: both kinds stand here when one has.", wanted))
    beside, ratios = share.beside, share.ratios
    first = _flowed(findings, beside.port)
    other = _Flowed(beside.port, first.first if first is not None else beside.cut, beside.cut, beside.run)
    intake, exhaust = (mine, other) if port.kind == Direction.INTAKE else (other, mine)
    pressure = mine.run.test_pressure
    had, has = intake.run.at_pressure(pressure), exhaust.run.at_pressure(pressure)
    lift, flows = ratios.lift, (had.curve.at(ratios.lift), has.curve.at(ratios.lift))
    tested = {round(float(x) * 1e6) for x in had.lift}
    rows = []
    for x, a, b, ratio in zip(lift, *flows, ratios.at_lift, strict=True):
        between = "" if round(float(x) * 1e6) in tested else " (interpolated)"
        rows.append(
            (
                units.lift.text(float(x)),
                f"{units.flow.text(float(a))}{between}",
                units.flow.text(float(b)),
                percent_text(float(ratio), 0),
            )
        )
    wanted = side_taken(findings.job, "ratio").words
    peak = ", ".join((percent_text(ratios.at_peak, 0), *share.marks))
    sentences = (
        *(_gained(findings, each, units) for each in (intake, exhaust)),
        tr(
            "Exhaust over intake at peak: {}; {} is wanted (Head, Goal). Both at {}.",
            peak,
            wanted,
            units.pressure.with_unit(pressure),
        ),
    )
    lines = [
        Line(
            from_si_array(run.lift, units.lift.unit),
            from_si_array(run.flow, units.flow.unit),
            each.port.kind,
            points=(from_si_array(run.lift, units.lift.unit), from_si_array(run.flow, units.flow.unit)),
            label=each.port.name,
        )
        for each, run in ((intake, had), (exhaust, has))
    ]
    top = max(float(line.y.max()) for line in lines)
    right = max(float(line.x.max()) for line in lines)
    picture = Picture(lines, x_range=(0.0, right * 1.12), y_range=(0.0, top * 1.1), digits=units.lift.digits)
    heads = (tr("lift, {}", units.lift.label), intake.port.name, exhaust.port.name, "exhaust/intake")
    return BothKinds(sentences, heads, tuple(rows), picture)


def _gained(findings: Findings, each: _Flowed, units: Units) -> str:
    """What a port gained from its first flowed cut to its last."""
    name = tr("{}, cut {}", each.port.name, each.last.number)
    if each.first.id == each.last.id:
        return tr("{}: flowed once, nothing to compare it with.", name)
    gain = findings.gain(findings.pair(each.port, each.first, each.last))
    if gain is None or not gain.comparable:
        return tr("{} over cut {}: not comparable.", name, each.first.number)
    unit = "" if gain.is_share else f" {units.flow.label}"
    told = f"{gain_text(gain, units)}{unit} ± {doubt_text(gain, units)}"
    return tr("{} over cut {}: {}. {}", name, each.first.number, told, gain.verdict.headline)
