"""The one table of the brief's fields.

The store's columns, what a screen may change and is given, the plan's file, the brief's own
file and the sentences of undo all follow from it: a field is a row here, a column in a
migration, and the place of the core that reads it.
"""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date
from functools import reduce
from typing import Any, get_args

from milkwort.core.brief.kinds import Goal, PolicyName, Pricing, RuleName, YearPurse
from milkwort.core.brief.platform import Profile
from milkwort.core.brief.showing import Showing
from milkwort.core.errors import BadValueError
from milkwort.core.words.match_types import Match

__all__ = [
    "FIELDS",
    "MOST_MONEY",
    "OF_OFFER",
    "OF_PLAN",
    "BriefField",
    "check_field",
    "keys_of",
    "parts_of",
]

MOST_MONEY = 1e12
"""No sum of money and no count of a brief is above this: their products stay finite."""


@dataclass(frozen=True)
class BriefField:
    """One field of the brief.

    Attributes
    ----------
    name : str
        Its key wherever it is stored, sent or read.
    kind : type
        What it holds; with None where it may be left open.
    start : object
        What a new plan has.
    label : str
        What it is called within a sentence.
    unit : str
        In words; empty where it counts nothing.
    at : str
        Where it acts: its path in `Brief`; empty where it is read before there is one.
    file : str
        Table and key in a brief's own file; empty where that has another shape or none.
    least, most : float
        Its range where it is a number.
    above : bool
        Whether it must lie above `least`.
    expected : str
        What a message says is expected, where the range alone would be too dry.
    length : int or None
        The most characters or entries.
    required : bool
        Whether a further offer or a file must say it.
    """

    name: str
    kind: Any
    start: Any
    label: str
    unit: str = ""
    at: str = ""
    file: str = ""
    least: float = -math.inf
    most: float = math.inf
    above: bool = False
    expected: str = ""
    length: int | None = None
    required: bool = False

    @property
    def holds(self) -> Any:
        """What it holds where it is not left open."""
        if not self.may_be_open:
            return self.kind
        return next(kind for kind in get_args(self.kind) if kind is not type(None))

    @property
    def may_be_open(self) -> bool:
        """Whether it may be left open."""
        return type(None) in get_args(self.kind)


_SHARE = "share from 0 to 1"
_PURSE = "money a month"
_CLICK = "money a click"

OF_OFFER: tuple[BriefField, ...] = (
    BriefField("sale_value", float, 100.0, "the sale value", "money a sale",
               at="offer.sale_value", file="offer.sale_value", least=0, most=MOST_MONEY,
               above=True, required=True),
    BriefField("gross_margin", float, 0.5, "the margin", _SHARE,
               at="offer.gross_margin", file="offer.gross_margin", least=0, most=1, above=True,
               expected="a share above 0 and at most 1 (100 %)", required=True),
    BriefField("sales_per_customer", float, 1.0, "sales per customer", "sales",
               at="offer.sales_per_customer", file="offer.sales_per_customer", least=0,
               most=MOST_MONEY, above=True),
    BriefField("rate_low", float, 0.01, "the conversion rate", _SHARE,
               at="offer.conversion.low", required=True),
    BriefField("rate_likely", float, 0.02, "the conversion rate", _SHARE,
               at="offer.conversion.likely", required=True),
    BriefField("rate_high", float, 0.04, "the conversion rate", _SHARE,
               at="offer.conversion.high", required=True),
    BriefField("close_low", float | None, None, "the close rate", _SHARE,
               at="offer.close.low"),
    BriefField("close_likely", float | None, None, "the close rate", _SHARE,
               at="offer.close.likely"),
    BriefField("close_high", float | None, None, "the close rate", _SHARE,
               at="offer.close.high"),
)  # fmt: skip
"""What is said of each offer, beside its name."""

