"""The result of a headless run: as JSON, as flat CSV, as a table for the terminal."""

from __future__ import annotations

import csv
import io
import math
from collections.abc import Sequence
from typing import Any

import numpy as np
import orjson

from milkwort.core.arrange.conflicts import Conflict, conflicts_of
from milkwort.core.arrange.group_figures import group_figures
from milkwort.core.arrange.group_likeness import likeness_of
from milkwort.core.arrange.main_words import main_words
from milkwort.core.arrange.to_block import to_block
from milkwort.core.errors import Refusal
from milkwort.core.fit.unmet import Unmet
from milkwort.core.market.keyword_table import CALLS
from milkwort.core.market.standing import STANDINGS
from milkwort.core.plan.budgets import daily_budgets
from milkwort.core.plan.notes import NOTES, notes_of, notices_of
from milkwort.core.plan.run import PlanResult, attention_of, frontier_of
from milkwort.core.words.intents import INTENTS
from milkwort.core.words.lexicon import Lexicon, shipped_lexicon
from milkwort.core.workings.keyword import Line, keyword_workings
from milkwort.formats.cells import safe_cell
from milkwort.formats.keyword_rows import TablePlaces

__all__ = ["result_csv", "result_document", "result_json", "result_table", "workings_text"]

NOWHERE = TablePlaces(("",), ())
"""The one campaign of a table that names none."""

_EXPECTED = ("impressions", "clicks", "spend", "customers", "revenue", "profit")


def result_document(
    result: PlanResult,
    texts: Sequence[str],
    refused: Sequence[Refusal] = (),
    left_out: Sequence[str] = (),
    places: TablePlaces = NOWHERE,
    lexicon: Lexicon | None = None,
) -> dict[str, Any]:
    """Return a result as plain values, figures unrounded.

    Parameters
    ----------
    result : PlanResult
    texts : sequence of str
        Keywords as written, in the table's order.
    refused : sequence of Refusal
    left_out : sequence of str
        What of the brief's file was left out.
    places : TablePlaces
        Names behind the table's numbers.
    lexicon : Lexicon, optional
        Tells places, helper and warning words; the shipped one where left out.
    """
    campaigns, words = places.campaigns, lexicon or shipped_lexicon()
    totals = {k: v for k, v in vars(result.totals).items() if k != "keywords"}
    return {
        "plan": result.brief.name,
        "currency": result.brief.currency,
        "totals": totals,
        "goal": result.brief.goal,
        "value": result.value,
        "bound": result.bound,
        "exact": result.fit.exact,
        "next_unit": result.fit.next_unit,
        "unspent": result.fit.unspent,
        "frontier": _frontier(result),
        "attention": [vars(point) for point in attention_of(result)],
        "unmet": [_unmet(one, campaigns) for one in result.unmet],
        "campaigns": _campaigns(result, campaigns),
        "groups": _groups(result, places, words),
        "spots": _spots(result, campaigns),
        "ladder": _ladder(result, texts),
        "keywords": _keywords(result, texts),
        "to_block": [
            {"text": one.text, "match": one.match, "saves": one.saves}
            for one in to_block(result, words)
        ],
        "conflicts": [_conflict(c, texts) for c in conflicts_of(result)],
        "refused": [r.as_dict() for r in refused],
        "notices": [*left_out, *notices_of(result)],
    }


def result_json(document: dict[str, Any]) -> bytes:
    """Return a document as JSON; infinities and NaN become null."""
    return orjson.dumps(document, option=orjson.OPT_INDENT_2)


