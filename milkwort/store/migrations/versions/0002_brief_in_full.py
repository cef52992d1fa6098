"""The brief in full: season, what is inside the money, platform, offers; negatives; recipes."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("plan") as plan:
        plan.add_column(sa.Column("season", sa.JSON(), nullable=True))
        plan.add_column(sa.Column("gross_spend", sa.Double(), nullable=True))
        plan.add_column(sa.Column("tax_share", sa.Double(), nullable=False, server_default="0"))
        plan.add_column(sa.Column("fee", sa.Double(), nullable=False, server_default="0"))
        plan.add_column(sa.Column("profile", sa.JSON(), nullable=True))
        plan.add_column(sa.Column("other_places", sa.JSON(), nullable=False, server_default="[]"))
        plan.add_column(sa.Column("policy_share", sa.Double(), nullable=True))
        plan.add_column(sa.Column("max_keywords", sa.Integer(), nullable=True))
        plan.add_column(sa.Column("min_clicks", sa.Double(), nullable=False, server_default="0"))
    with op.batch_alter_table("keyword") as keyword:
        keyword.add_column(sa.Column("offer", sa.String(), nullable=False, server_default=""))
    op.create_table(
        "negative",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("text", sa.String(), nullable=False),
        sa.Column("match", sa.String(), nullable=False),
        sa.Column("level", sa.String(), nullable=False),
        sa.Column("by", sa.String(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_negative_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_negative")),
    )
    op.create_index(op.f("ix_negative_plan_id"), "negative", ["plan_id"])
    op.create_table(
        "recipe",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("parts", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_recipe_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_recipe")),
    )
    op.create_index(op.f("ix_recipe_plan_id"), "recipe", ["plan_id"])
