"""A brief out of a TOML file."""

from __future__ import annotations

import math
import tomllib
from dataclasses import dataclass
from typing import Any, cast

from milkwort.core.assumptions import RETIRED, TABLE, Assumed
from milkwort.core.brief.brief import Brief, Goal, Match, Pricing
from milkwort.core.brief.limits import Limits, SpendLimit
from milkwort.core.brief.showing import ALWAYS, DAY_NAMES, Showing
from milkwort.core.brief.worth import CeilingRule, Conversion, Offer, RuleName
from milkwort.core.errors import BadValueError
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.negatives import Negative

__all__ = ["BriefFile", "read_brief"]

_ASSUMED_IN_MARKET = (
    "low_percentile", "high_percentile", "min_bid", "bid_step", "click_rate_top",
    "click_rate_bottom", "area_share",
)  # fmt: skip
_KEYS = {
    "plan": {"name", "currency", "monthly_spend", "goal", "max_keywords", "min_clicks",
             "season"},
    "offer": {"name", "sale_value", "gross_margin", "sales_per_customer", "conversion",
              "enquiry", "close"},
    "ceiling": {"rule", "value", "max_cpc", "may_pay_to_learn"},
    "market": {"pricing", "places", "volume_basis", *_ASSUMED_IN_MARKET},
    "negatives": {"exact", "phrase", "broad"},
    "showing": {"days", "from_hour", "to_hour", "zone", "share"},
    "campaign": {"name", "least", "most"},
    "assumptions": {*TABLE, *RETIRED},
}  # fmt: skip


@dataclass(frozen=True)
class BriefFile:
    """A brief as read, and what of its file was left out.

    Attributes
    ----------
    brief : Brief
        Its limits name campaigns by their place in `campaigns`.
    left_out : tuple of str
        One sentence each.
    campaigns : tuple of (str, SpendLimit)
        Name of each campaign that is limited.
    """

    brief: Brief
    left_out: tuple[str, ...]
    campaigns: tuple[tuple[str, SpendLimit], ...] = ()


def read_brief(data: bytes, name: str = "brief") -> BriefFile:
    """Read a brief.

    Parameters
    ----------
    data : bytes
        TOML, UTF-8.
    name : str
        What to call the file in a message.

    Raises
    ------
    BadValueError
        For anything missing or out of its range.
    """
    try:
        tree = tomllib.loads(data.decode("utf-8-sig"))
    except (tomllib.TOMLDecodeError, UnicodeDecodeError) as error:
        raise BadValueError(name, "a TOML file", str(error)) from error
    plan, market = _table(tree, "plan"), _table(tree, "market")
    changes = {key: _number(market, key, "market") for key in _ASSUMED_IN_MARKET if key in market}
    own = _table(tree, "assumptions")
    changes |= {key: _number(own, key, "assumptions") for key in own if key not in RETIRED}
    campaigns = _campaigns(tree)
    offers = _offers(tree)
    brief = Brief(
        name=str(plan.get("name", "Plan")),
        currency=str(plan.get("currency", "GBP")),
        monthly_spend=_number(plan, "monthly_spend", "plan"),
        offer=offers[0],
        more_offers=offers[1:],
        negatives=_negatives(tree),
        limits=_limits(plan, campaigns),
        season=_season(plan),
        showing=_showing(tree),
        ceiling=_ceiling(tree),
        goal=cast(Goal, plan.get("goal", "customers")),
        pricing=cast(Pricing, market.get("pricing", "pay_enough")),
        places=_texts(market, "places", "market"),
        volume_basis=cast(Match, market.get("volume_basis", "exact")),
        assumed=Assumed(changes),
    )
    return BriefFile(brief, tuple(_left_out(tree)), campaigns)


def _offers(tree: dict[str, Any]) -> tuple[Offer, ...]:
    found = tree.get("offer")
    tables = found if isinstance(found, list) else [found] if found is not None else []
    if not tables or not all(isinstance(t, dict) for t in tables):
        raise BadValueError("[offer]", "an offer, or several [[offer]]", found)
    offers = tuple(map(_offer, tables))
    names = [o.name.casefold() for o in offers]
    if len(offers) > 1 and (len(set(names)) < len(names) or "" in names):
        raise BadValueError("[[offer]] name", "a name of its own for each offer", names)
    return offers


def _negatives(tree: dict[str, Any]) -> tuple[Negative, ...]:
    table = _table(tree, "negatives")
    return tuple(
        Negative(text, cast(Match, match))
        for match in MATCHES
        for text in _texts(table, match, "negatives")
    )


