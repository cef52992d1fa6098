"""Where a negative acts, from what a request says to what the store and the core need."""

from __future__ import annotations

from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.words.match_types import Match
from milkwort.core.words.negatives import Negative
from milkwort.store.negatives import Owner

__all__ = ["negative_at", "owner_of"]


def owner_of(campaign_id: int | None, group_id: int | None) -> Owner:
    """Return where a negative acts: a group before a campaign, with neither the whole plan."""
    if group_id is not None:
        return Owner(group_id=group_id)
    return Owner(campaign_id=campaign_id)


def negative_at(plan: OpenPlan, text: str, match: Match, owner: Owner) -> Negative:
    """Return a negative with the number its campaign or group has in the table.

    Raises
    ------
    NotFoundError
        Where the plan has no such campaign or group.
    """
    structure, number = plan.sheet.structure, -1
    if owner.group_id is not None:
        number = structure.groups.index(structure.group(owner.group_id))
    elif owner.campaign_id is not None:
        number = structure.campaigns.index(structure.campaign(owner.campaign_id))
    return Negative(text, match, owner.level, number)
