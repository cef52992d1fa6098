"""Lists of a brief's file: campaigns, spots, and negatives that act in one of them."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, fields, replace
from typing import Any, cast

from milkwort.core.brief.brief import Brief
from milkwort.core.brief.campaigns import OwnTerms
from milkwort.core.brief.limits import SpendLimit
from milkwort.core.brief.showing import DAY_NAMES, Showing
from milkwort.core.brief.spots import Pays, Spot
from milkwort.core.errors import BadValueError
from milkwort.core.words.match_types import Match
from milkwort.core.words.negatives import Negative
from milkwort.formats.keyword_rows import FIRST_CAMPAIGN, TablePlaces

__all__ = ["LISTS", "FileLists", "lists_of", "showing_of", "with_places"]

LISTS: dict[str, set[str]] = {
    "campaign": {"name", "least", "most", "area_share", "days", "from_hour", "to_hour", "zone",
                 "share"},
    "spot": {"name", "offer", "campaign", "pays", "price", "showings", "clicks", "click_rate",
             "sells"},
    "negative": {"text", "match", "campaign", "group"},
}  # fmt: skip
"""Keys of each, by the table's name."""

_HOURS = ("days", "from_hour", "to_hour", "zone", "share")


@dataclass(frozen=True)
class _NamedNegative:
    text: str
    match: Match
    campaign: str
    group: str


@dataclass(frozen=True)
class FileLists:
    """What a brief's file lists, by name: numbers come with the keywords.

    Attributes
    ----------
    campaigns : tuple of str
        Names, in the file's order.
    limits : mapping of str to SpendLimit
    own_terms : mapping of str to OwnTerms
    spots : tuple of (Spot, str)
        Each with the name of its campaign, empty for the first.
    negatives : tuple
    """

    campaigns: tuple[str, ...] = ()
    limits: Mapping[str, SpendLimit] = field(default_factory=dict)
    own_terms: Mapping[str, OwnTerms] = field(default_factory=dict)
    spots: tuple[tuple[Spot, str], ...] = ()
    negatives: tuple[_NamedNegative, ...] = ()

    @property
    def first_names(self) -> tuple[str, ...]:
        """Campaigns that have the first numbers: those listed, and those of spots."""
        of_spots = [campaign or FIRST_CAMPAIGN for _, campaign in self.spots]
        return tuple(dict.fromkeys((*self.campaigns, *of_spots)))


def lists_of(tree: Mapping[str, Any], offers: Sequence[str]) -> FileLists:
    """Read the lists of a brief's file.

    Parameters
    ----------
    tree : mapping
        The whole file.
    offers : sequence of str
        Names of its offers.

    Raises
    ------
    BadValueError
        For anything missing or out of its range, naming the list and its number.
    """
    campaigns: dict[str, SpendLimit] = {}
    own_terms: dict[str, OwnTerms] = {}
    for number, table in _tables(tree, "campaign"):
        name = _text(table, "name", f"[[campaign]] {number}")
        if not name or name in campaigns:
            raise BadValueError("[[campaign]] name", "a name of its own for each", name)
        where = f"[[campaign]] {name}"
        least, most = _number(table, "least", where, 0.0), _number(table, "most", where, math.inf)
        campaigns[name] = SpendLimit(least, most)
        own = OwnTerms(
            _number(table, "area_share", where) if "area_share" in table else None,
            showing_of(table, where) if any(key in table for key in _HOURS) else None,
        )
        if own != OwnTerms():
            own_terms[name] = own
    return FileLists(
        campaigns=tuple(campaigns),
        limits={n: limit for n, limit in campaigns.items() if limit != SpendLimit()},
        own_terms=own_terms,
        spots=tuple(_spot(table, number, offers) for number, table in _tables(tree, "spot")),
        negatives=tuple(_negative(table, n) for n, table in _tables(tree, "negative")),
    )


def with_places(brief: Brief, lists: FileLists, places: TablePlaces) -> tuple[Brief, list[str]]:
    """Return a brief whose lists have the numbers of a keyword table, and what was left out.

    Parameters
    ----------
    brief : Brief
    lists : FileLists
        `lists.first_names` have the table's first numbers.
    places : TablePlaces
        Names behind its numbers.
    """
    number = {name: at for at, name in enumerate(places.campaigns)}
    negatives, left_out = _numbered(lists.negatives, number, places)
    made = replace(
        brief,
        limits=replace(
            brief.limits, campaigns={number[name]: one for name, one in lists.limits.items()}
        ),
        own_terms={number[name]: own for name, own in lists.own_terms.items()},
        spots=tuple(
            replace(spot, campaign=number[campaign or FIRST_CAMPAIGN])
            for spot, campaign in lists.spots
        ),
        negatives=(*brief.negatives, *negatives),
    )
    return made, left_out


