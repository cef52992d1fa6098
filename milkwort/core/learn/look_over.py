"""A running account looked over: doubles, money without a sale, winners short of money."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats
from milkwort.core.counted import counted
from milkwort.core.errors import BadValueError
from milkwort.core.learn.campaign_days import CampaignDays
from milkwort.core.learn.learned import Learned
from milkwort.core.learn.seen import ResultRows
from milkwort.core.learn.terms import TermRows

__all__ = ["Account", "Finding", "look_over"]

_OFTEN = 0.1
"""Share of its days on which a campaign's money was gone, from which it is short of it."""
_NAMED = 6
_WIDE = 30
"""Keywords of one group that spent, above which one ad can't say what all of them ask."""


@dataclass(frozen=True)
class Account:
    """What is looked over.

    Attributes
    ----------
    rows : ResultRows
        By keyword.
    places : sequence of str
        Campaign and group of each row as the platform named them; empty where not said.
    texts, groups : sequence of str
        Keywords as written, and groups by number.
    group : Ints, shape (n_keywords,)
    campaigns : CampaignDays
        Of the newest month.
    campaign_names : sequence of str
        In the order of `campaigns`.
    terms : TermRows or None
    stopped : ndarray of bool, shape (n_terms,)
        Terms that a negative in force stops.
    allowed : float
        Money that a customer may cost.
    """

    rows: ResultRows
    places: Sequence[str]
    texts: Sequence[str]
    groups: Sequence[str]
    group: NDArray[np.int64]
    campaigns: CampaignDays
    campaign_names: Sequence[str]
    terms: TermRows | None
    stopped: NDArray[np.bool_]
    allowed: float


@dataclass(frozen=True)
class Finding:
    """One thing that stands out.

    Attributes
    ----------
    code : str
    text : str
        A sentence.
    stage : str
        Where it is mended.
    money : float
        That went there, over the days that are seen; for a winner, of its month.
    names : tuple of str
        Some of what it is about.
    """

    code: str
    text: str
    stage: str
    money: float
    names: tuple[str, ...] = ()


def look_over(account: Account, learned: Learned) -> list[Finding]:
    """Return what stands out in a running account, most money first.

    Parameters
    ----------
    account : Account
    learned : Learned

    Raises
    ------
    BadValueError
        Where places are not as many as rows.
    """
    if len(account.places) != len(account.rows):
        raise BadValueError("places", f"{len(account.rows)}, one a row", len(account.places))
    found = [
        *_doubles(account), *_without_sale(account, learned), *_winners(account),
        *_blocked_sellers(account), *_wide_groups(account, learned),
    ]  # fmt: skip
    return sorted(found, key=lambda one: -one.money)


def _doubles(account: Account) -> Iterator[Finding]:
    """Keywords that ran in two places at once: they bid against each other's figures."""
    spent: dict[int, dict[str, float]] = {}
    keywords, costs = account.rows.keyword.tolist(), account.rows.cost.tolist()
    for row, place, cost in zip(keywords, account.places, costs, strict=True):
        if row >= 0 and place:
            of = spent.setdefault(row, {})
            of[place] = of.get(place, 0.0) + cost
    twice = {row: sorted(of.values())[:-1] for row, of in spent.items() if len(of) > 1}
    if twice:
        names = tuple(account.texts[row] for row in list(twice)[:_NAMED])
        yield Finding(
            "double", f"{counted(len(twice), 'keyword')} ran in more than one group.", "arrange",
            sum(sum(costs) for costs in twice.values()), names,
        )  # fmt: skip


def _without_sale(account: Account, learned: Learned) -> Iterator[Finding]:
    seen = learned.seen
    rows = np.flatnonzero((seen.cost > 0) & (seen.exposure > 0) & (seen.customers <= 0))
    if len(rows):
        rows = rows[np.argsort(-seen.cost[rows], kind="stable")]
        yield Finding(
            "no_sale", f"{counted(len(rows), 'keyword')} spent money and sold nothing yet; "
            "evidence says which of them to stop.", "learn", float(seen.cost[rows].sum()),
            tuple(account.texts[row] for row in rows[:_NAMED].tolist()),
        )  # fmt: skip


def _winners(account: Account) -> Iterator[Finding]:
    found = account.campaigns
    for at, name in enumerate(account.campaign_names):
        days, cut = int(found.days[at]), int(found.cut[at])
        spend, sold = float(found.spend[at]), float(found.customers[at])
        if days and cut >= _OFTEN * days and sold > 0 and spend / sold < account.allowed:
            yield Finding(
                "short_of_money", f"{name} ran out of money on {cut} of {counted(days, 'day')} "
                f"while a customer cost {spend / sold:,.2f}: more money would pay.", "fit",
                spend, (name,),
            )  # fmt: skip


def _blocked_sellers(account: Account) -> Iterator[Finding]:
    terms = account.terms
    if terms is None:
        return
    rows = np.flatnonzero(account.stopped & (terms.customers > 0))
    if len(rows):
        yield Finding(
            "blocks_sold", f"Negatives stop {counted(len(rows), 'term')} that sold.", "arrange",
            float(terms.cost[rows].sum()),
            tuple(terms.texts[row] for row in rows[:_NAMED].tolist()),
        )  # fmt: skip


def _wide_groups(account: Account, learned: Learned) -> Iterator[Finding]:
    cost: Floats = learned.seen.cost
    spent = (cost > 0) & (account.group >= 0)
    many = np.bincount(account.group[spent], minlength=len(account.groups))
    money = np.bincount(account.group[spent], cost[spent], minlength=len(account.groups))
    for number in np.flatnonzero(many > _WIDE).tolist():
        yield Finding(
            "wide_group", f"{account.groups[number]} spent on {many[number]} keywords: one ad "
            "can’t say what all of them ask.", "arrange", float(money[number]),
            (account.groups[number],),
        )  # fmt: skip
