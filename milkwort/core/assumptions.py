"""The one table of defaults: name, value, unit, the range it may take, and why.

A plan stores only what it changed; everything else is read from here and is shown
to the planner, where it acts, as an assumption.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from milkwort.core.errors import BadValueError

__all__ = ["RETIRED", "TABLE", "Assumed", "Assumption"]


@dataclass(frozen=True)
class Assumption:
    """One default of the model.

    Attributes
    ----------
    name : str
        Key in the table.
    label : str
        What the planner reads.
    value : float
        The default.
    unit : str
        Its unit, in words; ``share`` is a number from 0 to 1.
    least, most : float
        The range it may be changed within, ends included.
    why : str
        One sentence.
    """

    name: str
    label: str
    value: float
    unit: str
    least: float
    most: float
    why: str


_Row = tuple[str, str, float, str, float, float, str]
"""An assumption as its fields stand in it."""

# 1. what a click is worth
_WORTH: tuple[_Row, ...] = (
    ("intent_buy", "buying intent", 1.0, "factor", 0, 10,
     "The conversion rate of the brief is meant for people ready to buy."),
    ("intent_compare", "comparing intent", 0.7, "factor", 0, 10,
     "Somebody comparing buys later or elsewhere more often."),
    ("intent_unknown", "unknown intent", 0.8, "factor", 0, 10,
     "A search that says nothing of its purpose sits between buying and comparing."),
    ("intent_learn", "learning intent", 0.25, "factor", 0, 10,
     "Most people reading about a subject never hire anybody."),
    ("intent_firm", "seeking a named firm", 0.15, "factor", 0, 10,
     "Who looks for one firm by name seldom takes another."),
    ("intent_job", "seeking work", 0.0, "factor", 0, 10,
     "A job-seeker does not buy."),
)  # fmt: skip
# 2. how many searches
_SEARCHES: tuple[_Row, ...] = (
    ("area_share", "share of the counted area", 1.0, "share", 0, 1,
     "Volumes are taken as counted for the area the plan serves."),
    ("searches_night", "searches by night, 0 to 6", 0.06, "share", 0, 1,
     "Few search by night; evened over the six hours."),
    ("searches_morning", "searches in the morning, 6 to 12", 0.30, "share", 0, 1,
     "A working morning; evened over the six hours."),
    ("searches_afternoon", "searches in the afternoon, 12 to 18", 0.34, "share", 0, 1,
     "The busiest part of a usual day; evened over the six hours."),
    ("searches_evening", "searches in the evening, 18 to 24", 0.30, "share", 0, 1,
     "People search at home after work; evened over the six hours."),
    ("weekend_searches", "a weekend day against a weekday", 0.85, "factor", 0.01, 10,
     "Saturdays and Sundays are a little quieter in most trades."),
    ("coverage_phrase", "phrase match, variants a unit of variety", 0.6, "factor", 0, 10,
     "Phrase match also shows for longer searches around its words."),
    ("coverage_broad", "broad match, variants a unit of variety", 1.5, "factor", 0, 20,
     "Broad match shows for any order and any words between."),
    ("variety_1", "variety of a one-word keyword", 2.0, "factor", 0, 20,
     "A single word stands in very many searches."),
    ("variety_2", "variety of a two-word keyword", 1.4, "factor", 0, 20,
     "Two words still stand in many searches."),
    ("variety_3", "variety of a three-word keyword", 1.0, "factor", 0, 20,
     "Three words are the reference for variety."),
    ("variety_4", "variety of a four-word keyword", 0.6, "factor", 0, 20,
     "Four words leave little room for variants."),
    ("variety_5", "variety of five words and more", 0.3, "factor", 0, 20,
     "A long keyword is almost only typed as itself."),
    ("variant_clicks_exact", "clicks of a close form, exact match", 1.0, "factor", 0, 1,
     "A close form reads the same to the searcher."),
    ("variant_clicks_phrase", "clicks of a variant, phrase match", 0.9, "factor", 0, 1,
     "An ad fits a longer search a little less well."),
    ("variant_clicks_broad", "clicks of a variant, broad match", 0.7, "factor", 0, 1,
     "An ad fits a loosely matched search clearly less well."),
    ("variant_sales_exact", "sales of a close form, exact match", 1.0, "factor", 0, 1,
     "A close form has the same purpose."),
    ("variant_sales_phrase", "sales of a variant, phrase match", 0.85, "factor", 0, 1,
     "Some longer searches mean something else."),
    ("variant_sales_broad", "sales of a variant, broad match", 0.6, "factor", 0, 1,
     "Many loosely matched searches mean something else."),
)  # fmt: skip
# 3. the market
_MARKET: tuple[_Row, ...] = (
    ("low_percentile", "percentile of the low price", 0.25, "share", 0.01, 0.98,
     "A source’s low price is read as what wins a quarter of the clicks."),
    ("high_percentile", "percentile of the high price", 0.75, "share", 0.02, 0.99,
     "A source’s high price is read as what wins three quarters of the clicks."),
    ("single_price_ratio", "high over low where only one price is known", 2.5, "factor", 1, 100,
     "Prices of one keyword commonly spread this far."),
    ("least_sigma", "least spread of prices", 0.05, "log units", 0.001, 1,
     "No market has one price to the penny."),
    ("click_rate_top", "click rate at the top", 0.06, "share", 0, 1,
     "About six in a hundred searchers click a well-placed ad."),
    ("click_rate_bottom", "click rate far down, as a share of the top", 0.35, "share", 0, 1,
     "A low place is seen less and clicked less."),
)  # fmt: skip
# 4. standing
_STANDING: tuple[_Row, ...] = (
    ("in_reach", "reach from which a keyword is in reach", 0.5, "share", 0, 1,
     "Winning half the searches at the ceiling leaves room to bid lower."),
    ("stretch", "reach at the line", 0.25, "share", 0, 1,
     "Below a quarter of the searches the budget no longer follows the market."),
    ("first_sale_chance", "what counts as a likely first sale", 0.8, "share", 0.01, 0.999,
     "Four chances in five is what people call likely."),
    ("prior_weight", "weight of the assumed rate", 60.0, "clicks", 1, 10000,
     "The brief’s rate is believed as much as sixty clicks of results."),
    ("stop_chance", "chance of missing the rule that says stop", 0.93, "share", 0.5, 0.999,
     "Looked at day after day, seven chances in a hundred stop one good keyword in thirteen."),
    ("least_evidence", "exposed clicks before any verdict", 20.0, "clicks", 1, 10000,
     "Fewer clicks than this say nothing."),
    ("never_months", "months past which a test never ends", 24.0, "months", 1, 600,
     "In two years the market is another one."),
    ("thin_clicks", "clicks a month under which a keyword is thin", 1.0, "clicks a month", 0,
     1000, "Less than a click a month can’t be judged on its own."),
)  # fmt: skip
# 5. starting bids
_BIDS: tuple[_Row, ...] = (
    ("bid_exact", "bid factor, exact match", 1.0, "factor", 0, 10,
     "An exact keyword is bid in full."),
    ("bid_phrase", "bid factor, phrase match", 0.85, "factor", 0, 10,
     "Variants of a phrase are worth a little less."),
    ("bid_broad", "bid factor, broad match", 0.7, "factor", 0, 10,
     "Variants of a broad keyword are worth clearly less."),
    ("bid_one_word", "bid factor, one word", 0.7, "factor", 0, 10,
     "A single word says little of what is wanted."),
    ("bid_two_words", "bid factor, two words", 0.85, "factor", 0, 10,
     "Two words say a little more."),
    ("min_bid", "least bid of the platform", 0.05, "money a click", 0.0001, 1e6,
     "Platforms take no bid under a few pence."),
    ("bid_step", "bid step of the platform", 0.01, "money", 0.0001, 1e4,
     "Platforms take bids in whole pence."),
    ("platform_raise", "how far the platform may raise a bid by itself", 0.0, "share", 0, 1,
     "Most platforms keep to the bid; one that doesn’t leaves less room under the ceiling."),
    ("day_over", "how far a day may run over its budget", 0.0, "share", 0, 10,
     "Most platforms stop where a day’s money ends; no month passes the budgets of its days."),
)  # fmt: skip
# 6. the fit
_FIT: tuple[_Row, ...] = (
    ("lattice_ratio", "ratio between neighbouring bids", 1.06, "factor", 1.005, 2,
     "Bids six in a hundred apart are near enough to the best."),
    ("least_reach", "least reach worth bidding for", 0.05, "share", 0.001, 0.5,
     "Under one search in twenty a bid only adds noise."),
    ("most_reach", "most reach worth paying for", 0.95, "share", 0.5, 0.999,
     "The last searches cost out of proportion."),
)  # fmt: skip
# 8. the draws
_DRAWS: tuple[_Row, ...] = (
    ("draw_searches", "spread of all searches together", 0.10, "log units", 0, 2,
     "Months differ for the whole market at once."),
    ("draw_volume", "spread of a volume given as one figure", 0.25, "log units", 0, 2,
     "Sources round and lag; a range carries its own spread."),
    ("draw_variants", "spread of variants", 0.30, "log units", 0, 2,
     "Nobody knows what else people will type."),
    ("draw_price", "spread of all prices together", 0.10, "log units", 0, 2,
     "Rivals come and go."),
    ("draw_click_rate", "spread of all click rates together", 0.15, "log units", 0, 2,
     "An account’s ads are good or less good together."),
    ("draw_click_rate_own", "spread of one keyword’s click rate", 0.20, "log units", 0, 2,
     "Each ad fits its keyword more or less well."),
    ("month_searches", "spread of one month’s searches about the usual", 0.10, "log units",
     0, 2,
     "Once results told how many search, a month still has a course of its own."),
    ("month_price", "spread of one month’s prices about the usual", 0.05, "log units", 0, 2,
     "Once results told what clicks cost, rivals still come and go."),
    ("draw_intent", "spread of conversion by intent", 0.20, "log units", 0, 2,
     "The factor of an intent is a guess."),
    ("draw_click_price", "variance of one click’s price over its mean squared", 0.25, "factor",
     0, 10, "The clicks of one keyword cost now half, now twice as much."),
    ("draw_days", "days of a month that is drawn", 30.0, "days", 1, 366,
     "Without a calendar the purse is shared out over thirty equal days."),
)  # fmt: skip
# 8. evidence
_EVIDENCE: tuple[_Row, ...] = (
    ("report_half_life", "days by which half the customers are reported", 2.0, "days", 0, 60,
     "Some people buy days after the click; each click counts with the chance that its "
     "customer would be known by now."),
    ("raise_chance", "chance of missing the rule below which to raise", 0.1, "share",
     0.001, 0.5, "Nine chances in ten of a good keyword are worth a higher bid."),
    ("raise_reach", "reach below which a raise is worth while", 0.6, "share", 0, 1,
     "Above this a higher bid buys little more."),
    ("learn_searches_group", "spread of a group’s searches about the plan’s", 0.15, "log units",
     0.001, 2, "What a group sells may be sought more or less than its plan."),
    ("learn_click_rate_group", "spread of a group’s click rate about the plan’s", 0.10,
     "log units", 0.001, 2, "A group’s ads are better or worse together."),
    ("learn_price_group", "spread of a group’s prices about the plan’s", 0.10, "log units",
     0.001, 2, "Rivals seek some groups more than others."),
    ("learn_price_own", "spread of one keyword’s price about its group’s", 0.15, "log units",
     0.001, 2, "A price range is a guess for each keyword."),
    ("term_weight", "clicks that what a term’s words say of it weighs", 20.0, "clicks",
     0.01, 1000, "A text’s words say less of it than a planner’s keyword."),
    ("factor_weight_least", "least weight of the forecast of a plan or group", 3.0, "sales",
     0.01, 1000, "However unsure the brief is, a few sales do not outweigh it."),
    ("factor_weight_most", "most weight of the forecast of a plan or group", 60.0, "sales",
     0.01, 1000, "However sure the brief is, sixty sales outweigh it."),
    ("judge_impressions", "impressions before a click rate is judged", 1000.0, "impressions", 1,
     1e6, "Fewer showings say little of an ad."),
    ("judge_clicks", "clicks before a click rate is judged", 30.0, "clicks", 1, 1e5,
     "Thirty clicks say enough of an ad even with few showings."),
    ("month_days", "days in a month", 365 / 12, "days", 28, 31,
     "A mean month, so that no month is favoured."),
)  # fmt: skip
_ROWS = (*_WORTH, *_SEARCHES, *_MARKET, *_STANDING, *_BIDS, *_FIT, *_DRAWS, *_EVIDENCE)

TABLE: Mapping[str, Assumption] = {row[0]: Assumption(*row) for row in _ROWS}


RETIRED: Mapping[str, str] = {
    "settle_days": "days until a click’s sale is in: each click now counts with the chance "
    "that its sale would be reported by now",
    "plan_weight": "weight of the plan’s own forecast of sales: it now follows from how wide "
    "the brief’s conversion is",
}
"""Assumptions that the model no longer makes, and what it does instead.

