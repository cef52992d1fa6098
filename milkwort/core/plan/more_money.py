"""What a little more money would bring, and through which keywords."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from milkwort.core.plan.run import PlanResult

__all__ = ["MoreMoney", "more_money"]

_SHARE = 1 / 6
"""More money is asked about in steps that one would think of, of about this share."""
_ROUND = (1, 2, 5, 10)


@dataclass(frozen=True)
class MoreMoney:
    """Money on top of the purse, and what it would bring.

    Attributes
    ----------
    money : float
        A round sum a month.
    value : float
        Of the goal, a month.
    rows : tuple of int
        Keywords that would take most of it, the most first.
    """

    money: float
    value: float
    rows: tuple[int, ...]


def more_money(result: PlanResult, named: int) -> MoreMoney | None:
    """Say what about a sixth more money would bring; None where it would find no work.

    Parameters
    ----------
    result : PlanResult
    named : int
        How many keywords to name.
    """
    ladder, purse = result.fit.ladder, result.brief.monthly_spend
    if result.fit.next_return <= 0 or purse <= 0:
        return None
    rough = purse * _SHARE
    size = 10 ** np.floor(np.log10(rough))
    money = float(min(_ROUND, key=lambda n: abs(n * size - rough)) * size)
    steps = slice(ladder.whole_steps(purse), ladder.whole_steps(purse + money) + 1)
    owners, place = np.unique(ladder.owner[steps], return_inverse=True)
    order = np.argsort(-np.bincount(place, ladder.spend[steps]))[:named]
    return MoreMoney(
        money=money,
        value=ladder.relaxed(purse + money) - ladder.relaxed(purse),
        rows=tuple(int(owners[i]) for i in order if owners[i] < result.problem.keywords),
    )
