"""The arithmetic of how sure a month is: its draws, what moves them, where a plan turns."""

from __future__ import annotations

import math

import numpy as np
from scipy.special import ndtri

from milkwort.core.plan.budget_use import BudgetUse
from milkwort.core.plan.draws import Draws, GroupDoubt
from milkwort.core.plan.must_be import MustBe, Turn
from milkwort.core.plan.odds import Odd
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.spreads import Spreads, spreads_of
from milkwort.core.workings._sums import Line, Section

__all__ = [
    "doubt_workings", "drawn_workings", "move_workings", "must_workings", "odd_workings",
    "spread_line", "use_workings",
]  # fmt: skip

_P90 = float(ndtri(0.9))
_MONEY = ("spend", "cost_per_customer", "revenue", "profit")
_SPREADS = {
    "searches": ("spread of all searches", "draw_searches", "searches"),
    "variants": ("spread of what is searched close to them", "draw_variants", ""),
    "prices": ("spread of all prices", "draw_price", "price"),
    "click rate": ("spread of all click rates", "draw_click_rate", "click_rate"),
}
"""By shared input: what it is called, its assumption, and its place in what results leave."""


def drawn_workings(result: PlanResult, draws: Draws, figure: str) -> list[Section]:
    """Return how the range of one figure of the month comes about.

    Parameters
    ----------
    result : PlanResult
    draws : Draws
        Of that plan.
    figure : str
        From `FIGURES`.
    """
    spreads = spreads_of(result)
    return [
        Section("What each month is drawn from", [
            *(spread_line(result, spreads, name) for name in _SPREADS),
            Line("searches of one keyword", text="within its range, or about its figure"),
            *_rates(result),
            Line("clicks and sales", text="by chance, day by day, under each day’s money"),
        ]),
        Section("The months in order", _in_order(draws, figure)),
        Section("Beside it", [
            Line("expected, luck left aside", getattr(result.totals, figure), _unit(figure),
                 "as in the purse"),
        ]),
    ]  # fmt: skip


def spread_line(result: PlanResult, spreads: Spreads, name: str) -> Line:
    """Return the line of how far one shared input is spread; as results leave it once they did.

    Parameters
    ----------
    result : PlanResult
    spreads : Spreads
        Of that plan.
    name : str
        From `SHARED`, conversion excepted.
    """
    label, assumption, taught = _SPREADS[name]
    if result.brief.taught is not None and taught:
        return Line(label, float(getattr(spreads.plan, taught)), "share", "as results leave it")
    return Line(label, result.brief.assumed[assumption], "share", "in log units",
                source="assumption", assumption=assumption)  # fmt: skip


def _rates(result: PlanResult) -> list[Line]:
    rate = result.brief.offer.rate
    return [
        Line("customers a click: low", rate.low, "share", "one month in ten is below", "brief"),
        Line("customers a click: likely", rate.likely, "share", source="brief"),
        Line("customers a click: high", rate.high, "share", "one month in ten is above", "brief"),
    ]


def _in_order(draws: Draws, figure: str) -> list[Line]:
    values, unit, count = draws.figures[figure], _unit(figure), draws.count
    known, found = values[np.isfinite(values)], draws.ranges[figure]
    lines = [Line("months drawn", float(count))]
    if len(known) < count:
        lines.append(Line("of them without a customer", float(count - len(known)),
                          formula="a customer then costs more than any sum"))  # fmt: skip
    if not len(known):
        return lines
    return [
        *lines,
        Line("the least", float(known.min()), unit),
        _end("one in ten is below", found.low, unit),
        _end("the middle one", found.middle, unit),
        Line("the mean", float(known.mean()), unit),
        _end("one in ten is above", found.high, unit),
        Line("the most", float(known.max()), unit),
    ]


def _end(label: str, value: float, unit: str) -> Line:
    if not math.isfinite(value):
        return Line(label, text="nobody buys", result=True)
    return Line(label, float(value), unit, result=True)


def _unit(figure: str) -> str:
    return "money" if figure in _MONEY else "count"


