"""Clients; ids never used twice; keys; what points at something does so by id."""

from __future__ import annotations

import datetime
import json
import zlib
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None

_KEYED = {"campaign": "c", "ad_group": "g", "keyword": "k", "negative": "n"}
_OF_CLIENT = ("recipe", "rival_list", "past_list")
_TABLES = ("plan", "offer", "assumption", "campaign", "ad_group", "keyword", "reading", "call",
           "negative", *_OF_CLIENT, "file_shape", "journal", "hand_over")  # fmt: skip
_COUNTED = {"sqlite_autoincrement": True}


def upgrade() -> None:
    bind = op.get_bind()
    op.create_table(
        "client",
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("created_at", sa.String(), nullable=False),
        sa.Column("id", sa.Integer(), nullable=False),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_client")),
        **_COUNTED,
    )
    # every plan there is gets a client of its own, of its id and name
    bind.exec_driver_sql("INSERT INTO client (id, name, created_at) "
                         "SELECT id, name, created_at FROM plan")  # fmt: skip
    _plans(bind)
    _groups(bind)
    _keywords(bind)
    _negatives(bind)
    for name in _OF_CLIENT:
        with op.batch_alter_table(name, recreate="always", table_kwargs=_COUNTED) as table:
            table.add_column(sa.Column("client_id", sa.Integer(), nullable=True))
            table.drop_index(op.f(f"ix_{name}_plan_id"))
        bind.exec_driver_sql(f"UPDATE {name} SET client_id = plan_id")
        with op.batch_alter_table(name, recreate="always", table_kwargs=_COUNTED) as table:
            table.drop_column("plan_id")
            table.alter_column("client_id", nullable=False)
            if name == "past_list":
                table.alter_column("days", type_=sa.Double())
            table.create_foreign_key(op.f(f"fk_{name}_client_id"), "client", ["client_id"], ["id"])
            table.create_index(op.f(f"ix_{name}_client_id"), ["client_id"])
    with op.batch_alter_table("journal", recreate="always", table_kwargs=_COUNTED) as journal:
        journal.add_column(sa.Column("schema", sa.String(), nullable=False, server_default="0005"))
        journal.add_column(sa.Column("under_way", sa.Boolean(), nullable=False, server_default="0"))
    for name in ("offer", "assumption", "reading", "call", "file_shape", "hand_over"):
        with op.batch_alter_table(name, recreate="always", table_kwargs=_COUNTED):
            pass
    _journals(bind)
    with op.batch_alter_table("journal", recreate="always", table_kwargs=_COUNTED) as journal:
        journal.alter_column("schema", server_default=None)


def _plans(bind: Any) -> None:
    with op.batch_alter_table("plan", recreate="always", table_kwargs=_COUNTED) as plan:
        plan.add_column(sa.Column("client_id", sa.Integer(), nullable=True))
        plan.add_column(sa.Column("version_of", sa.Integer(), nullable=True))
        plan.add_column(sa.Column("label", sa.String(), nullable=False, server_default=""))
        plan.add_column(sa.Column("start_date", sa.String(), nullable=True))
        plan.add_column(sa.Column("cap_clicks", sa.Double(), nullable=True))
        plan.add_column(sa.Column("odd_step", sa.Boolean(), nullable=False, server_default="0"))
    for one, month, made in bind.exec_driver_sql(
        "SELECT id, start_month, created_at FROM plan"
    ).all():
        bind.exec_driver_sql("UPDATE plan SET client_id = ?, start_date = ? WHERE id = ?",
                             (one, _first_day(month, made), one))  # fmt: skip
    with op.batch_alter_table("plan", recreate="always", table_kwargs=_COUNTED) as plan:
        plan.drop_column("start_month")
        plan.alter_column("client_id", nullable=False)
        plan.alter_column("start_date", nullable=False)
        plan.create_foreign_key(op.f("fk_plan_client_id"), "client", ["client_id"], ["id"])
        plan.create_foreign_key(op.f("fk_plan_version_of"), "plan", ["version_of"], ["id"])
        plan.create_index(op.f("ix_plan_client_id"), ["client_id"])


def _first_day(month: int, made: str) -> str:
    """Return the first day of a month, the next one to come when the plan was made."""
    day = datetime.date.fromisoformat(made[:10])
    return datetime.date(day.year + (month < day.month), month, 1).isoformat()


