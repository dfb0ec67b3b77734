"""The contract table of calculators, second half: orifice, probe, swirl, cam, loss split and engine."""

from __future__ import annotations

from typing import Any

import numpy as np

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
from ventrix.core.formulas import compression, engine, losses, orifice, pitot, swirl
from ventrix.core.formulas.cam import Cam, cam_note, cam_weighted_flow, flow_integral
from ventrix.core.formulas.flow_curve import FlowCurve
from ventrix.core.quantity.refused import Refused
from ventrix.words import tr


def _orifice_flow(**inputs: Any) -> Outcome:
    found = orifice.orifice_flow(**inputs)
    return {
        "flow": found.flow,
        "mass_flow": found.mass_flow,
        "discharge_coefficient": found.discharge_coefficient,
    }, list(found.notes)


def _pitot_velocity(reading: float, density: float, coefficient: float) -> Outcome:
    speed = float(pitot.pitot_velocity(reading, density, coefficient))
    fast = (
        [tr("over 0.3 of the speed of sound: the incompressible form reads about 2 % high or more")]
        if speed > 102
        else []
    )
    return {"velocity": speed}, fast


def _swirl_coefficient(
    type: str,
    bore: float,
    test_pressure: float,
    density: float,
    speed: float | None = None,
    torque: float | None = None,
    mass_flow: float | None = None,
) -> Outcome:
    if type == "paddle":
        if speed is None:
            raise Refused("speed: is missing, a paddle meter needs it")
        if torque is not None or mass_flow is not None:
            raise Refused("torque and mass_flow belong to type=impulse")
        return {"swirl_coefficient": swirl.paddle_coefficient(speed, bore, test_pressure, density)}, []
    if torque is None or mass_flow is None:
        raise Refused("{}: is missing, an impulse meter needs it", "torque" if torque is None else "mass_flow")
    if speed is not None:
        raise Refused("speed belongs to type=paddle")
    return {"swirl_coefficient": swirl.impulse_coefficient(torque, mass_flow, bore, test_pressure, density)}, []


def _loss_split(flow: float, open_flow: float | None = None) -> Outcome:
    found = losses.loss_split(flow, open_flow)
    above = [tr("the port's share is above 1: here the valve guides the air")] if found.port_share > 1 else []
    return {"port_share": found.port_share, "valve_share": found.valve_share}, above


def _horsepower(**inputs: float) -> Outcome:
    note = tr("a ceiling by a rule of thumb: the engine around the head decides what is reached")
    converted = [tr("flow converted to 28 inH2O")] if abs(inputs["test_pressure"] / (28 * 249.08891) - 1) > 1e-3 else []
    return {"power": engine.horsepower_potential(**inputs)}, [note, *converted]


def _mach_index(**inputs: float) -> Outcome:
    found = engine.mach_index(**inputs)
    beyond = [tr("past 0.6 volumetric efficiency falls off")] if found.z > engine.MACH_INDEX_LIMIT else []
    return {"mach_index": found.z, "limit_speed": found.limit_speed}, beyond


def _demand_velocity(**inputs: float) -> Outcome:
    found = engine.demand_velocity(**inputs)
    area = engine.demand_area(
        inputs["bore"],
        inputs["stroke"],
        inputs["rod_length"],
        inputs["speed"],
        temperature=inputs["temperature"],
    )
    note = tr("Mach {} would need {:.2f} cm2", engine.MACH_LIMIT, area * 1e4)
    return found._asdict(), [note]


def _intake_face(**inputs: float) -> Outcome:
    found = compression.intake_face(**inputs)
    return {"face_cut": found.face_cut, "valley_cut": found.valley_cut}, []


def _cam_weighted(lifts: list[float], flows: list[float], duration: float, peak_lift: float) -> Outcome:
    if len(lifts) != len(flows):
        raise Refused("there are {} lifts and {} flows", len(lifts), len(flows))
    run = FlowCurve(np.array(lifts), np.array(flows))
    cam = Cam(peak_lift, duration)
    note = cam_note(run, cam)
    return {
        "mean_flow": cam_weighted_flow(run, cam),
        "flow_integral": flow_integral(run, cam),
    }, [note] if note else []


