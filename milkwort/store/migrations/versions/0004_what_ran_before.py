"""What ran before the plan, hours of showing, the rule for readings, columns remembered."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("plan") as plan:
        plan.add_column(sa.Column("showing", sa.JSON(), nullable=True))
        plan.add_column(
            sa.Column("reading_rule", sa.String(), nullable=False, server_default="newest")
        )
    with op.batch_alter_table("ad_group") as group:
        group.add_column(sa.Column("landing_page", sa.String(), nullable=False, server_default=""))
    with op.batch_alter_table("negative") as negative:
        negative.add_column(sa.Column("owner", sa.String(), nullable=False, server_default=""))
    op.create_table(
        "past_list",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("days", sa.Float(), nullable=False),
        sa.Column("rows", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_past_list_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_past_list")),
    )
    op.create_index(op.f("ix_past_list_plan_id"), "past_list", ["plan_id"])
    op.create_table(
        "file_shape",
        sa.Column("headings", sa.String(), nullable=False),
        sa.Column("columns", sa.JSON(), nullable=False),
        sa.Column("units", sa.JSON(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_file_shape")),
        sa.UniqueConstraint("headings", name=op.f("uq_file_shape_headings")),
    )
