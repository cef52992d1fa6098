"""A plan's spots: places to be shown that have no keyword."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.brief.spots import Pays, Spot
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.core.words.texts import normalise
from milkwort.store import models
from milkwort.store.journal import Change

__all__ = ["MOST_SPOTS", "StoredSpot", "list_spots", "put_spot", "remove_spots",
           "spots_by_code"]  # fmt: skip

MOST_SPOTS = 1000
"""Spots of a plan at most."""
_LONGEST_NAME = 200


@dataclass(frozen=True)
class StoredSpot:
    """A spot with its id and key, its campaign and its offer; `spot` has neither number."""

    id: int
    key: str
    campaign_id: int
    offer_id: int | None
    spot: Spot


def list_spots(session: Session, plan_id: int) -> list[StoredSpot]:
    """Return a plan's spots in the order they were made."""
    s = models.Spot
    rows = session.execute(
        select(s.id, s.key, s.campaign_id, s.offer_id, s.name, s.pays, s.price, s.showings,
               s.clicks, s.click_rate, s.sells)
        .where(s.plan_id == plan_id)
        .order_by(s.id)
    )  # fmt: skip
    return [
        StoredSpot(
            r.id, r.key, r.campaign_id, r.offer_id,
            Spot(r.name, cast(Pays, r.pays), r.price, r.showings, r.clicks, r.click_rate, r.sells),
        )
        for r in rows
    ]  # fmt: skip


def spots_by_code(spots: Iterable[StoredSpot]) -> dict[str, StoredSpot]:
    """Return spots by the first word of what they are called, normalised: a thing's code."""
    named = ((normalise(one.spot.name), one) for one in spots)
    return {name.split()[0]: one for name, one in named if name}


def put_spot(change: Change, values: Mapping[str, Any], spot_id: int | None = None) -> int:
    """Make a spot, or change the one named, and return its id.

    Parameters
    ----------
    change : Change
    values : mapping
        By column; of one that is there, those that change.
    spot_id : int, optional

    Raises
    ------
    NotFoundError
        For a spot, campaign or offer that is not in the plan.
    BadValueError
        For a value out of its range, or past 1,000 spots.
    """
    held = {one.id: one for one in list_spots(change.session, change.plan_id)}
    if spot_id is not None and spot_id not in held:
        raise NotFoundError(f"There is no spot {spot_id} in this plan.", "spot")
    before = {} if spot_id is None else _columns(held[spot_id])
    new = {"showings": 0.0, "clicks": 0.0, "click_rate": 0.0, "sells": None, "offer_id": None,
           **before, **values}  # fmt: skip
    new["name"] = " ".join(str(new["name"]).split())[:_LONGEST_NAME]
    Spot(new["name"], new["pays"], new["price"], new["showings"], new["clicks"],
         new["click_rate"], new["sells"])  # fmt: skip
    _check(change, models.Campaign, new["campaign_id"], "campaign")
    if new["offer_id"] is not None:
        _check(change, models.Offer, new["offer_id"], "offer")
    if spot_id is not None:
        change.update(models.Spot, {spot_id: new})
        return spot_id
    if len(held) >= MOST_SPOTS:
        raise BadValueError("spots", f"at most {MOST_SPOTS:,} in a plan", len(held) + 1)
    (made,) = change.insert(models.Spot, [{"plan_id": change.plan_id, **new}])
    return made


def remove_spots(change: Change, ids: Sequence[int]) -> None:
    """Take spots out of the plan.

    Raises
    ------
    NotFoundError
        For a spot that is not in the plan.
    """
    mine = {one.id for one in list_spots(change.session, change.plan_id)}
    for one in ids:
        if one not in mine:
            raise NotFoundError(f"There is no spot {one} in this plan.", "spot")
    change.delete(models.Spot, list(ids))


def _columns(one: StoredSpot) -> dict[str, Any]:
    s = one.spot
    return {"campaign_id": one.campaign_id, "offer_id": one.offer_id, "name": s.name,
            "pays": s.pays, "price": s.price, "showings": s.showings, "clicks": s.clicks,
            "click_rate": s.click_rate, "sells": s.sells}  # fmt: skip


def _check(change: Change, model: type[models.Base], row_id: int, what: str) -> None:
    table = model.__table__
    mine = select(table.c.id).where(table.c.id == row_id, table.c.plan_id == change.plan_id)
    if change.session.scalar(mine) is None:
        raise NotFoundError(f"There is no {what} {row_id} in this plan.", what)
