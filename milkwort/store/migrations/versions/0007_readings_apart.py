"""Searches and prices from different readings; volumes that count showings; popularity."""

from __future__ import annotations

import json
import zlib
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None

_COUNTED = {"sqlite_autoincrement": True}


def upgrade() -> None:
    with op.batch_alter_table("keyword", recreate="always", table_kwargs=_COUNTED) as keyword:
        keyword.add_column(sa.Column("popularity", sa.Double(), nullable=True))
    with op.batch_alter_table("reading", recreate="always", table_kwargs=_COUNTED) as reading:
        reading.add_column(sa.Column("shown_at_bid", sa.Double(), nullable=True))
        reading.add_column(
            sa.Column("prices_in_use", sa.Boolean(), nullable=False, server_default="0")
        )
    bind = op.get_bind()
    bind.exec_driver_sql("UPDATE reading SET prices_in_use = in_use")
    with op.batch_alter_table("reading", recreate="always", table_kwargs=_COUNTED) as reading:
        reading.alter_column("prices_in_use", server_default=None)
    _journals(bind)


def _journals(bind: Any) -> None:
    """Say what was written so far in the terms of the new columns, so that it can be undone."""
    for one, packed in bind.exec_driver_sql(
        "SELECT id, steps FROM journal WHERE schema = '0006'"
    ).all():
        content = b"".join(
            zlib.compress(json.dumps(_told_anew(step)).encode(), 1) for step in _steps(packed)
        )
        bind.exec_driver_sql("UPDATE journal SET steps = ?, schema = '0007' WHERE id = ?",
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
            if step["table"] == "reading" and "in_use" in row:
                row["prices_in_use"] = row["in_use"]
            if part == "rows" and step["table"] == "reading":
                row["shown_at_bid"] = None
            if part == "rows" and step["table"] == "keyword":
                row["popularity"] = None
    return step
