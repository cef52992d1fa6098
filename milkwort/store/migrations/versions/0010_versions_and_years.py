"""Why a version was made and which one is the plan; methods of groups; the year's money."""

from __future__ import annotations

import json
import zlib
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None

_COUNTED = {"sqlite_autoincrement": True}
_HAVE_POLICIES = ("campaign", "ad_group")


def upgrade() -> None:
    with op.batch_alter_table("plan", recreate="always", table_kwargs=_COUNTED) as plan:
        plan.add_column(sa.Column("reason", sa.String(), nullable=False, server_default=""))
        plan.add_column(sa.Column("chosen", sa.Integer(), nullable=False, server_default="0"))
        plan.add_column(sa.Column("last_day", sa.String(), nullable=False, server_default=""))
        plan.add_column(sa.Column("year_purse", sa.String(), nullable=False, server_default="flat"))
        plan.add_column(sa.Column("year_refit", sa.Boolean(), nullable=False, server_default="0"))
        plan.add_column(sa.Column("year_months", sa.JSON(), nullable=True))
    for table in _HAVE_POLICIES:
        with op.batch_alter_table(table, recreate="always", table_kwargs=_COUNTED) as held:
            held.add_column(sa.Column("policy", sa.JSON(), nullable=True))
    _journals(op.get_bind())


def _journals(bind: Any) -> None:
    """Say what was written so far in the terms of the new columns, so that it can be undone."""
    for one, packed in bind.exec_driver_sql(
        "SELECT id, steps FROM journal WHERE schema = '0009'"
    ).all():
        content = b"".join(
            zlib.compress(json.dumps(_told_anew(step)).encode(), 1) for step in _steps(packed)
        )
        bind.exec_driver_sql("UPDATE journal SET steps = ?, schema = '0010' WHERE id = ?",
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
    """Give rows that are made or removed their new column; a change of some has none of it."""
    if step["table"] in _HAVE_POLICIES:
        for row in step.get("rows", ()):
            row["policy"] = None
    return step