AIR_AND_ENGINE: tuple[Calculator, ...] = (
    Calculator(
        "orifice_flow",
        tr("Orifice plate in a pipe"),
        tr("orifice plate element iso 5167 meter calibrate flow"),
        (
            Input("orifice_diameter", "mm"),
            Input("pipe_diameter", "mm"),
            Input("pressure_drop", "Pa"),
            Input("pressure", "hPa", "1013.25"),
            Input("temperature", "degC", "20"),
            Input("taps", "-", "corner", ("corner", "D", "flange")),
        ),
        (Output("flow", "cfm"), Output("mass_flow", "kg/s"), Output("discharge_coefficient", "-")),
        tr("m = C / sqrt(1 - beta^4) eps (pi/4) d^2 sqrt(2 dp rho), C by Reader-Harris/Gallagher"),
        tr("ISO 5167-2:2003, via fluids"),
        _orifice_flow,
    ),
    Calculator(
        "pitot_velocity",
        tr("Air speed from a pitot probe"),
        tr("pitot probe velocity speed traverse reading"),
        (Input("reading", "inH2O"), DENSITY, Input("coefficient", "-", "1")),
        (Output("velocity", "ft/s"),),
        tr("v = K sqrt(2 dp / rho)"),
        "ISO 3966:2008",
        _pitot_velocity,
    ),
    Calculator(
        "swirl_coefficient",
        tr("Swirl coefficient"),
        tr("swirl paddle wheel impulse torque meter"),
        (
            Input("type", "-", "paddle", ("paddle", "impulse")),
            Input("speed", "rpm", optional=True),
            Input("torque", "N.m", optional=True),
            Input("mass_flow", "kg/s", optional=True),
            Input("bore", "mm"),
            TEST_PRESSURE,
            DENSITY,
        ),
        (Output("swirl_coefficient", "-"),),
        tr("paddle: Cs = omega B / v0; impulse: Cs = 8 T / (m v0 B); v0 = sqrt(2 dp / rho)"),
        tr("Heywood (1988), section 8.3.1"),
        _swirl_coefficient,
    ),
    Calculator(
        "loss_split",
        tr("What limits this port: valve or port"),
        tr("loss split valve out open port share limit restriction"),
        (Input("flow", "cfm"), Input("open_flow", "cfm", optional=True)),
        (Output("port_share", "-"), Output("valve_share", "-")),
        tr("port's share = (Q / Q_open)^2, valve's share = 1 - that"),
        tr("two restrictions in series at one pressure drop"),
        _loss_split,
    ),
    Calculator(
        "cam_weighted",
        tr("Cam-weighted flow"),
        tr("camshaft mean average flow duration lift curve"),
        (
            Input("lifts", "in", many=True),
            Input("flows", "cfm", many=True),
            Input("duration", "deg"),
            Input("peak_lift", "in"),
        ),
        (Output("mean_flow", "cfm"), Output("flow_integral", "cfm.deg")),
        tr("mean of Q(L(phi)) over the open period, L = Lmax/2 (1 + cos(2 pi phi / D))"),
        tr("definition; cosine lift curve is ") + PRACTICE,
        _cam_weighted,
    ),
    Calculator(
        "horsepower_potential",
        tr("Power ceiling of a head"),
        tr("horsepower hp power potential cfm ceiling"),
        (
            Input("flow", "cfm"),
            TEST_PRESSURE,
            Input("cylinders", "-"),
            Input("coefficient", "-", "0.257"),
        ),
        (Output("power", "hp"),),
        tr("hp = coefficient x CFM at 28 inH2O x cylinders"),
        PRACTICE,
        _horsepower,
    ),
    Calculator(
        "mach_index",
        tr("Inlet Mach index"),
        tr("mach index taylor valve size rpm limit choke"),
        (
            Input("bore", "mm"),
            Input("stroke", "mm"),
            Input("speed", "rpm"),
            Input("valve_diameter", "mm"),
            Input("valves", "-", "1"),
            Input("mean_flow_coefficient", "-"),
            Input("temperature", "degC", "15"),
        ),
        (Output("mach_index", "-"), Output("limit_speed", "rpm")),
        "Z = (b/D)^2 s / (Ci a)",
        tr("Taylor, The Internal-Combustion Engine, vol. 1, ch. 6"),
        _mach_index,
    ),
    Calculator(
        "demand_velocity",
        tr("Air speed the piston asks for"),
        tr("piston demand velocity rpm section area mach rod"),
        (
            Input("bore", "mm"),
            Input("stroke", "mm"),
            Input("rod_length", "mm"),
            Input("speed", "rpm"),
            Input("area", "cm2"),
            Input("temperature", "degC", "15"),
        ),
        (Output("peak_velocity", "ft/s"), Output("mean_velocity", "ft/s"), Output("peak_mach", "-")),
        tr("v = piston speed x piston area / area, exact slider-crank"),
        tr("geometry; Heywood (1988), section 2.2"),
        _demand_velocity,
    ),
    Calculator(
        "compression_ratio",
        tr("Compression ratio"),
        tr("compression chamber cc gasket deck dish dome"),
        (
            Input("bore", "mm"),
            Input("stroke", "mm"),
            Input("chamber", "cc"),
            Input("gasket_bore", "mm"),
            Input("gasket_thickness", "mm"),
            Input("deck_clearance", "mm", "0"),
            Input("piston_volume", "cc", "0"),
        ),
        (Output("ratio", "-"),),
        tr("(swept + clearance) / clearance"),
        tr("Heywood (1988), section 2.2"),
        plain(compression.compression_ratio, "ratio"),
    ),
    Calculator(
        "chamber_mill",
        tr("Cut for a smaller chamber"),
        tr("mill face chamber cc deck cut"),
        (Input("chamber_before", "cc"), Input("chamber_after", "cc"), Input("face_area", "cm2")),
        (Output("cut", "mm"),),
        "(V1 - V2) / A",
        GEOMETRY,
        plain(compression.chamber_mill, "cut"),
    ),
    Calculator(
        "intake_face",
        tr("Intake face of a V engine after milling"),
        tr("intake manifold face valley mill v engine line up"),
        (Input("bank_half_angle", "deg", "45"), Input("face_angle", "deg"), Input("deck_cut", "in")),
        (Output("face_cut", "in"), Output("valley_cut", "in")),
        tr("face = x sin a / cos(a + e), valley = x cos e / cos(a + e)"),
        tr("geometry; machine-shop table, ") + PRACTICE,
        _intake_face,
    ),
)