def showing_of(table: Mapping[str, Any], where: str) -> Showing:
    """Read days and hours of showing.

    Parameters
    ----------
    table : mapping
        Keys ``days``, ``from_hour``, ``to_hour``, ``zone``, ``share``; all may be left out.
    where : str
        What to call the table in a message.

    Raises
    ------
    BadValueError
    """
    known = [name.casefold() for name in DAY_NAMES]
    days = table.get("days", [])
    if not isinstance(days, list) or not all(isinstance(d, str) for d in days):
        raise BadValueError(f"{where} days", "a list of texts", days)
    named = [d.casefold() for d in days] or known
    if not set(named) <= set(known):
        raise BadValueError(f"{where} days", "names of days, such as Monday", ", ".join(named))
    return Showing(
        days=tuple(name in named for name in known),
        from_hour=int(_number(table, "from_hour", where, 0)),
        to_hour=int(_number(table, "to_hour", where, 24)),
        zone=str(table.get("zone", "")),
        share=_number(table, "share", where) if "share" in table else None,
    )


def _spot(table: Mapping[str, Any], number: int, offers: Sequence[str]) -> tuple[Spot, str]:
    where = f"[[spot]] {number}"
    offer = _text(table, "offer", where)
    if offer and offer not in offers:
        raise BadValueError(f"{where} offer", "one of " + ", ".join(offers), offer)
    figures: dict[str, Any] = {
        f.name: _number(table, f.name, where)
        for f in fields(Spot)
        if f.name in ("price", "showings", "clicks", "click_rate", "sells") and f.name in table
    }
    if "price" not in figures:
        raise BadValueError(f"{where} price", "a number", "nothing")
    spot = Spot(
        name=_text(table, "name", where),
        pays=cast(Pays, _text(table, "pays", where)),
        offer=list(offers).index(offer) if offer else 0,
        **figures,
    )
    return spot, _text(table, "campaign", where)


def _negative(table: Mapping[str, Any], number: int) -> _NamedNegative:
    where = f"[[negative]] {number}"
    match = _text(table, "match", where) or "phrase"
    checked = Negative(_text(table, "text", where), cast(Match, match))
    return _NamedNegative(
        checked.text, checked.match, _text(table, "campaign", where), _text(table, "group", where)
    )


def _numbered(
    named: Sequence[_NamedNegative], campaigns: Mapping[str, int], places: TablePlaces
) -> tuple[list[Negative], list[str]]:
    """Return negatives as the core has them; one whose place no keyword has stops nothing."""
    found: list[Negative] = []
    left_out: list[str] = []
    for one in named:
        if one.group:
            at = [
                number
                for number, (campaign, group) in enumerate(places.groups)
                if group == one.group
                and (not one.campaign or campaigns.get(one.campaign) == campaign)
            ]
            found += [Negative(one.text, one.match, "group", number) for number in at]
            where = f"group {one.group}"
        elif one.campaign:
            at = [campaigns[one.campaign]] if one.campaign in campaigns else []
            found += [Negative(one.text, one.match, "campaign", number) for number in at]
            where = f"campaign {one.campaign}"
        else:
            found.append(Negative(one.text, one.match))
            continue
        if not at:
            left_out.append(f"[[negative]] {one.text}: no keyword stands in {where}; left out.")
    return found, left_out


def _tables(tree: Mapping[str, Any], name: str) -> list[tuple[int, dict[str, Any]]]:
    found = tree.get(name, [])
    if not isinstance(found, list) or not all(isinstance(t, dict) for t in found):
        raise BadValueError(f"[[{name}]]", "a list of tables", found)
    return list(enumerate(found, start=1))


def _text(table: Mapping[str, Any], key: str, where: str) -> str:
    value = table.get(key, "")
    if not isinstance(value, str):
        raise BadValueError(f"{where} {key}", "a text", value)
    return value.strip()


def _number(table: Mapping[str, Any], key: str, where: str, default: float | None = None) -> float:
    value = table.get(key, default)
    if isinstance(value, bool) or not isinstance(value, int | float) or math.isnan(value):
        raise BadValueError(f"{where} {key}", "a number", "nothing" if value is None else value)
    return float(value)
