"""The things a plan sells, and which group shows which."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import asdict, dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.arrange.things import Thing
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store import models
from milkwort.store.journal import Change

__all__ = ["MOST_THINGS", "StoredThing", "list_things", "put_things", "remove_things",
           "show_things", "shown_things"]  # fmt: skip

MOST_THINGS = 50_000
"""Things of a plan at most."""


@dataclass(frozen=True)
class StoredThing:
    """A thing with its id."""

    id: int
    thing: Thing


def list_things(session: Session, plan_id: int) -> list[StoredThing]:
    """Return a plan's things in the order they came."""
    t = models.Thing
    rows = session.execute(
        select(t.id, t.code, t.name, t.price, t.margin, t.page, t.deliverable)
        .where(t.plan_id == plan_id)
        .order_by(t.id)
    )
    return [StoredThing(row[0], Thing(*row[1:])) for row in rows]


def shown_things(session: Session, plan_id: int) -> list[tuple[int, int]]:
    """Return the ids of the group and of the thing, for each thing that a group shows."""
    s = models.ShownThing
    rows = session.execute(
        select(s.ad_group_id, s.thing_id).where(s.plan_id == plan_id).order_by(s.id)
    )
    return [(row[0], row[1]) for row in rows]


def put_things(change: Change, things: Sequence[Thing]) -> list[int]:
    """Keep things; one whose code is there is changed. Return their ids.

    Raises
    ------
    BadValueError
        Past 50,000 things.
    """
    held = {one.thing.code: one for one in list_things(change.session, change.plan_id)}
    by_code = {thing.code: thing for thing in things}
    known = {held[code].id: asdict(thing) for code, thing in by_code.items() if code in held}
    fresh = [thing for code, thing in by_code.items() if code not in held]
    if len(held) + len(fresh) > MOST_THINGS:
        raise BadValueError("things", f"at most {MOST_THINGS:,}", len(held) + len(fresh))
    change.update(models.Thing, known)
    rows = [{"plan_id": change.plan_id, **asdict(thing)} for thing in fresh]
    made = dict(zip((t.code for t in fresh), change.insert(models.Thing, rows), strict=True))
    return [held[code].id if code in held else made[code] for code in by_code]


def remove_things(change: Change, ids: Sequence[int]) -> None:
    """Let things go, also from the groups that show them.

    Raises
    ------
    NotFoundError
        For a thing that is not in the plan.
    """
    _check(change, ids)
    s = models.ShownThing
    shown = change.session.scalars(
        select(s.id).where(s.plan_id == change.plan_id, s.thing_id.in_(list(ids)))
    )
    change.delete(s, list(shown))
    change.delete(models.Thing, list(ids))


def show_things(change: Change, group_id: int, ids: Sequence[int]) -> None:
    """Say which things a group shows, and no others.

    Raises
    ------
    NotFoundError
        For a group or a thing that is not in the plan.
    """
    g, s = models.AdGroup, models.ShownThing
    mine = select(g.id).where(g.id == group_id, g.plan_id == change.plan_id)
    if change.session.scalar(mine) is None:
        raise NotFoundError(f"There is no ad group {group_id} in this plan.", "group")
    _check(change, ids)
    rows = change.session.execute(select(s.id, s.thing_id).where(s.ad_group_id == group_id))
    held = {row.thing_id: row.id for row in rows}
    wanted = list(dict.fromkeys(ids))
    change.delete(s, [held[thing] for thing in held if thing not in wanted])
    change.insert(s, [
        {"plan_id": change.plan_id, "ad_group_id": group_id, "thing_id": thing}
        for thing in wanted if thing not in held
    ])  # fmt: skip


def _check(change: Change, ids: Sequence[int]) -> None:
    t = models.Thing
    mine = set(change.session.scalars(select(t.id).where(t.plan_id == change.plan_id)))
    for one in ids:
        if one not in mine:
            raise NotFoundError(f"There is no thing {one} in this plan.", "thing")
