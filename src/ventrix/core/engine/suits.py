"""What an engine a head suits: the displacement and speeds that its valves and its smallest section can feed, the lift
that still pays, the air the engine draws, and a range of power."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

import numpy as np

from ventrix.core.engine.breathing import area_at
from ventrix.core.formulas.atmosphere import REFERENCE_TEMPERATURE, speed_of_sound
from ventrix.core.formulas.engine import MACH_INDEX_LIMIT, MACH_LIMIT, horsepower_potential
from ventrix.core.judging.findings import Findings
from ventrix.core.metal.unrolled import smallest_section
from ventrix.core.model.bench_kinds import FlowKind
from ventrix.core.model.cut import Cut, Port
from ventrix.core.model.job import Job
from ventrix.core.model.kinds import Direction
from ventrix.core.quantity.refused import Refused
from ventrix.core.quantity.said import Amount, Said
from ventrix.core.runs.reduced_run import ReducedRun
from ventrix.words import tr

# Common practice, no source: under this Z, or this mean speed in the smallest section, a port is too large for its air.
LEAST_Z: Final = 0.35
LEAST_SPEED: Final = 60.0  # m/s
PEAK_OVER_MEAN: Final = 1.63  # of piston speed, rods of 1.75 strokes: slider and crank, exact
PAYS: Final = 0.98  # of the greatest flow: a lift past this brings next to nothing
USUAL_TOP: Final = 6000 * np.pi / 30  # rad/s, where the job says none
FILLS: Final = 0.95  # of displacement, at the top of the range
PULSES: Final = (
    1.15  # what a carburettor passes at once over its mean, four cylinders and more on one (common practice)
)
REACHED: Final = 0.80, 1.0  # of the power that flow allows: what engines around a head reach (common practice)


@dataclass(frozen=True, slots=True)
class Suits:
    """SI. `displacement` of the whole engine [m3] at the job's top speed; `speeds` [rad/s] at its own displacement, at
    the middle of the range without one; each low and high. `lift_pays` [m], `air` [m3/s], `power` [W] low and high, and
    why in sentences. None where what it needs was not measured."""

    displacement: tuple[float, float]
    speeds: tuple[float, float]
    lift_pays: float | None
    air: float
    power: tuple[float, float] | None
    because: tuple[str, ...]


def suits(findings: Findings, port: Port, cut: Cut | None = None) -> Suits:
    """What an intake port at a cut suits.

    .. math:: V n = \\frac{Z\\, \\pi N D^2 C_i a}{4 \\cdot 2},\\quad V n = \\frac{M a A}{2 \\cdot 1.63}

    Parameters
    ----------
    findings : Findings
        Of the job.
    port : Port
        An intake, flowed in CFM or with its smallest section measured.
    cut : Cut, optional
        The state; the last flowed, else the last, without.

    Returns
    -------
    Suits

    Raises
    ------
    ValueError
        An exhaust; neither flow with the valve's diameter, nor a section.

    References
    ----------
    Z up to 0.6: Taylor [13], vol. 1, ch. 6. A mean Mach of 0.55 in the smallest section, and both lower ends: common
    practice, no source.
    """
    if port.kind != Direction.INTAKE:
        raise Refused("{} is an exhaust: what a head suits is asked of an intake port", port.name)
    job = findings.job
    flowed = [c for c in port.cuts if any(r.kind == FlowKind.FLOW for r in findings.runs_of(c, port))]
    cut = cut or (flowed or list(port.cuts))[-1]
    runs = [r for r in findings.runs_of(cut, port) if r.kind == FlowKind.FLOW]
    run, section = runs[-1] if runs else None, smallest_section(job, port, cut)
    because: list[str] = []
    rates = [r for r in (_by_valve(findings, run, port, because), _by_section(job, port, section, because)) if r]
    if not rates:
        raise Refused("{}: flow it with its valve's diameter known, or measure its sections", port.name)
    low, high = max(r[0] for r in rates), min(r[1] for r in rates)
    if low > high:  # the valve is large for the section, or the other way round: the tighter one is the limit
        low = min(r[0] for r in rates)
        because.append(tr("Valve and smallest section are not of one size: the smaller of the two sets the top."))
    count = _cylinders(job, because)
    top = _top(job, because)
    displacement = low * count / top, high * count / top
    own = _own_displacement(job)
    at = own if own is not None else sum(displacement) / 2 / count
    if own is None:
        because.append(tr("Bore and stroke are not known: speeds are those of the middle of the displacements."))
    speeds = low / at, high / at
    air = FILLS * PULSES * at * count * speeds[1] / (4 * np.pi)
    because.append(
        tr(
            "Air: {:.0f} % of the displacement at the top speed, and {:.0f} % more for its "
            "pulses; for every 6 °C over 15 °C add a percent.",
            100 * FILLS,
            100 * (PULSES - 1),
        )
    )
    return Suits(displacement, speeds, _lift_pays(run, because), air, _power(run, count, because), tuple(because))


def _by_valve(findings: Findings, run: ReducedRun | None, port: Port, because: list[str]) -> tuple[float, float] | None:
    """Displacement of one cylinder times crank speed [m3 rad/s] from the valve, low and high."""
    diameter = None if run is None else run.geometry.valve_diameter
    if run is None or diameter is None:
        because.append(tr("The valve can't be used: flow in CFM and its diameter are needed."))
        return None
    cam = findings.cam_of(Direction.INTAKE)
    if cam is None:
        mean, by = float(np.trapezoid(run.effective_area, run.lift) / (run.lift[-1] - run.lift[0])), tr("tested lifts")
    else:
        mean, by = float(cam.mean(area_at(run, cam.lifts))), "cam"
    ports = findings.job.ports_beside(port)
    # Z = 4 V w / (pi^2 n D^2 Ci a), and n pi/4 D^2 Ci is the mean effective area.
    one = np.pi * ports * mean * float(speed_of_sound(REFERENCE_TEMPERATURE))
    count = run.geometry.valves * ports
    ci = mean / (run.geometry.valves * np.pi / 4 * diameter**2)
    because.append(
        Said(
            "Valves: {} of {} with a mean coefficient of {:.2f} over the {} keep Taylor's Z between {} and {}.",
            count,
            Amount(diameter, "length", "in", ".3f"),
            ci,
            by,
            LEAST_Z,
            MACH_INDEX_LIMIT,
        )
    )
    return LEAST_Z * one, MACH_INDEX_LIMIT * one


def _by_section(job: Job, port: Port, section: float | None, because: list[str]) -> tuple[float, float] | None:
    if section is None:
        because.append(tr("The smallest section was not measured: the answer rests on the valves alone."))
        return None
    area = section * job.ports_beside(port)
    least = job.lowest_speed or LEAST_SPEED
    most = MACH_LIMIT * float(speed_of_sound(REFERENCE_TEMPERATURE)) / PEAK_OVER_MEAN
    because.append(
        Said(
            "Smallest section {}: its mean speed stays between {} and {} (Mach {} when the piston asks most).",
            Amount(section, "area", "in2", ".2f"),
            *(Amount(speed, "speed", "m/s", ".0f") for speed in (least, most)),
            MACH_LIMIT,
        )
    )
    return np.pi * area * least, np.pi * area * most


def _cylinders(job: Job, because: list[str]) -> int:
    if job.engine_cylinders is not None:
        return job.engine_cylinders
    count = job.cylinders or 1
    because.append(tr("How many cylinders the engine has was not entered: {}, as the head has.", count))
    return count


def _top(job: Job, because: list[str]) -> float:
    if job.speed_high is not None:
        return job.speed_high
    because.append(tr("No top speed was entered: 6000 rpm is taken for the displacement."))
    return USUAL_TOP


def _own_displacement(job: Job) -> float | None:
    return None if job.bore is None or job.stroke is None else np.pi / 4 * job.bore**2 * job.stroke


def _lift_pays(run: ReducedRun | None, because: list[str]) -> float | None:
    """The lift from which more brings next to nothing [m]."""
    if run is None:
        return None
    if run.stall is not None:
        because.append(tr("Lift pays up to where the flow stops growing."))
        return float(run.lift[run.stall])
    enough = int(np.argmax(run.flow >= PAYS * run.flow.max()))
    because.append(tr("Lift pays up to where {:.0f} % of the greatest tested flow is reached.", 100 * PAYS))
    return float(run.lift[enough])


def _power(run: ReducedRun | None, cylinders: int, because: list[str]) -> tuple[float, float] | None:
    if run is None:
        return None
    most = float(horsepower_potential(run.flow.max(), run.test_pressure, cylinders))
    because.append(
        tr(
            "Power: 0.257 hp a CFM at 28 inH2O and cylinder is what the flow allows; engines reach "
            "{:.0f} to {:.0f} % of it.",
            100 * REACHED[0],
            100 * REACHED[1],
        )
    )
    return REACHED[0] * most, REACHED[1] * most
