"""Small worlds and accounts that tests begin with."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

from milkwort.standins.market.account import Ad, Campaign, Group, Keyword, Live, Rules, Stop
from milkwort.standins.market.known import Known, KnownKeyword, KnownOffer
from milkwort.standins.market.levels import LEVELS, Level

DAY = date(2027, 4, 1).toordinal()

CERTAIN: Level = replace(
    LEVELS["as-planned"], searches=(0.0, 0.0, 0.0), price=(0.0, 0.0, 0.0), click_rate=(0.0, 0.0),
    intent=0.0, rate_weight=1e9, wide=0.0,
)  # fmt: skip
"""A level in which everything is as the planner thinks; only the days fall by chance."""


def known(*keywords: KnownKeyword, low: float = 0.03, high: float = 0.03) -> Known:
    """One offer, some keywords; a flat rate of 0.03 unless said otherwise."""
    return Known((KnownOffer(low, 0.03, high),), keywords)


def kw(text: str, searches: float = 3000.0, **more: object) -> KnownKeyword:
    return KnownKeyword(text, searches, price_low=0.8, price_high=2.4, intent="buy", **more)  # type: ignore[arg-type]


def account(
    *keywords: tuple[str, str, float],
    day_money: float | None = None,
    stops: tuple[Stop, ...] = (),
    campaign: Campaign | None = None,
    rules: Rules = Rules(),  # noqa: B008 # frozen
) -> Live:
    """One campaign, one group, one ad that says everything."""
    micros = None if day_money is None else round(day_money * 1e6)
    return Live(
        campaigns=(campaign or Campaign("c", "Search", micros),),
        groups=(Group("g", "c", "All", page=" ".join(text for text, _, _ in keywords)),),
        keywords=tuple(
            Keyword(f"k{at}", "g", text, match, bid)
            for at, (text, match, bid) in enumerate(keywords)
        ),
        stops=stops,
        ads=(Ad("a", "g", (" ".join(text for text, _, _ in keywords),)),),
        rules=rules,
    )
