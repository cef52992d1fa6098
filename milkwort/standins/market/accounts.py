"""Accounts: opened in a world of their own, known by a key that is told once."""

from __future__ import annotations

import hashlib
import hmac
import secrets
from collections.abc import Sequence
from dataclasses import asdict
from datetime import date
from functools import lru_cache
from typing import Any

import orjson
from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.standins.market.account import (
    MICROS,
    Ad,
    Campaign,
    Group,
    Keyword,
    Live,
    Rules,
    Spot,
    Stop,
)
from milkwort.standins.market.cells import DAYS
from milkwort.standins.market.errors import MarketError
from milkwort.standins.market.faults import Faults
from milkwort.standins.market.known import Known, KnownKeyword, KnownOffer
from milkwort.standins.market.levels import Level, level_of
from milkwort.standins.market.limits import Limits
from milkwort.standins.market.standing import Standing
from milkwort.standins.market.storage import Account, Clock, Thing
from milkwort.standins.market.world import World, draw_world, world_from_bytes, world_to_bytes

__all__ = [
    "account_of", "faults_of", "known_from_bytes", "known_to_bytes", "limits_of", "live_of",
    "moves_of", "open_account", "standing_of", "things_of", "world_of",
]  # fmt: skip

_WORLDS_HELD = 4


def open_account(
    session: Session,
    *,
    name: str,
    currency: str,
    zone: str,
    level: str,
    seed: int,
    start: date,
    limits: Limits,
    known: Known,
) -> tuple[Account, str]:
    """Open an account, and draw its world; the key is told here and never again."""
    key = secrets.token_urlsafe(24)
    account = Account(
        id=secrets.token_hex(6), name=name, key_hash=_digest(key), currency=currency, zone=zone,
        level=level, seed=seed, start=start.toordinal(), today=start.toordinal(),
        limits=asdict(limits) | {"matches": list(limits.matches)},
        known=known_to_bytes(known),
        world=world_to_bytes(draw_world(known, level_of(level), seed)),
        faults=Faults().as_dict(), envelope=None, uploads=0, made=0, version=0,
    )  # fmt: skip
    session.add(account)
    session.flush()
    session.add(Clock(account=account.id, wanted=0, done=0, state="stands", message=""))
    return account, key


def account_of(session: Session, account_id: str, key: str) -> Account:
    """Return an account whose key this is.

    Raises
    ------
    MarketError
        404 where there is none, 401 for another key.
    """
    account = session.get(Account, account_id)
    if account is None:
        raise MarketError(404, "not_found", f'There is no account "{account_id}".', "account")
    if not hmac.compare_digest(account.key_hash, _digest(key)):
        raise MarketError(401, "wrong_key", "The key is not this account’s.", "Authorization")
    return account


def known_to_bytes(known: Known) -> bytes:
    """Return what a planner told as bytes."""
    return orjson.dumps(asdict(known))


def known_from_bytes(content: bytes) -> Known:
    """Return what `known_to_bytes` wrote."""
    values: dict[str, Any] = orjson.loads(content)
    values["offers"] = tuple(KnownOffer(**one) for one in values["offers"])
    values["keywords"] = tuple(
        KnownKeyword(**one | {"months": None if one["months"] is None else tuple(one["months"])})
        for one in values["keywords"]
    )
    for name in ("season", "hours", "weekdays"):
        values[name] = tuple(values[name])
    return Known(**values)


def limits_of(account: Account) -> Limits:
    """Return the limits an account was opened with."""
    return Limits(**account.limits | {"matches": tuple(account.limits["matches"])})


def faults_of(account: Account) -> Faults:
    """Return the faults that are switched on."""
    return Faults(**account.faults)


def world_of(account: Account) -> tuple[World, Level]:
    """Return the hidden truth of an account."""
    return _world(account.id, account.world), level_of(account.level)


@lru_cache(maxsize=_WORLDS_HELD)
def _world(_account: str, content: bytes) -> World:
    return world_from_bytes(content)


