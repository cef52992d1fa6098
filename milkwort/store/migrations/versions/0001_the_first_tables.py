"""The first tables."""

from __future__ import annotations

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "plan",
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("currency", sa.String(), nullable=False),
        sa.Column("monthly_spend", sa.Double(), nullable=False),
        sa.Column("goal", sa.String(), nullable=False),
        sa.Column("start_month", sa.Integer(), nullable=False),
        sa.Column("pricing", sa.String(), nullable=False),
        sa.Column("places", sa.JSON(), nullable=False),
        sa.Column("volume_basis", sa.String(), nullable=False),
        sa.Column("ceiling_rule", sa.String(), nullable=False),
        sa.Column("ceiling_value", sa.Double(), nullable=True),
        sa.Column("max_cpc", sa.Double(), nullable=True),
        sa.Column("may_pay_to_learn", sa.Boolean(), nullable=False),
        sa.Column("policy", sa.String(), nullable=False),
        sa.Column("flat_bid", sa.Double(), nullable=True),
        sa.Column("unsaid", sa.JSON(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("created_at", sa.String(), nullable=False),
        sa.Column("deleted_at", sa.String(), nullable=True),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_plan")),
    )
    op.create_table(
        "assumption",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("value", sa.Double(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_assumption_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_assumption")),
        sa.UniqueConstraint("plan_id", "name", name=op.f("uq_assumption_plan_id")),
    )
    op.create_table(
        "campaign",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_campaign_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_campaign")),
    )
    with op.batch_alter_table("campaign", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_campaign_plan_id"), ["plan_id"], unique=False)

    op.create_table(
        "hand_over",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("filename", sa.String(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("rows", sa.Integer(), nullable=False),
        sa.Column("sha256", sa.String(), nullable=False),
        sa.Column("content", sa.LargeBinary(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_hand_over_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_hand_over")),
    )
    with op.batch_alter_table("hand_over", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_hand_over_plan_id"), ["plan_id"], unique=False)

    op.create_table(
        "journal",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("label", sa.String(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("undone", sa.Boolean(), nullable=False),
        sa.Column("steps", sa.LargeBinary(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_journal_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_journal")),
    )
    with op.batch_alter_table("journal", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_journal_plan_id"), ["plan_id"], unique=False)

    op.create_table(
        "offer",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("sale_value", sa.Double(), nullable=False),
        sa.Column("gross_margin", sa.Double(), nullable=False),
        sa.Column("sales_per_customer", sa.Double(), nullable=False),
        sa.Column("rate_low", sa.Double(), nullable=False),
        sa.Column("rate_likely", sa.Double(), nullable=False),
        sa.Column("rate_high", sa.Double(), nullable=False),
        sa.Column("close_low", sa.Double(), nullable=True),
        sa.Column("close_likely", sa.Double(), nullable=True),
        sa.Column("close_high", sa.Double(), nullable=True),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_offer_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_offer")),
    )
    with op.batch_alter_table("offer", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_offer_plan_id"), ["plan_id"], unique=False)

    op.create_table(
        "ad_group",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("campaign_id", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["campaign_id"], ["campaign.id"], name=op.f("fk_ad_group_campaign_id")
        ),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_ad_group_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_ad_group")),
    )
    with op.batch_alter_table("ad_group", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_ad_group_campaign_id"), ["campaign_id"], unique=False)
        batch_op.create_index(batch_op.f("ix_ad_group_plan_id"), ["plan_id"], unique=False)

    op.create_table(
        "keyword",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("text", sa.String(), nullable=False),
        sa.Column("normalised", sa.String(), nullable=False),
        sa.Column("match", sa.String(), nullable=False),
        sa.Column("intent", sa.String(), nullable=False),
        sa.Column("ad_group_id", sa.Integer(), nullable=True),
        sa.Column("rate", sa.Double(), nullable=True),
        sa.Column("locked_bid", sa.Double(), nullable=True),
        sa.Column("unpaid_rank", sa.Double(), nullable=True),
        sa.Column("paid_rank", sa.Double(), nullable=True),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["ad_group_id"], ["ad_group.id"], name=op.f("fk_keyword_ad_group_id")
        ),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_keyword_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_keyword")),
        sa.UniqueConstraint("plan_id", "normalised", "match", name=op.f("uq_keyword_plan_id")),
    )
    with op.batch_alter_table("keyword", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_keyword_ad_group_id"), ["ad_group_id"], unique=False)

    op.create_table(
        "call",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("keyword_id", sa.Integer(), nullable=False),
        sa.Column("call", sa.String(), nullable=False),
        sa.Column("reason", sa.String(), nullable=False),
        sa.Column("by", sa.String(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["keyword_id"], ["keyword.id"], name=op.f("fk_call_keyword_id")),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_call_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_call")),
        sa.UniqueConstraint("keyword_id", name=op.f("uq_call_keyword_id")),
    )
    with op.batch_alter_table("call", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_call_plan_id"), ["plan_id"], unique=False)

    op.create_table(
        "reading",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("keyword_id", sa.Integer(), nullable=False),
        sa.Column("in_use", sa.Boolean(), nullable=False),
        sa.Column("volume_low", sa.Double(), nullable=True),
        sa.Column("volume_high", sa.Double(), nullable=True),
        sa.Column("cpc_low", sa.Double(), nullable=True),
        sa.Column("cpc_high", sa.Double(), nullable=True),
        sa.Column("competition", sa.Double(), nullable=True),
        sa.Column("months", sa.JSON(), nullable=True),
        sa.Column("basis", sa.String(), nullable=False),
        sa.Column("area", sa.String(), nullable=False),
        sa.Column("period", sa.String(), nullable=False),
        sa.Column("read_at", sa.String(), nullable=False),
        sa.Column("origin", sa.String(), nullable=False),
        sa.Column("origin_row", sa.Integer(), nullable=True),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["keyword_id"], ["keyword.id"], name=op.f("fk_reading_keyword_id")),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_reading_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_reading")),
    )
    with op.batch_alter_table("reading", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_reading_keyword_id"), ["keyword_id"], unique=False)
        batch_op.create_index("ix_reading_plan_in_use", ["plan_id", "in_use"], unique=False)
