"""What a figure can be at all, field by field: beyond it a slip of the pen is likelier than the figure."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Final

from ventrix.core.model.bench import Bench, PlateCheck, ScatterStudy, StudyReading, Transfer, TransferPart
from ventrix.core.model.cut import (
    Cut,
    Fault,
    Operation,
    Photo,
    Port,
    Pour,
    Slip,
    Station,
    Trial,
    Tube,
    WallReading,
    Work,
)
from ventrix.core.model.job import Job
from ventrix.core.model.job_parts import (
    Binned,
    Bolt,
    Call,
    CamPoint,
    Chamber,
    CheckMark,
    EngineResult,
    Face,
    FitLimit,
    Head,
    MyLift,
    Outline,
    PartOfJob,
    Seat,
    StageMark,
    SwirlWish,
    Target,
    Valve,
    Wait,
    WallLimit,
)
from ventrix.core.model.library import LibraryItem
from ventrix.core.model.noun import Noun
from ventrix.core.model.run import Correction, FlowRun, Mount, Reading, RungNote, SetUp, StepRecord
from ventrix.core.model.scan import Scan, ScannedDepth, ScannedSize, ScannedStrip
from ventrix.core.model.traverse import Observation, ProbePoint, Traverse
from ventrix.core.quantity.units import from_si, to_si


@dataclass(frozen=True, slots=True)
class Limit:
    """Least and greatest plausible value, in the unit they are said in, and what the figure is called."""

    words: str
    unit: str
    low: float
    high: float

    @property
    def sentence(self) -> str:
        """What is said of a figure outside: "a valve's head lies between 5 and 250 mm"."""
        return self.sentence_in(self.unit)

    def sentence_in(self, symbol: str) -> str:
        """The same in another unit of its kind."""
        if self.unit == "-":
            return f"{self.words} lies between {self.low:g} and {self.high:g}"
        low, high = (from_si(to_si(v, self.unit), symbol) for v in (self.low, self.high))
        return f"{self.words} lies between {low:.4g} and {high:.4g} {symbol}"

    def allows(self, value: float) -> bool:
        """Whether an SI value lies inside, ends included (to a billionth, for what went through another unit)."""
        low, high = to_si(self.low, self.unit), to_si(self.high, self.unit)
        slack = 1e-9 * (abs(low) + abs(high))
        return low - slack <= value <= high + slack


_LIFT: Final = Limit("a lift", "mm", 0, 100)

_FLOW: Final = Limit("a flow", "cfm", 0, 4000)

_PRESSURE: Final = Limit("a test pressure", "Pa", 1, 50_000)

_LENGTH: Final = Limit("a size of a port", "mm", 0.1, 1000)

_TAKEN: Final = Limit("a depth taken off", "mm", -20, 50)
_ON_A_SCAN: Final = Limit("a point on a scan, in its file's unit", "-", -1e6, 1e6)
_SMALL: Final = Limit("a size of a port", "mm", 0, 500)

_ANGLE: Final = Limit("an angle", "deg", 0, 180)

_SEAT_ANGLE: Final = Limit("a seat's or valve's angle", "deg", 0.1, 89.9)

_VOLUME: Final = Limit("a volume", "cc", 0.1, 5000)

_GAIN: Final = Limit("a gain", "cfm", -2000, 2000)

_TIME: Final = Limit("a time", "min", 0, 60_000)

_COLUMN: Final = Limit("a column of water", "mmH2O", 0, 5000)

_SPEED: Final = Limit("an engine's speed", "rpm", 10, 30_000)

_CAM: Final = Limit("a cam's lift at the valve", "mm", 0.5, 50)

_DURATION: Final = Limit("a cam's duration", "deg", 1, 720)

_DENSITY: Final = Limit("a scale's density", "kg/m3", 0.5, 2)

_HOURS: Final = {key: Limit("an hour on the clock", "-", 0, 12.99) for key in ("from_hour", "to_hour")}

LIMITS: Final[dict[type[Noun], dict[str, Limit]]] = {
    SetUp: {
        "test_pressure": _PRESSURE,
        "bore": Limit("a bore", "mm", 10, 600),
        "pipe_diameter": Limit("a pipe's diameter", "mm", 5, 500),
        "pipe_length": Limit("a pipe's length", "mm", 0, 3000),
        "temperature": Limit("air's temperature", "degC", -50, 60),
        "pressure": Limit("a barometer", "hPa", 500, 1150),
        "humidity": Limit("relative humidity", "%", 0, 100),
        "plenum_temperature": Limit("a plenum's temperature", "degC", -50, 110),
        "leak": _FLOW,
        "leak_pressure": _PRESSURE,
        "seat_leak": _FLOW,
        "scale_density": _DENSITY,
        "orifice_diameter": Limit("an orifice", "mm", 1, 500),
        "orifice_pipe": Limit("an orifice's pipe", "mm", 5, 1000),
        "orifice_coefficient": Limit("an orifice's coefficient", "-", 0.3, 1.2),
    },
    Mount: {"number": Limit("a mount's number", "-", 1, 99_999)},
    Reading: {
        "lift": _LIFT,
        "flow": _FLOW,
        "percent": Limit("a reading in percent", "%", 0, 200),
        "full_scale": Limit("a range", "cfm", 0.1, 4000),
        "element_column": _COLUMN,
        "port_column": _COLUMN,
        "element_pressure": Limit("an element's pressure drop", "Pa", 0, 50_000),
        "mass_flow": Limit("a mass flow", "kg/s", 0, 3),
        "measured_pressure": _PRESSURE,
        "swirl": Limit("a swirl meter's speed", "rpm", -60_000, 60_000),
        "swirl_torque": Limit("a swirl meter's torque", "N.m", -10, 10),
        "spread": _FLOW,
        "window": Limit("a window of seconds", "s", 0, 3600),
    },
    StepRecord: {
        "flow": _FLOW,
        "pressure": Limit("a step's pressure", "Pa", 0, 50_000),
        "drift": Limit("a drift", "%", -100, 1000),
    },
    RungNote: {"lift": _LIFT},
    FlowRun: {},
    ProbePoint: {
        "u": Limit("a place across", "-", -1, 1),
        "v": Limit("a place up and down", "-", -1, 1),
        "reading": Limit("a probe's reading", "Pa", 0, 60_000),
        "static": Limit("a static pressure", "Pa", -60_000, 60_000),
        "speed": Limit("an air speed", "m/s", 0, 330),
        "flow": _FLOW,
    },
    Traverse: {
        "lift": _LIFT,
        "probe_diameter": Limit("a probe's diameter", "mm", 0.1, 20),
        "coefficient": Limit("a probe's coefficient", "-", 0.1, 2),
        "base_flow": _FLOW,
    },
    Observation: {"clock": Limit("an hour on the seat clock", "-", 0, 12.99), "lift": _LIFT},
    Valve: {
        "head_diameter": Limit("a valve's head", "mm", 5, 250),
        "stem_diameter": Limit("a valve's stem", "mm", 2, 30),
        "seat_width": Limit("a seat's face", "mm", 0.1, 20),
        "seat_angle": _SEAT_ANGLE,
        "seat_margin": Limit("a seat's margin", "mm", 0, 20),
        "back_cut_angle": _SEAT_ANGLE,
        "back_cut_width": Limit("a back cut's width", "mm", 0.1, 20),
        "weight": Limit("a valve's weight", "g", 1, 5000),
        "guide_clearance": Limit("a stem's clearance", "mm", 0, 1),
        "lap_width": Limit("a lapped contact", "mm", 0.1, 10),
        "fitted_height": Limit("a fitted height", "mm", 5, 200),
        "spring_height": Limit("a spring's height", "mm", 5, 200),
        "coil_bind": Limit("a spring's height at coil bind", "mm", 3, 200),
        "seat_force": Limit("a spring's force", "N", 1, 5000),
        "nose_force": Limit("a spring's force", "N", 1, 10_000),
    },
    Pour: {"volume": _VOLUME},
    Work: {
        "depth": Limit("a depth of cut", "mm", 0, 50),
        "reach": Limit("a reach of work", "mm", 0, 300),
        **_HOURS,
    },
    Tube: {"size": Limit("a tube's size", "mm", 1, 60)},
    Fault: {
        "along": Limit("a place along the port", "mm", -10, 1000),
        "across": Limit("a place across a side", "-", -1, 1),
        "size": Limit("a fault's size", "mm", 0, 300),
        "seen_at_cut": Limit("a cut's number", "-", 0, 9999),
        "gone_at_cut": Limit("a cut's number", "-", 0, 9999),
        **_HOURS,
    },
    Slip: {
        "depth": Limit("a slip's depth", "mm", 0, 50),
        "width_left": Limit("a width that is left", "mm", 0, 20),
        "volume": Limit("a volume", "cc", 0, 500),
        **_HOURS,
    },
    Correction: {},
    Binned: {"at": Limit("a place in a list", "-", 0, 1_000_000)},
    Seat: {
        "angles": Limit("an angle of a seat", "deg", 5, 89),
        "widths": Limit("a width of a seat's face", "mm", 0, 20),
        "radius": Limit("a radius of a seat", "mm", 0.5, 100),
        "contact": Limit("a contact width", "mm", 0.1, 20),
        "contact_angle": _SEAT_ANGLE,
        "margin": Limit("a seat's margin", "mm", 0, 20),
        "throat": _LENGTH,
        "sunk": Limit("how far a seat is sunk", "mm", -5, 20),
        "version": Limit("a version", "-", 1, 999),
    },
    Head: {"milled": Limit("metal milled off", "mm", 0, 20), "flatness": Limit("flatness", "mm", 0, 10)},
    Chamber: {"cylinder": Limit("a cylinder's number", "-", 1, 48)},
    MyLift: {"lift": _LIFT},
    SwirlWish: {"low": _LIFT, "high": _LIFT, "swirl": Limit("a swirl wished", "rpm", 0, 20_000)},
    Operation: {
        "tool_diameter": Limit("a tool's diameter", "mm", 0.1, 100),
        "duration": _TIME,
    },
    WallReading: {
        "thickness": Limit("a wall", "mm", 0, 100),
        "along": Limit("a place along the port", "mm", -10, 1000),
        "across": Limit("a place across a side", "-", -1, 1),
        "sound_speed": Limit("a speed of sound in metal", "m/s", 500, 10_000),
        "uncertainty": Limit("a gauge's uncertainty", "mm", 0, 20),
    },
    Station: {
        "along": Limit("a station's distance", "mm", 0, 1000),
        "width": _LENGTH,
        "height": _LENGTH,
        "corner_radius": _SMALL,
        "area": Limit("a section's area", "cm2", 0.01, 2000),
    },
    Photo: {},
    Scan: {
        "guide_bore": _SMALL,
        "face_at": _ON_A_SCAN,
        "seat_at": _ON_A_SCAN,
        "taken_volume": Limit("a volume taken off", "cc", -1000, 1000),
        "taken_uncertainty": Limit("a volume's uncertainty", "cc", 0, 1000),
        "least_told": Limit("a least depth", "mm", 0, 20),
    },
    ScannedSize: {"size": _LENGTH, "uncertainty": Limit("a size's uncertainty", "mm", 0, 20)},
    ScannedDepth: {"depth": _TAKEN, "uncertainty": Limit("a depth's uncertainty", "mm", 0, 20)},
    ScannedStrip: {
        "along": Limit("a place along the port", "mm", 0, 1000),
        **dict.fromkeys(("left", "roof", "right", "floor"), _TAKEN),
    },
    Trial: {
        "area_taken": Limit("an area taken by clay", "cm2", 0, 1000),
        "area_uncertainty": Limit("an area's uncertainty", "cm2", 0, 1000),
    },
    Cut: {
        "number": Limit("a cut's number", "-", 0, 9999),
        **dict.fromkeys(
            (
                "throat_diameter",
                "bowl_diameter",
                "guide_diameter",
                "boss_width",
                "opening_width",
                "opening_height",
                "pinch_width",
                "pinch_height",
                "hole_spacing",
                "short_side_height",
                "short_side_radius",
                "floor_length",
                "roof_length",
                "seat_width",
            ),
            _LENGTH,
        ),
        **dict.fromkeys(("guide_length", "opening_corner", "pinch_corner", "seat_margin", "gasket_land"), _SMALL),
        "port_angle": _ANGLE,
        "expected_gain": _GAIN,
        "expected_growth": Limit("a growth of volume", "cc", -2000, 2000),
        "expected_time": _TIME,
        "expected_low": _GAIN,
        "expected_high": _GAIN,
        "expected_lift": _LIFT,
    },
    Port: {
        "valves": Limit("the number of valves of a port", "-", 1, 8),
        "cylinder": Limit("a cylinder's number", "-", 1, 48),
        "position_on_head": Limit("a place along a head", "-", 1, 48),
    },
    CamPoint: {"angle": Limit("a crank angle", "deg", -1440, 1440), "lift": _LIFT},
    Target: {"lift": _LIFT, "flow": _FLOW, "test_pressure": _PRESSURE},
    WallLimit: {"thickness": Limit("a wall's limit", "mm", 0, 50)},
    CheckMark: {},
    StageMark: {},
    Wait: {"price": Limit("a price", "-", 0, 10_000_000)},
    Face: {},
    Bolt: {"at": Limit("a place on a face", "mm", -3000, 3000)},
    Outline: {
        "centre": Limit("a place on a face", "mm", -3000, 3000),
        "width": Limit("an opening", "mm", 2, 300),
        "height": Limit("an opening", "mm", 2, 300),
        "corner": Limit("a corner's radius", "mm", 0, 150),
        "points": Limit("a place on a face", "mm", -3000, 3000),
    },
    FitLimit: {"low": Limit("a limit", "mm", 0, 50), "high": Limit("a limit", "mm", 0, 50)},
    PartOfJob: {
        "count": Limit("how many", "-", 1, 999),
        "size": Limit("a part's size", "mm", 0.5, 500),
        "price": Limit("a price", "-", 0, 10_000_000),
    },
    EngineResult: {
        "speeds": _SPEED,
        "powers": Limit("a power", "kW", 0.1, 10_000),
        "time": Limit("a time over the strip", "s", 1, 300),
        "speed": Limit("a road speed", "km/h", 5, 800),
        "fuel": Limit("fuel over distance", "L/100km", 0.5, 200),
    },
    Call: {
        "lifts": Limit("a lift", "mm", 0, 60),
        "flows": Limit("a predicted flow", "cfm", 0.1, 3000),
    },
    Job: {
        "cylinders": Limit("the number of cylinders", "-", 1, 48),
        "engine_cylinders": Limit("the number of the engine's cylinders", "-", 1, 48),
        "bank_half_angle": Limit("half of a bank's angle", "deg", 1, 89),
        "valves_per_cylinder": Limit("the number of valves of a cylinder", "-", 1, 8),
        "flatness": Limit("flatness", "mm", 0, 10),
        "bore": Limit("a bore", "mm", 10, 600),
        "stroke": Limit("a stroke", "mm", 10, 700),
        "rod_length": Limit("a rod", "mm", 20, 1500),
        "speed_low": _SPEED,
        "speed_high": _SPEED,
        "power_wanted": Limit("a power", "kW", 0.1, 10_000),
        "cam_lift": _CAM,
        "cam_duration": _DURATION,
        "exhaust_cam_lift": _CAM,
        "exhaust_cam_duration": _DURATION,
        "intake_centreline": Limit("an intake's centreline", "deg", 60, 160),
        "exhaust_centreline": Limit("an exhaust's centreline", "deg", 60, 160),
        "compression_ratio": Limit("a compression ratio", "-", 3, 30),
        "gasket_thickness": Limit("a gasket", "mm", 0, 10),
        "deck_clearance": Limit("how far the piston stays under the deck", "mm", -5, 30),
        "piston_volume": Limit("a piston's dish", "cc", -300, 500),
        "intake_lash": Limit("lash", "mm", 0, 2),
        "exhaust_lash": Limit("lash", "mm", 0, 2),
        "induction_flow": Limit("what a carburettor or throttle body passes", "cfm", 5, 5000),
        "induction_pressure": Limit("the pressure it was rated at", "inHg", 0.1, 20),
        "manifold_pressure": Limit("a manifold's pressure", "kPa", 20, 500),
        "manifold_temperature": Limit("a manifold's temperature", "degC", -40, 200),
        "exhaust_pressure": Limit("an exhaust's pressure", "kPa", 50, 600),
        "stop_below": Limit("the gain an hour to stop at", "cfm", 0.01, 100),
        "lowest_speed": Limit("the lowest air speed", "m/s", 1, 400),
        "quoted": Limit("promised hours", "h", 0.1, 2000),
        "rate": Limit("money an hour", "-", 0, 1_000_000),
        "consumables": Limit("money for consumables", "-", 0, 10_000_000),
        "volume_tolerance": Limit("how much ports may differ by", "cc", 0.05, 100),
        "flow_tolerance": Limit("how much ports may differ by", "%", 0.05, 50),
        "rocker_ratio": Limit("a rocker ratio", "-", 0.3, 4),
        "test_pressure": _PRESSURE,
        "worthwhile_gain": Limit("the smallest gain that matters", "cfm", 0.001, 1000),
        "volume_ceiling": _VOLUME,
    },
    Bench: {
        "ranges": Limit("a range", "cfm", 0.1, 4000),
        "scale_density": _DENSITY,
        "orifice_diameter": Limit("an orifice", "mm", 1, 500),
        "orifice_pipe": Limit("an orifice's pipe", "mm", 5, 1000),
        "orifice_coefficient": Limit("an orifice's coefficient", "-", 0.3, 1.2),
        "blower_limit": _FLOW,
        "reading_step": _FLOW,
        "fixed_column": _COLUMN,
        "test_pressure": _PRESSURE,
        "dial_resolution": Limit("a dial's graduation", "mm", 1e-5, 2),
        "easy_dial": Limit("a dial's easy mistake", "mm", 0, 2),
        "easy_factor": Limit("an easy factor", "%", 0, 50),
        "easy_leak": _FLOW,
        "plate_flow": _FLOW,
    },
    PlateCheck: {"nominal": _FLOW, "flow": _FLOW, "pressure": _PRESSURE},
    ScatterStudy: {},
    StudyReading: {"mount": Limit("a mount's number", "-", 1, 99_999), "lift": _LIFT, "flow": _FLOW},
    Transfer: {},
    LibraryItem: {"price": Limit("a price", "-", 0, 10_000_000)},
    TransferPart: {"here": _FLOW, "there": _FLOW, "lift": _LIFT},
}
