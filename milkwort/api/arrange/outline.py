"""The outline of Arrange: campaigns with their money and terms, groups with their figures."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any

import numpy as np

from milkwort.api.arrange.group_pages import pages_of_groups
from milkwort.api.plan.columns import tidy
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.arrange.crossed import twins_of_groups
from milkwort.core.arrange.group_figures import group_figures
from milkwort.core.arrange.group_likeness import likeness_of
from milkwort.core.arrays import Ints
from milkwort.core.brief.showing import shown_share, values_of_showing
from milkwort.core.fit.tolerances import ROUNDING
from milkwort.core.plan.budgets import Budgets, best_partners, daily_budgets
from milkwort.store.ads import ads_by_group
from milkwort.store.pages import StoredPage
from milkwort.store.structure import Campaign

__all__ = ["campaign_lines", "group_columns"]

_LEAST_LIKE = 3
"""So many keywords of a group that fit it least are named."""


def campaign_lines(plan: OpenPlan) -> list[dict[str, Any]]:
    """Return each campaign: its money a month and a day, its limits, area and hours."""
    budgets = daily_budgets(plan.result)
    at = {number: place for place, number in enumerate(budgets.campaign.tolist())}
    assumed = plan.result.brief.assumed
    partner, gain = best_partners(budgets, assumed["month_days"], assumed["day_over"])
    names = [campaign.name for campaign in plan.sheet.structure.campaigns]
    lines = []
    for number, campaign in enumerate(plan.sheet.structure.campaigns):
        place = at.get(number)
        spend = 0.0 if place is None else float(budgets.spend[place])
        lines.append(
            {
                "id": campaign.id,
                "name": campaign.name,
                "least_spend": campaign.least_spend,
                "most_spend": campaign.most_spend,
                "scouting_share": campaign.scouting_share,
                "spend": spend,
                "daily_budget": 0.0 if place is None else float(budgets.daily[place]),
                "clicks_lost": 0.0 if place is None else float(budgets.lost[place]),
                "share_with": _partner(budgets, partner, place, names),
                "share_gain": 0.0 if place is None else float(gain[place]),
                "binds": _binds(campaign, spend),
                "note": campaign.note,
                "page": campaign.page,
                "first_day": campaign.first_day,
                "last_day": campaign.last_day,
                "bid_moves": campaign.bid_moves,
                "partner_sites": campaign.partner_sites,
                "audience": list(campaign.audience),
                "policy": campaign.policy,
                "spots": sum(s.campaign_id == campaign.id for s in plan.sheet.structure.spots),
                **_terms(plan, campaign),
            }
        )
    return lines


def _partner(
    budgets: Budgets, partner: Ints, place: int | None, names: Sequence[str]
) -> str | None:
    """Return the campaign that one would best share its money with; None where none gains."""
    with_place = -1 if place is None else int(partner[place])
    number = -1 if with_place < 0 else int(budgets.campaign[with_place])
    return names[number] if number >= 0 else None


def group_columns(plan: OpenPlan, pages: Sequence[StoredPage]) -> dict[str, Any]:
    """Return the groups by column: what they hold, say and do."""
    sheet = plan.sheet
    groups = sheet.structure.groups
    figures = group_figures(plan.result, len(groups))
    campaigns = {c.id: c.name for c in sheet.structure.campaigns}
    words = plan.written.words
    return {
        "id": [g.id for g in groups],
        "name": [g.name for g in groups],
        "label": list(sheet.labels),
        "campaign_id": [g.campaign_id for g in groups],
        "campaign": [campaigns[g.campaign_id] for g in groups],
        "bid": [g.bid for g in groups],
        "policy": [g.policy for g in groups],
        "locked": [g.locked for g in groups],
        "leaves": _leaves(plan),
        **_things(plan),
        **_ads(plan),
        **_pages(plan, pages),
        "keywords": figures.keywords,
        "kept": figures.kept,
        "too_many": np.maximum(figures.kept - plan.written.profile.keywords_per_group, 0),
        "running": figures.running,
        "searches": tidy(figures.searches),
        "clicks": tidy(figures.clicks),
        "spend": tidy(figures.spend),
        "customers": tidy(figures.customers),
        "words": [[{"word": one.word, "share": one.share} for one in some] for some in words],
        **_likeness(plan),
    }


def _leaves(plan: OpenPlan) -> list[list[str]]:
    """Return the texts that each group leaves to those that hold them as exact."""
    twins = twins_of_groups(plan.result)
    return [
        [plan.sheet.entries[row].text for row, _ in twins.get(at, ())] if g.blocks_twins else []
        for at, g in enumerate(plan.sheet.structure.groups)
    ]


def _things(plan: OpenPlan) -> dict[str, Any]:
    """Return how many things each group shows, and how many of them can't be delivered."""
    shown = plan.written.things
    many = [shown.get(at, []) for at in range(len(plan.sheet.structure.groups))]
    return {
        "things": [sum(thing.deliverable for thing in some) for some in many],
        "left_out": [sum(not thing.deliverable for thing in some) for some in many],
    }


