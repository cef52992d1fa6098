"""The arithmetic behind a keyword, as short sums with units and sources."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from milkwort.core.assumptions import Assumed
from milkwort.core.brief.brief import Brief
from milkwort.core.market.demand import coverage, likely_volume
from milkwort.core.market.standing import Stand, clicks_to_first_sale, clicks_to_stop, come_in
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.intents import INTENTS
from milkwort.core.words.match_types import MATCHES
from milkwort.core.workings._beside import beside_section
from milkwort.core.workings._bids import bid_section
from milkwort.core.workings._sums import Line, Section, pace_lines

__all__ = ["Line", "Section", "keyword_workings"]

_MANY_WEEKS = 13
_OF_THE_BRIEF = frozenset({"area_share", "min_bid", "bid_step", "platform_raise"})
"""Defaults that the brief itself asks for."""


def keyword_workings(result: PlanResult, row: int) -> list[Section]:
    """Return the arithmetic of one keyword, the same numbers as the plan's arrays.

    Parameters
    ----------
    result : PlanResult
    row : int
        Its place in the table.
    """
    sections = [_worth_section(result, row), _demand_section(result, row)]
    if not result.prices.known[row]:
        sections.append(
            Section("What the market asks", [Line("price", text="no price anywhere in the plan")])
        )
        return [said_by_whom(section, result.brief) for section in sections]
    sections.append(_market_section(result, row))
    sections.append(_month_section(result, row))
    bid = bid_section(result, row)
    if bid is not None:
        sections.append(bid)
    beside = beside_section(result, row)
    if beside is not None:
        sections.append(beside)
    sections.append(_evidence_section(result, row))
    if result.standing.standing[row] == Stand.BEYOND:
        sections.append(_come_in_section(result, row))
    return [said_by_whom(section, result.brief) for section in sections]


def said_by_whom(section: Section, brief: Brief) -> Section:
    """Return a sum in which a default that was changed is no assumption any more."""

    def said(line: Line) -> Line:
        if line.source != "assumption" or not brief.assumed.is_changed(line.assumption):
            return line
        entered = "brief" if line.assumption in _OF_THE_BRIEF else "planner"
        return replace(line, source=entered)

    return replace(section, lines=[said(line) for line in section.lines])


def _worth_section(result: PlanResult, row: int) -> Section:
    place = int(result.table.offer[row])
    brief, offer, worth = result.brief, result.brief.offers[place], result.brief.worths[place]
    lines = [
        Line("one sale", offer.sale_value, "money", source="brief"),
        Line("× margin", offer.gross_margin, "share", source="brief"),
        Line("× sales per customer", offer.sales_per_customer, source="brief"),
        Line("contribution of a customer", worth.contribution, "money", "V · m · k"),
        Line(
            "allowed cost per customer", worth.allowed, "money", _rule_formula(brief),
            source="brief",
        ),
        *_rate_lines(result, row),
        *(
            [Line("÷ what the platform may add", 1 + brief.assumed["platform_raise"], "factor",
                  source="assumption", assumption="platform_raise")]
            if brief.assumed["platform_raise"] > 0
            else []
        ),
        Line(
            "ceiling per click",
            float(result.standing.ceiling[row]),
            "money",
            "allowed cost · rate"
            + ("" if brief.ceiling.max_cpc is None else ", at most your highest price"),
            result=True,
        ),
    ]  # fmt: skip
    return Section("What a click is worth", lines)


def _rate_lines(result: PlanResult, row: int) -> list[Line]:
    demand, table, brief = result.demand, result.table, result.brief
    base, rate = float(demand.base_rate[row]), float(demand.rate[row])
    if not math.isnan(table.rate[row]):
        lines = [Line("rate of its own", base, "share", source="reading")]
    else:
        intent = INTENTS[int(table.intent[row])]
        lines = [
            Line(
                "customers per click",
                brief.offers[int(table.offer[row])].rate.likely,
                "share",
                source="brief",
            ),
            Line(
                f"× {intent} intent",
                brief.assumed[f"intent_{intent}"],
                "factor",
                source="assumption",
                assumption=f"intent_{intent}",
            ),
        ]
    if rate != base:
        lines.append(Line("rate with its variants", rate, "share", "r · (D + f·κ·(U + X)) ÷ Q"))
    return lines


def _rule_formula(brief: Brief) -> str:
    value = brief.ceiling.value
    return {
        "break_even": "V·m·k: break even",
        "profit_share": f"V·m·k · (1 − {value or 0:g})",
        "cost_per_customer": f"{value or 0:g} a customer",
        "return_on_spend": f"V·k ÷ {value or 1:g}",
        "cost_of_sale": f"{value or 0:g} · V·k",
    }[brief.ceiling.rule]


def _demand_section(result: PlanResult, row: int) -> Section:
    demand, table, assumed = result.demand, result.table, result.brief.assumed
    low, high = float(table.volume_low[row]), float(table.volume_high[row])
    if math.isnan(low):
        return Section("How many search it", [Line("volume", text="none read: not forecast")])
    lines = []
    if low != high:
        lines.append(Line("from", low, source="reading"))
        lines.append(Line("to", high, source="reading"))
    showings = not math.isnan(table.shown_at_bid[row])
    read = float(
        likely_volume(table.volume_low[row : row + 1], table.volume_high[row : row + 1])[0]
    )
    lines.append(
        Line(
            "times shown a month" if showings else "searches a month",
            read,
            formula="√(from · to)" if low != high else "",
            source="" if low != high else "reading",
        )
    )
    if showings:
        bid = float(table.shown_at_bid[row])
        if math.isnan(demand.likely[row]):
            lines.append(Line(f"at a bid of {bid:.2f}", text="says nothing of the searches"))
            return Section("How many search it", lines)
        lines.append(Line(f"÷ reach at a bid of {bid:.2f}", float(demand.counted[row]), "share"))
        lines.append(Line("searches a month", float(demand.likely[row]), result=True))
    share = float(demand.area_share[row])
    if demand.at_home[row]:
        lines.append(Line("× area share", 1.0, "share", "names one of your places"))
    elif share != 1 or assumed.is_changed("area_share"):
        own = result.brief.own_terms.get(int(table.campaign[row]))
        if own is not None and own.area_share is not None:
            lines.append(Line("× area share", share, "share", source="campaign"))
        else:
            lines.append(Line("× area share", share, "share", source="assumption",
                              assumption="area_share"))  # fmt: skip
    if demand.shown[row] != 1:
        shown = float(demand.shown[row])
        lines.append(Line("× shown in our days and hours", shown, "share", "brief"))
    words = demand.words[row : row + 1]
    basis = table.basis[row : row + 1]
    counted = float(coverage(basis, words, assumed)[0])
    if counted != 1:
        lines.append(Line(f"÷ counted as {MATCHES[int(basis[0])]}", counted, "factor"))
    lines.append(Line("searches for the very text", float(demand.volume[row]), result=True))
    return Section("How many search it", lines + _served_lines(result, row))


def _served_lines(result: PlanResult, row: int) -> list[Line]:
    """Return who else's searches the keyword is shown for, and what becomes of its own."""
    demand, table, assumed = result.demand, result.table, result.brief.assumed
    if demand.stopped[row]:
        return [Line("stopped by a negative", text="serves nothing")]
    lines = []
    if table.kept[row] and demand.volume[row] > 0 and demand.own[row] <= 0:
        lines.append(Line("its own searches", text="go to a closer match type of the same text"))
    for label, value, formula in (
        ("+ variants not called", demand.uncalled[row], "served by it alone"),
        ("+ variants beyond the sheet", demand.unknown[row],
         "own · (coverage − 1) − known variants"),
        ("+ spill, dropped keywords", demand.spill[row], "paid for, never sold"),
    ):  # fmt: skip
        if value > 0:
            lines.append(Line(label, float(value), formula=formula))
    if not lines:
        return []
    lines.append(Line("searches it is shown for", float(demand.searches[row]), result=True))
    match = table.match_name(row)
    if match != "exact":
        lines.append(Line("clicks of a variant", assumed[f"variant_clicks_{match}"], "factor",
                          source="assumption", assumption=f"variant_clicks_{match}"))  # fmt: skip
        lines.append(Line("sales of a variant", assumed[f"variant_sales_{match}"], "factor",
                          source="assumption", assumption=f"variant_sales_{match}"))  # fmt: skip
        lines.append(Line("click weight", float(demand.click_weight[row]),
                          formula="D + f · (U + X + W)", result=True))  # fmt: skip
    return lines


