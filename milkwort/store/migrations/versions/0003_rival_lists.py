"""Rivals' keyword lists, so that the next one says what is new and what was given up."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "rival_list",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("rows", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_rival_list_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_rival_list")),
    )
    op.create_index(op.f("ix_rival_list_plan_id"), "rival_list", ["plan_id"])
