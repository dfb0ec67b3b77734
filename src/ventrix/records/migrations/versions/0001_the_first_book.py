"""the first book

Revision 0001, the first. Models of today are not imported here.
"""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None


def upgrade() -> None:
    op.create_table(
        "job",
        sa.Column("title", sa.String(), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("bore", sa.Double(), nullable=True),
        sa.Column("cam_lift", sa.Double(), nullable=True),
        sa.Column("cam_duration", sa.Double(), nullable=True),
        sa.Column("worthwhile_gain", sa.Double(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_job")),
    )
    op.create_table(
        "mount",
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_mount_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_mount")),
    )
    with op.batch_alter_table("mount", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_mount_job_id"), ["job_id"], unique=False)

    op.create_table(
        "port",
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("valve_id", sa.String(), nullable=True),
        sa.Column("valves", sa.Integer(), nullable=False),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_port_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_port")),
    )
    with op.batch_alter_table("port", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_port_job_id"), ["job_id"], unique=False)

    op.create_table(
        "setup",
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("direction", sa.String(), nullable=False),
        sa.Column("test_pressure", sa.Double(), nullable=True),
        sa.Column("bench", sa.String(), nullable=True),
        sa.Column("bore", sa.Double(), nullable=True),
        sa.Column("centred", sa.Boolean(), nullable=True),
        sa.Column("entry", sa.String(), nullable=True),
        sa.Column("pipe", sa.String(), nullable=True),
        sa.Column("valve", sa.String(), nullable=True),
        sa.Column("plug", sa.String(), nullable=True),
        sa.Column("clean", sa.Boolean(), nullable=True),
        sa.Column("temperature", sa.Double(), nullable=True),
        sa.Column("pressure", sa.Double(), nullable=True),
        sa.Column("humidity", sa.Double(), nullable=True),
        sa.Column("leak", sa.Double(), nullable=True),
        sa.Column("leak_pressure", sa.Double(), nullable=True),
        sa.Column("seat_leak", sa.Double(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_setup_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_setup")),
    )
    with op.batch_alter_table("setup", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_setup_job_id"), ["job_id"], unique=False)

    op.create_table(
        "valve",
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("head_diameter", sa.Double(), nullable=True),
        sa.Column("stem_diameter", sa.Double(), nullable=True),
        sa.Column("seat_width", sa.Double(), nullable=True),
        sa.Column("seat_angle", sa.Double(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_valve_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_valve")),
    )
    with op.batch_alter_table("valve", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_valve_job_id"), ["job_id"], unique=False)

    op.create_table(
        "cut",
        sa.Column("port_id", sa.String(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("throat_diameter", sa.Double(), nullable=True),
        sa.Column("floor_length", sa.Double(), nullable=True),
        sa.Column("roof_length", sa.Double(), nullable=True),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["port_id"], ["port.id"], name=op.f("fk_cut_port_id_port"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_cut")),
    )
    with op.batch_alter_table("cut", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_cut_port_id"), ["port_id"], unique=False)

    op.create_table(
        "observation",
        sa.Column("cut_id", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("text", sa.String(), nullable=False),
        sa.Column("lift", sa.Double(), nullable=True),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["cut_id"], ["cut.id"], name=op.f("fk_observation_cut_id_cut"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_observation")),
    )
    with op.batch_alter_table("observation", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_observation_cut_id"), ["cut_id"], unique=False)

    op.create_table(
        "operation",
        sa.Column("cut_id", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("places", sa.JSON(), nullable=False),
        sa.Column("depth", sa.Double(), nullable=True),
        sa.Column("tool", sa.String(), nullable=False),
        sa.Column("finish", sa.String(), nullable=False),
        sa.Column("duration", sa.Double(), nullable=True),
        sa.Column("port_ids", sa.JSON(), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["cut_id"], ["cut.id"], name=op.f("fk_operation_cut_id_cut"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_operation")),
    )
    with op.batch_alter_table("operation", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_operation_cut_id"), ["cut_id"], unique=False)

    op.create_table(
        "pour",
        sa.Column("cut_id", sa.String(), nullable=False),
        sa.Column("volume", sa.Double(), nullable=False),
        sa.Column("how", sa.String(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["cut_id"], ["cut.id"], name=op.f("fk_pour_cut_id_cut"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_pour")),
    )
    with op.batch_alter_table("pour", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_pour_cut_id"), ["cut_id"], unique=False)

    op.create_table(
        "traverse",
        sa.Column("cut_id", sa.String(), nullable=False),
        sa.Column("station", sa.String(), nullable=False),
        sa.Column("setup_id", sa.String(), nullable=True),
        sa.Column("lift", sa.Double(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["cut_id"], ["cut.id"], name=op.f("fk_traverse_cut_id_cut"), ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["setup_id"], ["setup.id"], name=op.f("fk_traverse_setup_id_setup")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_traverse")),
    )
    with op.batch_alter_table("traverse", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_traverse_cut_id"), ["cut_id"], unique=False)

    op.create_table(
        "trial",
        sa.Column("cut_id", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["cut_id"], ["cut.id"], name=op.f("fk_trial_cut_id_cut"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_trial")),
    )
    with op.batch_alter_table("trial", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_trial_cut_id"), ["cut_id"], unique=False)

    op.create_table(
        "wall_reading",
        sa.Column("cut_id", sa.String(), nullable=False),
        sa.Column("place", sa.String(), nullable=False),
        sa.Column("thickness", sa.Double(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["cut_id"], ["cut.id"], name=op.f("fk_wall_reading_cut_id_cut"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_wall_reading")),
    )
    with op.batch_alter_table("wall_reading", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_wall_reading_cut_id"), ["cut_id"], unique=False)

    op.create_table(
        "flow_run",
        sa.Column("cut_id", sa.String(), nullable=True),
        sa.Column("trial_id", sa.String(), nullable=True),
        sa.Column("setup_id", sa.String(), nullable=False),
        sa.Column("mount_id", sa.String(), nullable=True),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("source", sa.String(), nullable=False),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["cut_id"], ["cut.id"], name=op.f("fk_flow_run_cut_id_cut"), ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["mount_id"], ["mount.id"], name=op.f("fk_flow_run_mount_id_mount")),
        sa.ForeignKeyConstraint(["setup_id"], ["setup.id"], name=op.f("fk_flow_run_setup_id_setup")),
        sa.ForeignKeyConstraint(
            ["trial_id"], ["trial.id"], name=op.f("fk_flow_run_trial_id_trial"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_flow_run")),
    )
    with op.batch_alter_table("flow_run", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_flow_run_cut_id"), ["cut_id"], unique=False)
        batch_op.create_index(batch_op.f("ix_flow_run_trial_id"), ["trial_id"], unique=False)

    op.create_table(
        "probe_point",
        sa.Column("traverse_id", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("reading", sa.Double(), nullable=False),
        sa.Column("struck", sa.String(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(
            ["traverse_id"],
            ["traverse.id"],
            name=op.f("fk_probe_point_traverse_id_traverse"),
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_probe_point")),
    )
    with op.batch_alter_table("probe_point", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_probe_point_traverse_id"), ["traverse_id"], unique=False)

    op.create_table(
        "reading",
        sa.Column("flow_run_id", sa.String(), nullable=False),
        sa.Column("lift", sa.Double(), nullable=False),
        sa.Column("flow", sa.Double(), nullable=True),
        sa.Column("percent", sa.Double(), nullable=True),
        sa.Column("full_scale", sa.Double(), nullable=True),
        sa.Column("element_column", sa.Double(), nullable=True),
        sa.Column("port_column", sa.Double(), nullable=True),
        sa.Column("measured_pressure", sa.Double(), nullable=True),
        sa.Column("swirl", sa.Double(), nullable=True),
        sa.Column("spread", sa.Double(), nullable=True),
        sa.Column("window", sa.Double(), nullable=True),
        sa.Column("time", sa.String(), nullable=True),
        sa.Column("unsteady", sa.Boolean(), nullable=False),
        sa.Column("struck", sa.String(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(
            ["flow_run_id"], ["flow_run.id"], name=op.f("fk_reading_flow_run_id_flow_run"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_reading")),
    )
    with op.batch_alter_table("reading", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_reading_flow_run_id"), ["flow_run_id"], unique=False)
