"""Whose public holidays are told."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0016"
down_revision = "0015"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("plan", sa.Column("holidays_of", sa.String(), nullable=False, server_default=""))
    # no step that can be undone holds a whole row of plan: what was written stays as it is
    op.execute("UPDATE journal SET schema = '0016' WHERE schema = '0015'")
