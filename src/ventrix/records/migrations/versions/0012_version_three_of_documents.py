"""version three of documents

Revision 0012, after 0011. Models of today are not imported here.
"""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"


def upgrade() -> None:
    op.create_table(
        "slip",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("place", sa.String(), nullable=False),
        sa.Column("side", sa.String(), nullable=True),
        sa.Column("from_hour", sa.Double(), nullable=True),
        sa.Column("to_hour", sa.Double(), nullable=True),
        sa.Column("depth", sa.Double(), nullable=True),
        sa.Column("width_left", sa.Double(), nullable=True),
        sa.Column("volume", sa.Double(), nullable=True),
        sa.Column("photo", sa.String(), nullable=False),
        sa.Column("decision", sa.String(), nullable=False),
        sa.Column("decided_by", sa.String(), nullable=False),
        sa.Column("customer_told", sa.Boolean(), nullable=False),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("port_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["port_id"], ["port.id"], name=op.f("fk_slip_port_id_port"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_slip")),
    )
    with op.batch_alter_table("slip", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_slip_port_id"), ["port_id"], unique=False)

    with op.batch_alter_table("bench", schema=None) as batch_op:
        batch_op.add_column(sa.Column("reading_step", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("fixed_column", sa.Double(), nullable=True))
        batch_op.alter_column(
            "leak_taken_off", existing_type=sa.BOOLEAN(), nullable=True, existing_server_default=sa.text("'0'")
        )

    with op.batch_alter_table("cut", schema=None) as batch_op:
        batch_op.add_column(sa.Column("expected_as", sa.String(), nullable=False, server_default="weighted"))
        batch_op.add_column(sa.Column("expected_lift", sa.Double(), nullable=True))

    with op.batch_alter_table("flow_run", schema=None) as batch_op:
        batch_op.add_column(sa.Column("basis", sa.String(), nullable=False, server_default="bench"))
        batch_op.add_column(sa.Column("house", sa.String(), nullable=False, server_default=""))
        batch_op.add_column(sa.Column("paper_date", sa.String(), nullable=True))

    with op.batch_alter_table("job", schema=None) as batch_op:
        batch_op.add_column(sa.Column("engine_cylinders", sa.Integer(), nullable=True))
        batch_op.add_column(sa.Column("engine_layout", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("bank_half_angle", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("gasket_thickness", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("deck_clearance", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("piston_volume", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("model_port_ids", sa.JSON(), nullable=False, server_default="[]"))
        batch_op.add_column(sa.Column("same_house", sa.JSON(), nullable=False, server_default="[]"))

    with op.batch_alter_table("operation", schema=None) as batch_op:
        batch_op.add_column(sa.Column("at", sa.String(), nullable=True))

    with op.batch_alter_table("port", schema=None) as batch_op:
        batch_op.add_column(sa.Column("faults_looked_at", sa.String(), nullable=True))

    with op.batch_alter_table("stage_mark", schema=None) as batch_op:
        batch_op.add_column(sa.Column("unit", sa.String(), nullable=False, server_default="port"))
        batch_op.add_column(sa.Column("of", sa.String(), nullable=False, server_default=""))
        batch_op.add_column(sa.Column("by", sa.String(), nullable=False, server_default=""))
        batch_op.add_column(sa.Column("started_at", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("ended_at", sa.String(), nullable=True))

    with op.batch_alter_table("traverse", schema=None) as batch_op:
        batch_op.add_column(sa.Column("speeds_at", sa.String(), nullable=False, server_default="standard"))

    with op.batch_alter_table("wall_limit", schema=None) as batch_op:
        batch_op.add_column(sa.Column("kind", sa.String(), nullable=False, server_default=""))
        batch_op.add_column(sa.Column("behind", sa.String(), nullable=False, server_default=""))

    with op.batch_alter_table("wall_reading", schema=None) as batch_op:
        batch_op.add_column(sa.Column("at", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("known_by", sa.String(), nullable=False, server_default=""))

    # "No" was what stood where nobody had said.
    op.execute("UPDATE bench SET leak_taken_off = NULL WHERE NOT leak_taken_off")
    # The index keeps more of every job than it did: it is made anew.
    for table in ("cut_index", "job_index"):
        op.execute(f"DELETE FROM {table}")
    for table, name in (
        ("cut", "expected_as"),
        ("flow_run", "basis"),
        ("flow_run", "house"),
        ("job", "model_port_ids"),
        ("job", "same_house"),
        ("stage_mark", "unit"),
        ("stage_mark", "of"),
        ("stage_mark", "by"),
        ("traverse", "speeds_at"),
        ("wall_limit", "kind"),
        ("wall_limit", "behind"),
        ("wall_reading", "known_by"),
    ):
        with op.batch_alter_table(table, schema=None) as batch_op:
            batch_op.alter_column(name, server_default=None)
