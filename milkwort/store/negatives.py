"""A plan's negative keywords."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import cast

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.words.match_types import Match
from milkwort.core.words.negatives import Level, Negative
from milkwort.core.words.texts import normalise
from milkwort.store import models
from milkwort.store.journal import Change, now
from milkwort.store.structure import load_structure

__all__ = ["WHOLE_PLAN", "Owner", "StoredNegative", "add_negatives", "list_negatives",
           "remove_negatives"]  # fmt: skip


@dataclass(frozen=True)
class Owner:
    """Where a negative acts: in one campaign, in one group, or in the whole plan."""

    campaign_id: int | None = None
    group_id: int | None = None

    @property
    def level(self) -> Level:
        """The level it acts at."""
        if self.group_id is not None:
            return "group"
        return "plan" if self.campaign_id is None else "campaign"


WHOLE_PLAN = Owner()


@dataclass(frozen=True)
class StoredNegative:
    """A negative with its id and key, where it acts, and by whom and when it was made."""

    id: int
    key: str
    text: str
    match: Match
    owner: Owner
    by: str
    at: str
    note: str = ""


def list_negatives(session: Session, plan_id: int) -> list[StoredNegative]:
    """Return a plan's negatives in the order they were made."""
    n = models.Negative
    rows = session.execute(
        select(n.id, n.key, n.text, n.match, n.campaign_id, n.ad_group_id, n.by, n.at, n.note)
        .where(n.plan_id == plan_id)
        .order_by(n.id)
    )
    return [
        StoredNegative(
            r.id, r.key, r.text, cast(Match, r.match), Owner(r.campaign_id, r.ad_group_id), r.by,
            r.at, r.note,
        )
        for r in rows
    ]  # fmt: skip


def add_negatives(
    change: Change,
    negatives: Sequence[Negative],
    by: str,
    owners: Sequence[Owner] | None = None,
    note: str = "",
) -> int:
    """Store negatives that the plan doesn't have yet; return how many.

    Parameters
    ----------
    change : Change
    negatives : sequence of Negative
        Their text and match type.
    by : str
        Who or what made them.
    owners : sequence of Owner, optional
        Where each acts; the whole plan where left out.
    note : str
        Why they stand.

    Raises
    ------
    NotFoundError
        For a campaign or group that is not in the plan.
    """
    owners = owners if owners is not None else [WHOLE_PLAN] * len(negatives)
    _check(change, set(owners))
    have = {
        (normalise(n.text), n.match, n.owner)
        for n in list_negatives(change.session, change.plan_id)
    }
    fresh: dict[tuple[str, str, Owner], Negative] = {}
    for negative, owner in zip(negatives, owners, strict=True):
        identity = (normalise(negative.text), negative.match, owner)
        if identity not in have:
            fresh.setdefault(identity, negative)
    change.insert(
        models.Negative,
        [
            {"plan_id": change.plan_id, "text": " ".join(n.text.split()), "match": n.match,
             "campaign_id": owner.campaign_id, "ad_group_id": owner.group_id, "by": by,
             "at": now(), "note": note}
            for (_, _, owner), n in fresh.items()
        ],
    )  # fmt: skip
    return len(fresh)


def remove_negatives(change: Change, ids: Sequence[int]) -> None:
    """Take negatives out of the plan."""
    mine = {stored.id for stored in list_negatives(change.session, change.plan_id)}
    change.delete(models.Negative, [i for i in ids if i in mine])


def _check(change: Change, owners: set[Owner]) -> None:
    if owners <= {WHOLE_PLAN}:
        return
    structure = load_structure(change.session, change.plan_id)
    for owner in owners:
        if owner.group_id is not None:
            structure.group(owner.group_id)
        elif owner.campaign_id is not None:
            structure.campaign(owner.campaign_id)
