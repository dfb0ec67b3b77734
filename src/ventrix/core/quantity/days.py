"""Days as people type them."""

from __future__ import annotations

import re
from datetime import date, timedelta
from typing import Final

from ventrix.core.quantity.refused import Refused

DAYS: Final = ("mon", "tue", "wed", "thu", "fri", "sat", "sun")
MONTHS: Final = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
MOST: Final = 3650  # days ahead
NEAR: Final = {"today": 0, "tomorrow": 1, "yesterday": -1}


def read_day(text: str, today: date, *, ahead: bool = True) -> str | None:
    """A day as typed: "fri", "4 dec", "dec 4", "in 5 days", "today", 2026-12-04; None for nothing.

    Parameters
    ----------
    text : str
        As typed.
    today : date
        Where one stands.
    ahead : bool
        A day of the week, or one without its year, is the next such day; the last one otherwise.

    Returns
    -------
    str or None
        ISO.

    Raises
    ------
    ValueError
        It is no day.
    """
    said = " ".join(re.sub(r"[.,]", " ", text.lower()).split())
    if not said:
        return None
    found = _in_words(said, today, ahead=ahead)
    if found is None:
        try:
            found = date.fromisoformat(text.strip())
        except ValueError:
            raise Refused("'{}' is not a day: type fri, 4 dec, in 5 days or 2026-12-04", text.strip()[:40]) from None
    return found.isoformat()


def _in_words(said: str, today: date, *, ahead: bool) -> date | None:
    if said in NEAR:
        return today + timedelta(days=NEAR[said])
    if said[:3] in DAYS and said.isalpha() and len(said) <= len("wednesday"):
        to_go = (DAYS.index(said[:3]) - today.weekday()) % 7
        return today + timedelta(days=(to_go or 7) if ahead else to_go - 7 if to_go else 0)
    in_days = re.fullmatch(r"in (\d{1,5}) days?", said)
    if in_days is not None:
        return today + timedelta(days=min(int(in_days[1]), MOST))
    named = re.fullmatch(r"(?:(\d{1,2}) ([a-z]{3,9})|([a-z]{3,9}) (\d{1,2}))(?: (\d{4}))?", said)
    if named is None:
        return None
    day, month = int(named[1] or named[4]), (named[2] or named[3])[:3]
    if month not in MONTHS:
        return None
    return _day_of(day, MONTHS.index(month) + 1, None if named[5] is None else int(named[5]), today, ahead=ahead)


def _day_of(day: int, month: int, year: int | None, today: date, *, ahead: bool) -> date | None:
    try:
        found = date(year or today.year, month, day)
        if year is None and ahead and found < today:
            found = found.replace(year=today.year + 1)
        if year is None and not ahead and found > today:
            found = found.replace(year=today.year - 1)
    except ValueError:  # the 30th of February
        return None
    return found
