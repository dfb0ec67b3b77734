"""What the Practice room shows of a practice: the clock while it runs, and the reckoning with every decision."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.bench.simulator.practice.by_plan import by_plan, said_at
from ventrix.bench.simulator.practice.play import AGAIN, Act, Done, Practice, minutes_of
from ventrix.bench.simulator.practice.reckoning import Belief, Reckoning, Stair, reckon
from ventrix.bench.simulator.practice.virtual_job import true_job
from ventrix.core.engine.of_job import on_the_engine
from ventrix.core.formulas.quantiles import normal_cdf
from ventrix.core.judging.findings import Findings
from ventrix.core.metal.walls import DEFAULT_LIMIT
from ventrix.core.model.bench_kinds import ActKind
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.arrays import Array
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si, to_si
from ventrix.core.quantity.words import sentence
from ventrix.rooms.display_units import Units
from ventrix.words import tr

BASIS: Final = tr("mean of twelve lifts at 28 inH2O")
TENTH: Final = to_si(0.1, "in")


@dataclass(frozen=True, slots=True)
class Decision:
    """A decision as a line and as what is said of it beside the curves. `mark` is up, down, dash or diamond; `curves`
    are read and true changes over the lifts with the doubt of two tests, None where it was never flowed; `of_wall`
    where the gauge would have told it."""

    number: int
    name: str
    clock: str
    minutes: str
    believed: str
    true: str
    mark: str
    known: str
    verdict: str
    at: float
    act: int
    record: str
    what_you_knew: str
    what_was_true: str
    what_would_show: str
    seen_curve: Array | None
    true_curve: Array | None
    band: Array | None
    of_wall: bool = False


@dataclass(frozen=True, slots=True)
class Shown:
    """The reckoning: words, figures beside them, stairs over the hours [h, m3/s], and decisions."""

    verdict: str
    reason: str
    worse: bool
    figures: tuple[tuple[str, str], ...]
    stairs: tuple[tuple[str, Stair], ...]
    decisions: tuple[Decision, ...]
    hours: float


def hours_text(minutes: float) -> str:
    """Hours and minutes, as 7:36."""
    whole = round(minutes)
    return f"{whole // 60}:{whole % 60:02d}"


def act_words(done: Done, practice: Practice, units: Units) -> str:
    """An act as it is told while the practice goes on: what it gave, and nothing of the truth."""
    return f"{port_words(practice, done.act.port)}{_given(done, units)}"


def _given(done: Done, units: Units) -> str:
    act = done.act
    place = "" if act.place is None else act.place.value
    if act.kind == ActKind.LIVE:
        return tr("flow test, live on the bench")
    if act.kind == ActKind.FLOW:
        assert done.flow is not None
        return tr("flow test: {}, {}", units.flow.with_unit(float(np.mean(done.flow))), BASIS)
    if act.kind == ActKind.CLAY:
        assert done.flow is not None
        return tr("clay at the {}: {}, {}", place, units.flow.with_unit(float(np.mean(done.flow))), BASIS)
    if act.kind == ActKind.WALL:
        return tr("wall at the {}: {}", place, units.length.with_unit(done.reading))
    if act.kind == ActKind.POUR:
        return tr("pour: {}", units.volume.with_unit(done.reading))
    broke = ". Broken through: water in the port" if done.broke else ""
    nicked = ". The burr slipped and nicked the seat" if done.nicked else ""
    return tr("{}, {} meant{}{}", place, units.length.with_unit(act.depth), broke, nicked)


def port_words(practice: Practice, port: int) -> str:
    """Which port, where the head has several: "Intake 2, "."""
    return f"{practice.head.kind.capitalize()} {port + 1}, " if practice.head.count > 1 else ""


def plans_own_way(practice: Practice) -> Reckoning:
    """The same practice as Plan would have it done, reckoned (this takes some seconds)."""
    return reckon(by_plan(practice.head.id, practice.seed, practice.hours))


def reckoning_shown(practice: Practice, units: Units, plan: Reckoning | None = None) -> Shown:
    """The reckoning of a practice, with the plan's own way beside it where that is reckoned."""
    found = reckon(practice)
    flow = units.flow
    vain = sum(
        max(b.seen - max(b.true, 0.0), 0.0) for b in found.beliefs if b.seen is not None and b.verdict == "in vain"
    )
    lost = sum(1 for b in found.beliefs if b.verdict == "lost")
    said = [
        tr(
            "True gain {} of {} {} in the same {:g} h ({}{})",
            flow.text(found.gain, sign=True),
            flow.text(found.oracle, sign=True),
            flow.label,
            practice.hours,
            BASIS,
            ", all ports together" if practice.head.count > 1 else "",
        )
        + ("" if plan is None else tr(", the plan {}", flow.text(plan.gain, sign=True))),
        tr("you believed {}", flow.text(found.believed, sign=True)),
    ]
    if vain > 0:
        said.append(tr("{} of it was never there", flow.text(vain)))
    if lost:
        said.append(tr("{} cut{} made it worse unseen", lost, "s" if lost > 1 else ""))
    if found.seats_nicked:
        said.append(tr("{} time{} the burr nicked the seat", found.seats_nicked, "s" * (found.seats_nicked > 1)))
    if found.walls_broken:
        verdict = tr("Broken through: the head is scrap")
    else:
        verdict = tr("You found {:.0f} % of what was there", 100 * found.share)
    wall = tr("broken through") if found.walls_broken else tr("thinnest, none broken")
    thin = units.length.with_unit(max(found.thinnest, 0.0))
    figures = ((thin, wall), (hours_text(practice.minutes), tr("of {:g}:00 h", practice.hours)), _filling(practice))
    return Shown(
        verdict,
        ". ".join(sentence(s).rstrip(".") for s in said) + ".",
        bool(found.walls_broken) or found.share < 0.5,
        tuple(f for f in figures if f[0]),
        (
            ("to be had", found.oracle_stair),
            *((("as Plan", plan.true_stair),) if plan is not None else ()),
            ("believed", found.believed_stair),
            ("yours, true", found.true_stair),
        ),
        decisions_of(practice, found, units),
        practice.hours,
    )


