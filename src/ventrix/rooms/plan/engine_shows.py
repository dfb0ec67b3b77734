"""What the Plan room shows of the engine: filling over speed before and after, and the rev-limit card in words."""

from __future__ import annotations

import numpy as np

from ventrix.core.engine.of_job import OnTheEngine, RevLimit
from ventrix.core.engine.words import blow_down_sentence, engine_sentence, lift_sentences
from ventrix.core.quantity.units import from_si, from_si_array
from ventrix.rooms.display_units import Units
from ventrix.rooms.shared.plot_values import Band, Line, Picture
from ventrix.words import tr


def engine_caption(found: OnTheEngine) -> str:
    """What stands on the plot."""
    cuts = tr("cut {} (dashed) to {}", found.before.number, found.after.number)
    if found.other_cam:
        cuts = tr("cut {}, the job's cam (dashed) to the other", found.after.number)
    if found.filling is None:
        return tr("change of VE, %, over 1,000 rpm: {}", cuts.replace(" (dashed)", ""))
    return tr("VE, %, over 1,000 rpm: {}", cuts)


def engine_picture(found: OnTheEngine) -> Picture:
    """Filling before and after in percent, or its change alone where the cam's timing is not known; bands hold eight in
    ten."""
    x = from_si_array(found.speeds, "rpm") / 1000
    if found.filling is None or found.filling_before is None or found.low is None or found.high is None:
        middle, low, high = (100 * v for v in (found.difference, found.difference_low, found.difference_high))
        lines = [Line(x, middle, "better", 2.5)]
    else:
        middle, low, high = (100 * v for v in (found.filling, found.low, found.high))
        lines = [Line(x, 100 * found.filling_before, "quiet", 2.0, "dashed"), Line(x, middle, "better", 2.5)]
    every = np.concatenate([low, high, *(np.asarray(line.y) for line in lines)])
    margin = max(0.1 * float(np.ptp(every)), 0.1)
    bottom = min(float(every.min()) - margin, 0.0) if found.filling is None else float(every.min()) - margin
    return Picture(
        lines,
        bands=[Band(x, low, high, "better", 0.25)],
        x_range=(float(x[0]), float(x[-1])),
        y_range=(bottom, float(every.max()) + margin),
        digits=0,
    )


def _moved(before: float | None, after: float) -> str:
    """A speed, and what it was where it was another."""
    now = f"{from_si(after, 'rpm'):,.0f} rpm"
    had = "" if before is None else f"{from_si(before, 'rpm'):,.0f}"
    return now if not had or now.startswith(had) else f"{had} → {now}"


def engine_lines(found: OnTheEngine, units: Units) -> list[str]:
    """All that is told of the engine, a sentence each."""
    said = [engine_sentence(found), engine_card(found, units), *card_lines(found, units)]
    if float(np.ptp(found.manifold)) > 1.0:
        at = units.absolute.with_unit(float(found.manifold[-1]))
        said.append(tr("Behind the carburetor or throttle body {} at the top of the range.", at))
    return [*said, blow_down_sentence(found, units.lift.unit)]


def card_lines(found: RevLimit, units: Units) -> list[str]:
    """Air speed, effective area, and what lift beyond buys, a sentence each."""
    said = []
    if found.mean_speed is not None:
        low, high = (units.speed.text(float(v)) for v in found.mean_speed[[0, -1]])
        said.append(tr("Mean air speed in the smallest section: {} to {} {}.", low, high, units.speed.label))
    had, has = (f"{from_si(v, 'mm2.deg'):,.0f}" for v in (found.area_before, found.area))
    said.append(tr("Effective area over the cam: {} → {} mm²·deg; it carries across test pressures.", had, has))
    return [*said, *lift_sentences(found, units.lift.unit)]


def limit_words(found: RevLimit, units: Units) -> str:
    """Limit and choke before and after, and the section that is wanted."""
    top = f"{from_si(float(found.speeds[-1]), 'rpm'):,.0f}"
    said = []
    if found.limit_speed is not None and found.index is not None:
        said.append(
            tr("Z 0.6 at {}, {:.2f} at {}", _moved(found.limit_speed_before, found.limit_speed), found.index[-1], top)
        )
    if found.choke_speed is not None:
        said.append(tr("smallest section chokes at {}", _moved(found.choke_speed_before, found.choke_speed)))
    said.append(tr("{} wanted for {}", units.area.with_unit(found.least_section), top))
    return "; ".join(said) + "."


def engine_card(found: OnTheEngine, units: Units) -> str:
    """The rev-limit card, and what stands in the way of more."""
    words = limit_words(found, units)
    if found.missing:
        words += tr(" Absolute volumetric efficiency needs {} (Head).", " and ".join(found.missing))
    if found.guessed:
        words += tr(" Taken as usual: {}.", "; ".join(found.guessed))
    return words + tr(" One cylinder, no waves.")
