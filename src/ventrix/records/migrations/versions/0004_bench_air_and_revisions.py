"""bench, air and revisions

Revision 0004, after 0003. Models of today are not imported here.
"""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"


def upgrade() -> None:
    op.create_table(
        "revision",
        sa.Column("owner", sa.String(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("owner", name=op.f("pk_revision")),
    )
    with op.batch_alter_table("bench", schema=None) as batch_op:
        batch_op.add_column(sa.Column("element_place", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("leak_taken_off", sa.Boolean(), server_default="0", nullable=False))
        batch_op.add_column(sa.Column("easy_dial", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("easy_factor", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("easy_leak", sa.Double(), nullable=True))

    with op.batch_alter_table("cut", schema=None) as batch_op:
        batch_op.add_column(sa.Column("pinch_corner", sa.Double(), nullable=True))

    with op.batch_alter_table("job", schema=None) as batch_op:
        batch_op.add_column(sa.Column("cam_checked_at", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("rocker_ratio", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("test_pressure", sa.Double(), nullable=True))

    with op.batch_alter_table("probe_point", schema=None) as batch_op:
        batch_op.add_column(sa.Column("static", sa.Double(), nullable=True))

    with op.batch_alter_table("setup", schema=None) as batch_op:
        batch_op.add_column(sa.Column("element_place", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("leak_taken_off", sa.Boolean(), server_default="0", nullable=False))
        batch_op.add_column(sa.Column("swirl_axis", sa.String(), nullable=True))

    with op.batch_alter_table("target", schema=None) as batch_op:
        batch_op.add_column(sa.Column("test_pressure", sa.Double(), nullable=True))

    with op.batch_alter_table("transfer_part", schema=None) as batch_op:
        batch_op.add_column(sa.Column("lift", sa.Double(), nullable=True))

    with op.batch_alter_table("traverse", schema=None) as batch_op:
        batch_op.add_column(sa.Column("probe_diameter", sa.Double(), nullable=True))
