"""Notes on keywords; a plan's own reasons, filters, house rules and kinds of words."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None

_OWN = ("quick_reasons", "saved_filters", "house_rules", "word_kinds")


def upgrade() -> None:
    with op.batch_alter_table("keyword") as keyword:
        keyword.add_column(sa.Column("note", sa.String(), nullable=False, server_default=""))
    with op.batch_alter_table("plan") as plan:
        for name in _OWN:
            plan.add_column(sa.Column(name, sa.JSON(), nullable=True))