def move_workings(result: PlanResult, draws: Draws, name: str) -> list[Section]:
    """Return how far one shared input moves the month.

    Parameters
    ----------
    result : PlanResult
    draws : Draws
    name : str
        From `SHARED`.
    """
    swing = draws.moves[name]
    if name == "conversion":
        spread = _rates(result)
    else:
        line = spread_line(result, spreads_of(result), name)
        s = line.value or 0.0
        spread = [
            line,
            Line("at its low", math.exp(-_P90 * s), "factor", "e^(−1.2816 · spread)"),
            Line("at its high", math.exp(_P90 * s), "factor", "e^(1.2816 · spread)"),
        ]
    return [
        Section("The input, every other as likely", spread),
        Section("Customers a month", [
            Line("at its low", swing.customers[0]),
            Line("at its high", swing.customers[1]),
            Line("apart", abs(swing.customers[1] - swing.customers[0]), result=True),
        ]),
        Section("Profit a month", [
            Line("at its low", swing.profit[0], "money"),
            Line("at its high", swing.profit[1], "money"),
            Line("apart", abs(swing.profit[1] - swing.profit[0]), "money", result=True),
        ]),
    ]  # fmt: skip


def must_workings(one: MustBe) -> list[Section]:
    """Return at which values of one input a plan turns.

    Parameters
    ----------
    one : MustBe
    """
    unit = {"conversion": "share", "margin": "share", "sale value": "money"}.get(one.input, "count")
    return [
        Section("It just meets your rule", _turn(one, one.rule, unit,
                                                 "where Σ customers · allowed = spend")),
        Section("It breaks even", _turn(one, one.even, unit,
                                        "where Σ customers · contribution = spend")),
        Section("It brings under one customer a month", _turn(one, one.nothing, unit,
                                                              "where Σ customers = 1")),
    ]  # fmt: skip


def _turn(one: MustBe, turn: Turn, unit: str, where: str) -> list[Line]:
    now = [] if one.now is None else [Line("now", one.now, unit, source="brief")]
    if turn.times is None:
        return [*now, Line("no value of it does", text="none", formula=where)]
    value = [] if one.now is None else [
        Line("it turns at", one.now * turn.times, unit, "now × times", result=True)
    ]  # fmt: skip
    chance = [] if turn.chance is None else [
        Line("a value beyond it", turn.chance, "share", "Φ(−|ln times| ÷ spread)")
    ]  # fmt: skip
    return [*now, Line("times what it is", turn.times, "factor", where, result=not value),
            *value, *chance]  # fmt: skip


def odd_workings(odd: Odd, draws: Draws) -> list[Section]:
    """Return how a chance is counted.

    Parameters
    ----------
    odd : Odd
    draws : Draws
        The months it is counted in.
    """
    return [
        Section("Counted in the months drawn", [
            Line("months drawn", float(draws.count)),
            Line(f"of them those in which {odd.says}", round(odd.share * draws.count)),
            Line("share", odd.share, "share", "those ÷ all", result=True),
        ])
    ]  # fmt: skip


def use_workings(use: BudgetUse) -> list[Section]:
    """Return where the purse goes, in the mean of the draws.

    Parameters
    ----------
    use : BudgetUse
    """
    return [
        Section("Where the purse goes, in the mean", [
            Line("the purse", use.purse, "money", source="brief"),
            Line("− no step is worth its price", use.not_planned, "money",
                 "purse − expected spend"),
            Line("− searches and clicks that don’t come", use.not_searched, "money",
                 "expected − wanted; below 0 where more is wanted"),
            Line("− wanted when a day’s money is out", use.cut, "money", "wanted − spent"),
            Line("spent", use.spent, "money", "mean of the draws", result=True),
        ]),
        Section("The months in order", [
            Line("one in ten spends less than", use.spend.low, "money"),
            Line("the middle one", use.spend.middle, "money", result=True),
            Line("one in ten spends more than", use.spend.high, "money"),
        ]),
    ]  # fmt: skip


def doubt_workings(doubt: GroupDoubt, draws: Draws) -> list[Section]:
    """Return what of the month's doubt one group or spot holds.

    Parameters
    ----------
    doubt : GroupDoubt
    draws : Draws
    """
    whole = float(draws.customers.var())
    return [
        Section("Its customers in the months drawn", [
            Line("one in ten is below", doubt.customers.low),
            Line("the middle one", doubt.customers.middle, result=True),
            Line("one in ten is above", doubt.customers.high),
        ]),
        Section("Its part of the doubt", [
            Line("variance of all customers", whole),
            Line("its covariance with all", doubt.share * whole),
            Line("its part", doubt.share, "share", "covariance ÷ variance", result=True),
        ]),
    ]  # fmt: skip
