"""The chain of a port of a job: its flowed states with sizes, works and the bench's scatter, as the book has them."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import partial
from typing import Final

import numpy as np

from ventrix.core.air.total_head import share_lost
from ventrix.core.formulas.valve import throat_area
from ventrix.core.judging.comparability import Level, comparability
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.schools import school_weights
from ventrix.core.metal.unrolled import UnrolledPort, unroll
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port, carried, carried_figure, trial_as_cut
from ventrix.core.model.kinds import Direction, Place, TrialKind
from ventrix.core.planning.chain import Chain, ChainClay, ChainState, ChainSurvey, ChainValve, ChainWork
from ventrix.core.planning.learned import CastingPrior
from ventrix.core.planning.loss_chain import guessed_flow
from ventrix.core.planning.priors import CLAY_AREA, PLACES, SECTION_OF, SURVEY_DOUBT, median_losses
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import to_si
from ventrix.core.runs.geometry import Geometry, geometry_of
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.words import tr

# Where along the port each place's section is taken, as a share of its length.
AT: Final = {
    Place.OPENING: 0.0,
    Place.PINCH: 0.38,
    Place.GUIDE: 0.72,
    Place.SHORT_SIDE: 0.80,
    Place.BOWL: 0.90,
}
NEAR: Final = 0.07  # of the length: a measured section this near speaks for a place
FLUSH: Final = 0.5e-3  # m: what "until flush" is taken for
USUAL_SEAT: Final = 1.5e-3, np.pi / 4, 7.0e-3  # m, rad, m: seat width, its angle, stem, where nobody measured them
FIN: Final = ("fin", "faired")
# Of the edge that `edges_of` says is worked at a place, what one side is; a quarter elsewhere.
SIDES: Final = {Place.PINCH.value: 0.5, Place.GUIDE.value: 1.0, Place.SHORT_SIDE.value: 1.0}
USUAL_LIFTS: Final[Array] = np.linspace(1.0, 12.0, 12) * to_si(0.05, "in")
USUAL_PRESSURE: Final = to_si(28, "inH2O")


@dataclass(frozen=True, slots=True)
class Planned:
    """A port ready to be planned: its chain, the states planned from, the last run (None where it was never flowed:
    then `flow` is the book's own guess), lifts and their weights in the goal's number, and what was guessed about the
    port."""

    chain: Chain
    cuts: tuple[Cut, ...]
    run: ReducedRun | None
    lift: Array
    flow: Array
    weights: Array
    guessed: tuple[str, ...]


def planned_port(
    findings: Findings, port: Port, up_to: Cut | None = None, learned: CastingPrior | None = None
) -> Planned:
    """The chain of a port up to a cut (its last flowed one without it).

    Parameters
    ----------
    findings : Findings
        Of the job.
    port : Port
        Which.
    up_to : Cut, optional
        The state to plan from.
    learned : CastingPrior, optional
        What finished ports of its casting and kind told.

    Returns
    -------
    Planned

    Raises
    ------
    ValueError
        It was not flowed, or the valve was not measured: with a sentence.

    References
    ----------
    Definitions of this project.
    """
    if port.piece:
        raise Refused("{} is a piece, not a port of the head: a plan is of a port", port.name)
    job = findings.job
    last = up_to.number if up_to is not None else max((c.number for c in port.cuts), default=0)
    flowed = [c for c in port.cuts if c.number <= last and findings.runs_of(c, port)]
    if not flowed:
        return _by_the_book(findings, port, last, learned)
    run = findings.runs_of(flowed[-1], port)[-1]
    valve, guessed = _valve(port, run.geometry)
    states: list[ChainState] = []
    cuts: list[Cut] = []
    before = -1
    for cut in flowed:
        mine = _speaks(findings, port, cut, run)
        if mine is None:
            continue
        states.append(_state(findings, port, cut, mine, valve, before))
        cuts.append(cut)
        before = cut.number
    here = unroll(port, flowed[-1], job.valve_of(port, flowed[-1]))
    guessed = (*guessed, *here.guessed)
    medians = _medians(port, flowed[0], run)
    pressure = run.shown_at or run.setup.test_pressure or USUAL_PRESSURE  # an index may be read at none
    clays = tuple(c for i, cut in enumerate(cuts) for c in _clays(findings, port, cut, i, states[i]))
    surveys = tuple(s for i, cut in enumerate(cuts) for s in _surveys(findings, port, cut, i))
    chain = Chain(medians, tuple(states), pressure, run.kind == FlowKind.INDEX, clays, surveys, learned)
    cam = findings.cam_of(port.kind)
    mine_lifts = tuple(m.lift for m in job.my_lifts if m.kind == port.kind)
    weights = school_weights(findings.school, run.lift, run.flow, cam, mine_lifts)
    return Planned(chain, tuple(cuts), run, run.lift, run.flow, np.asarray(weights), tuple(dict.fromkeys(guessed)))


def _by_the_book(findings: Findings, port: Port, last: int, learned: CastingPrior | None) -> Planned:
    """A port that was never flowed: its metal and the book, and no data."""
    job = findings.job
    cuts = [c for c in port.cuts if c.number <= last]
    if not cuts:
        raise Refused("{} has no state yet", port.name)
    cut = cuts[-1]
    valve, guessed = _valve(port, geometry_of(job, port, cut))
    here = unroll(port, cut, job.valve_of(port, cut))
    areas, measured = sections_of(here, port, cut, valve.stem)
    nothing = np.zeros(0)
    state = ChainState(areas, frozenset(measured), edges_of(here), valve, nothing, nothing, 0.003, 0.003)
    pressure = job.test_pressure or USUAL_PRESSURE
    chain = Chain(_medians(port, cuts[0], None), (state,), pressure, learned=learned)
    lift = USUAL_LIFTS
    flow = guessed_flow(chain, lift)
    mine = tuple(m.lift for m in job.my_lifts if m.kind == port.kind)
    weights = school_weights(findings.school, lift, flow, findings.cam_of(port.kind), mine)
    return Planned(chain, (cut,), None, lift, flow, np.asarray(weights), ("flow", *guessed, *here.guessed))


def _speaks(findings: Findings, port: Port, cut: Cut, last: ReducedRun) -> ReducedRun | None:
    """The run of a cut that was made under the last one's conditions, at its pressure; None where none was."""
    for run in reversed(findings.runs_of(cut, port)):
        if run.kind == last.kind and comparability(run.setup, last.setup).level != Level.NO:
            return run.at_pressure(last.test_pressure)
    return None


def _valve(port: Port, g: Geometry) -> tuple[ChainValve, tuple[str, ...]]:
    if g.valve_diameter is None:
        raise Refused("the valve of {} was not measured: its head diameter is needed (Head)", port.name)
    width, angle, stem = USUAL_SEAT
    guessed = []
    for name, value in ((tr("seat width"), g.seat_width), (tr("seat angle"), g.seat_angle), ("stem", g.stem_diameter)):
        if value is None:
            guessed.append(name)
    return (
        ChainValve(g.valve_diameter, g.stem_diameter or stem, g.seat_width or width, g.seat_angle or angle, g.valves),
        tuple(guessed),
    )


def sections_of(here: UnrolledPort, port: Port, cut: Cut, stem: float) -> tuple[dict[str, float], set[str]]:
    """Section by place [m2], and which of them were measured."""
    areas, measured = {}, set()
    for place, share in AT.items():
        areas[place.value] = float(here.area(share * here.length))
        if any(s.measured and abs(s.along - share * here.length) <= NEAR * here.length for s in here.sections):
            measured.add(place.value)
    throat = carried(port, cut, "throat_diameter")
    if throat is not None:
        areas[Place.THROAT.value] = float(throat_area(throat.value, min(stem, 0.5 * throat.value), here.valves))
        measured.add(Place.THROAT.value)
    else:
        areas[Place.THROAT.value] = float(here.area(here.length))
    return areas, measured


def edges_of(here: UnrolledPort) -> dict[str, float]:
    """How much of a section's edge is worked at each place [m]: its walls, roof or floor, or all of it."""
    found = {}
    for place, share in AT.items():
        bands = {k: float(v) for k, v in here.bands(share * here.length).items()}
        round_it = sum(bands.values())
        found[place.value] = {
            Place.OPENING: round_it,
            Place.PINCH: bands["left"] + bands["right"],
            Place.GUIDE: bands["roof"],
            Place.SHORT_SIDE: bands["floor"],
            Place.BOWL: 0.6 * round_it,
        }[place]
    wide = float(here.width(here.length)) / max(here.valves, 1) ** 0.5
    found[Place.THROAT.value] = float(np.pi * wide * here.valves)
    return found


def _state(findings: Findings, port: Port, cut: Cut, run: ReducedRun, valve: ChainValve, before: int) -> ChainState:
    here = unroll(port, cut, findings.job.valve_of(port, cut))
    areas, measured = sections_of(here, port, cut, valve.stem)
    scatter = findings.known(run.setup.bench).scatter
    readings = np.maximum(run.readings, 1.0)
    return ChainState(
        areas=areas,
        measured=frozenset(measured),
        widths=edges_of(here),
        valve=valve,
        lift=run.lift,
        flow=run.flow,
        repeat=float(scatter.repeat / np.sqrt(np.mean(readings))),
        mount=float(scatter.mount),
        works=works_between(port, before, cut.number),
    )


def _clays(findings: Findings, port: Port, cut: Cut, i: int, state: ChainState) -> Iterator[ChainClay]:
    """Clay tried on a state, where it was flowed under the state's conditions and its size is known."""
    mine = findings.runs_of(cut, port)[-1]
    for trial in cut.trials:
        area = state.areas.get(SECTION_OF.get(trial.place, trial.place))
        if trial.kind != TrialKind.CLAY or not trial.area_taken or area is None or trial.place not in PLACES:
            continue
        if trial.area_taken >= 0.9 * area:
            continue
        for run in findings.runs_of(trial_as_cut(cut, trial), port)[-1:]:
            both = comparability(run.setup, mine.setup).level != Level.NO and run.kind == mine.kind
            lift = np.intersect1d(np.round(run.lift, 6), np.round(mine.lift, 6))
            if not both or not len(lift):
                continue
            ratio = np.log(run.at_pressure(mine.test_pressure).curve.at(lift) / mine.curve.at(lift))
            doubt = trial.area_uncertainty / trial.area_taken if trial.area_uncertainty else CLAY_AREA
            yield ChainClay(
                i, trial.place, trial.area_taken / area, doubt, lift, ratio, state.repeat, state.mount * 2**0.5
            )


def _surveys(findings: Findings, port: Port, cut: Cut, i: int) -> Iterator[ChainSurvey]:
    """Total head read at places of the chain in a state; on draw alone, where it stands against the room's."""
    for traverse in cut.traverses:
        found = share_lost(findings.job, traverse)
        if found is None or port.kind != Direction.INTAKE or traverse.station not in PLACES or traverse.lift is None:
            continue
        relative, pressure = SURVEY_DOUBT
        doubt = float(np.hypot(relative, pressure / (found.share * found.pressure)))
        yield ChainSurvey(i, traverse.station, traverse.lift, found.share, doubt)


def works_between(port: Port, before: int, number: int) -> tuple[ChainWork, ...]:
    """What was taken off the places of the chain in cuts after `before`, up to `number`."""
    if before < 0:
        return ()
    found: dict[str, list[tuple[float, float]]] = {}
    for cut in (c for c in port.cuts if before < c.number <= number):
        for op in cut.operations:
            for work in op.works:
                deep = work.depth if work.depth is not None else FLUSH if work.until else 0.0
                if work.place in PLACES and deep > 0:
                    share = edge_share(work.place, work.side, work.from_hour, work.to_hour)
                    found.setdefault(work.place, []).append((deep, share))
    earlier = worked_before(port, before)
    works = []
    for place, passes in found.items():
        depth = sum(deep for deep, _ in passes)
        edge = sum(deep * share for deep, share in passes) / depth
        works.append(ChainWork(place, depth, place in earlier, edge))
    return tuple(works)


def edge_share(place: str, side: str | None, from_hour: float | None, to_hour: float | None) -> float:
    """What share of the edge that is worked at a place a side, or hours of the clock, are [-]: all of it without."""
    if from_hour is not None and to_hour is not None:
        return ((to_hour - from_hour) % 12 or 12.0) / 12
    if side is None:
        return 1.0
    return SIDES.get(place, 0.25)


def worked_before(port: Port, number: int) -> frozenset[str]:
    """Places that were worked in any cut up to this one."""
    return frozenset(w.place for c in port.cuts if c.number <= number for op in c.operations for w in op.works)


def _medians(port: Port, cut: Cut, run: ReducedRun | None) -> Mapping[str, float]:
    figure = partial(carried_figure, port, cut)
    angle = figure("port_angle")
    turning = np.pi / 2 - angle if angle is not None else np.pi / 3
    shape = carried(port, cut, "boss_shape")
    faired = shape is not None and str(shape.value) in FIN
    return median_losses(
        run.setup.entry if run is not None else None,
        figure("short_side_radius"),
        figure("short_side_height"),
        turning,
        faired,
    )
