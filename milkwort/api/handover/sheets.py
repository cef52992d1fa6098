"""The sheets a plan leaves as: campaigns, groups, keywords, negatives, ads, spots."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from milkwort.api.plan.columns import plain
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.arrange.ads.text import written_out
from milkwort.core.brief.showing import DAY_NAMES, Showing
from milkwort.core.handover.changed_rows import Row
from milkwort.core.plan.budgets import daily_budgets

__all__ = ["SHEETS", "forecast_of", "sheets_of_plan"]


def _campaigns(plan: OpenPlan) -> list[Row]:
    budgets = daily_budgets(plan.result)
    daily = dict(zip(budgets.campaign.tolist(), budgets.daily.tolist(), strict=True))
    values = plan.record.values
    return [
        {
            "campaign": _campaign(plan, campaign.name),
            "daily budget": daily.get(number, 0.0),
            "first day": campaign.first_day or str(values["start_date"]),
            "last day": campaign.last_day or values["last_day"],
            **_hours(campaign.own_terms.showing or plan.result.brief.showing),
            "partner sites": "yes" if campaign.partner_sites else "no",
            "bid moves": campaign.bid_moves,
            "ref": campaign.key,
        }
        for number, campaign in enumerate(plan.sheet.structure.campaigns)
    ]


def _hours(showing: Showing) -> dict[str, Any]:
    names = [name.casefold() for name, shown in zip(DAY_NAMES, showing.days, strict=True) if shown]
    return {
        "days": "" if all(showing.days) else " ".join(names),
        "from hour": float(showing.from_hour), "to hour": float(showing.to_hour),
    }  # fmt: skip


def _campaign(plan: OpenPlan, name: str) -> str:
    return f"{plan.record.name} – {name}"


def _names(plan: OpenPlan) -> dict[int, str]:
    return {c.id: _campaign(plan, c.name) for c in plan.sheet.structure.campaigns}


def _groups(plan: OpenPlan) -> list[Row]:
    structure = plan.sheet.structure
    names = _names(plan)
    pages = {c.id: c.page for c in structure.campaigns}
    return [
        {
            "campaign": names[group.campaign_id],
            "ad group": group.name,
            "page": group.page or pages[group.campaign_id],
            "bid": group.bid,
            "ref": group.key,
        }
        for group in structure.groups
    ]


def _keywords(plan: OpenPlan) -> list[Row]:
    structure, names = plan.sheet.structure, _names(plan)
    groups = {g.id: g for g in structure.groups}
    rows: list[Row] = []
    for at, entry in enumerate(plan.sheet.entries):
        if entry.call == "keep":
            group = groups.get(entry.group_id or 0)
            bid = plain(float(plan.result.bid[at]))
            rows.append({
                "campaign": names[group.campaign_id] if group else _campaign(plan, ""),
                "ad group": group.name if group else "",
                "keyword": entry.text,
                "match": entry.match,
                "bid": bid,
                "run": "no" if bid is None else "yes",
                "ref": entry.key,
            })  # fmt: skip
    keys = ("campaign", "ad group", "keyword", "match")
    return sorted(rows, key=lambda row: tuple(str(row[key]) for key in keys))


def _negatives(plan: OpenPlan) -> list[Row]:
    structure, names = plan.sheet.structure, _names(plan)
    groups = {g.id: g for g in structure.groups}
    rows: list[Row] = []
    for one in plan.record.negatives:
        group = groups.get(one.owner.group_id or 0)
        campaign = one.owner.campaign_id or (group.campaign_id if group else None)
        rows.append({
            "campaign": names.get(campaign or 0, ""), "ad group": group.name if group else "",
            "negative": one.text, "match": one.match, "ref": one.key,
        })  # fmt: skip
    for pinned in structure.lists:
        for at, negative in enumerate(pinned.negatives):
            rows.append({
                "campaign": "", "ad group": "", "negative": negative.text,
                "match": negative.match, "ref": f"{pinned.list_key}.{at}",
            })  # fmt: skip
    exact = _exact_texts(plan)
    for group in structure.groups:
        if group.blocks_twins:
            own = exact.get(group.id, {})
            others = (held for one, held in exact.items() if one != group.id)
            twins = {text: key for held in others for text, key in held.items() if text not in own}
            for text, key in sorted(twins.items()):
                rows.append({
                    "campaign": names[group.campaign_id], "ad group": group.name,
                    "negative": text, "match": "exact", "ref": f"{group.key}.{key}",
                })  # fmt: skip
    return rows


def _exact_texts(plan: OpenPlan) -> dict[int, dict[str, str]]:
    """Return the kept exact texts of each group, with their keys."""
    found: dict[int, dict[str, str]] = {}
    for entry in plan.sheet.entries:
        if entry.call == "keep" and entry.match == "exact" and entry.group_id:
            found.setdefault(entry.group_id, {})[entry.text] = entry.key
    return found


def _ads(plan: OpenPlan) -> list[Row]:
    structure, names, profile = plan.sheet.structure, _names(plan), plan.written.profile
    number = {g.id: at for at, g in enumerate(structure.groups)}
    rows: list[Row] = []
    for one in plan.record.ads:
        group = structure.groups[number[one.group_id]]
        facts = plan.written.facts[number[one.group_id]]
        row: dict[str, Any] = {"campaign": names[group.campaign_id], "ad group": group.name}
        for kind, fields, most in (
            ("headline", one.ad.headlines, profile.headlines),
            ("description", one.ad.descriptions, profile.descriptions),
        ):
            for at in range(max(most, len(fields))):
                text = fields[at] if at < len(fields) else ""
                row[f"{kind} {at + 1}"] = written_out(text, facts.fillings)
        rows.append(row | {"ref": one.key})
    return rows


def _spots(plan: OpenPlan) -> list[Row]:
    names = _names(plan)
    spend = plan.result.spots.spend.tolist()
    return [
        {
            "campaign": names[one.campaign_id], "spot": one.spot.name, "pays": one.spot.pays,
            "price": one.spot.price, "money a month": round(money, 2), "ref": one.key,
        }
        for one, money in zip(plan.sheet.structure.spots, spend, strict=True)
    ]  # fmt: skip


SHEETS: dict[str, Callable[[OpenPlan], list[Row]]] = {
    "keywords": _keywords, "campaigns": _campaigns, "groups": _groups,
    "negatives": _negatives, "ads": _ads, "spots": _spots,
}  # fmt: skip
"""What each sheet holds; keywords stand first, since all else is about them."""


def sheets_of_plan(plan: OpenPlan) -> dict[str, list[Row]]:
    """Return every sheet of a plan; each row is known again by its `ref`."""
    return {name: make(plan) for name, make in SHEETS.items()}


def forecast_of(plan: OpenPlan) -> dict[str, Any]:
    """Return what each kept keyword is expected to do, by column, and the month's totals."""
    result = plan.result
    rows = [at for at, entry in enumerate(plan.sheet.entries) if entry.call == "keep"]
    e = result.expected
    columns = {
        "bid": [plain(float(b)) for b in result.bid[rows]],
        "reach": e.reach[rows], "impressions": e.impressions[rows], "clicks": e.clicks[rows],
        "cpc": e.cpc[rows], "spend": e.spend[rows], "customers": e.customers[rows],
    }  # fmt: skip
    totals = result.totals
    return {
        "ref": [plan.sheet.entries[row].key for row in rows],
        **columns,
        "totals": {name: plain(getattr(totals, name)) for name in
                   ("searches", "impressions", "clicks", "spend", "customers", "revenue",
                    "profit", "cost_per_customer")},
    }  # fmt: skip
