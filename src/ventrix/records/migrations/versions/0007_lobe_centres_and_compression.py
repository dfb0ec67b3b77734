"""lobe centres and compression

Revision 0007, after 0006. Models of today are not imported here.
"""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"


def upgrade() -> None:
    with op.batch_alter_table("job") as batch_op:
        batch_op.add_column(sa.Column("lobe_centre", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("lobe_separation", sa.Double(), nullable=True))
        batch_op.add_column(sa.Column("compression", sa.Double(), nullable=True))
