"""What a head costs by the shop's own rates: hours, outside work, parts, consumables; what was chosen beyond the quote
apart."""

from __future__ import annotations

from dataclasses import dataclass

from ventrix.core.model.job import Job
from ventrix.core.quantity.units import from_si
from ventrix.core.work.hours import Hours
from ventrix.words import tr


@dataclass(frozen=True, slots=True)
class QuoteLine:
    """A line of the table: what, how much of it in words, and money (None where no price was said)."""

    what: str
    amount: str
    price: float | None


def quote_of(job: Job, hours: Hours) -> tuple[QuoteLine, ...]:
    """The open table of a job. No price is the program's.

    Parameters
    ----------
    job : Job
        Its rate, waits, parts and consumables.
    hours : Hours
        As `hours_of`.

    Returns
    -------
    tuple of QuoteLine
        The sum last; hours beyond the quote stand in it by themselves.

    Raises
    ------
    ValueError
        Never.

    References
    ----------
    Sums.
    """

    def at_rate(seconds: float) -> float | None:
        return None if job.rate is None else job.rate * from_si(seconds, "h")

    inside = hours.used - hours.beyond_quote
    lines = [
        QuoteLine(tr("hours used"), f"{from_si(inside, 'h'):.1f} h", at_rate(inside)),
        QuoteLine(tr("hours to go"), tr("{:.1f} h, likely", from_si(hours.likely, "h")), at_rate(hours.likely)),
    ]
    lines += [QuoteLine(tr("outside: {}", w.stage), w.who, w.price) for w in job.waits if w.price is not None]
    for part in (p for p in job.parts if p.price is not None and not p.beyond_quote):
        lines.append(QuoteLine(tr("part: {}", part.name or part.kind), f"{part.count}, {part.state}", part.price))
    if job.consumables is not None:
        lines.append(QuoteLine(tr("consumables"), "", job.consumables))
    lines.append(QuoteLine(tr("sum"), "", _sum(lines)))
    more = hours.beyond_quote
    beyond = [QuoteLine(tr("chosen beyond the quote"), f"{from_si(more, 'h'):.1f} h", at_rate(more))] if more else []
    beyond += [
        QuoteLine(tr("chosen part: {}", p.name or p.kind), f"{p.count}, {p.state}", p.price)
        for p in job.parts
        if p.price is not None and p.beyond_quote
    ]
    if job.quoted is not None:
        lines.append(QuoteLine(tr("quoted"), f"{from_si(job.quoted, 'h'):.1f} h", at_rate(job.quoted)))
    return (*lines, *beyond)


def _sum(lines: list[QuoteLine]) -> float | None:
    known = [line.price for line in lines if line.price is not None]
    return sum(known) if known else None
