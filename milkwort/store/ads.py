"""A plan's written ads."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.arrange.ads.text import Ad
from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store import models
from milkwort.store.journal import Change

__all__ = ["MOST_ADS", "StoredAd", "add_ads", "ads_by_group", "list_ads", "remove_ads",
           "rewrite_ads"]  # fmt: skip

MOST_ADS = 100_000
"""Ads of a plan at most."""
_OF_GROUP = 100
"""Ads of a group at most: no platform takes so many."""


@dataclass(frozen=True)
class StoredAd:
    """An ad with its id and key, and the group it is of."""

    id: int
    key: str
    group_id: int
    ad: Ad


def list_ads(session: Session, plan_id: int) -> list[StoredAd]:
    """Return a plan's ads in the order they were written."""
    a = models.Ad
    rows = session.execute(
        select(a.id, a.key, a.ad_group_id, a.headlines, a.descriptions)
        .where(a.plan_id == plan_id)
        .order_by(a.id)
    )
    return [
        StoredAd(r.id, r.key, r.ad_group_id, Ad(tuple(r.headlines), tuple(r.descriptions)))
        for r in rows
    ]


def ads_by_group(ads: Iterable[StoredAd]) -> dict[int, list[StoredAd]]:
    """Return ads by the id of their group, in their order."""
    found: dict[int, list[StoredAd]] = {}
    for one in ads:
        found.setdefault(one.group_id, []).append(one)
    return found


def add_ads(change: Change, ads: Sequence[tuple[int, Ad]]) -> list[int]:
    """Write new ads, each into the group whose id stands before it; return their ids.

    Raises
    ------
    NotFoundError
        For a group that is not in the plan.
    BadValueError
        Where a group would have more than 100 ads, or the plan more than 100,000.
    """
    held = ads_by_group(list_ads(change.session, change.plan_id))
    counts = {group: len(some) for group, some in held.items()}
    if sum(counts.values()) + len(ads) > MOST_ADS:
        raise BadValueError(
            "ads", f"at most {MOST_ADS:,} in a plan", sum(counts.values()) + len(ads)
        )
    g = models.AdGroup
    known = set(change.session.scalars(select(g.id).where(g.plan_id == change.plan_id)))
    for group_id, _ in ads:
        if group_id not in known:
            raise NotFoundError(f"There is no ad group {group_id} in this plan.", "group")
        counts[group_id] = counts.get(group_id, 0) + 1
        if counts[group_id] > _OF_GROUP:
            raise BadValueError("ads of the group", f"at most {_OF_GROUP}", counts[group_id])
    rows = [{"plan_id": change.plan_id, "ad_group_id": group_id, **_columns(ad)}
            for group_id, ad in ads]  # fmt: skip
    return change.insert(models.Ad, rows)


def rewrite_ads(change: Change, ads: Mapping[int, Ad]) -> None:
    """Write ads anew, by their ids.

    Raises
    ------
    NotFoundError
        For an ad that is not in the plan.
    """
    _check(change, ads)
    change.update(models.Ad, {i: _columns(ad) for i, ad in ads.items()})


def remove_ads(change: Change, ids: Sequence[int]) -> None:
    """Take ads out of the plan.

    Raises
    ------
    NotFoundError
        For an ad that is not in the plan.
    """
    _check(change, ids)
    change.delete(models.Ad, list(ids))


def _check(change: Change, ids: Iterable[int]) -> None:
    mine = {one.id for one in list_ads(change.session, change.plan_id)}
    for one in ids:
        if one not in mine:
            raise NotFoundError(f"There is no ad {one} in this plan.", "ad")


def _columns(ad: Ad) -> dict[str, list[str]]:
    """Return an ad's columns: spaces collapsed, empty fields at the end left out."""
    return {"headlines": _bare(ad.headlines), "descriptions": _bare(ad.descriptions)}


def _bare(texts: Sequence[str]) -> list[str]:
    bare = [" ".join(text.split()) for text in texts]
    while bare and not bare[-1]:
        bare.pop()
    return bare
