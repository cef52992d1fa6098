"""Months that are closed, and suggestions that were set aside."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.add_column("plan", sa.Column("closed_as", sa.Integer(), nullable=True))
    op.create_table(
        "set_aside",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("suggestion", sa.String(), nullable=False),
        sa.Column("as_of", sa.String(), nullable=True),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_set_aside_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_set_aside")),
        sqlite_autoincrement=True,
    )
    op.create_index(op.f("ix_set_aside_plan_id"), "set_aside", ["plan_id"])
    # no step that can be undone holds a whole row of plan: what was written stays as it is
    op.execute("UPDATE journal SET schema = '0014' WHERE schema = '0013'")
