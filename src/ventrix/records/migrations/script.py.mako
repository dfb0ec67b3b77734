"""${message}

Revision ${up_revision}, after ${down_revision | comma,n}. Models of today are not imported here.
"""

import sqlalchemy as sa
from alembic import op
${imports if imports else ""}
revision = ${repr(up_revision)}
down_revision = ${repr(down_revision)}


def upgrade() -> None:
    ${upgrades if upgrades else "pass"}