Plans and files of an earlier version may still change them; such a change is dropped, and
that is said.
"""


class Assumed(Mapping[str, float]):
    """The table as one plan sees it: defaults with the plan's own changes.

    Parameters
    ----------
    changes : mapping of str to float, optional
        Only what differs from the table.

    Raises
    ------
    BadValueError
        For a name that is not in the table, or a value outside its range.
    """

    def __init__(self, changes: Mapping[str, float] | None = None) -> None:
        self._changes = {n: _checked(n, v) for n, v in (changes or {}).items()}
        if self["low_percentile"] >= self["high_percentile"]:
            raise BadValueError(
                "low_percentile",
                f"less than high_percentile ({self['high_percentile']:g})",
                self["low_percentile"],
            )

    def __getitem__(self, name: str) -> float:
        return self._changes.get(name, TABLE[name].value)

    def __iter__(self) -> Iterator[str]:
        return iter(TABLE)

    def __len__(self) -> int:
        return len(TABLE)

    @property
    def changes(self) -> dict[str, float]:
        """What the plan changed, by name."""
        return dict(self._changes)

    def lasting(self, days: float) -> Assumed:
        """Return the same for a month of so many days, also one that is lived in part."""
        other = Assumed(self._changes)
        other._changes |= {"month_days": days, "draw_days": days}
        return other

    def is_changed(self, name: str) -> bool:
        """Say whether the plan changed this assumption."""
        return name in self._changes

    def triple(self, stem: str) -> tuple[float, float, float]:
        """Return the exact, phrase and broad values of a family of assumptions."""
        return (self[f"{stem}_exact"], self[f"{stem}_phrase"], self[f"{stem}_broad"])


def _checked(name: str, value: float) -> float:
    row = TABLE.get(name)
    if row is None:
        raise BadValueError("assumption", "a name from the table of assumptions", name)
    if not (isinstance(value, int | float) and not isinstance(value, bool)):
        raise BadValueError(name, "a number", value)
    if not math.isfinite(value) or not row.least <= value <= row.most:
        raise BadValueError(name, f"a number from {row.least:g} to {row.most:g}", value)
    return float(value)
