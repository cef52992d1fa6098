"""Written ads; pages with their text; spots; more that campaigns and groups say of themselves."""

from __future__ import annotations

import json
import zlib
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None

_COUNTED = {"sqlite_autoincrement": True}
_NEW: dict[str, dict[str, Any]] = {
    "campaign": {
        "landing_page": "",
        "first_day": "",
        "last_day": "",
        "bid_moves": "",
        "partner_sites": False,
        "audience": None,
    },
    "ad_group": {"bid": None, "locked": False, "blocks_twins": False},
}
"""What rows that are already there have in the new columns."""


def upgrade() -> None:
    with op.batch_alter_table("campaign", recreate="always", table_kwargs=_COUNTED) as campaign:
        for name in ("landing_page", "first_day", "last_day", "bid_moves"):
            campaign.add_column(sa.Column(name, sa.String(), nullable=False, server_default=""))
        campaign.add_column(
            sa.Column("partner_sites", sa.Boolean(), nullable=False, server_default="0")
        )
        campaign.add_column(sa.Column("audience", sa.JSON(), nullable=True))
    with op.batch_alter_table("ad_group", recreate="always", table_kwargs=_COUNTED) as group:
        group.add_column(sa.Column("bid", sa.Double(), nullable=True))
        for name in ("locked", "blocks_twins"):
            group.add_column(sa.Column(name, sa.Boolean(), nullable=False, server_default="0"))
    op.create_table(
        "ad",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("ad_group_id", sa.Integer(), nullable=False),
        sa.Column("headlines", sa.JSON(), nullable=False),
        sa.Column("descriptions", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_ad_plan_id")),
        sa.ForeignKeyConstraint(["ad_group_id"], ["ad_group.id"], name=op.f("fk_ad_ad_group_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_ad")),
        sa.UniqueConstraint("plan_id", "key", name="uq_ad_key"),
        sqlite_autoincrement=True,
    )
    op.create_index(op.f("ix_ad_ad_group_id"), "ad", ["ad_group_id"])
    op.create_table(
        "spot",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("campaign_id", sa.Integer(), nullable=False),
        sa.Column("offer_id", sa.Integer(), nullable=True),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("pays", sa.String(), nullable=False),
        sa.Column("price", sa.Double(), nullable=False),
        sa.Column("showings", sa.Double(), nullable=False, server_default="0"),
        sa.Column("clicks", sa.Double(), nullable=False, server_default="0"),
        sa.Column("click_rate", sa.Double(), nullable=False, server_default="0"),
        sa.Column("sells", sa.Double(), nullable=True),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_spot_plan_id")),
        sa.ForeignKeyConstraint(["campaign_id"], ["campaign.id"], name=op.f("fk_spot_campaign_id")),
        sa.ForeignKeyConstraint(["offer_id"], ["offer.id"], name=op.f("fk_spot_offer_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_spot")),
        sa.UniqueConstraint("plan_id", "key", name="uq_spot_key"),
        sqlite_autoincrement=True,
    )
    op.create_index(op.f("ix_spot_campaign_id"), "spot", ["campaign_id"])
    op.create_index(op.f("ix_spot_offer_id"), "spot", ["offer_id"])
    op.create_table(
        "thing",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("code", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("price", sa.Double(), nullable=True),
        sa.Column("margin", sa.Double(), nullable=True),
        sa.Column("page", sa.String(), nullable=False, server_default=""),
        sa.Column("deliverable", sa.Boolean(), nullable=False, server_default="1"),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_thing_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_thing")),
        sa.UniqueConstraint("plan_id", "code", name=op.f("uq_thing_plan_id")),
        sqlite_autoincrement=True,
    )
    op.create_table(
        "shown_thing",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("ad_group_id", sa.Integer(), nullable=False),
        sa.Column("thing_id", sa.Integer(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_shown_thing_plan_id")),
        sa.ForeignKeyConstraint(
            ["ad_group_id"], ["ad_group.id"], name=op.f("fk_shown_thing_ad_group_id")
        ),
        sa.ForeignKeyConstraint(["thing_id"], ["thing.id"], name=op.f("fk_shown_thing_thing_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_shown_thing")),
        sa.UniqueConstraint("ad_group_id", "thing_id", name=op.f("uq_shown_thing_ad_group_id")),
        sqlite_autoincrement=True,
    )
    op.create_index(op.f("ix_shown_thing_thing_id"), "shown_thing", ["thing_id"])
    op.create_table(
        "negative_list",
        sa.Column("client_id", sa.Integer(), nullable=True),
        sa.Column("key", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("edition", sa.Integer(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("rows", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(
            ["client_id"], ["client.id"], name=op.f("fk_negative_list_client_id")
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_negative_list")),
        sqlite_autoincrement=True,
    )
    op.create_index(op.f("ix_negative_list_client_id"), "negative_list", ["client_id"])
    op.create_table(
        "pinned_list",
        sa.Column("plan_id", sa.Integer(), nullable=False),
        sa.Column("list_key", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("edition", sa.Integer(), nullable=False),
        sa.Column("rows", sa.JSON(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["plan_id"], ["plan.id"], name=op.f("fk_pinned_list_plan_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_pinned_list")),
        sa.UniqueConstraint("plan_id", "list_key", name=op.f("uq_pinned_list_plan_id")),
        sqlite_autoincrement=True,
    )
    op.create_table(
        "page",
        sa.Column("client_id", sa.Integer(), nullable=False),
        sa.Column("address", sa.String(), nullable=False),
        sa.Column("title", sa.String(), nullable=False),
        sa.Column("headings", sa.JSON(), nullable=False),
        sa.Column("text", sa.String(), nullable=False),
        sa.Column("at", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.ForeignKeyConstraint(["client_id"], ["client.id"], name=op.f("fk_page_client_id")),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_page")),
        sqlite_autoincrement=True,
    )
    op.create_index(op.f("ix_page_client_id"), "page", ["client_id"])
    _journals(op.get_bind())


def _journals(bind: Any) -> None:
    """Say what was written so far in the terms of the new columns, so that it can be undone."""
    for one, packed in bind.exec_driver_sql(
        "SELECT id, steps FROM journal WHERE schema = '0008'"
    ).all():
        content = b"".join(
            zlib.compress(json.dumps(_told_anew(step)).encode(), 1) for step in _steps(packed)
        )
        bind.exec_driver_sql("UPDATE journal SET steps = ?, schema = '0009' WHERE id = ?",
                             (content, one))  # fmt: skip


def _steps(packed: bytes) -> list[dict[str, Any]]:
    steps: list[dict[str, Any]] = []
    while packed:
        unpacker = zlib.decompressobj()
        found = json.loads(unpacker.decompress(packed))
        steps += found if isinstance(found, list) else [found]
        packed = unpacker.unused_data
    return steps


def _told_anew(step: dict[str, Any]) -> dict[str, Any]:
    """Give rows that are made or removed their new columns; a change of some has none of them."""
    for row in step.get("rows", ()):
        row.update(_NEW.get(step["table"], {}))
    return step
