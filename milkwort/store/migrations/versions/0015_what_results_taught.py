"""What results taught: of the plan, of readings and of rates, beside what was entered."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"
branch_labels = None
depends_on = None


def upgrade() -> None:
    for table in ("plan", "keyword", "reading"):
        op.add_column(table, sa.Column("taught", sa.JSON(), nullable=True))
    # steps that hold whole rows of keywords and readings say nothing of it: nothing was taught
    op.execute("UPDATE journal SET schema = '0015' WHERE schema = '0014'")