def _market_section(result: PlanResult, row: int) -> Section:
    prices, standing, assumed = result.prices, result.standing, result.brief.assumed
    source = "" if prices.assumed[row] else "reading"
    lines = [
        Line("low price", float(prices.low[row]), "money", source=source,
             assumption="low_percentile"),
        Line("high price", float(prices.high[row]), "money", source=source,
             assumption="high_percentile"),
        Line("median price", math.exp(float(prices.mu[row])), "money", "e^μ"),
        Line("spread", float(prices.sigma[row]), "log units", "σ"),
        Line("reach at the ceiling", float(standing.reach[row]), "share", "Φ((ln ceiling − μ) ÷ σ)",
             result=True),
    ]  # fmt: skip
    if prices.assumed[row]:
        lines.insert(0, Line("no price of its own", text="median of its group or plan assumed"))
    elif prices.single[row]:
        lines.insert(
            0,
            Line("one price only, high ÷ low", assumed["single_price_ratio"], "factor",
                 source="assumption", assumption="single_price_ratio"),
        )  # fmt: skip
    return Section("What the market asks", lines)


def _month_section(result: PlanResult, row: int) -> Section:
    bid = float(result.bid[row])
    if math.isnan(bid):
        return _outside_section(result, row)
    e, demand, assumed = result.expected, result.demand, result.brief.assumed
    lines = [
        Line("searches", float(demand.searches[row])),
        Line("× reach", float(e.reach[row]), "share", "Φ((ln bid − μ) ÷ σ)"),
        *pace_lines(result),
        Line("impressions", float(e.impressions[row])),
        Line("× click rate", float(e.click_rate[row]), "share",
             f"{assumed['click_rate_top']:g} · (d + (1 − d) · reach)",
             source="assumption", assumption="click_rate_top"),
        Line("clicks", float(e.clicks[row]), result=True),
        Line("× average price", float(e.cpc[row]), "money", "you pay just enough to win"
             if result.brief.pricing == "pay_enough" else "you pay what you bid"),
        Line("spend", float(e.spend[row]), "money", result=True),
        Line("clicks × rate", float(demand.rate[row]), "share"),
        Line("customers", float(e.customers[row]), result=True),
        Line("profit", float(e.profit[row]), "money", "customers · V·m·k − spend"),
    ]  # fmt: skip
    return Section(f"What a month brings at {bid:.2f}", lines)


