"""What is worth saying beside a keyword, and beside a whole plan."""

from __future__ import annotations

import numpy as np

from milkwort.core.counted import counted, in_percent
from milkwort.core.plan.run import PlanResult

__all__ = ["NOTES", "notes_of", "notices_of"]

NOTES: dict[str, str] = {
    "no_volume": "no volume: not forecast",
    "showings_say_nothing": "counted as showings at a bid that says nothing of the searches: "
    "too far under the market, or no price known",
    "no_searches": "a volume of 0: nobody searches this",
    "no_price": "no price anywhere in the plan: not forecast",
    "price_assumed": "no price of its own: the median of its group or plan is assumed",
    "single_price": "one price only: the spread about it is assumed",
    "rate_zero": "a rate of 0: no price is low enough",
    "cannot_run": "kept, but its ceiling is under the least bid worth placing",
    "not_chosen": "kept, but the money brings more elsewhere",
    "stopped": "kept, but a negative matches it: it does not run",
    "served_elsewhere": "its own searches go to the same text with a closer match type",
    "spills": "it is also shown for keywords that were dropped: their clicks are waste",
    "thin": "under a click a month at its ceiling",
    "half_day": "the bid is over half a day’s money",
    "above_ceiling": "the bid set by hand is above the ceiling",
}
"""Every note's code and what it says."""


_BROKEN = {
    "least_spend": "{many} cannot spend as much as you ask at least, by {short}: no further step "
    "there is worth its price.",
    "most_spend": "{many} spend {short} more than you allow: bids set by hand take it.",
    "scouting_share": "The share set aside for scouting is not kept, by {short}: bids set by hand "
    "take it.",
}
"""What is said of each limit of money that the fit could not keep."""

_PASSED = {
    "least_spend": "{many} would spend {short} less than you ask at least: bids by a method keep "
    "to no limit.",
    "most_spend": "{many} would spend {short} more than you allow: bids by a method keep to no "
    "limit, but daily budgets stop there.",
    "scouting_share": "The share set aside for scouting is not kept, by {short}: bids by a method "
    "keep to no limit.",
}
"""The same where a method says the bids."""


def notes_of(result: PlanResult) -> list[list[str]]:
    """Return the codes of the notes of each keyword, in the table's order; not to be changed.

    Parameters
    ----------
    result : PlanResult
    """
    flags = _flags(result)
    bits = np.zeros(len(result.table), dtype=np.int64)
    for at, rows in enumerate(flags.values()):
        bits |= rows.astype(np.int64) << at
    # few combinations occur: one list each, not one a keyword
    kinds, which = np.unique(bits, return_inverse=True)
    said = [[code for at, code in enumerate(flags) if kind >> at & 1] for kind in kinds.tolist()]
    return [said[kind] for kind in which.tolist()]


def notices_of(result: PlanResult) -> list[str]:
    """Return what must be said of the plan as a whole, in sentences.

    Parameters
    ----------
    result : PlanResult
    """
    table, out = result.table, []
    if len(table) == 0:
        out.append("The plan has no keywords yet.")
    elif not table.kept.any():
        out.append("No keyword is kept yet, so nothing runs.")
    elif not result.prices.known.any():
        out.append("No keyword of the plan has a price, so nothing can be forecast.")
    elif not np.isfinite(result.demand.likely).any():
        out.append("No keyword of the plan has a volume, so nothing can be forecast.")
    out += _unmet(result)
    if result.expected.pace < 1:
        out.append(
            f"The bids would spend more than the purse: everything is paced to "
            f"{in_percent(result.expected.pace)} of what they could win."
        )
    return out


def _unmet(result: PlanResult) -> list[str]:
    """Say which limits are not kept, and by how much, those of campaigns together."""
    said, unmet, method = [], result.unmet, result.by_method
    why = "bids by a method keep to no limit." if method else "so many have a bid set by hand."
    for one in unmet:
        if one.limit == "max_keywords":
            said.append(
                f"{one.got:,.0f} keywords run though {one.wanted:,.0f} are asked for at most: {why}"
            )
    for limit, sentence in (_PASSED if method else _BROKEN).items():
        short = [abs(one.got - one.wanted) for one in unmet if one.limit == limit]
        if short:
            many = counted(len(short), "campaign")
            said.append(sentence.format(many=many, short=f"{sum(short):,.2f}"))
    return said


def _flags(result: PlanResult) -> dict[str, np.ndarray[tuple[int], np.dtype[np.bool_]]]:
    table, demand, prices = result.table, result.demand, result.prices
    kept, runs = table.kept, np.isfinite(result.bid)
    assumed = result.brief.assumed
    forecast = prices.known & (demand.likely > 0)
    idle = kept & ~runs & forecast & ~demand.stopped & (demand.searches > 0)
    top = np.minimum(result.standing.reach, assumed["most_reach"])
    can_run = (top >= assumed["least_reach"]) & (result.standing.ceiling >= assumed["min_bid"])
    day = result.brief.monthly_spend / assumed["month_days"]
    return {
        "no_volume": np.isnan(table.volume_high),
        "showings_say_nothing": np.isnan(demand.likely) & np.isfinite(table.volume_high),
        "no_searches": demand.likely == 0,
        "no_price": ~prices.known,
        "price_assumed": prices.assumed,
        "single_price": prices.single,
        "rate_zero": demand.rate <= 0,
        "stopped": kept & demand.stopped,
        "served_elsewhere": kept & ~demand.stopped & (demand.volume > 0) & (demand.own <= 0),
        "spills": runs & (demand.spill > 0),
        "cannot_run": idle & ~can_run,
        "not_chosen": idle & can_run,
        "thin": result.standing.thin & forecast,
        "half_day": runs & (np.nan_to_num(result.bid) > day / 2),
        "above_ceiling": np.isfinite(table.locked_bid)
        & runs
        & (np.nan_to_num(result.bid) > result.standing.ceiling * (1 + 1e-9)),
    }
