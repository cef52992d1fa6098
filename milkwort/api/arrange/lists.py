"""Arrange: named lists of negatives, a client's or of all clients, and those the plan uses."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Response
from pydantic import Field

from milkwort.api.arrange.negatives_schemas import NewNegative
from milkwort.api.gather.sold import sold_terms
from milkwort.api.http.described import Given, shape_of
from milkwort.api.http.shared import Window, Work, sent
from milkwort.api.plan.decision import Decision
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.api.plan.schemas import ChangeAnswer, Taken
from milkwort.core.arrange.negatives_at_work import negatives_at_work, without_negatives
from milkwort.core.errors import NotFoundError
from milkwort.core.words.negatives import Negative
from milkwort.store.negative_lists import (
    MOST_ROWS,
    add_list,
    edit_list,
    list_lists,
    pin_list,
    remove_list,
    unpin_list,
)

router = APIRouter(tags=["arrange"])

_NAMED = 6
_Rows = Annotated[list[NewNegative], Field(max_length=MOST_ROWS)]


class ListRow(Given):
    """A negative of a list."""

    text: str
    match: str


class ListItem(Given):
    """A list, and how the plan uses it: the edition it took, none where it doesn't."""

    id: int | None = Field(description="null for one that is gone and still used")
    name: str
    of_client: bool
    edition: int
    at: str
    rows: list[ListRow]
    pinned_id: int | None
    pinned_edition: int | None
    newer: bool
    saves: float = Field(description="money a month that its negatives would save or do save")
    hurts: list[str] = Field(description="what is kept or has sold and one of them stops")


class ListsView(Given):
    """All lists the plan may use or uses."""

    revision: int
    lists: list[ListItem]


class NewList(Taken):
    """A list to be made, for the plan's client or for all."""

    name: str = Field(min_length=1, max_length=120)
    rows: _Rows
    of_client: bool = True


class ListEdit(Taken):
    """What is set of a list; what is left out stays."""

    name: str | None = Field(default=None, max_length=120)
    rows: _Rows | None = None


@router.get("/plans/{plan_id}/arrange/lists", responses=shape_of(ListsView))
def view(plan_id: int, work: Work) -> Response:
    """Return the lists with what each would do in the plan."""
    plan = work.plan(plan_id)
    with work.database.read() as session:
        lists = list_lists(session, plan.record.client_id)
    pinned = {one.list_key: one for one in plan.record.structure.lists}
    free, sold = without_negatives(plan.result), sold_terms(work, plan)
    items = []
    for one in lists:
        used = pinned.pop(one.key, None)
        found = negatives_at_work(free, one.negatives, (), sold)
        hurts = [plan.sheet.entries[row].text for some in found for row in some.hurts]
        hurts += [text for some in found for text in some.sold]
        items.append(
            {
                "id": one.id, "name": one.name, "of_client": one.of_client, "at": one.at,
                "edition": one.edition, "rows": _rows(one.negatives),
                "pinned_id": None if used is None else used.id,
                "pinned_edition": None if used is None else used.edition,
                "newer": used is not None and used.edition != one.edition,
                "saves": sum(some.saves for some in found),
                "hurts": list(dict.fromkeys(hurts))[:_NAMED],
            }
        )  # fmt: skip
    for used in pinned.values():
        items.append(
            {"id": None, "name": used.name, "of_client": True, "at": "", "edition": used.edition,
             "rows": _rows(used.negatives), "pinned_id": used.id, "pinned_edition": used.edition,
             "newer": False, "saves": 0.0, "hurts": []}
        )  # fmt: skip
    return sent({"revision": plan.record.revision, "lists": items})


@router.post("/plans/{plan_id}/arrange/lists", responses=shape_of(ChangeAnswer))
def new(plan_id: int, body: NewList, work: Work, window: Window = "") -> Response:
    """Make a list of negatives; no plan uses it before it is taken."""
    rows = [Negative(row.text, row.match) for row in body.rows]
    made = Decision(
        f"make the list {body.name}",
        lambda c: add_list(c, body.name, rows, of_client=body.of_client),
    )
    return sent(work.change(plan_id, lambda _: made, window=window, of_client=True))


@router.post("/plans/{plan_id}/arrange/lists/{list_id}", responses=shape_of(ChangeAnswer))
def edit(plan_id: int, list_id: int, body: ListEdit, work: Work, window: Window = "") -> Response:
    """Name a list, or give it other rows; plans that use it keep what they took."""
    rows = None if body.rows is None else [Negative(r.text, r.match) for r in body.rows]
    made = Decision("change a list", lambda c: edit_list(c, list_id, body.name, rows))
    return sent(work.change(plan_id, lambda _: made, window=window, of_client=True))


@router.post("/plans/{plan_id}/arrange/lists/{list_id}/remove", responses=shape_of(ChangeAnswer))
def remove(plan_id: int, list_id: int, work: Work, window: Window = "") -> Response:
    """Let a list go; plans that use it keep what they took."""
    made = Decision("remove a list", lambda c: remove_list(c, list_id))
    return sent(work.change(plan_id, lambda _: made, window=window, of_client=True))


@router.post("/plans/{plan_id}/arrange/lists/{list_id}/use", responses=shape_of(ChangeAnswer))
def use(plan_id: int, list_id: int, work: Work, window: Window = "") -> Response:
    """Use a list in the plan as it now stands, also in the place of an older edition."""

    def decide(plan: OpenPlan) -> Decision:
        with work.database.read() as session:
            lists = {one.id: one.name for one in list_lists(session, plan.record.client_id)}
        if list_id not in lists:
            raise NotFoundError(f"There is no list {list_id} for this client.", "list")
        return Decision(f"use the list {lists[list_id]}", lambda c: pin_list(c, list_id))

    return sent(work.change(plan_id, decide, window=window))


@router.post("/plans/{plan_id}/arrange/lists/pinned/{pinned_id}/leave",
             responses=shape_of(ChangeAnswer))  # fmt: skip
def leave(plan_id: int, pinned_id: int, work: Work, window: Window = "") -> Response:
    """Use a list in the plan no longer."""
    made = Decision("leave a list", lambda c: unpin_list(c, pinned_id))
    return sent(work.change(plan_id, lambda _: made, window=window))


def _rows(negatives: tuple[Negative, ...]) -> list[dict[str, str]]:
    return [{"text": n.text, "match": n.match} for n in negatives]