def _outside_section(result: PlanResult, row: int) -> Section:
    extra = result.not_kept
    if result.table.kept[row] or not np.isfinite(extra.bid[row]):
        why = "kept, but no bid of its own is worth placing" if result.table.kept[row] else (
            "nothing at the present next unit of money"
        )  # fmt: skip
        return Section("What a month brings", [Line("it does not run", text=why)])
    lines = [
        Line("at a bid of", float(extra.bid[row]), "money"),
        Line("clicks", float(extra.clicks[row])),
        Line("spend", float(extra.spend[row]), "money"),
        Line("customers", float(extra.customers[row]), result=True),
    ]
    return Section("What it would bring, if kept", lines)


def _evidence_section(result: PlanResult, row: int) -> Section:
    assumed, rate = result.brief.assumed, float(result.demand.rate[row])
    price = float(result.expected.cpc[row]) or math.exp(float(result.prices.mu[row]))
    first = float(clicks_to_first_sale(np.array([rate]), assumed)[0])
    stop = clicks_to_stop(rate, price, float(result.worth.allowed[row]), assumed)
    clicks = float(result.expected.clicks[row])
    lines = []
    for label, count, name in (
        ("clicks to a likely first sale", first, "first_sale_chance"),
        ("clicks to a stop, none sold", stop, "stop_chance"),
    ):
        if not math.isfinite(count):
            lines.append(Line(label, text="never"))
            continue
        lines.append(Line(label, count, assumption=name))
        lines.append(Line("… at a cost of", count * price, "money"))
        if clicks > 0:
            months = count / clicks
            slow = months > assumed["never_months"]
            lines.append(
                Line("… in", text="never at this pace") if slow else _time(months, assumed)
            )
    return Section("Before you can judge it", lines)


def _time(months: float, assumed: Assumed) -> Line:
    """Return a time that people can picture: weeks, or months where it is many of them."""
    weeks = months * assumed["month_days"] / 7
    if weeks < _MANY_WEEKS:
        return Line("… in", weeks, "weeks", "clicks ÷ clicks a week")
    return Line("… in", months, "months", "clicks ÷ clicks a month")


def _come_in_section(result: PlanResult, row: int) -> Section:
    needed = come_in(
        result.brief,
        float(result.demand.rate[row]),
        float(result.prices.mu[row]),
        float(result.prices.sigma[row]),
        int(result.table.offer[row]),
    )
    lines = [Line("price at the line", needed.price, "money",
                  "wins a quarter of the searches", assumption="stretch")]  # fmt: skip
    if needed.rate is not None:
        lines.append(Line("a rate of", needed.rate, "share", f"1 click in {1 / needed.rate:.0f}"))
    if needed.sale_value is not None:
        lines.append(Line("or a sale of", needed.sale_value, "money"))
    if needed.price_factor is not None:
        lines.append(Line("or prices at", needed.price_factor, "share", "of today’s"))
    if needed.why_none:
        lines.append(Line("no rate would", text=needed.why_none))
    return Section("What would bring it in", lines)
