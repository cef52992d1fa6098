"""A plan as it stands in the practice market: what leaves, without the way there."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from milkwort.core.arrange.main_words import main_words
from milkwort.core.brief.campaigns import OwnTerms
from milkwort.core.brief.showing import Showing
from milkwort.core.market.in_force import negatives_in_force
from milkwort.core.plan.budgets import daily_budgets
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.lexicon import Lexicon
from milkwort.core.words.match_types import MATCHES
from milkwort.standins.market.account import (
    ALL_WEEK,
    MICROS,
    Ad,
    Campaign,
    Group,
    Keyword,
    Live,
    Rules,
    Stop,
)

__all__ = ["handed_over"]


def handed_over(month: PlanResult, lexicon: Lexicon) -> tuple[Live, list[int]]:
    """Return what is live once a month's plan has been handed over.

    Parameters
    ----------
    month : PlanResult
        Of that month: its bids and its daily budgets are used.
    lexicon : Lexicon

    Returns
    -------
    live : Live
        One ad a group that says its main words, on a page that does.
    rows : list of int
        The row of the plan's table of each live keyword.
    """
    table, brief = month.table, month.brief
    rows = np.flatnonzero(table.kept & np.isfinite(month.bid)).tolist()
    budgets = daily_budgets(month)
    daily = dict(zip(budgets.campaign.tolist(), budgets.daily.tolist(), strict=True))
    places = sorted({(int(table.campaign[row]), int(table.group[row])) for row in rows})
    words = main_words(month, int(table.group.max(initial=-1)) + 1, lexicon)
    said = {group: _said(words, group, month, rows) for _, group in places}
    raises = brief.assumed["platform_raise"]
    campaigns = tuple(
        Campaign(f"c{number}", f"campaign {number}", round(daily.get(number, 0.0) * MICROS),
                 shown=_shown(brief.own_terms.get(number), brief.showing), moves=raises)
        for number in sorted({campaign for campaign, _ in places})
    )  # fmt: skip
    groups = tuple(Group(f"g{c}.{g}", f"c{c}", f"group {g}", page=said[g]) for c, g in places)
    keywords = tuple(
        Keyword(f"k{row}", f"g{table.campaign[row]}.{table.group[row]}", table.texts[row],
                MATCHES[table.match[row]], float(month.bid[row]))
        for row in rows
    )  # fmt: skip
    ads = tuple(Ad(f"a{c}.{g}", f"g{c}.{g}", (said[g],)) for c, g in places)
    rules = Rules(brief.pricing == "pay_bid", True, brief.close_forms, brief.negative_close_forms,
                  brief.assumed["day_over"])  # fmt: skip
    return Live(campaigns, groups, keywords, _stops(month, places), ads, (), rules), rows


def _said(words: Sequence[Sequence[Any]], group: int, month: PlanResult, rows: list[int]) -> str:
    if 0 <= group < len(words) and words[group]:
        return " ".join(one.word for one in words[group])
    return " ".join(month.table.texts[row] for row in rows if month.table.group[row] == group)[:500]


def _shown(own: OwnTerms | None, plan: Showing) -> tuple[tuple[bool, ...], ...]:
    showing = own.showing if own is not None and own.showing is not None else plan
    if showing.always:
        return ALL_WEEK
    first, last = showing.from_hour, showing.to_hour
    hours = [first <= hour < last if first < last else hour >= first or hour < last
             for hour in range(24)]  # fmt: skip
    return tuple(tuple(day and hour for hour in hours) for day in showing.days)


def _stops(month: PlanResult, places: list[tuple[int, int]]) -> tuple[Stop, ...]:
    of_group = {group: campaign for campaign, group in places}
    found = []
    for at, one in enumerate(negatives_in_force(month.brief.negatives, month.table)):
        campaign = f"c{one.number}" if one.level == "campaign" else ""
        group = ""
        if one.level == "group":
            if one.number not in of_group:
                continue
            group = f"g{of_group[one.number]}.{one.number}"
            campaign = f"c{of_group[one.number]}"
        found.append(Stop(f"n{at}", one.text, one.match, campaign, group))
    return tuple(found)
