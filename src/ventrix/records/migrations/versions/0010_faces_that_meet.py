"""faces that meet

Revision 0010, after 0009. Models of today are not imported here.
"""

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"


def upgrade() -> None:
    op.create_table(
        "face",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("part", sa.String(), nullable=False),
        sa.Column("source", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_face_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_face")),
    )
    with op.batch_alter_table("face", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_face_job_id"), ["job_id"], unique=False)

    op.create_table(
        "bolt",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("at", sa.JSON(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("face_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["face_id"], ["face.id"], name=op.f("fk_bolt_face_id_face"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_bolt")),
    )
    with op.batch_alter_table("bolt", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_bolt_face_id"), ["face_id"], unique=False)

    op.create_table(
        "outline",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("port", sa.String(), nullable=False),
        sa.Column("shape", sa.String(), nullable=False),
        sa.Column("centre", sa.JSON(), nullable=False),
        sa.Column("width", sa.Double(), nullable=True),
        sa.Column("height", sa.Double(), nullable=True),
        sa.Column("corner", sa.JSON(), nullable=False),
        sa.Column("points", sa.JSON(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("face_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["face_id"], ["face.id"], name=op.f("fk_outline_face_id_face"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_outline")),
    )
    with op.batch_alter_table("outline", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_outline_face_id"), ["face_id"], unique=False)