def things_of(session: Session, account_id: str) -> Sequence[Thing]:
    """Return everything that stands, or ever stood, in an account."""
    return session.scalars(
        select(Thing).where(Thing.account == account_id).order_by(Thing.number)
    ).all()


def standing_of(account: Account, things: Sequence[Thing]) -> Standing:
    """Return what stands in an account, for sheets to be taken in."""
    held: dict[str, dict[str, dict[str, Any]]] = {}
    for thing in things:
        if not thing.gone:
            held.setdefault(thing.kind, {})[thing.ref] = thing.data
    standing = Standing(limits_of(account), date.fromordinal(account.today))
    for kind, some in held.items():
        for ref, data in some.items():
            standing.set(kind, ref, data)
    standing.touched.clear()
    standing.made = account.made
    return standing


def live_of(account: Account, things: Sequence[Thing]) -> tuple[Live, dict[str, list[int]]]:
    """Return what is live, and the number of each thing by kind, in the same order."""
    limits = limits_of(account)
    by_kind: dict[str, list[Thing]] = {}
    for thing in things:
        if not thing.gone:
            by_kind.setdefault(thing.kind, []).append(thing)
    some = by_kind.get
    group_bids = {one.ref: one.data["bid"] for one in some("groups", [])}
    live = Live(
        campaigns=tuple(_campaign(one, limits) for one in some("campaigns", [])),
        groups=tuple(Group(t.ref, t.data["campaign"], t.data["name"], t.data["page"],
                           t.data["bid"]) for t in some("groups", [])),
        keywords=tuple(_keyword(t, group_bids) for t in some("keywords", [])),
        stops=tuple(Stop(t.ref, t.data["text"], t.data["match"], t.data["campaign"],
                         t.data["group"]) for t in some("negatives", [])),
        ads=tuple(Ad(t.ref, t.data["group"], tuple(t.data["fields"])) for t in some("ads", [])),
        spots=tuple(Spot(t.ref, t.data["campaign"], t.data["name"], t.data["pays"],
                         t.data["price"] or 0.0, t.data["money"] or 0.0)
                    for t in some("spots", [])),
        rules=Rules(limits.pricing == "pay_bid", limits.written_ads, limits.close_forms,
                    limits.negative_close_forms, limits.day_over),
    )  # fmt: skip
    return live, {kind: [one.number for one in rows] for kind, rows in by_kind.items()}


def moves_of(said: str, raises: float) -> float:
    """Return how far the platform may raise bids of a campaign by itself, as a share."""
    words = said.casefold().split()
    return 0.0 if not words or "no" in words or "not" in words or "none" in words else raises


def _campaign(thing: Thing, limits: Limits) -> Campaign:
    data = thing.data
    budget = data["daily budget"]
    return Campaign(
        ref=thing.ref, name=data["name"],
        day_money=None if budget is None else round(budget * MICROS),
        first_day=date.fromisoformat(data["first day"]).toordinal() if data["first day"] else None,
        last_day=date.fromisoformat(data["last day"]).toordinal() if data["last day"] else None,
        shown=_shown(data["days"], data["from hour"], data["to hour"]), spreads=data["spread"],
        moves=moves_of(data["bid moves"], limits.raises),
    )  # fmt: skip


def _keyword(thing: Thing, group_bids: dict[str, float | None]) -> Keyword:
    data = thing.data
    bid = data["bid"] if data["bid"] is not None else group_bids.get(data["group"]) or 0.0
    return Keyword(thing.ref, data["group"], data["text"], data["match"], bid, data["run"])


def _shown(days: Sequence[str], first: int, last: int) -> tuple[tuple[bool, ...], ...]:
    hours = [first <= hour < last if first < last else hour >= first or hour < last
             for hour in range(24)]  # fmt: skip
    return tuple(tuple(day in days and hour for hour in hours) for day in DAYS)


def _digest(key: str) -> str:
    return hashlib.sha256(key.encode("utf-8", "surrogatepass")).hexdigest()
