"""Campaigns with an area and hours of their own; notes; fields that nobody entered by that name."""

from __future__ import annotations

import json
import zlib
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0008"
down_revision = "0007"
branch_labels = None
depends_on = None

_COUNTED = {"sqlite_autoincrement": True}
_NEW: dict[str, dict[str, Any]] = {
    "campaign": {"area_share": None, "showing": None, "note": ""},
    "negative": {"note": ""},
}
"""What rows that are already there have in the new columns."""


def upgrade() -> None:
    with op.batch_alter_table("campaign", recreate="always", table_kwargs=_COUNTED) as campaign:
        campaign.add_column(sa.Column("area_share", sa.Double(), nullable=True))
        campaign.add_column(sa.Column("showing", sa.JSON(), nullable=True))
        campaign.add_column(sa.Column("note", sa.String(), nullable=False, server_default=""))
    with op.batch_alter_table("negative", recreate="always", table_kwargs=_COUNTED) as negative:
        negative.add_column(sa.Column("note", sa.String(), nullable=False, server_default=""))
    with op.batch_alter_table("plan", recreate="always", table_kwargs=_COUNTED) as plan:
        plan.alter_column("unsaid", new_column_name="not_entered")
    _journals(op.get_bind())


def _journals(bind: Any) -> None:
    """Say what was written so far in the terms of the new columns, so that it can be undone."""
    for one, packed in bind.exec_driver_sql(
        "SELECT id, steps FROM journal WHERE schema = '0007'"
    ).all():
        content = b"".join(
            zlib.compress(json.dumps(_told_anew(step)).encode(), 1) for step in _steps(packed)
        )
        bind.exec_driver_sql("UPDATE journal SET steps = ?, schema = '0008' WHERE id = ?",
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
    for part in ("rows", "before", "after"):
        for row in step.get(part, ()):
            if step["table"] == "plan" and "unsaid" in row:
                row["not_entered"] = row.pop("unsaid")
            if part == "rows":
                row.update(_NEW.get(step["table"], {}))
    return step