OF_PLAN: tuple[BriefField, ...] = (
    BriefField("currency", str, "GBP", "the currency", at="currency", file="plan.currency",
               length=3),
    BriefField("monthly_spend", float, 300.0, "the monthly spend", _PURSE, at="monthly_spend",
               file="plan.monthly_spend", least=0, most=MOST_MONEY,
               expected=f"a sum from 0 to {MOST_MONEY:g}", required=True),
    BriefField("goal", Goal, "customers", "the goal", at="goal", file="plan.goal"),
    BriefField("start_date", date, None, "the first day", required=True),
    BriefField("pricing", Pricing, "pay_enough", "how clicks are priced", at="pricing",
               file="market.pricing"),
    BriefField("places", list[str], [], "the places", at="places", file="market.places",
               length=200),
    BriefField("volume_basis", Match, "exact", "what volumes count", at="volume_basis",
               file="market.volume_basis"),
    BriefField("ceiling_rule", RuleName, "break_even", "the ceiling rule", at="ceiling.rule",
               file="ceiling.rule"),
    BriefField("ceiling_value", float | None, None, "the ceiling rule", "by the rule",
               at="ceiling.value", file="ceiling.value"),
    BriefField("max_cpc", float | None, None, "the highest price", _CLICK, at="ceiling.max_cpc",
               file="ceiling.max_cpc", least=0, most=MOST_MONEY, above=True),
    BriefField("may_pay_to_learn", bool, False, "whether it may pay to learn",
               at="ceiling.may_pay_to_learn", file="ceiling.may_pay_to_learn"),
    BriefField("policy", PolicyName, "fitted", "the bid policy", at="policy.name"),
    BriefField("flat_bid", float | None, None, "the flat bid", _CLICK, at="policy.flat_bid"),
    BriefField("policy_share", float | None, None, "the bid policy’s share", "share",
               at="policy.share"),
    BriefField("cap_clicks", float | None, None, "the cap of bids", "clicks a day",
               at="policy.cap_clicks"),
    BriefField("odd_step", bool, False, "the odd step", at="policy.odd_step"),
    BriefField("season", list[float] | None, None, "the season", "month index, mean 1",
               at="season", file="plan.season", length=12),
    BriefField("gross_spend", float | None, None, "the monthly sum", _PURSE),
    BriefField("tax_share", float, 0.0, "the tax", "share of what is spent"),
    BriefField("fee", float, 0.0, "the fee", _PURSE),
    BriefField("profile", Profile | None, None, "the ad platform"),
    BriefField("other_places", list[str], [], "other places", at="other_places", length=500),
    BriefField("max_keywords", int | None, None, "the most keywords", "keywords",
               at="limits.max_keywords", file="plan.max_keywords", least=1,
               expected="a whole number of 1 or more"),
    BriefField("min_clicks", float, 0.0, "the least clicks", "clicks a month",
               at="limits.min_clicks", file="plan.min_clicks", least=0, most=MOST_MONEY,
               expected="0 or more clicks a month"),
    BriefField("showing", Showing | None, None, "when ads are shown"),
    BriefField("counted_by", str, "", "how customers are counted", length=400),
    BriefField("visit_tag", str, "", "the tag of pages", length=200),
    BriefField("tell_weekend", bool, False, "whether a start before a week-end is told"),
    BriefField("holidays_of", str, "", "whose public holidays are told", length=20),
    BriefField("stale_days", int, 180, "the age of stale readings", "days", least=1, most=10_000),
    BriefField("last_day", str, "", "the last day", length=10),
    BriefField("year_purse", YearPurse, "flat", "how the year’s money is spread"),
    BriefField("year_refit", bool, False, "whether each month’s bids are fitted anew"),
    BriefField("year_months", list[float] | None, None, "the months' money", _PURSE, length=12),
)  # fmt: skip
"""What is said of the plan."""

FIELDS: dict[str, BriefField] = {f.name: f for f in (*OF_OFFER, *OF_PLAN)}


def keys_of(table: str) -> set[str]:
    """Return the keys of one table of a brief's own file.

    Parameters
    ----------
    table : str
        Such as ``market``.
    """
    return {f.file.split(".")[1] for f in FIELDS.values() if f.file.split(".")[0] == table}


def check_field(name: str, value: Any) -> None:
    """Refuse a number outside its field's range.

    Parameters
    ----------
    name : str
        Of the field.
    value : float or None
        None where the field may be left open.

    Raises
    ------
    BadValueError
        Which field, what was expected, what came.
    """
    field = FIELDS[name]
    if value is None and field.may_be_open:
        return
    is_low = value <= field.least if field.above else value < field.least
    if math.isnan(value) or is_low or value > field.most:
        least = f"above {field.least:g}" if field.above else f"from {field.least:g}"
        between = f"a number {least} and at most {field.most:g}"
        raise BadValueError(name, field.expected or between, value)


def parts_of(values: Mapping[str, Any]) -> dict[str, Any]:
    """Return values by field as the nested parts of `Brief`: ``parts["ceiling"]["rule"]``.

    Parameters
    ----------
    values : mapping
        By field; those of no place in the brief are left out.
    """
    parts: dict[str, Any] = {}
    for field in FIELDS.values():
        if field.at and field.name in values:
            *into, last = field.at.split(".")
            inner = reduce(lambda tree, key: tree.setdefault(key, {}), into, parts)
            value = values[field.name]
            inner[last] = tuple(value) if isinstance(value, list) else value
    return parts