def _filling(practice: Practice) -> tuple[str, str]:
    """What the owner's engine gets of it at the top of its speeds, as the Plan room's engine reckons it."""
    job = true_job(practice)
    if job is None or practice.head.engine is None or practice.head.kind != Direction.INTAKE:
        return "", ""
    try:
        found = on_the_engine(Findings(job), job.ports[0])
    except Refused:
        return "", ""
    change = float(np.interp(practice.head.engine.high, found.speeds, found.difference))
    return f"{100 * change:+z.1f} %".replace("-", "−"), tr("VE at {:,.0f}", from_si(practice.head.engine.high, "rpm"))


def decisions_of(practice: Practice, found: Reckoning, units: Units) -> tuple[Decision, ...]:
    """Every pass, and stopping, each with what could be known then and what was true."""
    rows = [_decision(practice, b, units) for b in found.beliefs]
    unused = 60 * practice.hours - practice.minutes
    if unused >= 1:
        left = hours_text(unused)
        more = tr("there was time for a reading") if unused < 30 else tr("there was time to test, or to cut again")
        rows.append(
            Decision(
                len(rows) + 1, tr("stopped, {} unused", left), hours_text(practice.minutes), "0", "", "",
                "dash", more, "", practice.minutes / 60, len(practice.done), "", tr("{} of his hours were left.", left),
                tr("What Plan would have done with them stands below."), tr("Nothing needed showing."),
                None, None, None,
            )
        )  # fmt: skip
    return tuple(rows)


def _decision(practice: Practice, b: Belief, units: Units) -> Decision:
    done = practice.done[b.act]
    flow = units.flow
    depth = units.length.with_unit(done.act.depth)
    port = port_words(practice, b.port)
    name = f"{port}{b.place.value}, {depth}" + (tr(", wall read first") if b.wall_known else tr(", wall not read"))
    mark = "down" if b.broke or b.true < -LEAST else "up" if b.true > LEAST else "dash"
    levels = None
    earlier = (practice.flow_of(d) for d in reversed(practice.done[: b.act]) if d.act.port == b.port)
    before = next((q for q in earlier if q is not None), None)
    if before is not None:
        levels = 1.96 * 2**0.5 * np.hypot(practice.head.mount, practice.head.repeat) * before
    return Decision(
        b.cut,
        name,
        hours_text(60 * b.at),
        f"{done.minutes:.0f}",
        flow.text(b.seen, sign=True) if b.seen is not None else "not flowed",
        flow.text(b.true, sign=True),
        mark,
        _known(b),
        b.verdict,
        b.at,
        b.act,
        done.act.record,
        _knew(practice, b, units),
        _was(b, units),
        _would(practice, b),
        b.seen_curve,
        b.true_curve,
        levels,
        not b.wall_known or b.broke or b.left < DEFAULT_LIMIT,
    )


