"""Plans in the first format, which knew groups and campaigns by their names."""

from __future__ import annotations

import datetime
from typing import Any

from milkwort.core.errors import BadValueError

__all__ = ["FIRST_FORMAT", "from_first"]

FIRST_FORMAT = "milkwort-plan-1"
_GENERAL, _SEARCH = "General", "Search"
_READING = (
    "volume_low", "volume_high", "cpc_low", "cpc_high", "competition", "months", "basis", "area",
    "period", "origin", "origin_row",
)  # fmt: skip
_OFFER = (
    "sale_value", "gross_margin", "sales_per_customer", "rate_low", "rate_likely", "rate_high",
    "close_low", "close_likely", "close_high",
)  # fmt: skip
_KEYWORD = ("text", "match", "intent", "rate", "locked_bid", "unpaid_rank", "paid_rank", "note")


def from_first(tree: dict[str, Any]) -> dict[str, Any]:
    """Return a plan of the first format in the terms of the present one, not yet checked.

    Raises
    ------
    BadValueError
        Where it is not even of the shape of a plan.
    """
    brief = _table(tree, "brief")
    start = _first_day(brief.pop("start_month", 1))
    offers = [{"name": brief.pop("offer_name", "")} | _taken(brief, _OFFER)]
    offers += _rows(brief.pop("more_offers", []), "brief.more_offers")
    names = [offer.get("name") for offer in offers]
    places = _Places()
    keywords = [_keyword(row, places, names) for row in _rows(tree.get("keywords", []), "keywords")]
    negatives = [_negative(row, places) for row in _rows(tree.get("negatives", []), "negatives")]
    known = {"format", "name", "brief", "unsaid", "assumptions", "own", "keywords", "negatives"}
    more = {name: value for name, value in tree.items() if name not in known}
    name = tree.get("name")
    unsaid = ["start_date" if f == "start_month" else f for f in tree.get("unsaid", [])]
    return {
        "format": "milkwort-plan-2", "client": {"name": name},
        "plan": {"name": name, "start_date": start, "unsaid": unsaid, **brief,
                 **_table(tree, "own")},
        "offers": offers, "assumptions": tree.get("assumptions", {}),
        "campaigns": places.campaigns, "groups": places.groups, "keywords": keywords,
        "negatives": negatives, **more,
    }  # fmt: skip


class _Places:
    """Campaigns and groups as they are come upon; the first format had each name once."""

    def __init__(self) -> None:
        self.campaigns: list[dict[str, Any]] = []
        self.groups: list[dict[str, Any]] = []

    def campaign(self, name: Any) -> str:
        for known in self.campaigns:
            if known["name"] == name:
                return str(known["key"])
        key = f"c{len(self.campaigns) + 1}"
        self.campaigns.append({"key": key, "name": name})
        return key

    def group(self, name: Any, campaign: Any, page: Any = "") -> str:
        for known in self.groups:
            if known["name"] == name:
                return str(known["key"])
        key = f"g{len(self.groups) + 1}"
        home = self.campaign(campaign or _SEARCH)
        self.groups.append({"key": key, "campaign": home, "name": name, "landing_page": page})
        return key


def _keyword(row: dict[str, Any], places: _Places, offers: list[Any]) -> dict[str, Any]:
    row = dict(row)
    group = places.group(row.pop("group", "") or _GENERAL, row.pop("campaign", ""),
                         row.pop("landing_page", ""))  # fmt: skip
    offer = row.pop("offer", "")
    call, reason = row.pop("call", "none"), row.pop("reason", "")
    by, at = row.pop("call_by", ""), row.pop("call_at", "")
    new = _taken(row, _KEYWORD) | {"group": group, "readings": [_taken(row, _READING)]}
    if offer:
        new["offer"] = offers.index(offer) + 1 if offer in offers else None
    if call != "none":
        new["call"] = {"call": call, "reason": reason, "by": by or "file", "at": at}
    return new | row  # what is left is nothing a keyword has, and will be refused


def _negative(row: dict[str, Any], places: _Places) -> dict[str, Any]:
    row = dict(row)
    level, owner = row.pop("level", "plan"), row.pop("owner", "")
    if level not in ("plan", "campaign", "group") or (level == "plan") != (not owner):
        expected = "a level with the campaign or group it names"
        raise BadValueError("negatives", expected, f"{level}, {owner}")
    if level == "campaign":
        row["campaign"] = places.campaign(owner)
    elif level == "group":
        row["group"] = places.group(owner, "")
    return row


def _first_day(month: Any) -> str:
    if isinstance(month, bool) or not isinstance(month, int) or not 1 <= month <= 12:
        raise BadValueError("brief.start_month", "a month from 1 to 12", month)
    today = datetime.date.today()
    return datetime.date(today.year + (month < today.month), month, 1).isoformat()


def _taken(row: dict[str, Any], names: tuple[str, ...]) -> dict[str, Any]:
    """Take some fields out of a row."""
    return {name: row.pop(name) for name in names if name in row}


def _table(tree: dict[str, Any], name: str) -> dict[str, Any]:
    value = tree.get(name, {})
    if not isinstance(value, dict):
        raise BadValueError(name, "a table", value)
    return dict(value)


def _rows(value: Any, where: str) -> list[dict[str, Any]]:
    if not isinstance(value, list) or not all(isinstance(row, dict) for row in value):
        raise BadValueError(where, "a list of tables", value)
    return value
