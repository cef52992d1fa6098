"""The arithmetic of what Arrange shows: groups, campaigns, proposals, negatives, words."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from milkwort.core.arrange.main_words import MainWord
from milkwort.core.arrange.negatives_at_work import AtWork, money_saved
from milkwort.core.arrange.pages.worth_writing import WorthWriting
from milkwort.core.arrange.proposals import Proposal
from milkwort.core.plan.budgets import Budgets
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.negatives import Negative
from milkwort.core.workings._sums import Line, Section
from milkwort.core.workings.purse import purse_workings
from milkwort.core.workings.selection import selection_workings

__all__ = [
    "campaign_workings", "group_workings", "negative_workings", "proposal_workings",
    "word_workings",
]  # fmt: skip

_NAMED = 12
"""So many keywords of a sum stand by themselves; the rest in one line."""


def group_workings(result: PlanResult, group: int, words: Sequence[MainWord]) -> list[Section]:
    """Return the sums of a group, and how much of its clicks each of its words holds.

    Parameters
    ----------
    result : PlanResult
    group : int
        Its number.
    words : sequence of MainWord
        Of that group.
    """
    rows = np.flatnonzero(result.table.group == group)
    said = [Line(one.word, one.share, "share", "clicks of keywords that hold it ÷ all")
            for one in words]  # fmt: skip
    return [*selection_workings(result, rows), *([Section("Its words", said)] if said else [])]


def campaign_workings(
    result: PlanResult, campaign: int, budgets: Budgets, gain: float
) -> list[Section]:
    """Return the sums of a campaign and how its day comes about.

    Parameters
    ----------
    result : PlanResult
    campaign : int
        Its number.
    budgets : Budgets
        Of that plan.
    gain : float
        Clicks a month that sharing its money with one other campaign would save at best.
    """
    rows = np.flatnonzero(result.table.campaign == campaign)
    sums = selection_workings(result, rows)
    at = np.flatnonzero(budgets.campaign == campaign)
    if not len(at):
        return sums
    place, days = int(at[0]), result.brief.assumed["month_days"]
    all_spend, purse = float(budgets.spend.sum()), result.brief.monthly_spend
    spend, daily = float(budgets.spend[place]), float(budgets.daily[place])
    return [
        *sums,
        Section("Its money a day", [
            Line("spend a month, keywords and spots", spend, "money", "Σ"),
            Line("of all campaigns", spend / all_spend if all_spend else None, "share",
                 "spend ÷ Σ spend"),
            Line("the purse", purse, "money", source="brief"),
            Line("days in a month", days, "count", source="assumption", assumption="month_days"),
            Line("daily budget", daily, "money",
                 "its part of the purse, never above its own most, ÷ days, in whole cents",
                 result=True),
        ]),
        Section("Clicks that its day cuts off", [
            Line("clicks a month", float(budgets.clicks[place])),
            Line("lost on busy days", float(budgets.lost[place]),
                 formula="days with more clicks than the day’s money pays for", result=True),
            Line("saved by sharing with one other", gain,
                 formula="lost apart − lost together, the best of all"),
        ]),
    ]  # fmt: skip


def proposal_workings(now: PlanResult, found: Proposal) -> list[Section]:
    """Return how a structure that is proposed comes to what it asks for and brings.

    Parameters
    ----------
    now : PlanResult
        The plan as it is.
    found : Proposal
        That plan arranged otherwise, and fitted for the same money.
    """
    purse = found.result.brief.monthly_spend
    there, before = found.result.totals, now.totals
    locked = np.array(list(found.locked.values()), dtype=np.float64)
    dial = [
        Line("bids that the dial sets", float(len(locked)),
             formula="the other of the twins × (1 − how much lower), in steps of a bid"),
        Line("the lowest of them", float(locked.min()), "money"),
    ] if len(locked) else []  # fmt: skip
    return [
        Section("What it asks for", [
            Line("groups with kept keywords", float(found.groups)),
            Line("keywords of the fullest", float(found.largest)),
            Line("of the groups, those that have an ad", float(found.groups - found.to_write),
                 formula="a group of the same name in the same campaign"),
            Line("ads to write", float(found.to_write), formula="groups − those that have one",
                 result=True),
            *dial,
        ]),
        *purse_workings(found.result, "spend"),
        *purse_workings(found.result, "customers"),
        Section("Beside the plan as it is", [
            Line("the same money", purse, "money", source="brief"),
            Line("customers a month, as it is", before.customers),
            Line("customers more, arranged so", there.customers - before.customers, result=True),
            Line("spend more", there.spend - before.spend, "money"),
            Line("keywords more that run", float(there.keywords - before.keywords)),
        ]),
    ]  # fmt: skip


def negative_workings(
    free: PlanResult, negative: Negative, found: AtWork, texts: Sequence[str]
) -> list[Section]:
    """Return what a negative saves and what it costs, keyword by keyword.

    Parameters
    ----------
    free : PlanResult
        The plan without any negative.
    negative : Negative
    found : AtWork
        What it does there.
    texts : sequence of str
        Of the keywords, as they are written.
    """
    saved = sorted(money_saved(free, negative, found), key=lambda pair: -pair[1])
    sections = [
        Section("What it saves a month, at least", [
            *_named([(texts[row], money) for row, money in saved], "money"),
            Line("money that goes to what nobody kept", found.saves, "money", "Σ", result=True),
        ])
    ]  # fmt: skip
    if found.hurts:
        e = free.expected
        hurt = sorted(found.hurts, key=lambda row: -float(e.customers[row]))
        sections.append(Section("What it costs a month", [
            *_named([(texts[row], float(e.customers[row])) for row in hurt], "count"),
            Line("customers of what is kept", found.customers, formula="Σ", result=True),
            Line("money it would cost", found.spend, "money", "Σ"),
        ]))  # fmt: skip
    return sections


def word_workings(result: PlanResult, found: WorthWriting, texts: Sequence[str]) -> list[Section]:
    """Return who stands behind a word that no page says.

    Parameters
    ----------
    result : PlanResult
    found : WorthWriting
    texts : sequence of str
        Of the keywords, as they are written.
    """
    customers = np.nan_to_num(result.expected.customers)
    return [
        Section("Customers of the keywords that hold it", [
            *_named([(texts[row], float(customers[row])) for row in found.keywords], "count"),
            Line("customers a month", found.customers, formula="Σ", result=True),
            Line("clicks a month", found.clicks, formula="Σ"),
            Line("searches a month", found.searches, formula="Σ"),
        ])
    ]  # fmt: skip


def _named(pairs: Sequence[tuple[str, float]], unit: str) -> list[Line]:
    """Return the first of some sums by name, what the others come to in a line of its own."""
    lines = [Line(text, value, unit) for text, value in pairs[:_NAMED]]
    rest = pairs[_NAMED:]
    if rest:
        lines.append(Line(f"{len(rest):,} more", sum(value for _, value in rest), unit))
    return lines
