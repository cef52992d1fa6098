"""From which day a hand-over ran."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0017"
down_revision = "0016"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("hand_over", sa.Column("runs_from", sa.String(), nullable=True))
    # as it is set from now on: not before its plan begins
    op.execute(
        "UPDATE hand_over SET runs_from = (SELECT max(substr(hand_over.at, 1, 10), start_date) "
        "FROM plan WHERE plan.id = hand_over.plan_id) WHERE status != 'written'"
    )
    # no step that can be undone holds a hand-over: what was written stays as it is
    op.execute("UPDATE journal SET schema = '0017' WHERE schema = '0016'")
