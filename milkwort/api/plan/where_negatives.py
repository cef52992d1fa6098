"""Where a negative acts, from what a request says to what the store and the core need."""

from __future__ import annotations

from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.errors import BadValueError
from milkwort.core.words.match_types import Match
from milkwort.core.words.negatives import Negative
from milkwort.store.negatives import Owner

__all__ = ["negative_at", "owner_named", "owner_of"]

EVERYWHERE = "the whole plan"
"""What a list that left says of a negative that acts in no campaign alone."""


def owner_of(campaign_id: int | None, group_id: int | None) -> Owner:
    """Return where a negative acts: a group before a campaign, with neither the whole plan."""
    if group_id is not None:
        return Owner(group_id=group_id)
    return Owner(campaign_id=campaign_id)


def owner_named(plan: OpenPlan, campaign: str, group: str) -> Owner | None:
    """Return where a negative acts that says so by name; None where it doesn't.

    Parameters
    ----------
    plan : OpenPlan
    campaign : str
        As the plan calls it, or with the plan's name before it as in an upload sheet; a
        group's label where `group` is empty.
    group : str

    Raises
    ------
    BadValueError
        Where the plan has no such campaign or group.
    """
    structure = plan.sheet.structure
    if not campaign and not group:
        return None
    if campaign.casefold() == EVERYWHERE and not group:
        return Owner()
    bare = campaign.removeprefix(f"{plan.record.name} – ")
    if not group:
        known = structure.named(campaign)
        if known is not None:
            return Owner(group_id=known.id)
        owners = [Owner(campaign_id=one.id) for one in structure.campaigns if one.name == bare]
    else:
        homes = {one.id for one in structure.campaigns if one.name == bare or not bare}
        owners = [
            Owner(group_id=one.id) for one in structure.groups
            if one.name == group and one.campaign_id in homes
        ]  # fmt: skip
    if not owners:
        raise BadValueError("where", "a campaign or group of this plan", group or campaign)
    return owners[0]


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