def _groups(bind: Any) -> None:
    with op.batch_alter_table("campaign", recreate="always", table_kwargs=_COUNTED) as campaign:
        campaign.add_column(sa.Column("key", sa.String(), nullable=True))
        campaign.add_column(
            sa.Column("least_spend", sa.Double(), nullable=False, server_default="0")
        )
        campaign.add_column(sa.Column("most_spend", sa.Double(), nullable=True))
        campaign.add_column(sa.Column("scouting_share", sa.Double(), nullable=True))
        campaign.drop_index(op.f("ix_campaign_plan_id"))
    with op.batch_alter_table("ad_group", recreate="always", table_kwargs=_COUNTED) as group:
        group.add_column(sa.Column("key", sa.String(), nullable=True))
        group.drop_index(op.f("ix_ad_group_plan_id"))
        group.drop_index(op.f("ix_ad_group_campaign_id"))
    for name, first in (("campaign", "plan_id"), ("ad_group", "campaign_id")):
        bind.exec_driver_sql(f"UPDATE {name} SET key = '{_KEYED[name]}' || id")
        with op.batch_alter_table(name, recreate="always", table_kwargs=_COUNTED) as table:
            table.alter_column("key", nullable=False)
            table.create_unique_constraint(op.f(f"uq_{name}_{first}"), [first, "name"])
            table.create_unique_constraint(f"uq_{name}_key", ["plan_id", "key"])


def _keywords(bind: Any) -> None:
    with op.batch_alter_table("keyword", recreate="always", table_kwargs=_COUNTED) as keyword:
        keyword.add_column(sa.Column("key", sa.String(), nullable=True))
        keyword.add_column(sa.Column("last_cpc", sa.Double(), nullable=True))
        keyword.add_column(sa.Column("offer_id", sa.Integer(), nullable=True))
    bind.exec_driver_sql("UPDATE keyword SET key = 'k' || id")
    bind.exec_driver_sql(
        "UPDATE keyword SET offer_id = (SELECT min(o.id) FROM offer o "
        "WHERE o.plan_id = keyword.plan_id AND o.name = keyword.offer) WHERE offer <> ''"
    )
    with op.batch_alter_table("keyword", recreate="always", table_kwargs=_COUNTED) as keyword:
        keyword.drop_column("offer")
        keyword.alter_column("key", nullable=False)
        keyword.create_unique_constraint("uq_keyword_key", ["plan_id", "key"])
        keyword.create_foreign_key(op.f("fk_keyword_offer_id"), "offer", ["offer_id"], ["id"])
        keyword.create_index(op.f("ix_keyword_offer_id"), ["offer_id"])


def _negatives(bind: Any) -> None:
    with op.batch_alter_table("negative", recreate="always", table_kwargs=_COUNTED) as negative:
        negative.add_column(sa.Column("key", sa.String(), nullable=True))
        negative.add_column(sa.Column("campaign_id", sa.Integer(), nullable=True))
        negative.add_column(sa.Column("ad_group_id", sa.Integer(), nullable=True))
        negative.drop_index(op.f("ix_negative_plan_id"))
    bind.exec_driver_sql("UPDATE negative SET key = 'n' || id")
    for one, plan, level, owner in bind.exec_driver_sql(
        "SELECT id, plan_id, level, owner FROM negative WHERE level <> 'plan'"
    ).all():
        campaign, group = _owner(bind, plan, level, owner)
        bind.exec_driver_sql("UPDATE negative SET campaign_id = ?, ad_group_id = ? WHERE id = ?",
                             (campaign, group, one))  # fmt: skip
    with op.batch_alter_table("negative", recreate="always", table_kwargs=_COUNTED) as negative:
        negative.drop_column("level")
        negative.drop_column("owner")
        negative.alter_column("key", nullable=False)
        negative.create_unique_constraint("uq_negative_key", ["plan_id", "key"])
        for column, other in (("campaign_id", "campaign"), ("ad_group_id", "ad_group")):
            negative.create_foreign_key(op.f(f"fk_negative_{column}"), other, [column], ["id"])
            negative.create_index(op.f(f"ix_negative_{column}"), [column])


def _owner(bind: Any, plan: int, level: str, name: str) -> tuple[int | None, int | None]:
    """Return the campaign or group of a name; one that is gone is made again, empty."""
    table = "campaign" if level == "campaign" else "ad_group"
    found = bind.exec_driver_sql(
        f"SELECT id FROM {table} WHERE plan_id = ? AND name = ? ORDER BY id", (plan, name)
    ).scalar()
    if found is None and level == "campaign":
        found = _made(bind, "campaign", {"plan_id": plan, "name": name})
    elif found is None:
        campaign = bind.exec_driver_sql(
            "SELECT id FROM campaign WHERE plan_id = ? ORDER BY id", (plan,)
        ).scalar() or _made(bind, "campaign", {"plan_id": plan, "name": "Search"})
        row = {"plan_id": plan, "campaign_id": campaign, "name": name}
        found = _made(bind, "ad_group", row)
    return (found, None) if level == "campaign" else (None, found)


def _made(bind: Any, table: str, row: dict[str, Any]) -> int:
    names = ", ".join(row)
    marks = ", ".join("?" * len(row))
    made = bind.exec_driver_sql(
        f"INSERT INTO {table} ({names}, key) VALUES ({marks}, '') RETURNING id",
        tuple(row.values()),
    ).scalar()
    bind.exec_driver_sql(f"UPDATE {table} SET key = '{_KEYED[table]}' || id WHERE id = ?", (made,))
    return int(made)


