"""The arithmetic behind one bid: a method's steps, or the bounds and edge of the fit."""

from __future__ import annotations

import math

import numpy as np

from milkwort.core.fit.bids import METHODS
from milkwort.core.market.prices import price_at_reach
from milkwort.core.plan.bidding import policy_rows
from milkwort.core.plan.methods import method_steps
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.match_types import MATCHES
from milkwort.core.workings._sums import Line, Section

__all__ = ["bid_section"]


def bid_section(result: PlanResult, row: int) -> Section | None:
    """Return where a keyword's bid comes from; None where it has none."""
    bid = float(result.bid[row])
    if math.isnan(bid):
        return None
    title = f"Why a bid of {bid:.2f}"
    if np.isfinite(result.table.locked_bid[row]):
        return Section(title, [Line("set by hand", bid, "money", source="planner", result=True)])
    policy = next(p for p, rows in policy_rows(result.brief, result.table) if rows[row])
    if policy.name != "fitted":
        return Section(title, _method_lines(result, row, policy.name))
    return Section(title, [*_bound_lines(result, row), *_edge_lines(result, row)])


def _method_lines(result: PlanResult, row: int, policy: str) -> list[Line]:
    steps, assumed = method_steps(result), result.brief.assumed
    match = MATCHES[int(result.table.match[row])]
    words = int(result.demand.words[row])
    lines = [Line(METHODS[policy], float(steps.start[row]), "money")]
    name = f"bid_{match}"
    lines.append(Line(f"× {match} match", assumed[name], "factor", source="assumption",
                      assumption=name))  # fmt: skip
    if words < 3:
        name = "bid_one_word" if words == 1 else "bid_two_words"
        lines.append(Line(f"× {'one word' if words == 1 else 'two words'}", assumed[name],
                          "factor", source="assumption", assumption=name))  # fmt: skip
    for label, before, after in (
        ("not above the ceiling", steps.by_breadth, steps.under_ceiling),
        ("not above a day’s money ÷ clicks", steps.under_ceiling, steps.under_cap),
        ("one step up from a round price", steps.under_cap, steps.off_round),
    ):
        if after[row] != before[row]:
            lines.append(Line(label, float(after[row]), "money"))
    lines.append(
        Line("floored to the bid step", float(steps.bid[row]), "money", result=True,
             source="assumption", assumption="bid_step")
    )  # fmt: skip
    return lines


def _bound_lines(result: PlanResult, row: int) -> list[Line]:
    assumed, prices = result.brief.assumed, result.prices
    least = float(price_at_reach(assumed["least_reach"], prices)[row])
    most = float(price_at_reach(assumed["most_reach"], prices)[row])
    return [
        Line("ceiling", float(result.standing.ceiling[row]), "money"),
        Line("price at the least reach", least, "money", source="assumption",
             assumption="least_reach"),
        Line("price at the most reach", most, "money", source="assumption",
             assumption="most_reach"),
        Line("least bid of the platform", assumed["min_bid"], "money", source="assumption",
             assumption="min_bid"),
    ]  # fmt: skip


def _edge_lines(result: PlanResult, row: int) -> list[Line]:
    """Return what the next step up would cost and bring, against the edge of the money."""
    choices, goal = result.fit.choices, result.brief.goal
    hull, step = choices.hull, result.brief.assumed["bid_step"]
    to_bid = choices.options.steps[hull.option] * step
    above = np.flatnonzero((hull.owner == row) & (to_bid > result.bid[row] + step / 2))
    edge = float(result.fit.row_return[row])
    lines = []
    if len(above):
        up = int(above[0])
        value = float(
            result.problem.value(
                hull.owner[up : up + 1], hull.clicks[up : up + 1], hull.spend[up : up + 1]
            )[0]
        )
        lines = [
            Line(f"one step up, to {to_bid[up]:.2f}", float(hull.spend[up]), "money"),
            Line("brings", value, goal),
            Line("that is, a unit of money", value / float(hull.spend[up]), goal),
        ]
    else:
        lines.append(Line("no step above is worth its price", text="under your rule"))
    lines.append(Line("what the last money brings elsewhere", edge, goal, result=True))
    return lines
