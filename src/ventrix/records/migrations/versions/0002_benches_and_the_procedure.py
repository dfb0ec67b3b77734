"""benches and the procedure

Revision 0002, after 0001. Models of today are not imported here.
"""

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"


def upgrade() -> None:
    op.create_table(
        "bench",
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("element", sa.String(), nullable=False),
        sa.Column("ranges", sa.JSON(), nullable=False),
        sa.Column("corrected", sa.Boolean(), nullable=False),
        sa.Column("scale_density", sa.Double(), nullable=True),
        sa.Column("orifice_diameter", sa.Double(), nullable=True),
        sa.Column("orifice_pipe", sa.Double(), nullable=True),
        sa.Column("orifice_coefficient", sa.Double(), nullable=True),
        sa.Column("blower_limit", sa.Double(), nullable=True),
        sa.Column("test_pressure", sa.Double(), nullable=True),
        sa.Column("dial_resolution", sa.Double(), nullable=True),
        sa.Column("link", sa.String(), nullable=False),
        sa.Column("address", sa.String(), nullable=False),
        sa.Column("text_format", sa.JSON(), nullable=False),
        sa.Column("plate_name", sa.String(), nullable=False),
        sa.Column("plate_flow", sa.Double(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_bench")),
    )
    op.create_table(
        "plate_check",
        sa.Column("bench_id", sa.String(), nullable=False),
        sa.Column("nominal", sa.Double(), nullable=False),
        sa.Column("flow", sa.Double(), nullable=False),
        sa.Column("pressure", sa.Double(), nullable=True),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("struck", sa.String(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(
            ["bench_id"], ["bench.id"], name=op.f("fk_plate_check_bench_id_bench"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_plate_check")),
    )
    with op.batch_alter_table("plate_check", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_plate_check_bench_id"), ["bench_id"], unique=False)

    op.create_table(
        "scatter_study",
        sa.Column("bench_id", sa.String(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("head", sa.String(), nullable=False),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(
            ["bench_id"], ["bench.id"], name=op.f("fk_scatter_study_bench_id_bench"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_scatter_study")),
    )
    with op.batch_alter_table("scatter_study", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_scatter_study_bench_id"), ["bench_id"], unique=False)

    op.create_table(
        "transfer",
        sa.Column("bench_id", sa.String(), nullable=False),
        sa.Column("other", sa.String(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(
            ["bench_id"], ["bench.id"], name=op.f("fk_transfer_bench_id_bench"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_transfer")),
    )
    with op.batch_alter_table("transfer", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_transfer_bench_id"), ["bench_id"], unique=False)

    op.create_table(
        "study_reading",
        sa.Column("scatter_study_id", sa.String(), nullable=False),
        sa.Column("mount", sa.Integer(), nullable=False),
        sa.Column("lift", sa.Double(), nullable=False),
        sa.Column("flow", sa.Double(), nullable=False),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(
            ["scatter_study_id"],
            ["scatter_study.id"],
            name=op.f("fk_study_reading_scatter_study_id_scatter_study"),
            ondelete="CASCADE",
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_study_reading")),
    )
    with op.batch_alter_table("study_reading", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_study_reading_scatter_study_id"), ["scatter_study_id"], unique=False)

    op.create_table(
        "transfer_part",
        sa.Column("transfer_id", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("here", sa.Double(), nullable=False),
        sa.Column("there", sa.Double(), nullable=False),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(
            ["transfer_id"], ["transfer.id"], name=op.f("fk_transfer_part_transfer_id_transfer"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_transfer_part")),
    )
    with op.batch_alter_table("transfer_part", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_transfer_part_transfer_id"), ["transfer_id"], unique=False)

    op.create_table(
        "rung_note",
        sa.Column("flow_run_id", sa.String(), nullable=False),
        sa.Column("lift", sa.Double(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("text", sa.String(), nullable=False),
        sa.Column("time", sa.String(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(
            ["flow_run_id"], ["flow_run.id"], name=op.f("fk_rung_note_flow_run_id_flow_run"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_rung_note")),
    )
    with op.batch_alter_table("rung_note", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_rung_note_flow_run_id"), ["flow_run_id"], unique=False)

    op.create_table(
        "step_record",
        sa.Column("flow_run_id", sa.String(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("skipped", sa.String(), nullable=True),
        sa.Column("flow", sa.Double(), nullable=True),
        sa.Column("pressure", sa.Double(), nullable=True),
        sa.Column("drift", sa.Double(), nullable=True),
        sa.Column("time", sa.String(), nullable=True),
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(
            ["flow_run_id"], ["flow_run.id"], name=op.f("fk_step_record_flow_run_id_flow_run"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_step_record")),
    )
    with op.batch_alter_table("step_record", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_step_record_flow_run_id"), ["flow_run_id"], unique=False)

    with op.batch_alter_table("flow_run", schema=None) as batch_op:
        batch_op.add_column(sa.Column("witness_id", sa.String(), nullable=True))

    with op.batch_alter_table("port", schema=None) as batch_op:
        batch_op.add_column(sa.Column("witness", sa.Boolean(), nullable=False, server_default=sa.false()))

    with op.batch_alter_table("reading", schema=None) as batch_op:
        batch_op.add_column(sa.Column("element_pressure", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("mass_flow", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("returned", sa.Boolean(), nullable=False, server_default=sa.false()))

    with op.batch_alter_table("setup", schema=None) as batch_op:
        batch_op.add_column(sa.Column("pipe_diameter", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("pipe_length", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("valves_open", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("springs", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("plenum_temperature", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("air_read_at", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("element", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("scale_density", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("orifice_diameter", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("orifice_pipe", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("orifice_coefficient", sa.Double(), nullable=True))
