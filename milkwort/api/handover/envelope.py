"""The envelope, opened: what was true of each keyword beside what the plan assumed."""

from __future__ import annotations

from calendar import monthrange
from collections.abc import Mapping
from datetime import date, timedelta
from typing import TYPE_CHECKING, Any

import numpy as np

from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.fit.given_options import fit_options
from milkwort.core.fit.options import bid_lattice
from milkwort.core.words.match_types import MATCHES
from milkwort.platforms.platform import OpenAccount

if TYPE_CHECKING:
    from milkwort.platforms.http import HttpPlatform

__all__ = ["envelope_view"]

_BIDS = 60


def envelope_view(plan: OpenPlan, platform: HttpPlatform, account: OpenAccount) -> dict[str, Any]:
    """Return the hidden truth beside the plan, and what hindsight would have brought."""
    truth = platform.envelope(account)
    state = platform.state(account)
    start, today = (date.fromisoformat(state[name]) for name in ("start", "today"))
    until = today - timedelta(days=1)
    since = max(start, until - timedelta(days=_days_of_month(until) - 1))
    hindsight: dict[str, Any] = {"plan": None, "hindsight": None}
    best: Mapping[str, float] = {}
    if until >= start:
        hindsight, best = _hindsight(plan, platform, account, since, until)
    unknown = truth["unknown_terms"]
    useless = sum(s for s, useful in zip(unknown["searches"], unknown["useful"], strict=True)
                  if not useful)  # fmt: skip
    return {
        "opened": truth["opened"], "level": truth["level"], "seed": truth["seed"],
        "since": since.isoformat() if until >= start else None,
        "until": until.isoformat() if until >= start else None,
        **hindsight, "keywords": _keywords(plan, truth, best),
        "useless": useless, "unknown": sum(unknown["searches"]),
    }  # fmt: skip


def _keywords(
    plan: OpenPlan, truth: Mapping[str, Any], best: Mapping[str, float]
) -> list[dict[str, Any]]:
    """Return the kept keywords, those with most clicks first."""
    place = {text: at for at, text in enumerate(truth["texts"])}
    table, result = plan.result.table, plan.result
    rows = [row for row in np.flatnonzero(table.kept).tolist() if table.texts[row] in place]
    rows.sort(key=lambda row: -float(result.expected.clicks[row]))
    found = []
    for row in rows:
        at = place[table.texts[row]]
        low, high = truth["price_low"][at], truth["price_high"][at]
        price = result.prices.mu[row]
        found.append({
            "keyword": plan.sheet.entries[row].text, "match": MATCHES[table.match[row]],
            "searches": truth["known_searches"][at], "true_searches": truth["searches"][at],
            "price": float(np.exp(price)) if np.isfinite(price) else None,
            "true_price": float(np.sqrt(low * high)),
            "rate": float(result.demand.base_rate[row]), "true_rate": truth["rate"][at],
            "clicks": float(result.expected.clicks[row]),
            "best_bid": best.get(plan.sheet.entries[row].key),
        })  # fmt: skip
    return found


def _hindsight(
    plan: OpenPlan, platform: HttpPlatform, account: OpenAccount, since: date, until: date
) -> tuple[dict[str, Any], dict[str, float]]:
    result = plan.result
    assumed = result.brief.assumed
    ceilings = result.standing.ceiling[np.isfinite(result.standing.ceiling)]
    highest = max(float(ceilings.max(initial=0.0)) * 1.5, assumed["min_bid"])
    bids = bid_lattice(highest, assumed) * assumed["bid_step"]
    some = np.unique(np.linspace(0, len(bids) - 1, min(_BIDS, len(bids))).round().astype(int))
    options = platform.options(account, since, until, bids[some].tolist())
    n, many = len(options["ref"]), len(some)
    worth = {e.key: float(w) for e, w in zip(plan.sheet.entries, result.worth.contribution,
                                             strict=True)}  # fmt: skip
    value_of = np.array([worth.get(ref, 0.0) for ref in options["ref"]])
    clicks, spend, customers = (
        np.array(options[name], dtype=np.float64).reshape(n, many + 1)
        for name in ("clicks", "spend", "customers")
    )
    days = (until - since).days + 1
    purse = result.brief.monthly_spend * days / _days_of_month(until)
    owner = np.repeat(np.arange(n), many)
    bid = np.tile(np.array(options["bid"]), n)
    flat = [column[:, :many].ravel() for column in (clicks, spend, customers)]
    value = flat[2] * np.repeat(value_of, many) - flat[1]
    found = fit_options(owner, bid, flat[0], flat[1], value, purse)
    pace = _pace(options, spend[:, -1], days)
    own = [float((column[:, -1] * pace).sum()) for column in (clicks, spend, customers)]
    profit = float((customers[:, -1] * pace * value_of).sum()) - own[1]
    sums = {
        "plan": _sums(own[0], own[1], own[2], profit),
        "hindsight": _sums(found.clicks, found.spend, float(flat[2][found.chosen].sum()),
                           found.value),
    }  # fmt: skip
    best = {options["ref"][owner[at]]: float(bid[at]) for at in found.chosen.tolist()}
    return sums, best


def _pace(options: Mapping[str, Any], spend: np.ndarray[Any, Any], days: int) -> Any:
    """Return the share of each keyword's days that its campaign's money pays for."""
    pace = np.ones(len(spend))
    campaign = np.array(options["campaign"])
    for ref, money in options["day_money"].items():
        mine = campaign == ref
        wanted = float(spend[mine].sum())
        if money is not None and wanted > money * days:
            pace[mine] = money * days / wanted
    return pace


def _days_of_month(day: date) -> int:
    return monthrange(day.year, day.month)[1]


def _sums(clicks: float, spend: float, customers: float, profit: float) -> dict[str, float]:
    return {"clicks": clicks, "spend": spend, "customers": customers, "profit": profit}
