"""The contract table of calculators: what each takes, answers, says of itself, and stands on."""

from __future__ import annotations

from typing import Any

from ventrix.core.calculators.contract import (
    DENSITY,
    GEOMETRY,
    PRACTICE,
    TEST_PRESSURE,
    Calculator,
    Input,
    Outcome,
    Output,
    plain,
)
from ventrix.core.formulas import bench_element, bench_flow, port, valve
from ventrix.core.formulas.atmosphere import air_density, air_range_note, speed_of_sound
from ventrix.core.formulas.change import relative_change
from ventrix.words import tr


def _air_density(temperature: float, pressure: float, humidity: float) -> Outcome:
    note = air_range_note(temperature, pressure)
    return {"density": air_density(temperature, pressure, humidity)}, [note] if note else []


def _convert_pressure(flow: float, measured_at: float, wanted_at: float) -> Outcome:
    compressible = bench_flow.convert_flow(flow, measured_at, wanted_at)
    doubt = bench_flow.conversion_uncertainty(measured_at, wanted_at)
    outputs = {
        "flow": bench_flow.convert_pressure(flow, measured_at, wanted_at),
        "compressible_flow": compressible,
        "doubt": doubt,
    }
    return outputs, [tr("converted; Ventrix itself compares by the compressible figure")]


def _range_flow(percent: float, range: float) -> Outcome:
    return {"flow": bench_element.range_flow(percent, range)}, []


def _leak_correct(flow: float, leak: float, test_pressure: float, leak_pressure: float) -> Outcome:
    notes = bench_element.leak_notes(flow, leak, test_pressure, leak_pressure)
    return {"flow": bench_element.leak_correct(flow, leak, test_pressure, leak_pressure)}, notes


def _valve_flow_area(**inputs: float) -> Outcome:
    found = valve.valve_flow_area(**inputs)
    stage = int(found.stage)
    return {"area": found.area, "stage": stage}, [
        tr("the {} is the smallest place here", valve.STAGES[stage - 1]),
        *found.notes,
    ]


def _discharge_coefficient(**inputs: Any) -> Outcome:
    cd = bench_flow.discharge_coefficient(**inputs)
    above = [tr("above 1: the reference area is smaller than the stream that really flows")] if cd > 1 else []
    return {"cd": cd}, [tr("{} ideal", inputs["model"]), *above]


def _port_energy(**inputs: float) -> Outcome:
    energy = port.port_energy(**inputs)
    return {"energy_density": energy.density, "energy": energy.total}, []


def _hole_wall(**inputs: float) -> Outcome:
    note = tr("mean of the two sides: core shift makes one thinner, so this never answers a wall limit")
    return {"wall": port.hole_wall(**inputs)}, [note]


