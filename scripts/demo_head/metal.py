"""What was done to the demo head's metal besides the flowed rows: faults of the casting, and a port that was cut on one
side and had its valve job, not flowed yet."""

from __future__ import annotations

from typing import Final

from ventrix.core.model.cut import Cut, Fault, Operation, Port, Pour, WallReading, Work
from ventrix.core.model.job_parts import Chamber, MyLift, Seat
from ventrix.core.model.kinds import CutKind, FaultKind, FaultState, Place
from ventrix.core.quantity.units import to_si

MY_LIFTS: Final = (
    MyLift(id="mine-1", kind="intake", lift=to_si(0.2, "in"), name="just open"),
    MyLift(id="mine-2", kind="intake", lift=to_si(0.45, "in"), name="full"),
    MyLift(id="mine-3", kind="exhaust", lift=to_si(0.2, "in"), name="just open"),
    MyLift(id="mine-4", kind="exhaust", lift=to_si(0.4, "in"), name="full"),
)
CHAMBERS: Final = (Chamber(id="chamber-1", cylinder=1, pours=(Pour(id="chamber-1-1", volume=to_si(47.5, "cc")),)),)
SEATS: Final = (
    Seat(
        id="seat-1",
        recipe="street",
        angles=tuple(to_si(a, "deg") for a in (30, 45, 60)),
        widths=tuple(to_si(w, "in") for w in (0.040, 0.048, 0.060)),
        contact=to_si(0.048, "in"),
        contact_angle=to_si(45, "deg"),
        margin=to_si(0.010, "in"),
    ),
)


def _fault(number: int, kind: FaultKind, place: Place, **more: object) -> Fault:
    return Fault(id=f"fault-{number}", kind=kind, place=place, date="2026-05-03", **more)  # type: ignore[arg-type]


FAULTS: Final = {
    "intake": (
        _fault(1, FaultKind.OVERHANG, Place.BOWL, from_hour=3.0, to_hour=5.0, size=to_si(0.03, "in"), gone_at_cut=1),
        _fault(2, FaultKind.FLASH, Place.ROOF, side="roof", gone_at_cut=3),
        _fault(3, FaultKind.OFF_GASKET, Place.OPENING, side="left", size=to_si(0.05, "in"), state=FaultState.LEFT),
    ),
    "exhaust": (
        _fault(4, FaultKind.OVERHANG, Place.BOWL, from_hour=8.0, to_hour=10.0, size=to_si(0.025, "in"), gone_at_cut=1),
        _fault(5, FaultKind.LEDGE, Place.SHORT_SIDE, side="floor", size=to_si(0.02, "in")),
    ),
    "intake-4": (
        _fault(6, FaultKind.OVERHANG, Place.BOWL, from_hour=2.0, to_hour=6.0, size=to_si(0.04, "in")),
        _fault(7, FaultKind.CORE_SHIFT, Place.BOWL, side="right", note="right wall thin, left thick"),
    ),
}


def _wall(number: int, side: str, thickness: float) -> WallReading:
    return WallReading(
        id=f"wall-4-{number}", place=Place.BOWL, band=side, along=to_si(94, "mm"), thickness=to_si(thickness, "in"),
        behind="water", date="2026-05-12",
    )  # fmt: skip


def one_sided_port() -> Port:
    """Intake 4: the core has shifted, so only the left of its bowl was cut; then the valve job, for which blending,
    throat and cc are still open."""
    work = Work(id="work-4-1", place=Place.BOWL, side="left", depth=to_si(0.030, "in"))
    seat = Work(id="work-4-2", place=Place.SEAT)
    cuts = (
        Cut(id="intake-4-0", number=0, name="as cast", date="2026-05-12",
            walls=(_wall(1, "left", 0.190), _wall(2, "right", 0.118))),
        Cut(
            id="intake-4-1",
            number=1,
            name="left of the bowl",
            date="2026-05-12",
            operations=(
                Operation(id="op-4-1", kind="bowl blended on one side", works=(work,), tool="oval carbide burr",
                          duration=to_si(25, "min")),
            ),
        ),
        Cut(
            id="intake-4-2",
            number=2,
            name="valve job, street v1",
            kinds=(CutKind.SEAT,),
            seat_ids=("seat-1",),
            date="2026-05-13",
            operations=(
                Operation(id="op-4-2", kind="valve job", stage="valve job", works=(seat,), tool="seat cutter",
                          duration=to_si(30, "min")),
            ),
        ),
    )  # fmt: skip
    return Port(
        id="intake-4",
        name="Intake 4",
        kind="intake",
        valve_id="valve-intake",
        cylinder=4,
        cuts=cuts,
        faults=FAULTS["intake-4"],
    )
