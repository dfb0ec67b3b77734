"""stages waits and parts

Revision 0009, after 0008. Models of today are not imported here.
"""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"


def upgrade() -> None:
    op.create_table(
        "part_of_job",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("state", sa.String(), nullable=False),
        sa.Column("count", sa.Integer(), nullable=False),
        sa.Column("size", sa.Double(), nullable=True),
        sa.Column("port_ids", sa.JSON(), nullable=False),
        sa.Column("price", sa.Double(), nullable=True),
        sa.Column("beyond_quote", sa.Boolean(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_part_of_job_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_part_of_job")),
    )
    with op.batch_alter_table("part_of_job", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_part_of_job_job_id"), ["job_id"], unique=False)

    op.create_table(
        "wait",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("stage", sa.String(), nullable=False),
        sa.Column("port_ids", sa.JSON(), nullable=False),
        sa.Column("who", sa.String(), nullable=False),
        sa.Column("since", sa.String(), nullable=True),
        sa.Column("promised", sa.String(), nullable=True),
        sa.Column("ended", sa.String(), nullable=True),
        sa.Column("price", sa.Double(), nullable=True),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_wait_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_wait")),
    )
    with op.batch_alter_table("wait", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_wait_job_id"), ["job_id"], unique=False)

    with op.batch_alter_table("job", schema=None) as batch_op:
        batch_op.add_column(sa.Column("rate", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("consumables", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("volume_tolerance", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("flow_tolerance", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("stages", sa.JSON(), nullable=False, server_default="[]"))

    with op.batch_alter_table("operation", schema=None) as batch_op:
        batch_op.add_column(sa.Column("beyond_quote", sa.Boolean(), nullable=False, server_default=sa.false()))
    for table, name in (("job", "stages"), ("operation", "beyond_quote")):
        with op.batch_alter_table(table, schema=None) as batch_op:
            batch_op.alter_column(name, server_default=None)
