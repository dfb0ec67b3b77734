"""the library and what is found

Revision 0006, after 0005. Models of today are not imported here.
"""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"


def upgrade() -> None:
    op.create_table(
        "library_item",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("source", sa.String(), nullable=False),
        sa.Column("of", sa.String(), nullable=True),
        sa.Column("price", sa.Double(), nullable=True),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_library_item")),
    )
    op.create_table(
        "job_index",
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("state", sa.String(), nullable=False),
        sa.Column("text", sa.String(), nullable=False),
        sa.Column("casting", sa.String(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("cuts", sa.Integer(), nullable=False),
        sa.Column("runs", sa.Integer(), nullable=False),
        sa.Column("hours", sa.Double(), nullable=True),
        sa.Column("evidence", sa.JSON(), nullable=False),
        sa.Column("outcomes", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_job_index_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("job_id", name=op.f("pk_job_index")),
    )
    op.create_table(
        "cut_index",
        sa.Column("cut_id", sa.String(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("port_name", sa.String(), nullable=False),
        sa.Column("direction", sa.String(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("newest", sa.Boolean(), nullable=False),
        sa.Column("section", sa.Double(), nullable=True),
        sa.Column("throat", sa.Double(), nullable=True),
        sa.Column("valve", sa.Double(), nullable=True),
        sa.Column("volume", sa.Double(), nullable=True),
        sa.Column("is_share", sa.Boolean(), nullable=False),
        sa.Column("setup", sa.JSON(), nullable=False),
        sa.Column("gain", sa.Double(), nullable=True),
        sa.Column("seconds", sa.Double(), nullable=True),
        sa.Column("curve", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["cut_id"], ["cut.id"], name=op.f("fk_cut_index_cut_id_cut"), ondelete="CASCADE"),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_cut_index_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("cut_id", name=op.f("pk_cut_index")),
    )
    with op.batch_alter_table("cut_index", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_cut_index_job_id"), ["job_id"], unique=False)
        batch_op.create_index(batch_op.f("ix_cut_index_section"), ["section"], unique=False)
        batch_op.create_index(batch_op.f("ix_cut_index_throat"), ["throat"], unique=False)
        batch_op.create_index(batch_op.f("ix_cut_index_valve"), ["valve"], unique=False)
        batch_op.create_index(batch_op.f("ix_cut_index_volume"), ["volume"], unique=False)

    with op.batch_alter_table("job", schema=None) as batch_op:
        batch_op.add_column(sa.Column("customer", sa.String(), server_default="", nullable=False))
        batch_op.add_column(sa.Column("promise_date", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("state", sa.String(), server_default="open", nullable=False))
        batch_op.add_column(sa.Column("waits_for", sa.String(), server_default="", nullable=False))
        batch_op.add_column(sa.Column("handed_over", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("archived", sa.Boolean(), server_default="0", nullable=False))
        batch_op.add_column(sa.Column("binned", sa.String(), nullable=True))