BENCH_AND_PORT: tuple[Calculator, ...] = (
    Calculator(
        "air_density",
        tr("Air density"),
        tr("air weather barometer humidity density"),
        (Input("temperature", "degC"), Input("pressure", "hPa"), Input("humidity", "%", "0")),
        (Output("density", "kg/m3"),),
        tr("rho = p Ma / (Z R T) (1 - xv (1 - Mv/Ma))"),
        tr("CIPM-2007: Picard et al., Metrologia 45 (2008) 149-155"),
        _air_density,
    ),
    Calculator(
        "speed_of_sound",
        tr("Speed of sound"),
        tr("sonic mach sound speed air"),
        (Input("temperature", "degC"),),
        (Output("speed", "m/s"),),
        tr("a = sqrt(gamma R T)"),
        "ISO 2533:1975",
        plain(speed_of_sound, "speed"),
    ),
    Calculator(
        "ideal_velocity",
        tr("Ideal air speed from a pressure drop"),
        tr("velocity depression inches water ideal"),
        (Input("pressure_drop", "inH2O"), DENSITY),
        (Output("velocity", "ft/s"),),
        tr("v = sqrt(2 dp / rho)"),
        tr("Bernoulli"),
        plain(bench_flow.ideal_velocity, "velocity"),
    ),
    Calculator(
        "ideal_flux",
        tr("Ideal flow per area"),
        tr("cfm per square inch 146 ideal flux"),
        (Input("pressure_drop", "inH2O"), DENSITY),
        (Output("flux", "cfm/in2"),),
        tr("q = sqrt(2 dp / rho)"),
        tr("Bernoulli; 146 CFM per in2 at 28 inH2O is ") + PRACTICE,
        plain(bench_flow.ideal_velocity, "flux"),
    ),
    Calculator(
        "convert_pressure",
        tr("Flow at another test pressure"),
        tr("convert depression 10 25 28 inches water correction"),
        (Input("flow", "cfm"), Input("measured_at", "inH2O"), Input("wanted_at", "inH2O", "28")),
        (Output("flow", "cfm"), Output("compressible_flow", "cfm"), Output("doubt", "%")),
        tr("Q2 = Q1 sqrt(dp2 / dp1); compressible: mean of nozzle and plate"),
        tr("orifice law, ") + PRACTICE + tr("; Heywood (1988), app. C; ISO 5167-2:2003"),
        _convert_pressure,
    ),
    Calculator(
        "range_flow",
        tr("Percent of a range into flow"),
        tr("percent scale range manometer bench"),
        (Input("percent", "%"), Input("range", "cfm")),
        (Output("flow", "cfm"),),
        tr("Q = percent x range"),
        tr("definition of the scale"),
        _range_flow,
    ),
    Calculator(
        "leak_correct",
        tr("Take the leak off"),
        tr("leak test subtract bench"),
        (
            Input("flow", "cfm"),
            Input("leak", "cfm"),
            TEST_PRESSURE,
            Input("leak_pressure", "inH2O", "28"),
        ),
        (Output("flow", "cfm"),),
        "Q = reading - leak sqrt(dp / dp_leak)",
        PRACTICE,
        _leak_correct,
    ),
    Calculator(
        "curtain_area",
        tr("Curtain area"),
        tr("valve curtain lift window area"),
        (Input("valve_diameter", "in"), Input("lift", "in"), Input("valves", "-", "1")),
        (Output("area", "in2"),),
        tr("A = n pi D L"),
        tr("Heywood (1988), section 6.3.2"),
        plain(valve.curtain_area, "area"),
    ),
    Calculator(
        "lift_ratio",
        tr("Lift over diameter"),
        tr("L/D lift ratio valve"),
        (Input("lift", "in"), Input("valve_diameter", "in")),
        (Output("ratio", "-"),),
        "L / D",
        GEOMETRY,
        plain(valve.lift_ratio, "ratio"),
    ),
    Calculator(
        "valve_flow_area",
        tr("Least area under the valve"),
        tr("valve seat curtain throat area stage minimum"),
        (
            Input("valve_diameter", "in"),
            Input("seat_width", "in"),
            Input("seat_angle", "deg", "45"),
            Input("throat_diameter", "in"),
            Input("stem_diameter", "in"),
            Input("lift", "in"),
            Input("valves", "-", "1"),
        ),
        (Output("area", "in2"), Output("stage", "-")),
        tr(
            "least of: pi L cos b (Dv - 2w + L/2 sin 2b) near the seat; pi Dm sqrt((L - w tan b)^2 + w^2); pi/4 (Dp^2 "
            "- Ds^2)"
        ),
        tr("Heywood (1988), section 6.3.1"),
        _valve_flow_area,
    ),
    Calculator(
        "change",
        tr("Change in percent"),
        tr("change gain loss percent before after narrower wider"),
        (Input("before"), Input("after")),
        (Output("percent", "%"),),
        tr("after / before - 1"),
        PRACTICE,
        plain(relative_change, "percent"),
    ),
    Calculator(
        "throat_percent",
        tr("Throat percent"),
        tr("throat bowl percent of valve"),
        (Input("valve_diameter", "in"), Input("throat_diameter", "in")),
        (Output("percent", "%"),),
        tr("throat / valve"),
        PRACTICE,
        plain(valve.throat_ratio, "percent"),
    ),
    Calculator(
        "throat_area",
        tr("Throat area"),
        tr("throat area net of stem"),
        (Input("throat_diameter", "in"), Input("stem_diameter", "in", "0")),
        (Output("area", "in2"),),
        tr("A = pi/4 (Dt^2 - Ds^2)"),
        GEOMETRY,
        plain(valve.throat_area, "area"),
    ),
    Calculator(
        "seat_throat",
        tr("Largest throat the seat leaves"),
        tr("seat width margin throat limit"),
        (
            Input("valve_diameter", "in"),
            Input("margin", "in", "0"),
            Input("seat_width", "in"),
            Input("seat_angle", "deg", "45"),
        ),
        (Output("throat_diameter", "in"),),
        tr("Dv - 2 (margin + width cos b)"),
        GEOMETRY,
        plain(valve.seat_throat, "throat_diameter"),
    ),
    Calculator(
        "discharge_coefficient",
        tr("Discharge coefficient"),
        tr("Cd coefficient efficiency flow area"),
        (
            Input("flow", "cfm"),
            TEST_PRESSURE,
            Input("area", "in2"),
            Input("model", "-", "isentropic", ("isentropic", "incompressible")),
            Input("pressure", "hPa", "1013.25"),
            Input("temperature", "degC", "15"),
        ),
        (Output("cd", "-"),),
        tr("Cd = Q / (A vi), vi isentropic or sqrt(2 dp / rho)"),
        tr("Heywood (1988), app. C"),
        _discharge_coefficient,
    ),
    Calculator(
        "centreline_length",
        tr("Centerline length of a port"),
        tr("port length wire floor roof mean"),
        (Input("floor_length", "in"), Input("roof_length", "in")),
        (Output("length", "in"),),
        tr("(floor + roof) / 2"),
        PRACTICE,
        plain(port.centreline_length, "length"),
    ),
    Calculator(
        "section_area",
        tr("Section with rounded corners"),
        tr("port opening pinch width height area corner"),
        (Input("width", "in"), Input("height", "in"), Input("corner_radius", "in", "0")),
        (Output("area", "in2"),),
        tr("w h - (4 - pi) r^2"),
        GEOMETRY,
        plain(port.section_area, "area"),
    ),
    Calculator(
        "mean_section",
        tr("Mean section of a port"),
        tr("average area volume length port"),
        (Input("volume", "cc"), Input("length", "in")),
        (Output("area", "in2"),),
        "V / Lc",
        GEOMETRY,
        plain(port.mean_section, "area"),
    ),
    Calculator(
        "mean_port_velocity",
        tr("Mean air speed in the port"),
        tr("velocity speed port volume feet per second"),
        (Input("flow", "cfm"), Input("volume", "cc"), Input("length", "in")),
        (Output("velocity", "ft/s"),),
        "v = Q Lc / V",
        "continuity",
        plain(port.mean_port_velocity, "velocity"),
    ),
    Calculator(
        "station_velocity",
        tr("Air speed through a section"),
        tr("velocity speed pinch throat section"),
        (Input("flow", "cfm"), Input("area", "in2")),
        (Output("velocity", "ft/s"),),
        "v = Q / A",
        "continuity",
        plain(port.station_velocity, "velocity"),
    ),
    Calculator(
        "port_energy",
        tr("Energy of the air in the port"),
        tr("energy kinetic velocity volume"),
        (Input("flow", "cfm"), Input("volume", "cc"), Input("length", "in"), DENSITY),
        (Output("energy_density", "J/m3"), Output("energy", "J")),
        tr("rho v^2 / 2, and times V"),
        tr("definition of kinetic energy"),
        _port_energy,
    ),
    Calculator(
        "break_even_flow",
        tr("Flow needed to keep the air speed"),
        tr("break even volume grew velocity keep"),
        (Input("flow", "cfm"), Input("volume_before", "cc"), Input("volume_after", "cc")),
        (Output("flow", "cfm"),),
        "Q V2 / V1",
        PRACTICE,
        plain(port.break_even_flow, "flow"),
    ),
    Calculator(
        "hole_wall",
        tr("Wall beside a pushrod or bolt hole"),
        tr("wall thickness pushrod hole pinch metal left"),
        (Input("hole_spacing", "in"), Input("port_width", "in")),
        (Output("wall", "in"),),
        tr("(spacing - width) / 2"),
        PRACTICE,
        _hole_wall,
    ),
)