def _campaigns(tree: dict[str, Any]) -> tuple[tuple[str, SpendLimit], ...]:
    found = tree.get("campaign", [])
    if not isinstance(found, list) or not all(isinstance(t, dict) for t in found):
        raise BadValueError("[[campaign]]", "campaigns, each with a name", found)
    named: list[tuple[str, SpendLimit]] = []
    for table in found:
        name = str(table.get("name", "")).strip()
        if not name or name in [n for n, _ in named]:
            raise BadValueError("[[campaign]] name", "a name of its own for each", name)
        most = _number(table, "most", "campaign") if "most" in table else math.inf
        named.append((name, SpendLimit(_number(table, "least", "campaign", 0.0), most)))
    return tuple(named)


def _limits(plan: dict[str, Any], campaigns: tuple[tuple[str, SpendLimit], ...]) -> Limits:
    most = plan.get("max_keywords")
    if most is not None and (isinstance(most, bool) or not isinstance(most, int)):
        raise BadValueError("[plan] max_keywords", "a whole number of 1 or more", most)
    return Limits(
        max_keywords=most,
        min_clicks=_number(plan, "min_clicks", "plan", 0.0),
        campaigns={at: limit for at, (_, limit) in enumerate(campaigns)},
    )


def _season(plan: dict[str, Any]) -> tuple[float, ...] | None:
    season = plan.get("season")
    if season is None:
        return None
    if not isinstance(season, list) or not all(
        isinstance(m, int | float) and not isinstance(m, bool) for m in season
    ):
        raise BadValueError("[plan] season", "twelve numbers, January first", season)
    return tuple(map(float, season))


def _showing(tree: dict[str, Any]) -> Showing:
    table = _table(tree, "showing")
    if not table:
        return ALWAYS
    known = [name.casefold() for name in DAY_NAMES]
    days = [d.casefold() for d in _texts(table, "days", "showing")] or known
    if not set(days) <= set(known):
        raise BadValueError("[showing] days", "names of days, such as Monday", ", ".join(days))
    return Showing(
        days=tuple(name in days for name in known),
        from_hour=int(_number(table, "from_hour", "showing", 0)),
        to_hour=int(_number(table, "to_hour", "showing", 24)),
        zone=str(table.get("zone", "")),
        share=_number(table, "share", "showing") if "share" in table else None,
    )


def _offer(offer: dict[str, Any]) -> Offer:
    if "conversion" in offer:
        conversion, close = _conversion(offer, "conversion"), None
    elif "enquiry" in offer and "close" in offer:
        conversion, close = _conversion(offer, "enquiry"), _conversion(offer, "close")
    else:
        raise BadValueError("[offer] conversion", "conversion, or enquiry and close", "neither")
    return Offer(
        sale_value=_number(offer, "sale_value", "offer"),
        gross_margin=_number(offer, "gross_margin", "offer"),
        sales_per_customer=_number(offer, "sales_per_customer", "offer", 1.0),
        conversion=conversion,
        close=close,
        name=str(offer.get("name", "")),
    )


def _conversion(offer: dict[str, Any], key: str) -> Conversion:
    value = offer[key]
    if isinstance(value, dict):
        low, likely, high = (_number(value, end, f"offer {key}") for end in
                             ("low", "likely", "high"))  # fmt: skip
        return Conversion(low, likely, high)
    one = _number(offer, key, "offer")
    return Conversion(one, one, one)


def _ceiling(tree: dict[str, Any]) -> CeilingRule:
    table = _table(tree, "ceiling")
    return CeilingRule(
        rule=cast(RuleName, table.get("rule", "break_even")),
        value=_number(table, "value", "ceiling") if "value" in table else None,
        max_cpc=_number(table, "max_cpc", "ceiling") if "max_cpc" in table else None,
        may_pay_to_learn=bool(table.get("may_pay_to_learn", False)),
    )


def _left_out(tree: dict[str, Any]) -> list[str]:
    said = []
    for section, content in tree.items():
        if section not in _KEYS:
            said.append(f"[{section}]: not a table of a brief; left out.")
            continue
        tables = content if isinstance(content, list) else [content]
        for key in {k for t in tables if isinstance(t, dict) for k in t} - _KEYS[section]:
            said.append(f"[{section}] {key}: not a key of a brief; left out.")
    own = _table(tree, "assumptions")
    said += [f"[assumptions] {key} is left out: {RETIRED[key]}." for key in own if key in RETIRED]
    return sorted(said)


def _table(tree: dict[str, Any], name: str) -> dict[str, Any]:
    table = tree.get(name, {})
    if not isinstance(table, dict):
        raise BadValueError(f"[{name}]", "a table", table)
    return table


def _number(table: dict[str, Any], key: str, section: str, default: float | None = None) -> float:
    value = table.get(key, default)
    if isinstance(value, bool) or not isinstance(value, int | float):
        raise BadValueError(f"[{section}] {key}", "a number", "nothing" if value is None else value)
    return float(value)


def _texts(table: dict[str, Any], key: str, section: str) -> tuple[str, ...]:
    value = table.get(key, [])
    if not isinstance(value, list) or not all(isinstance(v, str) for v in value):
        raise BadValueError(f"[{section}] {key}", "a list of texts", value)
    return tuple(value)
