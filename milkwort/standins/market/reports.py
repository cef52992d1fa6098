"""Results: rows by the day of the click, as far as they are reported by now."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from datetime import date
from typing import Any, Literal, get_args

import numpy as np
from numpy.typing import NDArray
from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.standins.market.account import MICROS
from milkwort.standins.market.accounts import things_of, world_of
from milkwort.standins.market.results import DayResult, day_from_bytes
from milkwort.standins.market.storage import Account, PassedDay, Thing

__all__ = ["FIGURES", "LEVEL_NAMES", "ResultLevel", "heads_of", "results_of", "summed"]

Ints = NDArray[np.int64]

ResultLevel = Literal["day", "campaign", "group", "keyword", "term"]
LEVEL_NAMES: tuple[str, ...] = get_args(ResultLevel)
FIGURES = ("impressions", "could_show", "lost_to_money", "clicks", "cost", "credit", "customers",
           "enquiries", "invalid_clicks")  # fmt: skip
_CREDIT_AFTER = 3
_SELDOM = 2
"""A term is named, with all its days, once it was shown so often since the account opened."""
_SELDOM_NAME = "seldom typed"
_NAMES: dict[str, tuple[str, ...]] = {
    "day": (),
    "campaign": ("campaign", "ref"),
    "group": ("campaign", "ad group", "ref"),
    "keyword": ("campaign", "ad group", "keyword", "match", "ref"),
    "term": ("term", "campaign", "ad group", "keyword", "match", "ref"),
}


def heads_of(level: str) -> tuple[str, ...]:
    """Return the columns of a level's rows."""
    return ("day", *_NAMES[level], *FIGURES)


def summed(day: DayResult, seen: int) -> dict[str, Ints]:
    """Return the figures of each row of a day as known on some day, money in millionths.

    Parameters
    ----------
    day : DayResult
    seen : int
        Whole days since: customers reported later, and credits made later, are not there yet.
    """
    key = _pair_key(day.keyword, day.text)
    sold_key = _pair_key(day.sold.keyword, day.sold.text)
    order = np.argsort(key, kind="stable")
    place = order[np.searchsorted(key[order], sold_key)] if len(key) else sold_key
    customers, enquiries = np.zeros(len(key), dtype=np.int64), np.zeros(len(key), dtype=np.int64)
    np.add.at(customers, place, np.where(day.sold.reported <= seen, day.sold.customers, 0))
    np.add.at(enquiries, place, day.sold.enquiries)
    return {
        "impressions": day.impressions, "could_show": day.could_show,
        "lost_to_money": day.lost_to_money, "clicks": day.clicks, "cost": day.cost,
        "credit": day.over, "customers": customers, "enquiries": enquiries,
        "invalid_clicks": day.invalid,
    }  # fmt: skip


def results_of(
    session: Session, account: Account, level: str, since: int, until: int
) -> list[list[Any]]:
    """Return the results of some days, a list a row in the order of `heads_of`.

    Parameters
    ----------
    session, account
    level : str
        From `LEVEL_NAMES`.
    since, until : int
        Ordinals, ends included.
    """
    world, _ = world_of(account)
    things = {thing.number: thing for thing in things_of(session, account.id)}
    refs = {(thing.kind, thing.ref): thing for thing in things.values()}
    # how often a term was shown is asked of all days, each of them unpacked once
    days = _days(session, account, 0 if level == "term" else since, until)
    often = None
    if level == "term":
        later = _days(session, account, until + 1, account.today)
        often = _shown_often((*days.values(), *later.values()), len(world.texts))
    rows: list[list[Any]] = []
    for number, day in days.items():
        if number < since:
            continue
        figures = _figures_seen(day, number, account.today - 1)
        names = _names(level, day, things, refs, world.texts, often)
        rows.extend(_added(date.fromordinal(number).isoformat(), names, figures, level))
    return rows


def _days(session: Session, account: Account, since: int, until: int) -> dict[int, DayResult]:
    rows = session.execute(
        select(PassedDay.day, PassedDay.content)
        .where(PassedDay.account == account.id, PassedDay.day >= since, PassedDay.day <= until)
        .order_by(PassedDay.day)
    )
    return {number: day_from_bytes(content) for number, content in rows}


def _figures_seen(day: DayResult, number: int, last: int) -> dict[str, Ints]:
    figures = summed(day, last)
    late = last - number >= _CREDIT_AFTER
    credit = day.over + (day.invalid_cost if late else 0)
    invalid = day.invalid if late else np.zeros_like(day.invalid)
    return figures | {"credit": credit, "invalid_clicks": invalid}


def _pair_key(keyword: Ints, text: Ints) -> Ints:
    return keyword * (1 << 24) + text + 1


def _shown_often(days: Iterable[DayResult], n_texts: int) -> NDArray[np.bool_]:
    shown = np.zeros(n_texts, dtype=np.int64)
    for day in days:
        texts = day.text >= 0
        np.add.at(shown, day.text[texts], day.impressions[texts])
    return shown >= _SELDOM


def _names(
    level: str, day: DayResult, things: dict[int, Thing], refs: dict[tuple[str, str], Thing],
    texts: Sequence[str], often: NDArray[np.bool_] | None,
) -> list[tuple[str, ...] | None]:  # fmt: skip
    """Return what each row of a day is called; None for what has no row at this level."""
    of_keyword: dict[int, tuple[str, ...]] = {}
    found: list[tuple[str, ...] | None] = []
    for number, text in zip(day.keyword.tolist(), day.text.tolist(), strict=True):
        if level == "term" and text < 0:
            found.append(None)
            continue
        if number not in of_keyword:
            of_keyword[number] = _name(level, things[number], refs)
        name = of_keyword[number]
        if level == "term":
            assert often is not None
            name = (texts[text] if often[text] else _SELDOM_NAME, *name)
        found.append(name)
    return found


def _name(level: str, thing: Thing, refs: dict[tuple[str, str], Thing]) -> tuple[str, ...]:
    if level == "day":
        return ()
    campaign = refs["campaigns", thing.data["campaign"]]
    if level == "campaign":
        return campaign.data["name"], campaign.ref
    if thing.kind == "spots":
        if level == "group":
            return campaign.data["name"], "", campaign.ref
        return campaign.data["name"], "", thing.data["name"], "spot", thing.ref
    group = refs["groups", thing.data["group"]]
    if level == "group":
        return campaign.data["name"], group.data["name"], group.ref
    return (campaign.data["name"], group.data["name"], thing.data["text"], thing.data["match"],
            thing.ref)  # fmt: skip


def _added(
    day: str, names: list[tuple[str, ...] | None], figures: dict[str, Ints], level: str
) -> list[list[Any]]:
    place: dict[tuple[str, ...], int] = {}
    at = np.array([-1 if name is None else place.setdefault(name, len(place)) for name in names],
                  dtype=np.int64)  # fmt: skip
    inside = at >= 0
    sums = {}
    for head in FIGURES:
        held = np.zeros(len(place), dtype=np.int64)
        np.add.at(held, at[inside], figures[head][inside])
        sums[head] = (
            (held / MICROS).round(6).tolist() if head in ("cost", "credit") else held.tolist()
        )
    shown = [[day, *name, *(sums[head][row] for head in FIGURES)] for name, row in place.items()]
    if level == "day" and not shown:
        return [[day, *([0] * len(FIGURES))]]
    return shown
