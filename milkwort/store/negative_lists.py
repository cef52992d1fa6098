"""Named lists of negatives, of a client or for all; a plan uses one as it was when taken."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import or_, select
from sqlalchemy.orm import Session

from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.core.words.negatives import Negative
from milkwort.core.words.texts import MAX_TEXT, normalise
from milkwort.store import models
from milkwort.store.journal import Change, now

__all__ = [
    "MOST_ROWS", "NegativeList", "Pinned", "add_list", "edit_list", "list_lists", "pin_list",
    "pinned_lists", "remove_list", "unpin_list",
]  # fmt: skip

MOST_ROWS = 10_000
"""Negatives of a list at most."""
_MOST_LISTS = 200
_LONGEST_NAME = 120


@dataclass(frozen=True)
class NegativeList:
    """A list as it now stands; `of_client` is False for one of all clients."""

    id: int
    key: str
    name: str
    of_client: bool
    edition: int
    at: str
    negatives: tuple[Negative, ...]


@dataclass(frozen=True)
class Pinned:
    """A list as a plan uses it: the edition it was taken at, and what that held."""

    id: int
    list_key: str
    name: str
    edition: int
    negatives: tuple[Negative, ...]


def list_lists(session: Session, client_id: int) -> list[NegativeList]:
    """Return the lists a client may use, its own first."""
    n = models.NegativeList
    rows = session.scalars(
        select(n).where(or_(n.client_id == client_id, n.client_id.is_(None)))
        .order_by(n.client_id.is_(None), n.id),
        execution_options={"populate_existing": True},
    )  # fmt: skip
    return [
        NegativeList(r.id, r.key, r.name, r.client_id is not None, r.edition, r.at, _read(r.rows))
        for r in rows
    ]


def pinned_lists(session: Session, plan_id: int) -> list[Pinned]:
    """Return the lists a plan uses, in the order they were taken."""
    p = models.PinnedList
    rows = session.execute(
        select(p.id, p.list_key, p.name, p.edition, p.rows)
        .where(p.plan_id == plan_id).order_by(p.id)
    )  # fmt: skip
    return [Pinned(r.id, r.list_key, r.name, r.edition, _read(r.rows)) for r in rows]


def add_list(change: Change, name: str, negatives: Sequence[Negative], *, of_client: bool) -> int:
    """Make a list and return its id.

    Raises
    ------
    BadValueError
        For a name that is empty, too long or taken; for a text without words; past the limits.
    """
    client_id = _client_of(change)
    held = list_lists(change.session, client_id)
    if len(held) >= _MOST_LISTS:
        raise BadValueError("lists", f"at most {_MOST_LISTS}", len(held) + 1)
    row = {"client_id": client_id if of_client else None, "name": _name(name, held),
           "edition": 1, "at": now(), "rows": _written(negatives)}  # fmt: skip
    (made,) = change.insert(models.NegativeList, [row])
    return made


def edit_list(
    change: Change, list_id: int, name: str | None, negatives: Sequence[Negative] | None
) -> None:
    """Call a list something else, or give it other rows, which makes a new edition.

    Raises
    ------
    NotFoundError
        For a list that the client may not use.
    BadValueError
        As `add_list`.
    """
    held = list_lists(change.session, _client_of(change))
    one = _of(held, list_id)
    values: dict[str, Any] = {}
    if name is not None:
        values["name"] = _name(name, [other for other in held if other.id != list_id])
    if negatives is not None and _read(_written(negatives)) != one.negatives:
        values |= {"rows": _written(negatives), "edition": one.edition + 1, "at": now()}
    change.update(models.NegativeList, {list_id: values})


def remove_list(change: Change, list_id: int) -> None:
    """Let a list go; plans that use it keep what they took.

    Raises
    ------
    NotFoundError
        For a list that the client may not use.
    """
    _of(list_lists(change.session, _client_of(change)), list_id)
    change.delete(models.NegativeList, [list_id])


def pin_list(change: Change, list_id: int) -> None:
    """Use a list in the plan as it now stands; one that is used is taken anew.

    Raises
    ------
    NotFoundError
        For a list that the client may not use.
    """
    one = _of(list_lists(change.session, _client_of(change)), list_id)
    rows = _written(one.negatives)
    values = {"list_key": one.key, "name": one.name, "edition": one.edition, "rows": rows}
    there = next((p for p in pinned_lists(change.session, change.plan_id)
                  if p.list_key == one.key), None)  # fmt: skip
    if there is not None:
        change.update(models.PinnedList, {there.id: values})
    else:
        change.insert(models.PinnedList, [{"plan_id": change.plan_id, **values}])


def unpin_list(change: Change, pinned_id: int) -> None:
    """Use a list in the plan no longer.

    Raises
    ------
    NotFoundError
        For one that the plan does not use.
    """
    if pinned_id not in [p.id for p in pinned_lists(change.session, change.plan_id)]:
        raise NotFoundError(f"There is no list {pinned_id} in this plan.", "list")
    change.delete(models.PinnedList, [pinned_id])


def _client_of(change: Change) -> int:
    found = change.session.scalar(
        select(models.Plan.client_id).where(models.Plan.id == change.plan_id)
    )
    if found is None:
        raise NotFoundError(f"There is no plan {change.plan_id}.", "plan")
    return found


def _of(lists: Sequence[NegativeList], list_id: int) -> NegativeList:
    for one in lists:
        if one.id == list_id:
            return one
    raise NotFoundError(f"There is no list {list_id} for this client.", "list")


def _name(name: str, beside: Sequence[NegativeList]) -> str:
    bare = " ".join(name.split())
    if not 1 <= len(bare) <= _LONGEST_NAME:
        raise BadValueError("name", f"a name of 1 to {_LONGEST_NAME} characters", name)
    if bare in [one.name for one in beside]:
        raise BadValueError("name", "one that no other list has", bare)
    return bare


def _written(negatives: Sequence[Negative]) -> list[dict[str, str]]:
    rows = {}
    for n in negatives:
        text = " ".join(n.text.split())
        if not normalise(text) or len(text) > MAX_TEXT:
            raise BadValueError("negative", "a text with at least one word", n.text)
        rows[normalise(text), n.match] = {"text": text, "match": n.match}
    if len(rows) > MOST_ROWS:
        raise BadValueError("list", f"at most {MOST_ROWS:,} negatives", len(rows))
    return list(rows.values())


def _read(rows: Sequence[dict[str, Any]]) -> tuple[Negative, ...]:
    return tuple(Negative(row["text"], row["match"]) for row in rows)
