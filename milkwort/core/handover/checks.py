"""What a careful person looks at before a plan leaves."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass

import numpy as np

from milkwort.core.counted import counted
from milkwort.core.market.keyword_table import CALLS
from milkwort.core.plan.notes import notices_of
from milkwort.core.plan.run import PlanResult

__all__ = ["Check", "last_checks"]

_TO_SAY = ("sale_value", "gross_margin", "rate_likely", "monthly_spend")
"""Figures of the brief without which every other is a guess."""


@dataclass(frozen=True)
class Check:
    """One thing to look at, in a sentence, and the stage where it is mended."""

    text: str
    stage: str


def last_checks(
    result: PlanResult, not_entered: Collection[str] = (), notices: Collection[str] | None = None
) -> list[Check]:
    """Return what to look at before launch.

    Parameters
    ----------
    result : PlanResult
    not_entered : collection of str
        Fields of the brief that nobody has entered yet.
    notices : collection of str, optional
        What is said of the plan as a whole; worked out where left out.
    """
    table, kept = result.table, result.table.kept
    # a bid may sit a rounding error above its ceiling
    above = np.nan_to_num(result.bid) > result.standing.ceiling * (1 + 1e-9)
    to_call = int((table.call == CALLS.index("none")).sum())
    idle = int((kept & ~np.isfinite(result.bid)).sum())
    over = int((above & kept).sum())
    assumed = int((result.prices.assumed & kept).sum())
    guessed = sum(name in not_entered for name in _TO_SAY)
    found = [Check(said, "sift") for said in (notices_of(result) if notices is None else notices)]
    for count, said, stage in (
        (to_call, f"{counted(to_call, 'keyword is', 'keywords are')} not yet called.", "sift"),
        (idle, f"{counted(idle, 'kept keyword')} will not run.", "fit"),
        (over, f"{counted(over, 'bid is above its ceiling', 'bids are above their ceilings')}.",
         "fit"),
        (assumed, f"{counted(assumed, 'kept keyword has', 'kept keywords have')} no price of "
         f"{'its' if assumed == 1 else 'their'} own.", "gather"),
        (guessed, f"{counted(guessed, 'figure of the brief is', 'figures of the brief are')} "
         "still assumed.", "brief"),
    ):  # fmt: skip
        if count:
            found.append(Check(said, stage))
    return found
