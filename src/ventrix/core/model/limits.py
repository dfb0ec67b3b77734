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
from ventrix.words import tr


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
            return tr("{} lies between {:g} and {:g}", self.words, self.low, self.high)
        low, high = (from_si(to_si(v, self.unit), symbol) for v in (self.low, self.high))
        return tr("{} lies between {:.4g} and {:.4g} {}", self.words, low, high, symbol)

    def allows(self, value: float) -> bool:
        """Whether an SI value lies inside, ends included (to a billionth, for what went through another unit)."""
        low, high = to_si(self.low, self.unit), to_si(self.high, self.unit)
        slack = 1e-9 * (abs(low) + abs(high))
        return low - slack <= value <= high + slack


_LIFT: Final = Limit(tr("a lift"), "mm", 0, 100)

_FLOW: Final = Limit(tr("a flow"), "cfm", 0, 4000)

_PRESSURE: Final = Limit(tr("a test pressure"), "Pa", 1, 50_000)

_LENGTH: Final = Limit(tr("a size of a port"), "mm", 0.1, 1000)

_TAKEN: Final = Limit(tr("a depth taken off"), "mm", -20, 50)
_ON_A_SCAN: Final = Limit(tr("a point on a scan, in its file's unit"), "-", -1e6, 1e6)
_SMALL: Final = Limit(tr("a size of a port"), "mm", 0, 500)

_ANGLE: Final = Limit(tr("an angle"), "deg", 0, 180)

_SEAT_ANGLE: Final = Limit(tr("a seat's or valve's angle"), "deg", 0.1, 89.9)

_VOLUME: Final = Limit(tr("a volume"), "cc", 0.1, 5000)

_GAIN: Final = Limit(tr("a gain"), "cfm", -2000, 2000)

_TIME: Final = Limit(tr("a time"), "min", 0, 60_000)

_COLUMN: Final = Limit(tr("a column of water"), "mmH2O", 0, 5000)

_SPEED: Final = Limit(tr("an engine's speed"), "rpm", 10, 30_000)

_CAM: Final = Limit(tr("a cam's lift at the valve"), "mm", 0.5, 50)

_DURATION: Final = Limit(tr("a cam's duration"), "deg", 1, 720)

_DENSITY: Final = Limit(tr("a scale's density"), "kg/m3", 0.5, 2)

_HOURS: Final = {key: Limit(tr("an hour on the clock"), "-", 0, 12.99) for key in ("from_hour", "to_hour")}

