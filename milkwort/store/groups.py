"""Campaigns and ad groups: what there is, what they are called, who is in them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.core.errors import BadValueError, NotFoundError
from milkwort.store import models
from milkwort.store.journal import Change

__all__ = ["GroupRecord", "Placement", "edit_group", "list_groups", "place_keywords"]

_LONGEST_NAME = 120
_LONGEST_PAGE = 2048


@dataclass(frozen=True)
class GroupRecord:
    """One ad group as stored."""

    id: int
    name: str
    campaign: str
    page: str


@dataclass(frozen=True)
class Placement:
    """Keywords by id that belong into a group of a campaign, both by name."""

    campaign: str
    group: str
    ids: Sequence[int]


def list_groups(session: Session, plan_id: int) -> list[GroupRecord]:
    """Return a plan's ad groups, campaign by campaign, in the order they were made."""
    g, c = models.AdGroup, models.Campaign
    rows = session.execute(
        select(g.id, g.name, c.name.label("campaign"), g.landing_page)
        .join(c, c.id == g.campaign_id)
        .where(g.plan_id == plan_id)
        .order_by(c.id, g.id)
    )
    return [GroupRecord(r.id, r.name, r.campaign, r.landing_page) for r in rows]


def edit_group(
    change: Change, group_id: int, *, name: str | None = None, page: str | None = None
) -> None:
    """Call a group something else, or say where its ads lead.

    Raises
    ------
    NotFoundError
        Where the plan has no such group.
    BadValueError
        For a name that is empty, too long or taken; for a page that is too long.
    """
    known = {g.id: g for g in list_groups(change.session, change.plan_id)}
    if group_id not in known:
        raise NotFoundError(f"There is no ad group {group_id}.", "group")
    if page is not None:
        if len(page.strip()) > _LONGEST_PAGE:
            raise BadValueError("page", f"an address of at most {_LONGEST_PAGE} characters", page)
        change.update(models.AdGroup, {group_id: {"landing_page": page.strip()}})
    if name is None:
        return
    bare = " ".join(name.split())
    taken = {g.name for g in known.values() if g.id != group_id}
    if not 1 <= len(bare) <= _LONGEST_NAME or bare in taken:
        expected = f"a name of 1 to {_LONGEST_NAME} characters that no other group has"
        raise BadValueError("name", expected, name)
    change.update(models.AdGroup, {group_id: {"name": bare}})
    _rename_owner(change, known[group_id].name, bare)


def place_keywords(change: Change, placements: Sequence[Placement]) -> None:
    """Put keywords into groups, made where they are missing; groups left empty go.

    A group whose name stands already, in whatever campaign, moves to the campaign named.
    """
    campaigns = _campaigns(change, [p.campaign for p in placements])
    known = {g.name: g for g in list_groups(change.session, change.plan_id)}
    new = [p for p in placements if p.group not in known]
    made = change.insert(
        models.AdGroup,
        [{"plan_id": change.plan_id, "campaign_id": campaigns[p.campaign], "name": p.group,
          "landing_page": ""} for p in new],
    )  # fmt: skip
    ids = {g.name: g.id for g in known.values()} | {
        p.group: i for p, i in zip(new, made, strict=True)
    }
    change.update(
        models.AdGroup,
        {ids[p.group]: {"campaign_id": campaigns[p.campaign]} for p in placements},
    )
    change.update(
        models.Keyword,
        {i: {"ad_group_id": ids[p.group]} for p in placements for i in p.ids},
    )
    _drop_empty(change)


def _campaigns(change: Change, names: Sequence[str]) -> dict[str, int]:
    c = models.Campaign
    rows = change.session.execute(select(c.name, c.id).where(c.plan_id == change.plan_id))
    known: dict[str, int] = {row.name: row.id for row in rows}
    missing = [name for name in dict.fromkeys(names) if name not in known]
    made = change.insert(c, [{"plan_id": change.plan_id, "name": name} for name in missing])
    return known | dict(zip(missing, made, strict=True))


def _drop_empty(change: Change) -> None:
    """Remove groups that no keyword is in, unless they lead somewhere, then bare campaigns."""
    g, k, c = models.AdGroup, models.Keyword, models.Campaign
    held = select(k.ad_group_id).where(k.plan_id == change.plan_id, k.ad_group_id.is_not(None))
    bare = select(g.id).where(g.plan_id == change.plan_id, g.landing_page == "", g.id.not_in(held))
    change.delete(g, list(change.session.scalars(bare)))
    used = select(g.campaign_id).where(g.plan_id == change.plan_id)
    empty = select(c.id).where(c.plan_id == change.plan_id, c.id.not_in(used))
    change.delete(c, list(change.session.scalars(empty)))


def _rename_owner(change: Change, old: str, new: str) -> None:
    """Negatives of a group follow its name."""
    n = models.Negative
    mine = select(n.id).where(n.plan_id == change.plan_id, n.level == "group", n.owner == old)
    change.update(n, {i: {"owner": new} for i in change.session.scalars(mine)})
