"""Papers without a pair: one flowed state, the work on a head that no bench has seen, and a head that was judged."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from datetime import date

from ventrix.core.edits.faults import state_at
from ventrix.core.engine.suits import suits
from ventrix.core.judging.findings import Findings
from ventrix.core.judging.fits import fit_checks
from ventrix.core.metal.between import metal_between
from ventrix.core.metal.slips import not_told
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.kinds import Direction
from ventrix.core.planning.moves import WORKS
from ventrix.core.planning.next_moves import Plan, plan_port
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.units import from_si
from ventrix.core.quantity.words import number_text, sentence
from ventrix.core.work.hours import hours_of
from ventrix.core.work.record import Record, record_of
from ventrix.reports.sheet.contents import Choices, FigureRow, Large, Owned, PaperKind, Part, SectionLine, Sheet, Shop
from ventrix.rooms.compare.unflowed import metal_rows
from ventrix.rooms.cuts.fault_grid import fault_words
from ventrix.rooms.cuts.slip_words import slip_words
from ventrix.rooms.display_units import Units
from ventrix.rooms.plan.shows import move_line, segments
from ventrix.rooms.sheet.conditions import casting_words
from ventrix.rooms.sheet.contents import CAUTION, Asked, sheet_of
from ventrix.rooms.sheet.metal import wall_lines
from ventrix.rooms.sheet.owned import PRACTICE, fits_out
from ventrix.rooms.sheet.scan_part import scan_part
from ventrix.rooms.sheet.suits_words import suits_rows
from ventrix.rooms.sheet.work_and_ports import done_lines, ports_head, ports_rows
from ventrix.words import tr

MOST_MOVES = 3
MOST_SHARES = 3


def baseline(findings: Findings, asked: Asked, units: Units) -> Sheet:
    """One flowed state: what it flows, what limits it, what it suits; nothing is said to have been gained."""
    made = sheet_of(findings, replace(asked, before=asked.after), units)
    runs = findings.runs_of(asked.after, asked.port)
    stated = next((r.house for r in runs if r.house), "")
    sections = {
        Part.LIMITS: tuple(_limits(findings, asked.port, asked.after, units)),
        Part.SUITS: tuple(_suits(findings, asked.port, asked.after, units)),
        Part.METAL: tuple(_metal(findings, units, asked.audience_is_shop)),
    }
    owned = tuple(o for o in made.owned if o.shape != "same")
    if stated:
        owned = (Owned("missing", tr("as the house says"), tr("flows by {}, not measured here", stated)), *owned)
    return replace(
        made,
        kind=PaperKind.BASELINE,
        large=tuple(replace(each, change="", was="", result="") for each in made.large),
        figures=tuple(replace(row, before="", result="") for row in made.figures if row.after != "–"),
        sections=sections,
        owned=(*owned, *_whom_to_ask(asked.shop)),
        faults=(),
        not_ready="",
    )


def work_done(findings: Findings, asked: Asked, units: Units) -> Sheet:
    """What was done to a head: metal, faults, walls, volume and hours; the flow is said not to have been measured."""
    record = record_of(findings)
    made = _plain(findings, asked, asked.choices, asked.shop, asked.today, units)
    figures = tuple(_figures(findings, asked, units))
    return replace(
        made,
        kind=PaperKind.WORK,
        large=tuple(_work_large(findings, asked, record, units)),
        figures=(*figures, FigureRow(tr("Flow"), "", tr("not measured"), missing=True)),
        done=tuple(_done(findings, units, own=asked.audience_is_shop)),
        sections={
            Part.METAL: tuple(_metal(findings, units, asked.audience_is_shop)),
            Part.HOURS: tuple(_hours(findings, record, asked.today, units)),
        },
        ports_head=ports_head(units, None),
        ports=ports_rows(findings, units, None),
    )


def head_judged(
    findings: Findings, asked: Asked | None, choices: Choices, shop: Shop, today: date, units: Units
) -> Sheet:
    """What a head suits and what it would take; where nothing was measured, that is what the page says."""
    made = _plain(findings, asked, choices, shop, today, units)
    if asked is None:
        nothing = SectionLine(
            tr("No port was touched, flowed or measured yet: this page says who, which head and when.")
        )
        return replace(made, sections={Part.SUITS: (nothing,)}, not_ready="nothing was measured yet")
    port, cut = asked.port, asked.after
    fed = next((p for p in (port, *findings.job.ports) if p.kind == Direction.INTAKE and p.of_head and p.cuts), None)
    rows = (
        _suits(findings, fed, None, units)
        if fed is not None
        else [SectionLine(tr("What it suits is asked of an intake."))]
    )
    takes = [*_limits(findings, port, cut, units), *_to_go(findings, today)]
    figures = tuple(replace(row, before="") for row in _figures(findings, asked, units))
    large = [Large(row.words.lower(), row.figure) for row in rows if row.figure is not None]
    return replace(
        made,
        large=tuple(large[:2] + large[-1:]) if len(large) > 2 else tuple(large),
        figures=figures,
        sections={
            Part.SUITS: tuple(rows),
            Part.LIMITS: tuple(takes),
            Part.METAL: tuple(_metal(findings, units, asked.audience_is_shop)),
        },
    )


def _whom_to_ask(shop: Shop) -> list[Owned]:
    return [] if shop.name else [Owned("missing", tr("whom to ask"), tr("no shop's name stands on it (N)"))]


def _figures(findings: Findings, asked: Asked, units: Units) -> Iterator[FigureRow]:
    """Sizes, sections and volume that are known, before and after; walls stand with the metal."""
    pair = findings.pair(asked.port, asked.before, asked.after)
    for caption, before, after, _ in metal_rows(findings.job, pair, units):
        if not caption.startswith("wall"):
            yield FigureRow(caption, before, after)


def _plain(findings: Findings, asked: Asked | None, choices: Choices, shop: Shop, today: date, units: Units) -> Sheet:
    """A page with whose it is, of which head, and what it has to own up to."""
    job = findings.job
    owned = [Owned("missing", "practice", PRACTICE)] if job.practice else []
    owned += [Owned("missing", tr("slip, not told yet"), slip_words(p, s, units)) for p, s in not_told(job)]
    owned += fits_out(job, units)
    flowed = any(findings.runs_of(c, p) for p in job.ports for c in p.cuts)
    if not flowed:
        owned.append(Owned("missing", tr("not measured: 1"), "flow"))
    owned += _whom_to_ask(shop)
    walls = wall_lines(findings, asked.port, asked.after, units) if asked is not None else ()
    return Sheet(
        shop=shop,
        title=job.title if asked is None else f"{job.title}, {asked.port.name}",
        author=shop.name or "Ventrix",
        customer=job.customer,
        date=today.isoformat(),
        casting=casting_words(findings),
        conditions=(),
        large=(),
        pairs=(),
        lift_label=units.lift.label,
        figures=(),
        done=(),
        sections={},
        ports_head=(),
        ports=(),
        scan=None if asked is None else scan_part(job, asked.port, asked.before, asked.after, units),
        photos=() if asked is None else asked.photos,
        notes=(),
        cautions=(*((PRACTICE,) if job.practice else ()), *walls, CAUTION),
        faults=(),
        owned=tuple(owned),
        port="" if asked is None else asked.port.name,
        choices=choices,
        kind=PaperKind.JUDGED,
    )


def _suits(findings: Findings, port: Port, cut: Cut | None, units: Units) -> list[SectionLine]:
    if port.kind != Direction.INTAKE:
        return [SectionLine(tr("What it suits is asked of an intake."))]
    try:
        found = suits(findings, port, cut)
    except Refused as error:
        return [SectionLine(tr("What it suits is not known: {}.", error))]
    return [
        *(SectionLine(*row) for row in suits_rows(found, units)),
        *(SectionLine(units.say(words)) for words in found.because),
    ]


def _limits(findings: Findings, port: Port, cut: Cut, units: Units) -> Iterator[SectionLine]:
    """The places that eat most, and the moves that bring most an hour."""
    try:
        plan = plan_port(findings, port, up_to=cut if findings.runs_of(cut, port) else None, words=units.wording)
    except Refused as error:
        yield SectionLine(tr("What limits it is not known: {}.", error))
        return
    lift = float(plan.planned.lift[-1])
    yield from _shares(plan, lift, units)
    for move in [m for m in plan.moves if m.kind in WORKS and not m.blocked_by and m.gain > 0][:MOST_MOVES]:
        line = move_line(move, plan, units)
        about = tr("an estimate, ") if line.guess else ""
        gain = f"{line.gain} %" if plan.planned.chain.is_index else f"{line.gain} {units.flow.label}"
        what = f"{line.title}, {line.below}" if move.depth is not None else line.title
        yield SectionLine(sentence(what).rstrip("."), f"{gain}, {about}{line.minutes} min")
    for move in [m for m in plan.moves if m.kind in WORKS and m.blocked_by][:1]:
        yield SectionLine(tr("Not yet: {}, {}", move.place, sentence(move.blocked_by[0])))


def _shares(plan: Plan, lift: float, units: Units) -> Iterator[SectionLine]:
    at = units.lift.with_unit(lift)
    total = units.pressure.with_unit(plan.planned.chain.pressure)
    for part in sorted(segments(plan, lift, units), key=lambda s: -s.share)[:MOST_SHARES]:
        basis = tr("by this port's flow") if part.measured else tr("a usual share, guessed")
        yield SectionLine(
            tr("{} at {}", sentence(part.name).rstrip("."), at), tr("takes {} of {}, {}", part.eaten, total, basis)
        )


def _to_go(findings: Findings, today: date) -> Iterator[SectionLine]:
    hours = hours_of(record_of(findings), today)
    if hours.high > 0:
        low, high = (from_si(h, "h") for h in (hours.low, hours.high))
        yield SectionLine(tr("Work that is left on the head"), tr("{:.0f} to {:.0f} h, 8 in 10", low, high))


def _metal(findings: Findings, units: Units, own: bool) -> Iterator[SectionLine]:
    """Walls before and after by port, faults with what became of them, and slips."""
    job = findings.job
    for port in (p for p in job.ports if p.of_head and p.cuts):
        walls = [c for c in metal_between(job, port, port.cuts[0], port.cuts[-1]) if c.name.startswith("wall")]
        for wall in walls:
            had, has = units.length.text(wall.before), units.length.with_unit(wall.after)
            yield SectionLine(
                f"{port.name}, {wall.name}",
                has if had == "–" or wall.before == wall.after else tr("{} to {}", had, has),
            )
        for fault in port.faults:
            state = state_at(fault, port.cuts[-1])
            if state is not None:
                yield SectionLine(f"{port.name}, {fault_words(fault, units)}", state.words)
        yield from (SectionLine(slip_words(port, slip, units)) for slip in port.slips if own or not slip.customer_told)
    yield from _fits(findings, units)


def _fits(findings: Findings, units: Units) -> Iterator[SectionLine]:
    """Springs, guides, lapped contacts, heights and flatness as measured."""
    for check in fit_checks(findings.job, units.wording):
        yield SectionLine(
            check.says, {True: tr("within its limit"), False: tr("out of its limit"), None: ""}[check.holds]
        )


def _done(findings: Findings, units: Units, *, own: bool) -> Iterator[str]:
    """What was done to every port, a port after the other."""
    for port in (p for p in findings.job.ports if p.of_head and len(p.cuts) > 1):
        lines = done_lines(port, port.cuts[0], port.cuts[-1], units, own=own)
        yield from (f"{port.name}: {line}" for line in lines)


def _work_large(findings: Findings, asked: Asked, record: Record, units: Units) -> Iterator[Large]:
    """Volume of the port, ports worked, hours used."""
    volume = next(
        (c for c in metal_between(findings.job, asked.port, asked.before, asked.after) if c.kind == "volume"), None
    )
    if volume is not None and volume.after is not None:
        was = "" if volume.before is None else tr("was {}", units.volume.text(volume.before))
        yield Large(f"{asked.port.name}, {units.volume.label}", units.volume.text(volume.after), was=was)
    ports = [p for p in findings.job.ports if p.of_head]
    touched = sum(any(c.operations for c in p.cuts) for p in ports)
    if touched:
        yield Large(tr("ports worked"), tr("{} of {}", touched, len(ports)))
    if record.used > 0:
        yield Large("hours", number_text(from_si(record.used, "h"), 1))


def _hours(findings: Findings, record: Record, today: date, units: Units) -> Iterator[SectionLine]:
    """Quoted, used by stage, beyond the quote by choice, and to go."""
    job, hours = findings.job, hours_of(record, today)
    if job.quoted is not None:
        yield SectionLine(tr("quoted"), units.hours.with_unit(job.quoted))
    for stage in record.stages:
        used = sum(s.seconds or 0.0 for s in record.of_stage(stage.key))
        if used > 0:
            yield SectionLine(stage.name, units.hours.with_unit(used))
    if record.elsewhere > 0:
        yield SectionLine(tr("of no stage"), units.hours.with_unit(record.elsewhere))
    yield SectionLine(tr("used, together"), units.hours.with_unit(record.used))
    if hours.beyond_quote > 0:
        yield SectionLine(tr("of it beyond the quote, by choice"), units.hours.with_unit(hours.beyond_quote))
    yield from _to_go(findings, today)