def _ads(plan: OpenPlan) -> dict[str, Any]:
    """Return how many ads each group has, and how many of them a platform would refuse."""
    groups, faults = plan.sheet.structure.groups, plan.written.faults
    ads = ads_by_group(plan.record.ads)
    bare = set(plan.written.without)
    return {
        "ads": [len(ads.get(g.id, ())) for g in groups],
        "ads_wrong": [
            sum(any(fault.must for fault in faults[one.id]) for one in ads.get(g.id, ()))
            for g in groups
        ],
        "without_ad": [g.id in bare for g in groups],
    }


def _pages(plan: OpenPlan, pages: Sequence[StoredPage]) -> dict[str, Any]:
    """Return where each group's ads lead, and how many of its words that page says."""
    groups = plan.sheet.structure.groups
    found = pages_of_groups(plan, pages)
    said = [None if one.words is None else one.words.count for one in found]
    better = [None if one.better is None else one.better.page.address for one in found]
    return {
        "own_page": [g.page for g in groups],
        "page": [one.address for one in found],
        "page_said": said,
        "better_page": better,
    }


def _likeness(plan: OpenPlan) -> dict[str, Any]:
    """Return how alike each group's kept keywords are, and which of them fit least, and where."""
    sheet, table = plan.sheet, plan.result.table
    groups = sheet.structure.groups
    found = likeness_of(table.texts, np.where(table.kept, table.group, -1), len(groups))
    least: list[list[dict[str, Any]]] = [[] for _ in groups]
    for row in np.argsort(found.own, kind="stable").tolist():
        number = int(table.group[row])
        if math.isnan(found.own[row]) or len(least[number]) >= _LEAST_LIKE:
            continue
        better = int(found.better[row])
        if better >= 0:
            least[number].append(
                {"id": sheet.ids[row], "text": sheet.entries[row].text,
                 "group_id": groups[better].id, "group": sheet.labels[better]}
            )  # fmt: skip
    return {"likeness": found.of_group, "least_like": least}


def _binds(campaign: Campaign, spend: float) -> str:
    """Say which limit of a campaign's money binds."""
    if campaign.most_spend is not None and spend >= campaign.most_spend * (1 - 0.01):
        return "most"
    least = campaign.least_spend
    return "least" if least > 0 and spend <= least * (1 + 0.01) + ROUNDING else ""


def _terms(plan: OpenPlan, campaign: Campaign) -> dict[str, Any]:
    own, assumed = campaign.own_terms, plan.record.brief.assumed
    return {
        "area_share": own.area_share,
        "showing": None if own.showing is None else values_of_showing(own.showing),
        "shown_share": None if own.showing is None else shown_share(own.showing, assumed),
    }
