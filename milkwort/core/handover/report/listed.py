"""What is bought, what would be next, what is too dear or kept out, and the ads."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from milkwort.core.handover.report.making import Making
from milkwort.core.handover.report.shape import Column, Section, Table
from milkwort.core.market.standing import Stand
from milkwort.core.plan.run import run_plan

__all__ = ["ads", "blocked", "buy_now", "next_in_line", "too_dear"]


def buy_now(of: Making) -> Section:
    """Return what is bought, by what it spends.

    Parameters
    ----------
    of : Making
    """
    words, e = of.words["buy_now"], of.result.expected
    about = words["about"].format(count=of.options.style.said(len(of.running), "whole"),
                                  spend=of.money(float(e.spend.sum())))  # fmt: skip
    figures = {
        "group": of.group_names(), "searches": of.result.demand.searches,
        "bid": of.result.bid, "cpc": e.cpc, "clicks": e.clicks, "customers": e.customers,
        "spend": e.spend,
    }  # fmt: skip
    return Section("buy_now", words["title"], (about,), (of.keywords(of.running, figures),))


def next_in_line(of: Making) -> Section:
    """Return what more money would buy, by the customers it would bring.

    Parameters
    ----------
    of : Making
    """
    words, outside = of.words["next_in_line"], of.result.not_kept
    rows = np.flatnonzero(np.isfinite(outside.bid))
    rows = rows[np.argsort(-outside.customers[rows], kind="stable")]
    figures = {
        "group": of.group_names(), "searches": of.result.demand.volume,
        "bid": outside.bid, "clicks": outside.clicks, "customers": outside.customers,
        "spend": outside.spend,
    }  # fmt: skip
    return Section("next_in_line", words["title"], (words["about"],),
                   (of.keywords(rows, figures),))  # fmt: skip


def too_dear(of: Making) -> Section:
    """Return what is not bought because it costs more than a click is worth.

    Parameters
    ----------
    of : Making
    """
    words, result = of.words["too_dear"], of.result
    beyond = result.standing.standing == Stand.BEYOND
    rows = np.flatnonzero(beyond & ~np.isfinite(result.bid))
    rows = rows[np.argsort(-np.nan_to_num(result.demand.volume[rows]), kind="stable")]
    words_why = of.words["why"]
    why = {row: words_why["dear" if result.demand.rate[row] > 0 else "never"]
           for row in rows.tolist()}  # fmt: skip
    figures = {"searches": result.demand.volume, "cpc": np.exp(result.prices.mu),
               "line": result.standing.ceiling, "why": why}  # fmt: skip
    return Section("too_dear", words["title"], (words["about"],),
                   (of.keywords(rows, figures),))  # fmt: skip


def blocked(of: Making) -> Section:
    """Return the negatives, and what they save a month.

    Parameters
    ----------
    of : Making
    """
    words, result = of.words["blocked"], of.result
    negatives = result.brief.negatives
    if not negatives:
        return Section("blocked", words["title"], (words["none"],))
    free = run_plan(replace(result.brief, negatives=()), result.table)
    wasted = np.nan_to_num(free.demand.spill) - np.nan_to_num(result.demand.spill)
    clicks = free.expected.clicks * np.divide(
        np.maximum(wasted, 0), free.demand.searches, out=np.zeros(len(wasted)),
        where=free.demand.searches > 0,
    )  # fmt: skip
    saved = float((clicks * free.expected.cpc).sum())
    heads = of.words["columns"]
    table = Table(
        (Column("text", heads["text"], "text"), Column("match", heads["match"], "text")),
        tuple((n.text, n.match) for n in negatives),
    )
    about = words["about"].format(spend=of.money(saved))
    return Section("blocked", words["title"], (about,), (table,))


def ads(of: Making) -> Section:
    """Return each group's ad as it will read.

    Parameters
    ----------
    of : Making
    """
    words, heads = of.words["ads"], of.words["columns"]
    if not of.about.ads:
        return Section("ads", words["title"], (words["none"],))
    columns = (Column("ad", heads["ad"], "text"), Column("text", heads["text"], "text"))
    rows = tuple((group, " · ".join(line for line in lines if line))
                 for group, lines in of.about.ads)  # fmt: skip
    return Section("ads", words["title"], (), (Table(columns, rows),))
