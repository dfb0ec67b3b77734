"""the head and its cuts

Revision 0003, after 0002. Models of today are not imported here.
"""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"


def upgrade() -> None:
    op.create_table(
        "cam_point",
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("angle", sa.Double(), nullable=False),
        sa.Column("lift", sa.Double(), nullable=False),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_cam_point_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_cam_point")),
    )
    with op.batch_alter_table("cam_point", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_cam_point_job_id"), ["job_id"], unique=False)

    op.create_table(
        "check_mark",
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("item", sa.String(), nullable=False),
        sa.Column("initials", sa.String(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_check_mark_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_check_mark")),
    )
    with op.batch_alter_table("check_mark", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_check_mark_job_id"), ["job_id"], unique=False)

    op.create_table(
        "target",
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("lift", sa.Double(), nullable=False),
        sa.Column("flow", sa.Double(), nullable=False),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_target_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_target")),
    )
    with op.batch_alter_table("target", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_target_job_id"), ["job_id"], unique=False)

    op.create_table(
        "wall_limit",
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("place", sa.String(), nullable=False, server_default=""),
        sa.Column("thickness", sa.Double(), nullable=False),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_wall_limit_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_wall_limit")),
    )
    with op.batch_alter_table("wall_limit", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_wall_limit_job_id"), ["job_id"], unique=False)

    op.create_table(
        "photo",
        sa.Column("job_id", sa.String(), nullable=True),
        sa.Column("cut_id", sa.String(), nullable=True),
        sa.Column("file", sa.String(), nullable=False),
        sa.Column("moment", sa.String(), nullable=False),
        sa.Column("caption", sa.String(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["cut_id"], ["cut.id"], name=op.f("fk_photo_cut_id_cut"), ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_photo_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_photo")),
    )
    with op.batch_alter_table("photo", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_photo_cut_id"), ["cut_id"], unique=False)
        batch_op.create_index(batch_op.f("ix_photo_job_id"), ["job_id"], unique=False)

    op.create_table(
        "station",
        sa.Column("cut_id", sa.String(), nullable=False),
        sa.Column("along", sa.Double(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("width", sa.Double(), nullable=True),
        sa.Column("height", sa.Double(), nullable=True),
        sa.Column("corner_radius", sa.Double(), nullable=True),
        sa.Column("area", sa.Double(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["cut_id"], ["cut.id"], name=op.f("fk_station_cut_id_cut"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_station")),
    )
    with op.batch_alter_table("station", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_station_cut_id"), ["cut_id"], unique=False)

    with op.batch_alter_table("cut", schema=None) as batch_op:
        batch_op.add_column(sa.Column("bowl_diameter", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("guide_diameter", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("guide_length", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("boss_width", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("boss_shape", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("opening_width", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("opening_height", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("opening_corner", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("pinch_width", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("pinch_height", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("hole_spacing", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("short_side_height", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("short_side_radius", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("port_angle", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("seat_width", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("seat_margin", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("chamber_volume", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("gasket_land", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("expected_gain", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("expected_growth", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("expected_time", sa.Double(), nullable=True))

    with op.batch_alter_table("flow_run", schema=None) as batch_op:
        batch_op.add_column(sa.Column("claimed", sa.String(), nullable=True))

    with op.batch_alter_table("job", schema=None) as batch_op:
        batch_op.add_column(sa.Column("material", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("cylinders", sa.Integer(), nullable=True))
        batch_op.add_column(sa.Column("valves_per_cylinder", sa.Integer(), nullable=True))
        batch_op.add_column(sa.Column("flatness", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("condition", sa.String(), nullable=False, server_default=""))
        batch_op.add_column(sa.Column("stroke", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("rod_length", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("speed_low", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("speed_high", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("power_wanted", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("exhaust_cam_lift", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("exhaust_cam_duration", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("volume_ceiling", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("schools", sa.JSON(), nullable=False, server_default="{}"))

    with op.batch_alter_table("observation", schema=None) as batch_op:
        batch_op.add_column(sa.Column("place", sa.String(), nullable=False, server_default=""))
        batch_op.add_column(sa.Column("clock", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("photo", sa.String(), nullable=False, server_default=""))

    with op.batch_alter_table("operation", schema=None) as batch_op:
        batch_op.add_column(sa.Column("tool_diameter", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("started_at", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("date", sa.String(), nullable=True))

    with op.batch_alter_table("port", schema=None) as batch_op:
        batch_op.add_column(sa.Column("cylinder", sa.Integer(), nullable=True))
        batch_op.add_column(sa.Column("mirror_of", sa.String(), nullable=True))

    with op.batch_alter_table("probe_point", schema=None) as batch_op:
        batch_op.add_column(sa.Column("u", sa.Double(), nullable=False, server_default="0"))
        batch_op.add_column(sa.Column("v", sa.Double(), nullable=False, server_default="0"))
        batch_op.add_column(sa.Column("speed", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("flow", sa.Double(), nullable=True))
        batch_op.alter_column("reading", existing_type=sa.DOUBLE(), nullable=True)

    with op.batch_alter_table("reading", schema=None) as batch_op:
        batch_op.add_column(sa.Column("swirl_torque", sa.Double(), nullable=True))

    with op.batch_alter_table("setup", schema=None) as batch_op:
        batch_op.add_column(sa.Column("swirl_meter", sa.String(), nullable=True))

    with op.batch_alter_table("traverse", schema=None) as batch_op:
        batch_op.add_column(sa.Column("kind", sa.String(), nullable=False, server_default="pitot"))
        batch_op.add_column(sa.Column("layout", sa.String(), nullable=False, server_default=""))
        batch_op.add_column(sa.Column("mount_id", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("probe", sa.String(), nullable=False, server_default=""))
        batch_op.add_column(sa.Column("coefficient", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("base_flow", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("date", sa.String(), nullable=True))
        batch_op.create_foreign_key(batch_op.f("fk_traverse_mount_id_mount"), "mount", ["mount_id"], ["id"])

    with op.batch_alter_table("trial", schema=None) as batch_op:
        batch_op.add_column(sa.Column("place", sa.String(), nullable=False, server_default=""))
        batch_op.add_column(sa.Column("area_taken", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("area_uncertainty", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("date", sa.String(), nullable=True))

    with op.batch_alter_table("valve", schema=None) as batch_op:
        batch_op.add_column(sa.Column("seat_margin", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("seat_insert", sa.Boolean(), nullable=True))
        batch_op.add_column(sa.Column("back_cut_angle", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("back_shape", sa.String(), nullable=False, server_default=""))
        batch_op.add_column(sa.Column("weight", sa.Double(), nullable=True))

    with op.batch_alter_table("wall_reading", schema=None) as batch_op:
        batch_op.add_column(sa.Column("band", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("along", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("across", sa.Double(), nullable=False, server_default="0"))
        batch_op.add_column(sa.Column("behind", sa.String(), nullable=False, server_default=""))
        batch_op.add_column(sa.Column("probe", sa.String(), nullable=False, server_default=""))
        batch_op.add_column(sa.Column("sound_speed", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("uncertainty", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("struck", sa.String(), nullable=True))
