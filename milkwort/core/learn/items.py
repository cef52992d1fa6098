"""Codes of things among what people typed: what each would pay for as a spot of its own."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.learn.terms import TermRows
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.foreign import is_item_code
from milkwort.core.words.texts import normalise

__all__ = ["ItemAdvice", "advise_items"]

_RAISED = 1.10
_LOWERED = 0.90
"""As a term's own keyword bids a tenth above what it sold at, so a spot that sold does; one
that never sold bids a tenth less."""


@dataclass(frozen=True)
class ItemAdvice:
    """One code, summed over all keywords that served it.

    Attributes
    ----------
    code : str
        Normalised.
    keyword : int
        Row of the plan's table that served it for most money; −1 where none is known.
    sold : bool
    price : float
        Money a click for a spot of its own: what it paid and a tenth, in the plan's steps.
    clicks : float
        A month, at the pace of the days that are seen.
    step, least : float
        The plan's step of bids and the least of them, money.
    """

    code: str
    keyword: int
    sold: bool
    price: float
    clicks: float
    step: float
    least: float

    def lower(self, price: float) -> float:
        """Return a price a tenth below one, in the plan's steps and never under the least."""
        return _in_steps(price * _LOWERED, self.step, self.least)


def advise_items(result: PlanResult, rows: TermRows, days: int) -> list[ItemAdvice]:
    """Return the codes among the terms, the dearest first.

    Parameters
    ----------
    result : PlanResult
    rows : TermRows
    days : int
        That the rows are of, 1 or more.
    """
    assumed = result.brief.assumed
    held: dict[str, list[int]] = {}
    for at, text in enumerate(rows.texts):
        if is_item_code(text):
            held.setdefault(normalise(text), []).append(at)
    dearest = sorted(held.items(), key=lambda one: -float(rows.cost[one[1]].sum()))
    found = []
    for code, some in dearest:
        clicks, cost = float(rows.clicks[some].sum()), float(rows.cost[some].sum())
        paid = cost / clicks if clicks > 0 else 0.0
        found.append(
            ItemAdvice(
                code=code,
                keyword=int(rows.keyword[some[int(np.argmax(rows.cost[some]))]]),
                sold=bool(rows.customers[some].sum() > 0),
                price=_in_steps(paid * _RAISED, assumed["bid_step"], assumed["min_bid"]),
                clicks=clicks * assumed["month_days"] / max(days, 1),
                step=assumed["bid_step"], least=assumed["min_bid"],
            )
        )  # fmt: skip
    return found


def _in_steps(price: float, step: float, least: float) -> float:
    return round(max(float(np.floor(price / step + 1e-9)) * step, least), 10)
