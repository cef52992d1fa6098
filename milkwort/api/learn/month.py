"""The month that runs: its pace, what moved, each campaign against its money, strange rows."""

from __future__ import annotations

from calendar import monthrange
from collections.abc import Sequence
from dataclasses import asdict
from typing import Any

import numpy as np

from milkwort.api.learn.beside import hand_counts, site_of
from milkwort.api.learn.held import (
    Held,
    held_against,
    late_of,
    of_campaign,
    rows_by,
    spans_within,
    sums_of,
)  # fmt: skip
from milkwort.api.learn.known import Known
from milkwort.api.learn.ran import Span
from milkwort.api.plan.frozen import Planned
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.gather.likeness import nearest_text
from milkwort.core.learn.campaign_days import CampaignDays, campaign_days
from milkwort.core.learn.moved import moved_since
from milkwort.core.learn.pace import pace_of
from milkwort.core.learn.seen import ResultRows
from milkwort.core.learn.steering import steering_of
from milkwort.core.plan.calendar import months_from
from milkwort.core.plan.year import YearAhead
from milkwort.core.words.foreign import is_item_code
from milkwort.core.words.texts import normalise
from milkwort.formats.learn_headless import result_rows_of

__all__ = ["campaign_names", "month_block", "month_rows", "unmatched_of"]

_SHOWN = 50
"""Texts of rows that are no keyword, the dearest first."""


def month_block(plan: OpenPlan, known: Known) -> dict[str, Any]:
    """Return what there is to say of the newest month that is seen."""
    learned, rows = known.learned, known.rows
    assert learned is not None
    assert rows is not None
    last = learned.last
    first = max(last.replace(day=1), learned.first)
    end = last.replace(day=monthrange(last.year, last.month)[1])
    seen = result_rows_of(rows, known.keyword)
    some = month_rows(known, seen)
    spans = spans_within(known, first, last)
    # what runs now is what the rest of the month is paced by
    now = spans[-1].plan
    month = YearAhead(now.result, months_from(first, end)).month(0)
    pace = pace_of(now.result, float(some.cost.sum()), month.brief.monthly_spend, first, last, end)
    moved = moved_since(seen)
    held = held_against(plan, known, first, last)
    customers, spend = sums_of(held)
    days = campaign_days(month, rows_by(plan, known, Span(first, last, now)))
    by_hand, bought_for = hand_counts(known, first, last)
    site = site_of(known, seen, first, last)
    invalid = some.invalid_clicks[np.isfinite(some.invalid_clicks)]
    clicks = float(some.clicks.sum())
    return {
        "first": first.isoformat(), "last": last.isoformat(), "end": end.isoformat(),
        "pace": asdict(pace), "moved": None if moved is None else asdict(moved),
        "customers": customers, "spend": spend, "late": late_of(held),
        "sent": _sent(spans), "campaigns": _campaigns(now, held, days),
        "invalid_clicks": float(invalid.sum()) if len(invalid) else None,
        "invalid_cost": float(invalid.sum() * some.cost.sum() / clicks) if clicks > 0 else 0.0,
        "by_hand": by_hand, "by_hand_value": bought_for,
        "site": None if site is None else asdict(site),
        "steering": _steering(some, (last - first).days + 1),
    }  # fmt: skip


def _steering(rows: ResultRows, days: int) -> dict[str, Any]:
    found = steering_of(float(rows.customers.sum()), days)
    within = found.within if np.isfinite(found.within) else None
    return {"customers": found.customers, "within": within, "enough": found.enough}


def month_rows(known: Known, seen: ResultRows) -> ResultRows:
    """Return the rows of the newest month that is seen."""
    assert known.learned is not None
    last = known.learned.last
    first = max(last.replace(day=1), known.learned.first)
    inside = (seen.first >= first.toordinal()) & (seen.last <= last.toordinal())
    return seen.at(np.flatnonzero(inside))


def _sent(spans: Sequence[Span]) -> list[dict[str, Any]]:
    """Return what was handed over and ran, and on which days."""
    return [{"at": one.sent, "first": one.first.isoformat(), "last": one.last.isoformat(),
             "read": one.read} for one in spans if one.sent is not None]  # fmt: skip


def campaign_names(plan: Planned, found: CampaignDays) -> list[str]:
    """Return what each campaign that runs is called."""
    names = [c.name for c in plan.sheet.structure.campaigns]
    return [names[number] if number >= 0 else "no campaign" for number in found.campaign.tolist()]


def _campaigns(plan: Planned, held: Sequence[Held], found: CampaignDays) -> list[dict[str, Any]]:
    names = campaign_names(plan, found)
    keys = [campaign.key for campaign in plan.sheet.structure.campaigns]
    parts = [sums_of(held, of_campaign(keys[number] if number >= 0 else None))
             for number in found.campaign.tolist()]  # fmt: skip
    return [
        {
            "name": names[at],
            "daily": float(found.daily[at]), "spend": float(found.spend[at]),
            "customers": float(found.customers[at]), "days": int(found.days[at]),
            "cut": int(found.cut[at]),
            "lost": float(found.lost[at]) if np.isfinite(found.lost[at]) else None,
            "customer_parts": customers,
            "spend_parts": spend,
        }
        for at, (customers, spend) in enumerate(parts)
    ]  # fmt: skip


def unmatched_of(plan: OpenPlan, known: Known) -> list[dict[str, Any]]:
    """Return the texts of rows that are no keyword of the plan, with the nearest that is."""
    rows = known.rows
    assert rows is not None
    sums: dict[tuple[str, str], list[float]] = {}
    for at in np.flatnonzero(known.keyword < 0).tolist():
        held = sums.setdefault((rows.keyword[at], rows.match[at]), [0.0, 0.0, 0.0])
        held[0] += float(rows.figures["clicks"][at])
        held[1] += float(rows.cost[at])
        held[2] += float(rows.figures["customers"][at])
    dearest = sorted(sums.items(), key=lambda one: -one[1][1])[:_SHOWN]
    texts = [entry.normalised for entry in plan.sheet.entries]
    return [
        {
            "keyword": text, "match": match, "clicks": clicks, "cost": cost, "customers": customers,
            "item": is_item_code(text),
            # the code of a thing is spelt like no word
            "nearest": None if is_item_code(text)
            else _nearest(plan, normalise(text)[:200], texts),
        }
        for (text, match), (clicks, cost, customers) in dearest
    ]  # fmt: skip


def _nearest(plan: OpenPlan, text: str, texts: list[str]) -> str | None:
    """Return the plan's keyword that is spelt most like a text, with its match."""
    found = nearest_text(text, texts)
    return None if found is None else f"{found}, {plan.sheet.entries[texts.index(found)].match}"
