"""Where keywords are to go, from what the planner typed."""

from __future__ import annotations

from collections.abc import Sequence

from milkwort.api.plan.open_plan import OpenPlan
from milkwort.store.structure import FIRST_CAMPAIGN, GENERAL_GROUP, Place, bare_name

__all__ = ["place_of"]


def place_of(plan: OpenPlan, typed: str, rows: Sequence[int]) -> Place:
    """Return the group that was typed, or the new one that it names.

    A group is typed by its label, which only one has. A name that no group has makes a new
    one in the campaign of the first of the keywords.

    Parameters
    ----------
    plan : OpenPlan
    typed : str
        Empty for the general group.
    rows : sequence of int
        The keywords that go there.
    """
    structure, table = plan.sheet.structure, plan.sheet.table
    label = bare_name(typed) if typed.strip() else GENERAL_GROUP
    known = structure.named(label)
    if known is not None:
        return Place(structure.campaign(known.campaign_id).name, known.name)
    at = int(table.campaign[rows[0]]) if len(rows) else -1
    campaigns = structure.campaigns
    home = campaigns[max(at, 0)].name if campaigns else FIRST_CAMPAIGN
    return Place(home, label)