def result_csv(result: PlanResult, texts: Sequence[str]) -> str:
    """Return the keywords flat, a row each, spreadsheet formulas defused."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    flat = ("keyword", "match", "intent", "call", "standing", "own_searches", "searches", "spill",
            "rate", "ceiling", "reach_at_ceiling", "bid")  # fmt: skip
    writer.writerow([*flat, *_EXPECTED, "notes"])
    for keyword in _keywords(result, texts):
        cells = [keyword[name] for name in flat] + [keyword["expected"][e] for e in _EXPECTED]
        writer.writerow([safe_cell(c) for c in [*cells, " ".join(keyword["notes"])]])
    return out.getvalue()


def result_table(result: PlanResult, texts: Sequence[str], refused: Sequence[Refusal] = ()) -> str:
    """Return a summary for the terminal."""
    totals, brief = result.totals, result.brief
    worth, code = brief.worth, brief.currency
    standing = np.bincount(result.standing.standing, minlength=4)
    cost = totals.cost_per_customer
    per = "none expected" if cost is None else f"{cost:,.2f} {code}"
    lines = [
        f"{brief.name}",
        f"  ceiling        {worth.ceiling:,.2f} {code} a click, break-even at "
        f"{worth.break_even_cpc:,.2f}",
        f"  keywords       {len(result.table):,} read, {len(refused):,} refused, "
        f"{int(result.table.kept.sum()):,} kept, {totals.keywords:,} run",
        f"  standing       {standing[0]:,} in reach, {standing[1]:,} stretch, "
        f"{standing[2]:,} beyond",
        f"  spend          {totals.spend:,.2f} of {brief.monthly_spend:,.2f} {code} a month",
        f"  clicks         {totals.clicks:,.1f} a month",
        f"  customers      {totals.customers:,.2f} a month, {per} each",
        f"  profit         {totals.profit:,.2f} {code} a month",
        f"  next {_unit(code):<9} {result.fit.next_unit:.4f} {brief.goal}",
        f"  from the best  {result.fit.gap:.4%} at most" + (" (exact)" if result.fit.exact else ""),
        "",
        f"  {'keyword':<44}{'match':<8}{'bid':>7}{'clicks':>9}{'spend':>9}{'customers':>11}",
    ]
    order = np.argsort(-result.expected.spend, kind="stable")
    for row in order[:12]:
        if not math.isfinite(result.bid[row]):
            break
        e = result.expected
        lines.append(
            f"  {texts[row][:43]:<44}{result.table.match_name(row):<8}{result.bid[row]:>7.2f}"
            f"{e.clicks[row]:>9.2f}{e.spend[row]:>9.2f}{e.customers[row]:>11.3f}"
        )
    lines += [f"  … and {totals.keywords - 12:,} more"] if totals.keywords > 12 else []
    lines += [f"  {notice}" for notice in notices_of(result)]
    return "\n".join(lines) + "\n"


def workings_text(result: PlanResult, row: int, text: str) -> str:
    """Return the arithmetic of one keyword as lines of text."""
    notes = [NOTES[code] for code in notes_of(result)[row]]
    lines = [f"{text} ({result.table.match_name(row)})", *(f"  {n}" for n in notes)]
    for section in keyword_workings(result, row):
        lines += ["", section.title]
        for line in section.lines:
            mark = "= " if line.result else "  "
            by = f"   {line.formula}" if line.formula else ""
            source = f"   [{line.source}]" if line.source else ""
            lines.append(f"  {mark}{line.label:<36}{_said(line):>16}{by}{source}")
    return "\n".join(lines) + "\n"


def _said(line: Line) -> str:
    if line.text:
        return line.text
    if line.value is None:
        return "none"
    return f"{line.value:.4%}" if line.unit == "share" else f"{line.value:,.6g}"


def _unit(currency: str) -> str:
    return {"GBP": "pound", "EUR": "euro", "USD": "dollar"}.get(currency, "unit")


def _keywords(result: PlanResult, texts: Sequence[str]) -> list[dict[str, Any]]:
    table, demand, standing = result.table, result.demand, result.standing
    runs = np.isfinite(result.bid)
    expected = zip(*(getattr(result.expected, name).tolist() for name in _EXPECTED), strict=True)
    columns = zip(
        texts, table.match.tolist(), table.intent.tolist(), table.call.tolist(),
        standing.standing.tolist(), demand.own.tolist(), demand.searches.tolist(),
        demand.spill.tolist(), demand.rate.tolist(), standing.ceiling.tolist(),
        standing.reach.tolist(), result.bid.tolist(), runs.tolist(), expected, notes_of(result),
        strict=True,
    )  # fmt: skip
    matches = ("exact", "phrase", "broad")
    return [
        {
            "keyword": text,
            "match": matches[match],
            "intent": INTENTS[intent],
            "call": CALLS[call],
            "standing": STANDINGS[stands],
            "own_searches": own,
            "searches": searches,
            "spill": spill,
            "rate": rate,
            "ceiling": ceiling,
            "reach_at_ceiling": None if math.isnan(reach) else reach,
            "bid": bid if running else None,
            "expected": dict(zip(_EXPECTED, figures, strict=True)),
            "notes": notes,
        }
        for (text, match, intent, call, stands, own, searches, spill, rate, ceiling, reach, bid,
             running, figures, notes) in columns
    ]  # fmt: skip


def _groups(result: PlanResult, places: TablePlaces, lexicon: Lexicon) -> list[dict[str, Any]]:
    count = len(places.groups)
    figures = group_figures(result, count)
    columns = {name: column.tolist() for name, column in vars(figures).items()}
    main = main_words(result, count, lexicon)
    kept = np.where(result.table.kept, result.table.group, -1)
    alike = likeness_of(result.table.texts, kept, count).of_group.tolist()
    return [
        {
            "group": name,
            "campaign": places.campaigns[campaign],
            "words": [one.word for one in main[at]],
            "likeness": alike[at],
            **{column: values[at] for column, values in columns.items()},
        }
        for at, (campaign, name) in enumerate(places.groups)
    ]


def _spots(result: PlanResult, campaigns: Sequence[str]) -> list[dict[str, Any]]:
    columns = {n: c.tolist() for n, c in vars(result.spots).items() if n != "steps"}
    return [
        {
            "spot": spot.name,
            "campaign": campaigns[spot.campaign] if spot.campaign >= 0 else "",
            "pays": spot.pays,
            "price": spot.price,
            "click_price": spot.click_price,
            **{name: column[at] for name, column in columns.items()},
        }
        for at, spot in enumerate(result.brief.spots)
    ]


def _unmet(unmet: Unmet, campaigns: Sequence[str]) -> dict[str, Any]:
    return {
        "limit": unmet.limit,
        "campaign": campaigns[unmet.campaign] if unmet.campaign >= 0 else "",
        "wanted": unmet.wanted,
        "got": unmet.got,
    }


def _conflict(conflict: Conflict, texts: Sequence[str]) -> dict[str, Any]:
    return {
        "kind": conflict.kind,
        "keywords": [texts[row] for row in conflict.rows],
        "negative": conflict.negative,
        "searches": conflict.searches,
        "customers": conflict.customers,
        "spend": conflict.spend,
    }


def _frontier(result: PlanResult) -> list[dict[str, Any]]:
    curve = frontier_of(result)
    points = zip(*(column.tolist() for column in vars(curve).values()), strict=True)
    return [dict(zip(("purse", "spend", "value", "gap"), point, strict=True)) for point in points]


def _campaigns(result: PlanResult, names: Sequence[str]) -> list[dict[str, Any]]:
    budgets = daily_budgets(result)
    figures = (budgets.spend, budgets.daily, budgets.lost)
    return [
        {"campaign": names[campaign], "spend": spend, "daily_budget": daily, "clicks_lost": lost}
        for campaign, spend, daily, lost in zip(
            budgets.campaign.tolist(), *(column.tolist() for column in figures), strict=True
        )
    ]


def _ladder(result: PlanResult, texts: Sequence[str]) -> list[dict[str, Any]]:
    ladder, step = result.fit.ladder, result.brief.assumed["bid_step"]
    columns = zip(
        ladder.owner.tolist(),
        np.round(ladder.from_steps * step, 10).tolist(),
        np.round(ladder.to_steps * step, 10).tolist(),
        ladder.spend.tolist(),
        ladder.value.tolist(),
        ladder.spend_so_far.tolist(),
        ladder.value_so_far.tolist(),
        strict=True,
    )
    return [
        {
            **_taker(result, texts, owner, from_bid, to_bid),
            "spend": spend,
            "value": value,
            "spend_so_far": spend_so_far,
            "value_so_far": value_so_far,
        }
        for owner, from_bid, to_bid, spend, value, spend_so_far, value_so_far in columns
    ]


def _taker(
    result: PlanResult, texts: Sequence[str], owner: int, from_bid: float, to_bid: float
) -> dict[str, Any]:
    """Return who takes a step of the ladder: a keyword at its bids, or a spot, which has none."""
    if owner >= result.problem.keywords:
        spot = result.brief.spots[owner - result.problem.keywords]
        return {"keyword": "", "match": "", "spot": spot.name, "from_bid": None, "to_bid": None}
    return {
        "keyword": texts[owner],
        "match": result.table.match_name(owner),
        "spot": "",
        "from_bid": from_bid or None,
        "to_bid": to_bid,
    }