LIMITS: Final[dict[type[Noun], dict[str, Limit]]] = {
    SetUp: {
        "test_pressure": _PRESSURE,
        "bore": Limit(tr("a bore"), "mm", 10, 600),
        "pipe_diameter": Limit(tr("a pipe's diameter"), "mm", 5, 500),
        "pipe_length": Limit(tr("a pipe's length"), "mm", 0, 3000),
        "temperature": Limit(tr("air's temperature"), "degC", -50, 60),
        "pressure": Limit(tr("a barometer"), "hPa", 500, 1150),
        "humidity": Limit(tr("relative humidity"), "%", 0, 100),
        "plenum_temperature": Limit(tr("a plenum's temperature"), "degC", -50, 110),
        "leak": _FLOW,
        "leak_pressure": _PRESSURE,
        "seat_leak": _FLOW,
        "scale_density": _DENSITY,
        "orifice_diameter": Limit(tr("an orifice"), "mm", 1, 500),
        "orifice_pipe": Limit(tr("an orifice's pipe"), "mm", 5, 1000),
        "orifice_coefficient": Limit(tr("an orifice's coefficient"), "-", 0.3, 1.2),
    },
    Mount: {"number": Limit(tr("a mount's number"), "-", 1, 99_999)},
    Reading: {
        "lift": _LIFT,
        "flow": _FLOW,
        "percent": Limit(tr("a reading in percent"), "%", 0, 200),
        "full_scale": Limit(tr("a range"), "cfm", 0.1, 4000),
        "element_column": _COLUMN,
        "port_column": _COLUMN,
        "element_pressure": Limit(tr("an element's pressure drop"), "Pa", 0, 50_000),
        "mass_flow": Limit(tr("a mass flow"), "kg/s", 0, 3),
        "measured_pressure": _PRESSURE,
        "swirl": Limit(tr("a swirl meter's speed"), "rpm", -60_000, 60_000),
        "swirl_torque": Limit(tr("a swirl meter's torque"), "N.m", -10, 10),
        "spread": _FLOW,
        "window": Limit(tr("a window of seconds"), "s", 0, 3600),
    },
    StepRecord: {
        "flow": _FLOW,
        "pressure": Limit(tr("a step's pressure"), "Pa", 0, 50_000),
        "drift": Limit(tr("a drift"), "%", -100, 1000),
    },
    RungNote: {"lift": _LIFT},
    FlowRun: {},
    ProbePoint: {
        "u": Limit(tr("a place across"), "-", -1, 1),
        "v": Limit(tr("a place up and down"), "-", -1, 1),
        "reading": Limit(tr("a probe's reading"), "Pa", 0, 60_000),
        "static": Limit(tr("a static pressure"), "Pa", -60_000, 60_000),
        "speed": Limit(tr("an air speed"), "m/s", 0, 330),
        "flow": _FLOW,
    },
    Traverse: {
        "lift": _LIFT,
        "probe_diameter": Limit(tr("a probe's diameter"), "mm", 0.1, 20),
        "coefficient": Limit(tr("a probe's coefficient"), "-", 0.1, 2),
        "base_flow": _FLOW,
    },
    Observation: {"clock": Limit(tr("an hour on the seat clock"), "-", 0, 12.99), "lift": _LIFT},
    Valve: {
        "head_diameter": Limit(tr("a valve's head"), "mm", 5, 250),
        "stem_diameter": Limit(tr("a valve's stem"), "mm", 2, 30),
        "seat_width": Limit(tr("a seat's face"), "mm", 0.1, 20),
        "seat_angle": _SEAT_ANGLE,
        "seat_margin": Limit(tr("a seat's margin"), "mm", 0, 20),
        "back_cut_angle": _SEAT_ANGLE,
        "back_cut_width": Limit(tr("a back cut's width"), "mm", 0.1, 20),
        "weight": Limit(tr("a valve's weight"), "g", 1, 5000),
        "guide_clearance": Limit(tr("a stem's clearance"), "mm", 0, 1),
        "lap_width": Limit(tr("a lapped contact"), "mm", 0.1, 10),
        "fitted_height": Limit(tr("a fitted height"), "mm", 5, 200),
        "spring_height": Limit(tr("a spring's height"), "mm", 5, 200),
        "coil_bind": Limit(tr("a spring's height at coil bind"), "mm", 3, 200),
        "seat_force": Limit(tr("a spring's force"), "N", 1, 5000),
        "nose_force": Limit(tr("a spring's force"), "N", 1, 10_000),
    },
    Pour: {"volume": _VOLUME},
    Work: {
        "depth": Limit(tr("a depth of cut"), "mm", 0, 50),
        "reach": Limit(tr("a reach of work"), "mm", 0, 300),
        **_HOURS,
    },
    Tube: {"size": Limit(tr("a tube's size"), "mm", 1, 60)},
    Fault: {
        "along": Limit(tr("a place along the port"), "mm", -10, 1000),
        "across": Limit(tr("a place across a side"), "-", -1, 1),
        "size": Limit(tr("a fault's size"), "mm", 0, 300),
        "seen_at_cut": Limit(tr("a cut's number"), "-", 0, 9999),
        "gone_at_cut": Limit(tr("a cut's number"), "-", 0, 9999),
        **_HOURS,
    },
    Slip: {
        "depth": Limit(tr("a slip's depth"), "mm", 0, 50),
        "width_left": Limit(tr("a width that is left"), "mm", 0, 20),
        "volume": Limit(tr("a volume"), "cc", 0, 500),
        **_HOURS,
    },
    Correction: {},
    Binned: {"at": Limit(tr("a place in a list"), "-", 0, 1_000_000)},
    Seat: {
        "angles": Limit(tr("an angle of a seat"), "deg", 5, 89),
        "widths": Limit(tr("a width of a seat's face"), "mm", 0, 20),
        "radius": Limit(tr("a radius of a seat"), "mm", 0.5, 100),
        "contact": Limit(tr("a contact width"), "mm", 0.1, 20),
        "contact_angle": _SEAT_ANGLE,
        "margin": Limit(tr("a seat's margin"), "mm", 0, 20),
        "throat": _LENGTH,
        "sunk": Limit(tr("how far a seat is sunk"), "mm", -5, 20),
        "version": Limit(tr("a version"), "-", 1, 999),
    },
    Head: {"milled": Limit(tr("metal milled off"), "mm", 0, 20), "flatness": Limit(tr("flatness"), "mm", 0, 10)},
    Chamber: {"cylinder": Limit(tr("a cylinder's number"), "-", 1, 48)},
    MyLift: {"lift": _LIFT},
    SwirlWish: {"low": _LIFT, "high": _LIFT, "swirl": Limit(tr("a swirl wished"), "rpm", 0, 20_000)},
    Operation: {
        "tool_diameter": Limit(tr("a tool's diameter"), "mm", 0.1, 100),
        "duration": _TIME,
    },
    WallReading: {
        "thickness": Limit(tr("a wall"), "mm", 0, 100),
        "along": Limit(tr("a place along the port"), "mm", -10, 1000),
        "across": Limit(tr("a place across a side"), "-", -1, 1),
        "sound_speed": Limit(tr("a speed of sound in metal"), "m/s", 500, 10_000),
        "uncertainty": Limit(tr("a gauge's uncertainty"), "mm", 0, 20),
    },
    Station: {
        "along": Limit(tr("a station's distance"), "mm", 0, 1000),
        "width": _LENGTH,
        "height": _LENGTH,
        "corner_radius": _SMALL,
        "area": Limit(tr("a section's area"), "cm2", 0.01, 2000),
    },
    Photo: {},
    Scan: {
        "guide_bore": _SMALL,
        "face_at": _ON_A_SCAN,
        "seat_at": _ON_A_SCAN,
        "taken_volume": Limit(tr("a volume taken off"), "cc", -1000, 1000),
        "taken_uncertainty": Limit(tr("a volume's uncertainty"), "cc", 0, 1000),
        "least_told": Limit(tr("a least depth"), "mm", 0, 20),
    },
    ScannedSize: {"size": _LENGTH, "uncertainty": Limit(tr("a size's uncertainty"), "mm", 0, 20)},
    ScannedDepth: {"depth": _TAKEN, "uncertainty": Limit(tr("a depth's uncertainty"), "mm", 0, 20)},
    ScannedStrip: {
        "along": Limit(tr("a place along the port"), "mm", 0, 1000),
        **dict.fromkeys(("left", "roof", "right", "floor"), _TAKEN),
    },
    Trial: {
        "area_taken": Limit(tr("an area taken by clay"), "cm2", 0, 1000),
        "area_uncertainty": Limit(tr("an area's uncertainty"), "cm2", 0, 1000),
    },
    Cut: {
        "number": Limit(tr("a cut's number"), "-", 0, 9999),
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
        "expected_growth": Limit(tr("a growth of volume"), "cc", -2000, 2000),
        "expected_time": _TIME,
        "expected_low": _GAIN,
        "expected_high": _GAIN,
        "expected_lift": _LIFT,
    },
    Port: {
        "valves": Limit(tr("the number of valves of a port"), "-", 1, 8),
        "cylinder": Limit(tr("a cylinder's number"), "-", 1, 48),
        "position_on_head": Limit(tr("a place along a head"), "-", 1, 48),
    },
    CamPoint: {"angle": Limit(tr("a crank angle"), "deg", -1440, 1440), "lift": _LIFT},
    Target: {"lift": _LIFT, "flow": _FLOW, "test_pressure": _PRESSURE},
    WallLimit: {"thickness": Limit(tr("a wall's limit"), "mm", 0, 50)},
    CheckMark: {},
    StageMark: {},
    Wait: {"price": Limit(tr("a price"), "-", 0, 10_000_000)},
    Face: {},
    Bolt: {"at": Limit(tr("a place on a face"), "mm", -3000, 3000)},
    Outline: {
        "centre": Limit(tr("a place on a face"), "mm", -3000, 3000),
        "width": Limit(tr("an opening"), "mm", 2, 300),
        "height": Limit(tr("an opening"), "mm", 2, 300),
        "corner": Limit(tr("a corner's radius"), "mm", 0, 150),
        "points": Limit(tr("a place on a face"), "mm", -3000, 3000),
    },
    FitLimit: {"low": Limit(tr("a limit"), "mm", 0, 50), "high": Limit(tr("a limit"), "mm", 0, 50)},
    PartOfJob: {
        "count": Limit(tr("how many"), "-", 1, 999),
        "size": Limit(tr("a part's size"), "mm", 0.5, 500),
        "price": Limit(tr("a price"), "-", 0, 10_000_000),
    },
    EngineResult: {
        "speeds": _SPEED,
        "powers": Limit(tr("a power"), "kW", 0.1, 10_000),
        "time": Limit(tr("a time over the strip"), "s", 1, 300),
        "speed": Limit(tr("a road speed"), "km/h", 5, 800),
        "fuel": Limit(tr("fuel over distance"), "L/100km", 0.5, 200),
    },
    Call: {
        "lifts": Limit(tr("a lift"), "mm", 0, 60),
        "flows": Limit(tr("a predicted flow"), "cfm", 0.1, 3000),
    },
    Job: {
        "cylinders": Limit(tr("the number of cylinders"), "-", 1, 48),
        "engine_cylinders": Limit(tr("the number of the engine's cylinders"), "-", 1, 48),
        "bank_half_angle": Limit(tr("half of a bank's angle"), "deg", 1, 89),
        "valves_per_cylinder": Limit(tr("the number of valves of a cylinder"), "-", 1, 8),
        "flatness": Limit(tr("flatness"), "mm", 0, 10),
        "bore": Limit(tr("a bore"), "mm", 10, 600),
        "stroke": Limit(tr("a stroke"), "mm", 10, 700),
        "rod_length": Limit(tr("a rod"), "mm", 20, 1500),
        "speed_low": _SPEED,
        "speed_high": _SPEED,
        "power_wanted": Limit(tr("a power"), "kW", 0.1, 10_000),
        "cam_lift": _CAM,
        "cam_duration": _DURATION,
        "exhaust_cam_lift": _CAM,
        "exhaust_cam_duration": _DURATION,
        "intake_centreline": Limit(tr("an intake's centerline"), "deg", 60, 160),
        "exhaust_centreline": Limit(tr("an exhaust's centerline"), "deg", 60, 160),
        "compression_ratio": Limit(tr("a compression ratio"), "-", 3, 30),
        "gasket_thickness": Limit(tr("a gasket"), "mm", 0, 10),
        "deck_clearance": Limit(tr("how far the piston stays under the deck"), "mm", -5, 30),
        "piston_volume": Limit(tr("a piston's dish"), "cc", -300, 500),
        "intake_lash": Limit(tr("lash"), "mm", 0, 2),
        "exhaust_lash": Limit(tr("lash"), "mm", 0, 2),
        "induction_flow": Limit(tr("what a carburetor or throttle body passes"), "cfm", 5, 5000),
        "induction_pressure": Limit(tr("the pressure it was rated at"), "inHg", 0.1, 20),
        "manifold_pressure": Limit(tr("a manifold's pressure"), "kPa", 20, 500),
        "manifold_temperature": Limit(tr("a manifold's temperature"), "degC", -40, 200),
        "exhaust_pressure": Limit(tr("an exhaust's pressure"), "kPa", 50, 600),
        "stop_below": Limit(tr("the gain an hour to stop at"), "cfm", 0.01, 100),
        "lowest_speed": Limit(tr("the lowest air speed"), "m/s", 1, 400),
        "quoted": Limit(tr("promised hours"), "h", 0.1, 2000),
        "rate": Limit(tr("money an hour"), "-", 0, 1_000_000),
        "consumables": Limit(tr("money for consumables"), "-", 0, 10_000_000),
        "volume_tolerance": Limit(tr("how much ports may differ by"), "cc", 0.05, 100),
        "flow_tolerance": Limit(tr("how much ports may differ by"), "%", 0.05, 50),
        "rocker_ratio": Limit(tr("a rocker ratio"), "-", 0.3, 4),
        "test_pressure": _PRESSURE,
        "worthwhile_gain": Limit(tr("the smallest gain that matters"), "cfm", 0.001, 1000),
        "volume_ceiling": _VOLUME,
    },
    Bench: {
        "ranges": Limit(tr("a range"), "cfm", 0.1, 4000),
        "scale_density": _DENSITY,
        "orifice_diameter": Limit(tr("an orifice"), "mm", 1, 500),
        "orifice_pipe": Limit(tr("an orifice's pipe"), "mm", 5, 1000),
        "orifice_coefficient": Limit(tr("an orifice's coefficient"), "-", 0.3, 1.2),
        "blower_limit": _FLOW,
        "reading_step": _FLOW,
        "fixed_column": _COLUMN,
        "test_pressure": _PRESSURE,
        "dial_resolution": Limit(tr("a dial's graduation"), "mm", 1e-5, 2),
        "easy_dial": Limit(tr("a dial's easy mistake"), "mm", 0, 2),
        "easy_factor": Limit(tr("an easy factor"), "%", 0, 50),
        "easy_leak": _FLOW,
        "plate_flow": _FLOW,
    },
    PlateCheck: {"nominal": _FLOW, "flow": _FLOW, "pressure": _PRESSURE},
    ScatterStudy: {},
    StudyReading: {"mount": Limit(tr("a mount's number"), "-", 1, 99_999), "lift": _LIFT, "flow": _FLOW},
    Transfer: {},
    LibraryItem: {"price": Limit(tr("a price"), "-", 0, 10_000_000)},
    TransferPart: {"here": _FLOW, "there": _FLOW, "lift": _LIFT},
}
