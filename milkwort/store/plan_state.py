"""All that is a plan, in one place: read whole, written whole as another plan.

Copies, files, samples and versions go through here. A table of the store with a
`plan_id` is part of a plan, or stands in `LEFT_OUT` with the reason; the same holds for
tables with a `client_id`. Nothing here names a column: a new one is carried along.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from sqlalchemy import insert, select
from sqlalchemy.orm import Session

from milkwort.core.errors import NotFoundError
from milkwort.store import models
from milkwort.store.journal import now, reserve_ids

__all__ = [
    "CLIENT_TABLES", "LEFT_OUT", "PLAN_TABLES", "PlanState", "read_client_state",
    "read_plan_state", "write_client_state", "write_plan_state",
]  # fmt: skip

Row = dict[str, Any]

PLAN_TABLES: tuple[type[models.Base], ...] = (
    models.Offer, models.Assumption, models.Campaign, models.AdGroup, models.Ad, models.Keyword,
    models.Reading, models.Call, models.Negative, models.Spot,
    models.PinnedList, models.Thing, models.ShownThing, models.SetAside,
)  # fmt: skip
"""What belongs to a plan beside its own row; what is pointed at before what points at it."""

CLIENT_TABLES: tuple[type[models.Base], ...] = (
    models.Recipe,
    models.RivalList,
    models.PastList,
    models.Page,
    models.NegativeList,
)
"""What a client owns beside its plans."""

LEFT_OUT: Mapping[type[models.Base], str] = {
    models.Plan: "the plan itself: its row is read and written beside its tables",
    models.Journal: "a plan that was copied or loaded has done nothing that could be undone",
    models.AccountSheet: "a platform’s file belongs to the plan it was brought into",
    models.HandOver: "what was sent was sent from the plan it was made in",
    models.ResultImport: "results are of the client’s account: its plans share them, others don’t",
    models.PracticeAccount: "an account stands for the plan it was opened for and its versions",
}
"""Tables of a plan or client that do not go along, and why."""

_OF_THE_ROW = (
    "id",
    "client_id",
    "version_of",
    "chosen",
    "revision",
    "created_at",
    "deleted_at",
    "closed_as",
)
"""Columns of a plan's own row that say which plan it is, not what it plans."""


@dataclass(frozen=True)
class PlanState:
    """A plan's own row and its tables, as they are stored.

    Attributes
    ----------
    plan : dict
        By column, without what says which plan it is.
    tables : dict of str to list of dict
        Rows by table and column, in the order of their ids. Ids only say what points at
        what within this state.
    """

    plan: Row
    tables: dict[str, list[Row]] = field(default_factory=dict)


def read_plan_state(session: Session, plan_id: int) -> PlanState:
    """Return all that is a plan, unchecked.

    Raises
    ------
    NotFoundError
        Where there is no such plan.
    """
    plan = models.Plan.__table__
    row = session.execute(select(plan).where(plan.c.id == plan_id)).mappings().one_or_none()
    if row is None:
        raise NotFoundError(f"There is no plan {plan_id}.", "plan")
    kept = {name: value for name, value in row.items() if name not in _OF_THE_ROW}
    return PlanState(kept, {m.__tablename__: _rows(session, m, "plan_id", plan_id)
                            for m in PLAN_TABLES})  # fmt: skip


def write_plan_state(
    session: Session, state: PlanState, *, client_id: int, version_of: int | None = None
) -> int:
    """Write a plan as a new one and return its id.

    Parameters
    ----------
    session : Session
    state : PlanState
    client_id : int
        Whose plan it becomes.
    version_of : int, optional
        The plan it is a version of.
    """
    plan_id = reserve_ids(session, "plan", 1)
    own = {"client_id": client_id, "version_of": version_of, "revision": 1,
           "chosen": 0, "created_at": now(), "deleted_at": None, "closed_as": None}  # fmt: skip
    session.execute(insert(models.Plan), [{"id": plan_id, **state.plan, **own}])
    ids: dict[str, dict[Any, int]] = {}
    for model in PLAN_TABLES:
        rows = state.tables.get(model.__tablename__, [])
        ids[model.__tablename__] = _write(session, model, rows, {"plan_id": plan_id}, ids)
    return plan_id


def read_client_state(session: Session, client_id: int) -> dict[str, list[Row]]:
    """Return what a client owns beside its plans, by table."""
    return {m.__tablename__: _rows(session, m, "client_id", client_id) for m in CLIENT_TABLES}


def write_client_state(session: Session, tables: Mapping[str, list[Row]], client_id: int) -> None:
    """Give a client what another one owned."""
    for model in CLIENT_TABLES:
        rows = tables.get(model.__tablename__, [])
        _write(session, model, rows, {"client_id": client_id}, {})


def _rows(session: Session, model: type[models.Base], column: str, owner: int) -> list[Row]:
    table = model.__table__
    mine = select(table).where(table.c[column] == owner).order_by(table.c.id)
    found = session.execute(mine).mappings()
    return [{name: value for name, value in row.items() if name != column} for row in found]


def _write(
    session: Session,
    model: type[models.Base],
    rows: list[Row],
    owner: Row,
    ids: Mapping[str, Mapping[Any, int]],
) -> dict[Any, int]:
    """Write rows under new ids, pointing at new ids, and return the new ones by the old."""
    if not rows:
        return {}
    first = reserve_ids(session, model.__tablename__, len(rows))
    points = {
        key.parent.name: key.column.table.name
        for key in model.__table__.foreign_keys
        if key.column.table.name in ids
    }
    new: dict[Any, int] = {}
    written = []
    for at, row in enumerate(rows):
        new[row["id"]] = first + at
        moved = {c: None if row[c] is None else ids[t][row[c]] for c, t in points.items()}
        written.append({**row, **owner, **moved, "id": first + at})
    session.execute(insert(model), written)
    return new