def _journals(bind: Any) -> None:
    """Say what was written so far in the terms of the new tables, so that it can be undone.

    A change that can't be said in them, and all before it, stays under the old revision:
    there undo ends. Ids that any of it speaks of are never given away again.
    """
    highest = dict.fromkeys(_TABLES, 0)
    ended: set[int] = set()
    for one, plan, undone, packed in bind.exec_driver_sql(
        "SELECT id, plan_id, undone, steps FROM journal ORDER BY id DESC"
    ).all():
        steps = json.loads(zlib.decompress(packed))
        for step in steps:
            for row in step.get("rows", step.get("after", [])):
                highest[step["table"]] = max(highest[step["table"]], row["id"])
        if plan in ended:
            continue
        try:
            told = [s for step in steps if (s := _told_anew(bind, plan, step)) is not None]
        except (KeyError, TypeError, ValueError):
            if not undone:
                ended.add(plan)
            continue
        content = b"".join(zlib.compress(json.dumps(s).encode(), 1) for s in told)
        bind.exec_driver_sql("UPDATE journal SET steps = ?, schema = '0006' WHERE id = ?",
                             (content, one))  # fmt: skip
    for name, most in highest.items():
        there = bind.exec_driver_sql(f"SELECT max(id) FROM {name}").scalar() or 0
        bind.exec_driver_sql("DELETE FROM sqlite_sequence WHERE name = ?", (name,))
        bind.exec_driver_sql("INSERT INTO sqlite_sequence VALUES (?, ?)",
                             (name, max(there, most)))  # fmt: skip


def _told_anew(bind: Any, plan: int, step: dict[str, Any]) -> dict[str, Any] | None:
    table, anew = step["table"], dict(step)
    for part in ("rows", "before", "after"):
        if part in step:
            whole = part == "rows"
            anew[part] = [_row_anew(bind, plan, table, dict(row), whole) for row in step[part]]
    if step["op"] == "update" and all(len(row) <= 1 for row in anew["after"]):
        return None
    return anew


def _row_anew(bind: Any, plan: int, table: str, row: dict[str, Any], whole: bool) -> dict[str, Any]:
    if whole and table in _KEYED:
        row["key"] = f"{_KEYED[table]}{row['id']}"
    if table == "plan" and "start_month" in row:
        made = bind.exec_driver_sql("SELECT created_at FROM plan WHERE id = ?", (plan,)).scalar()
        row["start_date"] = _first_day(row.pop("start_month"), made)
    if table == "campaign" and whole:
        row |= {"least_spend": 0.0, "most_spend": None, "scouting_share": None}
    if table == "keyword" and whole:
        row["last_cpc"] = None
    if table == "keyword" and "offer" in row:
        name = row.pop("offer")
        row["offer_id"] = (name and bind.exec_driver_sql(
            "SELECT min(id) FROM offer WHERE plan_id = ? AND name = ?", (plan, name)
        ).scalar()) or None  # fmt: skip
    if table == "negative":
        level, owner = row.pop("level", "plan"), row.pop("owner", "")
        if whole:
            ends: tuple[int | None, int | None] = (None, None)
            if level != "plan":
                ends = _once_owner(bind, plan, row["id"], level, owner)
            row["campaign_id"], row["ad_group_id"] = ends
    if table in _OF_CLIENT and whole:
        row["client_id"] = row.pop("plan_id")
    return row


def _once_owner(
    bind: Any, plan: int, negative: int, level: str, name: str
) -> tuple[int | None, int | None]:
    """Return where a negative of the journal acts, which may be called otherwise by now.

    Raises
    ------
    KeyError
        Where nobody can say.
    """
    there = bind.exec_driver_sql(
        "SELECT campaign_id, ad_group_id FROM negative WHERE id = ?", (negative,)
    ).first()
    if there is not None:
        return (there[0], there[1])
    table = "campaign" if level == "campaign" else "ad_group"
    found = bind.exec_driver_sql(
        f"SELECT id FROM {table} WHERE plan_id = ? AND name = ? ORDER BY id", (plan, name)
    ).scalar()
    known = _names_once(bind, plan, table) if found is None else {name: found}
    return (known[name], None) if level == "campaign" else (None, known[name])


def _names_once(bind: Any, plan: int, table: str) -> dict[str, int]:
    """Return the ids of all names that campaigns or groups of a plan ever had."""
    found: dict[str, int] = {}
    for (packed,) in bind.exec_driver_sql(
        "SELECT steps FROM journal WHERE plan_id = ? AND schema = '0005'", (plan,)
    ).all():
        for step in json.loads(zlib.decompress(packed)):
            if step["table"] == table:
                rows = [*step.get("rows", ()), *step.get("before", ()), *step.get("after", ())]
                found |= {row["name"]: row["id"] for row in rows if "name" in row}
    return found
