"""What is odd about a run in hand: readings far from the rest, air read long ago. Sentences, no widget."""

from __future__ import annotations

import numpy as np

from ventrix.core.benches.odd_readings import REPEAT_LIMIT, expected_flow, repeat_distance
from ventrix.core.benches.plate import plate_sentence
from ventrix.core.model.bench_kinds import ElementKind
from ventrix.core.model.run import FlowRun
from ventrix.core.quantity.words import percent_text, sentence
from ventrix.core.runs.element import indicated
from ventrix.rooms.display_units import Units
from ventrix.rooms.flow.run_in_hand import RunInHand
from ventrix.words import tr
from ventrix.workspace.ids import hours_since
from ventrix.workspace.workspace import Workspace

SAME_LIFT = 1e-6  # m
AIR_HOURS = 1.0  # after which the recorded air is stale
AIR_SHIFT = 2.0  # K: half a percent of density or so


def odd_reading(hand: RunInHand, lift: float) -> str:
    """What is odd about the readings at a lift: far from what the others expect, or from its repeat; or nothing."""
    run = hand.reduced()
    if run is None or hand.run is None:
        return ""
    here = np.abs(run.lift - lift) < SAME_LIFT
    counted = [r for r in hand.run.readings if r.struck is None and abs(r.lift - lift) < SAME_LIFT]
    if not here.any():
        return ""
    if len(counted) > 1:
        values = indicated(counted, hand.setup).values
        scatter = hand.space.findings.scatter(hand.setup.bench)
        off = repeat_distance(float(values[-1]), [float(v) for v in values[:-1]], scatter)
        if off is not None and off > REPEAT_LIMIT:
            apart = percent_text(abs(float(values[-1] / values[:-1].mean() - 1)))
            return tr("{} off its repeat: take it again", apart)
    said = far_off(hand, lift, float(run.flow[here][0]))
    return tr("{}: take it again", said) if said else ""


def far_off(hand: RunInHand, lift: float, flow: float, *, least: float = 0.0) -> str:
    """How far a flow as reported [m3/s], or an index, lies off what is expected at a lift; nothing where it does not,
    or by less than `least`."""
    run = hand.reduced()
    others = np.ones(0, dtype=bool) if run is None else np.abs(run.lift - lift) >= SAME_LIFT
    lifts, flows = (others, others) if run is None else (run.lift[others], run.flow[others])
    expected = expected_flow(lift, lifts, flows, hand.lifts, hand.pinned_curve())
    if expected is None:
        return ""
    said = tr("{} off {}", percent_text(expected.distance(flow), sign=True), expected.by)
    return said if expected.is_odd(flow, least) else ""


def stale_air(hand: RunInHand, live_temperature: float | None) -> str:
    """What is wrong with the recorded air, or nothing: never read, read long ago, or the room has changed."""
    setup = hand.setup
    if setup.temperature is None or setup.pressure is None:
        return (
            tr("The air was not recorded.")
            if setup.scale_density or hand.element.kind in (ElementKind.ORIFICE, ElementKind.MASS)
            else ""
        )
    if live_temperature is not None and abs(live_temperature - setup.temperature) > AIR_SHIFT:
        return tr("The air is over 2 °C off what is recorded: read it again.")
    if setup.air_read_at is not None and hours_since(setup.air_read_at) > AIR_HOURS:
        return tr("The air was read {:.0f} hours ago: read it again.", hours_since(setup.air_read_at))
    return ""


def plate_words(hand: RunInHand, units: Units) -> str:
    """What the reference plate said last, and whether that was today; nothing on a bench without one."""
    bench = hand.bench
    if bench is None or bench.plate_flow is None:
        return ""
    counted = [p for p in bench.plates if p.struck is None]
    if not counted:
        return tr("The reference plate has not been flowed on this bench.")
    inside, said = plate_sentence(bench.plates)
    last = counted[-1]
    when = (
        "today" if last.date and hours_since(last.date) < 12 else tr("on {}", (last.date or tr("an unknown day"))[:10])
    )
    if not inside:
        return f"▼ {sentence(said)}"
    return tr("Plate {}: {} of {}, in limits.", when, units.flow.text(last.flow), units.flow.text(last.nominal))


def in_sight_words(hand: RunInHand) -> str:
    """That the run shown is not the one that the next reading goes to; nothing where it is."""
    shown = hand.in_sight
    if shown is None or hand.run is not None:
        return ""
    setup = hand.space.job.setup(shown.setup_id)
    where = tr(" on {}", setup.bench) if setup.bench else ""
    return tr("Shown is the run of {}{}; the next reading begins a new one.", str(shown.date)[:10], where)


def witness_words(space: Workspace, run: FlowRun | None) -> str:
    """Which run of the witness port a run names; that it was not flowed yet; nothing where there is none."""
    if not any(p.witness for p in space.job.ports) or (space.port is not None and space.port.witness):
        return ""
    if run is None:
        return tr("The witness port has not been flowed at this setting-up of the bench.")
    return tr("Witness port flowed {}: this run will name it.", str(run.date)[11:16])
