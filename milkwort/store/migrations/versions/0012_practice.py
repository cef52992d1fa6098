"""Accounts in a practice market, and what was sent to them."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "practice_account",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("account", sa.String(), nullable=False),
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("level", sa.String(), nullable=False),
        sa.Column("seed", sa.Integer(), nullable=False),
        sa.Column("start", sa.String(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_practice_account_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_practice_account")),
        sqlite_autoincrement=True,
    )
    op.create_index(op.f("ix_practice_account_plan_id"), "practice_account", ["plan_id"])
    op.create_table(
        "practice_sending",
        sa.Column("practice_id", sa.Integer(), nullable=False),
        sa.Column("hand_over_id", sa.Integer(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("once", sa.String(), nullable=False),
        sa.Column("state", sa.String(), nullable=False),
        sa.Column("message", sa.String(), nullable=False, server_default=""),
        sa.Column("sheets", sa.LargeBinary(), nullable=False),
        sa.Column("replies", sa.LargeBinary(), nullable=True),
        sa.Column("differs", sa.JSON(), nullable=True),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["practice_id"],
            ["practice_account.id"],
            name=op.f("fk_practice_sending_practice_id"),
        ),
        sa.ForeignKeyConstraint(
            ["hand_over_id"], ["hand_over.id"], name=op.f("fk_practice_sending_hand_over_id")
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_practice_sending")),
        sqlite_autoincrement=True,
    )
    op.create_index(op.f("ix_practice_sending_practice_id"), "practice_sending", ["practice_id"])
    # no step that can be undone names these tables: what was written stays as it is
    op.execute("UPDATE journal SET schema = '0012' WHERE schema = '0011'")
