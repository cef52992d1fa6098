"""What differs between two versions of a plan."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import asdict, dataclass
from typing import Any, Literal, get_args

import numpy as np

from milkwort.core.arrays import Ints
from milkwort.core.assumptions import TABLE
from milkwort.core.brief.brief import Brief
from milkwort.core.brief.fields import FIELDS
from milkwort.core.brief.limits import SpendLimit
from milkwort.core.brief.values import values_of_brief
from milkwort.core.market.keyword_table import CALLS
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.year import YearAhead
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.negatives import Negative

__all__ = ["KINDS", "Difference", "Kind", "Said", "Side", "differences", "said"]

Kind = Literal["brief", "assumption", "keyword", "call", "group", "bid", "negative", "spot"]
KINDS: tuple[str, ...] = get_args(Kind)

Said = str | float | int | bool | None


@dataclass(frozen=True)
class Side:
    """One of the plans that are set side by side.

    Attributes
    ----------
    result : PlanResult
    groups, campaigns : tuple of str
        Names by number.
    year : YearAhead or None
        Its twelve months; whole ones from January where left out.
    """

    result: PlanResult
    groups: tuple[str, ...]
    campaigns: tuple[str, ...]
    year: YearAhead | None = None


@dataclass(frozen=True)
class Difference:
    """One thing that is not the same in two plans.

    Attributes
    ----------
    kind : Kind
    what : str
        The field, the assumption or the keyword it is about.
    unit : str
        Of `was` and `now`; empty where they are words.
    was, now : str, number, bool or None
        In the first and in the other; None where it has none.
    weight : float
        How much money a month hangs on it, where that is known: the largest come first.
    """

    kind: Kind
    what: str
    unit: str
    was: Said
    now: Said
    weight: float = 0.0


def differences(first: Side, other: Side) -> list[Difference]:
    """Return everything in which two plans differ, by kind, what most money hangs on first.

    Parameters
    ----------
    first, other : Side
        Keywords are the same where text and match are.

    Returns
    -------
    list of Difference
        Empty for a plan beside itself.
    """
    return [
        *_of_briefs(first.result.brief, other.result.brief),
        *_of_assumptions(first.result.brief, other.result.brief),
        *_of_campaigns(first, other),
        *_of_keywords(first, other),
        *_of_negatives(first, other),
        *_of_spots(first.result.brief, other.result.brief),
    ]


def _of_briefs(first: Brief, other: Brief) -> Iterator[Difference]:
    if first.monthly_spend != other.monthly_spend:  # the purse: what fee and tax leave
        yield Difference(
            "brief", "the purse", "money a month", first.monthly_spend, other.monthly_spend
        )
    was, now = values_of_brief(first, ""), values_of_brief(other, "")
    for name in was:
        if was[name] != now[name] and name != "monthly_spend":
            field = FIELDS.get(name)
            label = field.label if field else name.replace("_", " ")
            if name.endswith(("_low", "_likely", "_high")):
                label = f"{label}, {name.rsplit('_', 1)[1]}"
            unit = field.unit if field else ""
            yield Difference("brief", label, unit, said(was[name]), said(now[name]))


def said(value: Any) -> Said:
    """Return a value of a brief as a number or in words.

    Parameters
    ----------
    value : object
        A number, a word, or a list or table of them.
    """
    if value is None or isinstance(value, (bool, int, float, str)):
        return value
    if isinstance(value, dict):
        return ", ".join(f"{key} {said(part)}" for key, part in value.items())
    return ", ".join(str(said(part)) for part in value)


def _of_assumptions(first: Brief, other: Brief) -> Iterator[Difference]:
    for one in TABLE.values():
        was, now = first.assumed[one.name], other.assumed[one.name]
        if was != now:
            yield Difference("assumption", one.label, one.unit, was, now)


def _of_campaigns(first: Side, other: Side) -> Iterator[Difference]:
    def limits(side: Side) -> dict[str, SpendLimit]:
        held = side.result.brief.limits.campaigns
        return {side.campaigns[n]: limit for n, limit in held.items() if n < len(side.campaigns)}

    was, now = limits(first), limits(other)
    unset = SpendLimit()
    for name in {**was, **now}:
        before, after = was.get(name, unset), now.get(name, unset)
        for end in ("least", "most"):
            old, new = (_sum(getattr(limit, end)) for limit in (before, after))
            if old != new:
                yield Difference("brief", f"{end} for {name}", "money a month", old, new)


def _sum(money: float) -> float | None:
    return money if np.isfinite(money) else None


def _identities(side: Side) -> dict[tuple[str, int], int]:
    table = side.result.table
    return {key: row for row, key in
            enumerate(zip(table.texts, table.match.tolist(), strict=True))}  # fmt: skip


def _of_keywords(first: Side, other: Side) -> list[Difference]:
    was, now = _identities(first), _identities(other)
    both = [key for key in was if key in now]
    found = [
        *_only_in_one(first, other, was, now),
        *_of_both(first, other, both, _rows(was, both), _rows(now, both)),
    ]
    order = {kind: place for place, kind in enumerate(KINDS)}
    return sorted(found, key=lambda one: (order[one.kind], -one.weight, one.what))


def _rows(rows: dict[tuple[str, int], int], keys: Sequence[tuple[str, int]]) -> Ints:
    return np.array([rows[key] for key in keys], dtype=np.int64)


def _named(key: tuple[str, int]) -> str:
    text, match = key
    return text if MATCHES[match] == "exact" else f"{text} ({MATCHES[match]})"


def _only_in_one(
    first: Side, other: Side, was: dict[tuple[str, int], int], now: dict[tuple[str, int], int]
) -> Iterator[Difference]:
    for key, row in was.items():
        if key not in now:
            call = CALLS[int(first.result.table.call[row])]
            spend = float(first.result.expected.spend[row])
            yield Difference("keyword", _named(key), "", call, None, spend)
    for key, row in now.items():
        if key not in was:
            call = CALLS[int(other.result.table.call[row])]
            spend = float(other.result.expected.spend[row])
            yield Difference("keyword", _named(key), "", None, call, spend)


def _of_both(
    first: Side, other: Side, keys: Sequence[tuple[str, int]], was: Ints, now: Ints
) -> Iterator[Difference]:
    one, two = first.result, other.result
    weight = np.maximum(one.expected.spend[was], two.expected.spend[now]).tolist()
    calls = one.table.call[was], two.table.call[now]
    for at in np.flatnonzero(calls[0] != calls[1]).tolist():
        before, after = (CALLS[int(column[at])] for column in calls)
        yield Difference("call", _named(keys[at]), "", before, after, weight[at])
    for at in range(len(keys)):
        held, holds = _group_of(first, int(was[at])), _group_of(other, int(now[at]))
        if held != holds:
            yield Difference("group", _named(keys[at]), "", held, holds, weight[at])
    bids = one.bid[was], two.bid[now]
    same = (bids[0] == bids[1]) | (np.isnan(bids[0]) & np.isnan(bids[1]))
    for at in np.flatnonzero(~same).tolist():
        low, high = (None if np.isnan(b[at]) else float(b[at]) for b in bids)
        yield Difference("bid", _named(keys[at]), "money a click", low, high, weight[at])


def _group_of(side: Side, row: int) -> str | None:
    number = int(side.result.table.group[row])
    return side.groups[number] if 0 <= number < len(side.groups) else None


def _of_negatives(first: Side, other: Side) -> Iterator[Difference]:
    def held(side: Side) -> dict[tuple[str, str, str], None]:
        negatives = side.result.brief.negatives
        return {(n.text, n.match, _where(side, n)): None for n in negatives}

    was, now = held(first), held(other)
    for text, match, where in was:
        if (text, match, where) not in now:
            yield Difference("negative", f"{text} ({match})", "", where, None)
    for text, match, where in now:
        if (text, match, where) not in was:
            yield Difference("negative", f"{text} ({match})", "", None, where)


def _where(side: Side, negative: Negative) -> str:
    if negative.level == "plan":
        return "the whole plan"
    return (side.campaigns if negative.level == "campaign" else side.groups)[negative.number]


def _of_spots(first: Brief, other: Brief) -> Iterator[Difference]:
    was, now = ({spot.name: spot for spot in brief.spots} for brief in (first, other))
    for name in {**was, **now}:
        before, after = was.get(name), now.get(name)
        if before != after:
            old, new = (None if one is None else _spot_said(asdict(one)) for one in (before, after))
            yield Difference("spot", name, "", old, new)


def _spot_said(values: dict[str, Any]) -> str:
    shown = ("pays", "price", "showings", "clicks", "click_rate", "sells")
    return ", ".join(f"{key.replace('_', ' ')} {values[key]}" for key in shown if values.get(key))
