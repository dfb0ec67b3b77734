"""said first, and practice

Revision 0011, after 0010. Models of today are not imported here.
"""

import sqlalchemy as sa
from alembic import op

revision = "0011"
down_revision = "0010"


def upgrade() -> None:
    with op.batch_alter_table("job", schema=None) as batch_op:
        batch_op.add_column(sa.Column("practice", sa.String(), nullable=False, server_default=""))
    op.create_table(
        "call",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("cut_id", sa.String(), nullable=False),
        sa.Column("date", sa.String(), nullable=False),
        sa.Column("lifts", sa.JSON(), nullable=False),
        sa.Column("flows", sa.JSON(), nullable=False),
        sa.Column("best_place", sa.String(), nullable=False),
        sa.Column("gains", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_call_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_call")),
    )
    with op.batch_alter_table("call", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_call_job_id"), ["job_id"], unique=False)
