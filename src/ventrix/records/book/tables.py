"""The shop's book as tables. One table a noun; column names are the fields of `core.model`, in SI.

Children keep their order in `position`. `extra` holds keys of documents that we did not understand.
"""

from __future__ import annotations

from typing import Any

from sqlalchemy import JSON, ForeignKey, MetaData
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column

NAMING = {
    "ix": "ix_%(column_0_label)s",
    "uq": "uq_%(table_name)s_%(column_0_name)s",
    "ck": "ck_%(table_name)s_%(constraint_name)s",
    "fk": "fk_%(table_name)s_%(column_0_name)s_%(referred_table_name)s",
    "pk": "pk_%(table_name)s",
}


class Base(DeclarativeBase):
    metadata = MetaData(naming_convention=NAMING)


def _parent(table: str, *, null: bool = False) -> Any:
    return mapped_column(ForeignKey(f"{table}.id", ondelete="CASCADE"), index=True, nullable=null)


class Row:
    """What every row has."""

    id: Mapped[str] = mapped_column(primary_key=True)
    position: Mapped[int] = mapped_column(default=0)
    extra: Mapped[dict[str, Any]] = mapped_column(JSON, default=dict)


class JobRow(Row, Base):
    __tablename__ = "job"
    title: Mapped[str]
    note: Mapped[str]
    bore: Mapped[float | None]
    cam_lift: Mapped[float | None]
    cam_duration: Mapped[float | None]
    worthwhile_gain: Mapped[float | None]
    material: Mapped[str | None]
    cylinders: Mapped[int | None]
    valves_per_cylinder: Mapped[int | None]
    flatness: Mapped[float | None]
    condition: Mapped[str]
    stroke: Mapped[float | None]
    rod_length: Mapped[float | None]
    speed_low: Mapped[float | None]
    speed_high: Mapped[float | None]
    power_wanted: Mapped[float | None]
    exhaust_cam_lift: Mapped[float | None]
    exhaust_cam_duration: Mapped[float | None]
    cam_checked_at: Mapped[str | None]
    rocker_ratio: Mapped[float | None]
    test_pressure: Mapped[float | None]
    volume_ceiling: Mapped[float | None]
    schools: Mapped[dict[str, Any]] = mapped_column(JSON)


class ValveRow(Row, Base):
    __tablename__ = "valve"
    job_id: Mapped[str] = _parent("job")
    name: Mapped[str]
    head_diameter: Mapped[float | None]
    stem_diameter: Mapped[float | None]
    seat_width: Mapped[float | None]
    seat_angle: Mapped[float | None]
    seat_margin: Mapped[float | None]
    seat_insert: Mapped[bool | None]
    back_cut_angle: Mapped[float | None]
    back_shape: Mapped[str]
    weight: Mapped[float | None]


class SetUpRow(Row, Base):
    __tablename__ = "setup"
    job_id: Mapped[str] = _parent("job")
    direction: Mapped[str]
    test_pressure: Mapped[float | None]
    bench: Mapped[str | None]
    bore: Mapped[float | None]
    centred: Mapped[bool | None]
    entry: Mapped[str | None]
    pipe: Mapped[str | None]
    pipe_diameter: Mapped[float | None]
    pipe_length: Mapped[float | None]
    valve: Mapped[str | None]
    valves_open: Mapped[str | None]
    springs: Mapped[str | None]
    swirl_meter: Mapped[str | None]
    plug: Mapped[str | None]
    clean: Mapped[bool | None]
    temperature: Mapped[float | None]
    pressure: Mapped[float | None]
    humidity: Mapped[float | None]
    plenum_temperature: Mapped[float | None]
    air_read_at: Mapped[str | None]
    leak: Mapped[float | None]
    leak_pressure: Mapped[float | None]
    seat_leak: Mapped[float | None]
    element: Mapped[str | None]
    scale_density: Mapped[float | None]
    orifice_diameter: Mapped[float | None]
    orifice_pipe: Mapped[float | None]
    orifice_coefficient: Mapped[float | None]
    element_place: Mapped[str | None]
    leak_taken_off: Mapped[bool]
    swirl_axis: Mapped[str | None]


class MountRow(Row, Base):
    __tablename__ = "mount"
    job_id: Mapped[str] = _parent("job")
    number: Mapped[int]
    date: Mapped[str | None]


class PortRow(Row, Base):
    __tablename__ = "port"
    job_id: Mapped[str] = _parent("job")
    name: Mapped[str]
    kind: Mapped[str]
    # Not a foreign key: a port may name its valve before the document or edit brings it.
    valve_id: Mapped[str | None]
    valves: Mapped[int]
    witness: Mapped[bool]
    cylinder: Mapped[int | None]
    mirror_of: Mapped[str | None]