LEAST: Final = to_si(0.3, "cfm")


def _known(b: Belief) -> str:
    if b.broke or b.left < DEFAULT_LIMIT:
        gauge = tr("yes: the gauge had said it") if b.wall_known else tr("yes: five minutes with the gauge")
        return gauge if b.broke else tr("{} (too thin)", gauge)
    return {
        "unseen": tr("a test of it alone would have told"),
        "in vain": tr("yes: one more mount"),
        "lost": tr("yes: one more mount"),
        "missed": tr("no: smaller than the bench repeats"),
    }.get(b.verdict, "yes, and you did" if b.wall_known else "yes; that the wall held was luck")


def _knew(practice: Practice, b: Belief, units: Units) -> str:
    flow = units.flow
    said = practice.done[b.act].act.said
    first = "" if said is None else tr("You said {} first. ", flow.text(said, sign=True))
    if b.seen is None:
        return tr("{}It was not flowed by itself, before and after: nothing was known of it alone.", first)
    how = tr("more than") if abs(b.seen) > b.doubt else tr("less than")
    return tr(
        "{}{} {} by your tests, {} the {} that so many tests of the same metal differ by here.",
        first,
        flow.text(b.seen, sign=True),
        flow.label,
        how,
        flow.text(b.doubt),
    )


def _was(b: Belief, units: Units) -> str:
    flow = units.flow
    if b.broke:
        return tr("The wall was cut through: water in the port.")
    said = f"{flow.text(b.true, sign=True)} {flow.label}."
    if b.left < DEFAULT_LIMIT:
        limit = units.length.with_unit(DEFAULT_LIMIT)
        said += tr(" But {} of wall is left, under the usual {}.", units.length.with_unit(b.left), limit)
    if b.nicked:
        said += tr(" The burr nicked the seat: the low lifts lost by it.")
    if b.verdict == "in vain":
        said += tr(" What was read beyond it was the bolting-down, not the port.")
    elif b.verdict == "lost":
        said += tr(" It cost flow, and the bench didn't tell.")
    elif b.verdict == "missed":
        said += tr(" It was there; one test each could not show it.")
    return said


def _would(practice: Practice, b: Belief) -> str:
    """How likely one more bolting-down before and after would have told what was true."""
    if b.broke or b.left < DEFAULT_LIMIT:
        return tr("The gauge, before the burr: five minutes.")
    if b.seen is None:
        return tr("A test before and after, {:.0f} min each.", minutes_of(Act(ActKind.FLOW)))
    one = b.doubt / 1.96
    if b.verdict == "in vain":
        odds = normal_cdf((1.96 * one / 2**0.5 - b.true) / (one / 2**0.5))
        return tr("One more mount, {:.0f} min: it would have gone in {}.", AGAIN, _in_ten(odds))
    if abs(b.true) <= b.doubt:
        needed = int(np.ceil((1.96 * one / max(abs(b.true), 1e-9)) ** 2)) if abs(b.true) > LEAST else 0
        if needed > 8 or not needed:
            return tr("Nothing on this bench: it is smaller than what repeats here.")
        return tr("{} mounts before and after, {:.0f} min each.", needed, AGAIN)
    return tr("It was shown: one test each was enough.")


def _in_ten(odds: float) -> str:
    return f"{min(max(round(10 * odds), 0), 10)} in 10"


def plan_would(practice: Practice, act: int) -> str:
    """What Plan would have said before an act."""
    said = said_at(practice, act)
    return sentence(said) if said else tr("Nothing: every place is blocked or brings nothing.")
