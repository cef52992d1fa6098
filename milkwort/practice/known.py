"""What happened in the market, as far as a planner can know it on some day."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.assumptions import Assumed
from milkwort.core.learn.results import Results, exposed
from milkwort.practice.month import Lived
from milkwort.standins.market.account import MICROS

__all__ = ["DayRows", "known_rows", "results_by"]

_CREDIT_AFTER = 3


class DayRows:
    """Rows by day, keyword and text, as reported by some day; arrays of shape (n_rows,).

    Attributes
    ----------
    day, keyword, text : Ints
        Ordinal; row of the plan's table; place of the text in the market's world.
    impressions, could_show, lost_to_money, clicks, cost, customers : Floats
        `cost` less what was credited by then.
    bid : Floats
        That ran, money a click.
    """

    def __init__(self, columns: dict[str, Floats]) -> None:
        self.day = columns["day"].astype(np.int64)
        self.keyword = columns["keyword"].astype(np.int64)
        self.text = columns["text"].astype(np.int64)
        self.impressions, self.could_show = columns["impressions"], columns["could_show"]
        self.lost_to_money, self.clicks = columns["lost_to_money"], columns["clicks"]
        self.cost, self.customers, self.bid = columns["cost"], columns["customers"], columns["bid"]


def known_rows(months: Sequence[Lived], today: int) -> DayRows:
    """Return all rows of some months as they are known at the end of a day.

    Parameters
    ----------
    months : sequence of Lived
    today : int
        The last day.
    """
    parts: dict[str, list[Floats]] = {}
    for month in months:
        bids = np.array([k.bid for k in month.live.keywords])
        for day, r in zip(month.days, month.results, strict=True):
            if day > today or not len(r.keyword):
                continue
            credit = r.over + (r.invalid_cost if today - day >= _CREDIT_AFTER else 0)
            columns = {
                "day": np.full(len(r.keyword), day), "keyword": month.rows[r.keyword],
                "text": r.text, "impressions": r.impressions, "could_show": r.could_show,
                "lost_to_money": r.lost_to_money, "clicks": r.clicks,
                "cost": (r.cost - credit) / MICROS, "bid": bids[r.keyword],
                "customers": _reported(r.keyword, r.text, r.sold, today),
            }  # fmt: skip
            for name, column in columns.items():
                parts.setdefault(name, []).append(np.asarray(column, dtype=np.float64))
    names = ("day", "keyword", "text", "impressions", "could_show", "lost_to_money", "clicks",
             "cost", "bid", "customers")  # fmt: skip
    return DayRows({n: np.concatenate(parts[n]) if n in parts else np.zeros(0) for n in names})


def _reported(keyword: Ints, text: Ints, sold: object, today: int) -> Ints:
    found = np.zeros(len(keyword), dtype=np.int64)
    key = keyword * (1 << 24) + text
    order = np.argsort(key, kind="stable")
    of_sold = sold.keyword * (1 << 24) + sold.text  # type: ignore[attr-defined]
    if len(of_sold):
        place = order[np.searchsorted(key[order], of_sold)]
        np.add.at(found, place, np.where(sold.reported <= today, sold.customers, 0))  # type: ignore[attr-defined]
    return found


def results_by(rows: DayRows, n: int, today: int, assumed: Assumed) -> Results:
    """Sum rows by keyword of the plan's table, each click with its exposure."""
    return exposed(rows.day, rows.clicks, rows.customers, rows.cost, rows.keyword, n, today,
                   assumed)  # fmt: skip
