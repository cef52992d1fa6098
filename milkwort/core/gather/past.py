"""What ran before the plan: search terms and keywords with what came of them."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from scipy.special import betaincinv

from milkwort.core.brief.worth import Conversion
from milkwort.core.words.match_types import Match
from milkwort.core.words.texts import normalise

__all__ = ["PastRow", "PastSummary", "past_summary", "terms_by_worth"]

_ENDS = (0.1, 0.5, 0.9)
_LEAST_CLICKS = 30.0
"""Fewer clicks say too little about a rate to be worth filling it in."""


@dataclass(frozen=True)
class PastRow:
    """One search term, live keyword or live negative; figures of the whole window.

    Attributes
    ----------
    text : str
        As written.
    match : Match
    negative : bool
        Whether searches are kept away by it.
    campaign, group, page : str
        Where it stands, and the page it leads to; empty where not said.
    bid : float or None
        Money a click.
    impressions, clicks, cost, customers, revenue : float or None
        None where not said.
    """

    text: str
    match: Match = "exact"
    negative: bool = False
    campaign: str = ""
    group: str = ""
    page: str = ""
    bid: float | None = None
    impressions: float | None = None
    clicks: float | None = None
    cost: float | None = None
    customers: float | None = None
    revenue: float | None = None

    @property
    def normalised(self) -> str:
        """The text as it is compared."""
        return normalise(self.text)

    @property
    def cpc(self) -> float | None:
        """What a click cost on average; None without clicks or cost."""
        return self.cost / self.clicks if self.cost and self.clicks else None


@dataclass(frozen=True)
class PastSummary:
    """What a window of results says of the brief.

    Attributes
    ----------
    days : float
        Length of the window.
    clicks, cost, customers : float
        Sums; cost in money.
    rate : Conversion or None
        Customers per click: 10th, 50th and 90th percentile of what the results allow; None
        where there are too few clicks.
    cpc : float or None
        Money a click.
    sale_value : float or None
        Turnover of a customer; None where no turnover is said.
    """

    days: float
    clicks: float
    cost: float
    customers: float
    rate: Conversion | None
    cpc: float | None
    sale_value: float | None


def past_summary(rows: Sequence[PastRow], days: float) -> PastSummary:
    """Sum what happened, and say what it tells of the conversion rate.

    Parameters
    ----------
    rows : sequence of PastRow
        Negatives are left out.
    days : float
        Length of the window.

    Returns
    -------
    PastSummary
        The rate is a Beta distribution of customers and clicks that starts from knowing
        nothing (½, ½).
    """
    live = [row for row in rows if not row.negative]
    clicks, cost, customers, revenue = (
        sum(getattr(row, name) or 0.0 for row in live)
        for name in ("clicks", "cost", "customers", "revenue")
    )
    rate = None
    told = any(row.customers is not None for row in live)
    if told and clicks >= _LEAST_CLICKS and customers <= clicks:
        # rate ~ Beta(½ + x, ½ + n − x)
        rate = Conversion(
            *(float(betaincinv(0.5 + customers, 0.5 + clicks - customers, p)) for p in _ENDS)
        )
    return PastSummary(
        days=days,
        clicks=clicks,
        cost=cost,
        customers=customers,
        rate=rate,
        cpc=cost / clicks if clicks and cost else None,
        sale_value=revenue / customers if revenue and customers else None,
    )


def terms_by_worth(rows: Sequence[PastRow]) -> list[PastRow]:
    """Return terms with what sold first, then by clicks, then by text.

    Parameters
    ----------
    rows : sequence of PastRow

    Returns
    -------
    list of PastRow
        The same rows.
    """
    return sorted(rows, key=lambda r: (-(r.customers or 0.0), -(r.clicks or 0.0), r.normalised))
