"""A brief out of a TOML file."""

from __future__ import annotations

import tomllib
from dataclasses import dataclass, field, replace
from typing import Any, cast

from milkwort.core.assumptions import RETIRED, TABLE
from milkwort.core.brief.brief import Brief
from milkwort.core.brief.fields import OF_OFFER, OF_PLAN, BriefField, keys_of
from milkwort.core.brief.showing import ALWAYS, Showing
from milkwort.core.brief.values import Beside, brief_of_values
from milkwort.core.errors import BadValueError
from milkwort.core.words.match_types import MATCHES, Match
from milkwort.core.words.negatives import Negative
from milkwort.formats.brief_lists import LISTS, FileLists, lists_of, showing_of

__all__ = ["BriefFile", "read_brief"]

_ASSUMED_IN_MARKET = (
    "low_percentile", "high_percentile", "min_bid", "bid_step", "click_rate_top",
    "click_rate_bottom", "area_share",
)  # fmt: skip
_ENDS = ("low", "likely", "high")
_BESIDE: dict[str, set[str]] = {
    "plan": {"name"},
    "offer": {"name", "conversion", "enquiry", "close"},
    "market": set(_ASSUMED_IN_MARKET),
    "ceiling": set(),
}
_KEYS = {
    **{table: more | keys_of(table) for table, more in _BESIDE.items()},
    "negatives": {"exact", "phrase", "broad"},
    "showing": {"days", "from_hour", "to_hour", "zone", "share"},
    **LISTS,
    "assumptions": {*TABLE, *RETIRED},
}  # fmt: skip


@dataclass(frozen=True)
class BriefFile:
    """A brief as read, and what of its file was left out.

    Attributes
    ----------
    brief : Brief
        Without what it lists: that needs the keywords.
    left_out : tuple of str
        One sentence each.
    lists : FileLists
        Campaigns, spots and negatives by name; `with_places` puts them into the brief.
    """

    brief: Brief
    left_out: tuple[str, ...]
    lists: FileLists = field(default_factory=FileLists)


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
    offers = _offers(tree)
    said = {f.name: f.start for f in OF_PLAN} | offers[0] | {
        "offer_name": offers[0]["name"],
        "more_offers": offers[1:],
        **{f.name: _said(tree, f) for f in OF_PLAN if f.file},
    }  # fmt: skip
    brief = brief_of_values(str(plan.get("name", "Plan")), said, Beside(changes, _negatives(tree)))
    lists = lists_of(tree, [offer.name for offer in brief.offers])
    return BriefFile(replace(brief, showing=_showing(tree)), tuple(_left_out(tree)), lists)


def _said(tree: dict[str, Any], field: BriefField) -> Any:
    """Return what a file says of a field: its start where it says nothing."""
    section, key = field.file.split(".")
    table = _table(tree, section)
    if key not in table and not field.required:
        return field.start
    return _value(table, key, section, field)


def _value(table: dict[str, Any], key: str, section: str, field: BriefField) -> Any:
    """Return one value, of the kind its field holds."""
    value, holds = table.get(key), field.holds
    if holds is float:
        return _number(table, key, section)
    if holds is int and (isinstance(value, bool) or not isinstance(value, int)):
        raise BadValueError(f"[{section}] {key}", field.expected, value)
    if holds == list[str]:
        return list(_texts(table, key, section))
    if holds == list[float]:
        return _numbers(table, key, section, field)
    return bool(value) if holds is bool else value


def _numbers(table: dict[str, Any], key: str, section: str, field: BriefField) -> list[float]:
    value = table[key]
    if not isinstance(value, list) or not all(
        isinstance(m, int | float) and not isinstance(m, bool) for m in value
    ):
        raise BadValueError(f"[{section}] {key}", f"{field.length} numbers, January first", value)
    return list(map(float, value))


def _offers(tree: dict[str, Any]) -> list[dict[str, Any]]:
    """Return each offer by field, with its name."""
    found = tree.get("offer")
    tables = found if isinstance(found, list) else [found] if found is not None else []
    if not tables or not all(isinstance(t, dict) for t in tables):
        raise BadValueError("[offer]", "an offer, or several [[offer]]", found)
    return list(map(_offer, tables))


def _negatives(tree: dict[str, Any]) -> tuple[Negative, ...]:
    table = _table(tree, "negatives")
    return tuple(
        Negative(text, cast(Match, match))
        for match in MATCHES
        for text in _texts(table, match, "negatives")
    )


def _showing(tree: dict[str, Any]) -> Showing:
    table = _table(tree, "showing")
    if not table:
        return ALWAYS
    return showing_of(table, "[showing]")


def _offer(offer: dict[str, Any]) -> dict[str, Any]:
    if "conversion" in offer:
        rates = _ends(offer, "conversion", "rate")
    elif "enquiry" in offer and "close" in offer:
        rates = _ends(offer, "enquiry", "rate") | _ends(offer, "close", "close")
    else:
        raise BadValueError("[offer] conversion", "conversion, or enquiry and close", "neither")
    figures = {
        f.name: _number(offer, f.name, "offer", None if f.required else f.start)
        for f in OF_OFFER
        if f.file
    }
    not_entered = {f.name: f.start for f in OF_OFFER}
    return not_entered | figures | rates | {"name": str(offer.get("name", ""))}


def _ends(offer: dict[str, Any], key: str, kind: str) -> dict[str, float]:
    """Return a rate's low, likely and high by field; a bare number is all three."""
    value = offer[key]
    if not isinstance(value, dict):
        return dict.fromkeys((f"{kind}_{end}" for end in _ENDS), _number(offer, key, "offer"))
    return {f"{kind}_{end}": _number(value, end, f"offer {key}") for end in _ENDS}


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
