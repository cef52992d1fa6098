"""A plan as its own file, and as the rows that are stored."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

from sqlalchemy.orm import Session

from milkwort.formats.plan_document import PlanDocument
from milkwort.formats.plan_json import write_plan_json
from milkwort.store import models
from milkwort.store.plan_list import client_of
from milkwort.store.plan_state import (
    PlanState,
    read_client_state,
    read_plan_state,
)

__all__ = ["CLIENT_LISTS", "plan_file", "raw_plan"]

Row = dict[str, Any]
CLIENT_LISTS = {"recipes": "recipe", "rival_lists": "rival_list", "past_lists": "past_list",
                 "pages": "page", "negative_lists": "negative_list"}  # fmt: skip
"""What a file calls each table of a client."""

_PLAIN = {"offers": "offer", "campaigns": "campaign", "pinned_lists": "pinned_list",
          "things": "thing", "set_aside": "set_aside"}  # fmt: skip
"""Tables of a plan that point at nothing, by what a file calls them."""
_IDS = ("id", "campaign_id", "ad_group_id", "offer_id", "thing_id", "keyword_id")
"""What rows are known by where they are stored, and nowhere else."""


def plan_file(session: Session, plan_id: int) -> bytes:
    """Return a plan with all that belongs to it as JSON that loads back to an equal plan.

    Raises
    ------
    BadValueError
        Where what is stored makes no plan: `raw_plan` takes that too.
    """
    state = read_plan_state(session, plan_id)
    client_id = client_of(session, plan_id)
    client = session.get_one(models.Client, client_id)
    owned = read_client_state(session, client_id)
    told = _Told(state)
    document = PlanDocument.model_validate({
        "client": {"name": client.name} | {
            name: [_without(row, "id") for row in owned[table]]
            for name, table in CLIENT_LISTS.items()
        },
        "plan": state.plan,
        **{name: told.rows(table) for name, table in _PLAIN.items()},
        "assumptions": {row["name"]: row["value"] for row in state.tables["assumption"]},
        "groups": told.rows("ad_group", campaign=told.campaign),
        "ads": told.rows("ad", group=told.group),
        "keywords": told.keywords(),
        "negatives": told.rows("negative", campaign=told.campaign, group=told.group),
        "shown_things": told.rows("shown_thing", group=told.group, thing=told.thing),
        "spots": told.rows("spot", campaign=told.campaign, offer=told.offer),
    })  # fmt: skip
    return write_plan_json(document)


class _Told:
    """Rows of a plan as its file tells them: by keys, codes and numbers in place of ids."""

    def __init__(self, state: PlanState) -> None:
        self._tables = state.tables
        self._campaigns = {row["id"]: row["key"] for row in state.tables["campaign"]}
        self._groups = {row["id"]: row["key"] for row in state.tables["ad_group"]}
        self._things: dict[int, str] = {row["id"]: row["code"] for row in state.tables["thing"]}
        self._offers = {row["id"]: at for at, row in enumerate(state.tables["offer"], start=1)}

    def campaign(self, row: Row) -> str | None:
        """Return the key of a row's campaign; None where it has none."""
        return self._campaigns.get(row["campaign_id"])

    def group(self, row: Row) -> str | None:
        """Return the key of a row's ad group; None where it has none."""
        return self._groups.get(row["ad_group_id"])

    def thing(self, row: Row) -> str:
        """Return the code of a row's thing."""
        return self._things[row["thing_id"]]

    def offer(self, row: Row) -> int | None:
        """Return the number of a row's offer; None for the first, unsaid."""
        return self._offers.get(row["offer_id"])

    def rows(self, table: str, **pointing: Callable[[Row], Any]) -> list[Row]:
        """Return a table's rows without ids, with what they point at as it is told."""
        return [
            _without(row, *_IDS) | {name: said(row) for name, said in pointing.items()}
            for row in self._tables[table]
        ]

    def keywords(self) -> list[Row]:
        """Return the keywords, each with its readings and its call."""
        readings, calls = _by_keyword(self._tables["reading"]), _by_keyword(self._tables["call"])
        told = self.rows("keyword", group=self.group, offer=self.offer)
        for row, keyword in zip(self._tables["keyword"], told, strict=True):
            del keyword["normalised"]
            keyword["readings"] = readings.get(row["id"], [])
            keyword["call"] = next(iter(calls.get(row["id"], [])), None)
        return told


def raw_plan(session: Session, plan_id: int) -> bytes:
    """Return the rows of a plan as they are stored, whatever stands in them, as JSON."""
    state = read_plan_state(session, plan_id)
    owned = read_client_state(session, client_of(session, plan_id))
    tree = {"format": "milkwort-rows-1", "plan": state.plan, **state.tables, **owned}
    return json.dumps(tree, indent=1).encode("ascii")


def _by_keyword(rows: list[Row]) -> dict[int, list[Row]]:
    found: dict[int, list[Row]] = {}
    for row in rows:
        found.setdefault(row["keyword_id"], []).append(_without(row, *_IDS))
    return found


def _without(row: Row, *names: str) -> Row:
    return {name: value for name, value in row.items() if name not in names}
