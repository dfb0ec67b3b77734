"""engine pieces and results

Revision 0008, after 0007. Models of today are not imported here.
"""

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"


def upgrade() -> None:
    op.create_table(
        "engine_result",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("moment", sa.String(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("speeds", sa.JSON(), nullable=False),
        sa.Column("powers", sa.JSON(), nullable=False),
        sa.Column("time", sa.Double(), nullable=True),
        sa.Column("speed", sa.Double(), nullable=True),
        sa.Column("fuel", sa.Double(), nullable=True),
        sa.Column("also_changed", sa.String(), nullable=False),
        sa.Column("conditions", sa.String(), nullable=False),
        sa.Column("correction", sa.String(), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_engine_result_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_engine_result")),
    )
    with op.batch_alter_table("engine_result", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_engine_result_job_id"), ["job_id"], unique=False)

    op.create_table(
        "stage_mark",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("stage", sa.String(), nullable=False),
        sa.Column("port_id", sa.String(), nullable=False),
        sa.Column("closed_by", sa.String(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_stage_mark_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_stage_mark")),
    )
    with op.batch_alter_table("stage_mark", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_stage_mark_job_id"), ["job_id"], unique=False)

    with op.batch_alter_table("cut", schema=None) as batch_op:
        batch_op.add_column(sa.Column("expected_low", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("expected_high", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("expected_by", sa.String(), nullable=False, server_default=""))

    with op.batch_alter_table("job", schema=None) as batch_op:
        batch_op.add_column(sa.Column("intake_centreline", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("exhaust_centreline", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("compression_ratio", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("intake_lash", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("exhaust_lash", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("induction", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("induction_flow", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("induction_pressure", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("manifold_pressure", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("manifold_temperature", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("exhaust_pressure", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("stop_below", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("lowest_speed", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("quoted", sa.Double(), nullable=True))

    with op.batch_alter_table("job_index", schema=None) as batch_op:
        batch_op.add_column(sa.Column("powers", sa.JSON(), nullable=False, server_default="[]"))

    with op.batch_alter_table("port", schema=None) as batch_op:
        batch_op.add_column(sa.Column("piece", sa.String(), nullable=False, server_default=""))

    with op.batch_alter_table("trial", schema=None) as batch_op:
        batch_op.add_column(sa.Column("piece_id", sa.String(), nullable=True))

    # The index keeps more of every job than it did: it is made anew.
    for table in ("cut_index", "job_index"):
        op.execute(f"DELETE FROM {table}")
    # A lobe separation and the intake's centreline say where the exhaust's lobe stands.
    op.execute(
        "UPDATE job SET intake_centreline = lobe_centre, exhaust_centreline = 2 * lobe_separation - lobe_centre, "
        "compression_ratio = compression"
    )
    with op.batch_alter_table("job", schema=None) as batch_op:
        for name in ("lobe_centre", "lobe_separation", "compression"):
            batch_op.drop_column(name)
    for table, name in (("port", "piece"), ("cut", "expected_by"), ("job_index", "powers")):
        with op.batch_alter_table(table, schema=None) as batch_op:
            batch_op.alter_column(name, server_default=None)