class CutRow(Row, Base):
    __tablename__ = "cut"
    port_id: Mapped[str] = _parent("port")
    number: Mapped[int]
    name: Mapped[str]
    kind: Mapped[str]
    date: Mapped[str | None]
    throat_diameter: Mapped[float | None]
    floor_length: Mapped[float | None]
    roof_length: Mapped[float | None]
    bowl_diameter: Mapped[float | None]
    guide_diameter: Mapped[float | None]
    guide_length: Mapped[float | None]
    boss_width: Mapped[float | None]
    boss_shape: Mapped[str | None]
    opening_width: Mapped[float | None]
    opening_height: Mapped[float | None]
    opening_corner: Mapped[float | None]
    pinch_width: Mapped[float | None]
    pinch_height: Mapped[float | None]
    pinch_corner: Mapped[float | None]
    hole_spacing: Mapped[float | None]
    short_side_height: Mapped[float | None]
    short_side_radius: Mapped[float | None]
    port_angle: Mapped[float | None]
    seat_width: Mapped[float | None]
    seat_margin: Mapped[float | None]
    chamber_volume: Mapped[float | None]
    gasket_land: Mapped[float | None]
    expected_gain: Mapped[float | None]
    expected_growth: Mapped[float | None]
    expected_time: Mapped[float | None]
    note: Mapped[str]


class OperationRow(Row, Base):
    __tablename__ = "operation"
    cut_id: Mapped[str] = _parent("cut")
    kind: Mapped[str]
    places: Mapped[list[str]] = mapped_column(JSON)
    depth: Mapped[float | None]
    tool: Mapped[str]
    finish: Mapped[str]
    duration: Mapped[float | None]
    tool_diameter: Mapped[float | None]
    started_at: Mapped[str | None]
    date: Mapped[str | None]
    port_ids: Mapped[list[str]] = mapped_column(JSON)
    note: Mapped[str]


class TrialRow(Row, Base):
    __tablename__ = "trial"
    cut_id: Mapped[str] = _parent("cut")
    kind: Mapped[str]
    name: Mapped[str]
    place: Mapped[str]
    area_taken: Mapped[float | None]
    area_uncertainty: Mapped[float | None]
    date: Mapped[str | None]
    note: Mapped[str]


class FlowRunRow(Row, Base):
    """A run hangs from a cut or from a trial: exactly one of the two is set."""

    __tablename__ = "flow_run"
    cut_id: Mapped[str | None] = _parent("cut", null=True)
    trial_id: Mapped[str | None] = _parent("trial", null=True)
    setup_id: Mapped[str] = mapped_column(ForeignKey("setup.id"))
    mount_id: Mapped[str | None] = mapped_column(ForeignKey("mount.id"))
    date: Mapped[str | None]
    source: Mapped[str]
    claimed: Mapped[str | None]
    # Not a foreign key: the witness's run may be struck out of the book before the runs that name it.
    witness_id: Mapped[str | None]


class StepRecordRow(Row, Base):
    __tablename__ = "step_record"
    flow_run_id: Mapped[str] = _parent("flow_run")
    kind: Mapped[str]
    skipped: Mapped[str | None]
    flow: Mapped[float | None]
    pressure: Mapped[float | None]
    drift: Mapped[float | None]
    time: Mapped[str | None]


class RungNoteRow(Row, Base):
    __tablename__ = "rung_note"
    flow_run_id: Mapped[str] = _parent("flow_run")
    lift: Mapped[float]
    kind: Mapped[str]
    text: Mapped[str]
    time: Mapped[str | None]


class ReadingRow(Row, Base):
    __tablename__ = "reading"
    flow_run_id: Mapped[str] = _parent("flow_run")
    lift: Mapped[float]
    flow: Mapped[float | None]
    percent: Mapped[float | None]
    full_scale: Mapped[float | None]
    element_column: Mapped[float | None]
    port_column: Mapped[float | None]
    element_pressure: Mapped[float | None]
    mass_flow: Mapped[float | None]
    measured_pressure: Mapped[float | None]
    swirl: Mapped[float | None]
    swirl_torque: Mapped[float | None]
    spread: Mapped[float | None]
    window: Mapped[float | None]
    time: Mapped[str | None]
    unsteady: Mapped[bool]
    returned: Mapped[bool]
    struck: Mapped[str | None]


class PourRow(Row, Base):
    __tablename__ = "pour"
    cut_id: Mapped[str] = _parent("cut")
    volume: Mapped[float]
    how: Mapped[str]
    date: Mapped[str | None]


class WallReadingRow(Row, Base):
    __tablename__ = "wall_reading"
    cut_id: Mapped[str] = _parent("cut")
    place: Mapped[str]
    thickness: Mapped[float]
    band: Mapped[str | None]
    along: Mapped[float | None]
    across: Mapped[float]
    behind: Mapped[str]
    probe: Mapped[str]
    sound_speed: Mapped[float | None]
    uncertainty: Mapped[float | None]
    struck: Mapped[str | None]
    date: Mapped[str | None]
    note: Mapped[str]


class StationRow(Row, Base):
    __tablename__ = "station"
    cut_id: Mapped[str] = _parent("cut")
    along: Mapped[float]
    name: Mapped[str]
    width: Mapped[float | None]
    height: Mapped[float | None]
    corner_radius: Mapped[float | None]
    area: Mapped[float | None]


class PhotoRow(Row, Base):
    """A photo hangs from a job or from a cut: exactly one of the two is set."""

    __tablename__ = "photo"
    job_id: Mapped[str | None] = _parent("job", null=True)
    cut_id: Mapped[str | None] = _parent("cut", null=True)
    file: Mapped[str]
    moment: Mapped[str]
    caption: Mapped[str]
    date: Mapped[str | None]


class CamPointRow(Row, Base):
    __tablename__ = "cam_point"
    job_id: Mapped[str] = _parent("job")
    kind: Mapped[str]
    angle: Mapped[float]
    lift: Mapped[float]


class TargetRow(Row, Base):
    __tablename__ = "target"
    job_id: Mapped[str] = _parent("job")
    kind: Mapped[str]
    lift: Mapped[float]
    flow: Mapped[float]
    test_pressure: Mapped[float | None]


class WallLimitRow(Row, Base):
    __tablename__ = "wall_limit"
    job_id: Mapped[str] = _parent("job")
    place: Mapped[str]
    thickness: Mapped[float]


class CheckMarkRow(Row, Base):
    __tablename__ = "check_mark"
    job_id: Mapped[str] = _parent("job")
    item: Mapped[str]
    initials: Mapped[str]
    date: Mapped[str | None]


class TraverseRow(Row, Base):
    __tablename__ = "traverse"
    cut_id: Mapped[str] = _parent("cut")
    station: Mapped[str]
    kind: Mapped[str]
    layout: Mapped[str]
    setup_id: Mapped[str | None] = mapped_column(ForeignKey("setup.id"))
    mount_id: Mapped[str | None] = mapped_column(ForeignKey("mount.id"))
    lift: Mapped[float | None]
    probe: Mapped[str]
    probe_diameter: Mapped[float | None]
    coefficient: Mapped[float | None]
    base_flow: Mapped[float | None]
    date: Mapped[str | None]


class ProbePointRow(Row, Base):
    __tablename__ = "probe_point"
    traverse_id: Mapped[str] = _parent("traverse")
    name: Mapped[str]
    u: Mapped[float]
    v: Mapped[float]
    reading: Mapped[float | None]
    static: Mapped[float | None]
    speed: Mapped[float | None]
    flow: Mapped[float | None]
    struck: Mapped[str | None]


class ObservationRow(Row, Base):
    __tablename__ = "observation"
    cut_id: Mapped[str] = _parent("cut")
    kind: Mapped[str]
    text: Mapped[str]
    place: Mapped[str]
    clock: Mapped[float | None]
    photo: Mapped[str]
    lift: Mapped[float | None]
    date: Mapped[str | None]


class BenchRow(Row, Base):
    __tablename__ = "bench"
    name: Mapped[str]
    element: Mapped[str]
    ranges: Mapped[list[float]] = mapped_column(JSON)
    corrected: Mapped[bool]
    scale_density: Mapped[float | None]
    orifice_diameter: Mapped[float | None]
    orifice_pipe: Mapped[float | None]
    orifice_coefficient: Mapped[float | None]
    element_place: Mapped[str | None]
    leak_taken_off: Mapped[bool]
    blower_limit: Mapped[float | None]
    test_pressure: Mapped[float | None]
    dial_resolution: Mapped[float | None]
    easy_dial: Mapped[float | None]
    easy_factor: Mapped[float | None]
    easy_leak: Mapped[float | None]
    link: Mapped[str]
    address: Mapped[str]
    text_format: Mapped[dict[str, Any]] = mapped_column(JSON)
    plate_name: Mapped[str]
    plate_flow: Mapped[float | None]


class PlateCheckRow(Row, Base):
    __tablename__ = "plate_check"
    bench_id: Mapped[str] = _parent("bench")
    nominal: Mapped[float]
    flow: Mapped[float]
    pressure: Mapped[float | None]
    date: Mapped[str | None]
    struck: Mapped[str | None]


class ScatterStudyRow(Row, Base):
    __tablename__ = "scatter_study"
    bench_id: Mapped[str] = _parent("bench")
    date: Mapped[str | None]
    head: Mapped[str]


class StudyReadingRow(Row, Base):
    __tablename__ = "study_reading"
    scatter_study_id: Mapped[str] = _parent("scatter_study")
    mount: Mapped[int]
    lift: Mapped[float]
    flow: Mapped[float]


class TransferRow(Row, Base):
    __tablename__ = "transfer"
    bench_id: Mapped[str] = _parent("bench")
    other: Mapped[str]
    date: Mapped[str | None]


class TransferPartRow(Row, Base):
    __tablename__ = "transfer_part"
    transfer_id: Mapped[str] = _parent("transfer")
    name: Mapped[str]
    here: Mapped[float]
    there: Mapped[float]
    lift: Mapped[float | None]


class RevisionRow(Base):
    """How often a job, or the shop's benches, were written: how windows notice each other's edits."""

    __tablename__ = "revision"
    owner: Mapped[str] = mapped_column(primary_key=True)
    number: Mapped[int]
