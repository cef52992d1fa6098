"""The clock: days pass one by one, each kept whole before the next begins."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from datetime import date

import numpy as np
from numpy.typing import NDArray
from sqlalchemy import select
from sqlalchemy.orm import Session

from milkwort.standins.market.account import Live
from milkwort.standins.market.accounts import live_of, things_of, world_of
from milkwort.standins.market.days import run_day
from milkwort.standins.market.errors import MarketError
from milkwort.standins.market.results import DayResult, day_from_bytes, day_to_bytes
from milkwort.standins.market.serving import Serving, serving_of
from milkwort.standins.market.storage import Account, Clock, PassedDay, Upload
from milkwort.standins.market.world import World

__all__ = [
    "LIFE_DAYS", "MOST_DAYS", "DayMaker", "clock_of", "pass_day", "spent_this_month",
    "start_clock", "stop_clock",
]  # fmt: skip

Ints = NDArray[np.int64]

MOST_DAYS = 366
"""Days that may be asked for at once."""
LIFE_DAYS = 5 * 366
"""Days that may pass in one account."""


def clock_of(session: Session, account: Account) -> Clock:
    """Return the clock of an account."""
    found = session.get(Clock, account.id)
    assert found is not None
    return found


def start_clock(session: Session, account: Account, days: int) -> Clock:
    """Say how many days are to pass.

    Raises
    ------
    MarketError
        409 where days are passing, a sheet is still being taken in, or the account would
        live longer than one may: its reports hold every day of it.
    """
    clock = clock_of(session, account)
    left = LIFE_DAYS - (account.today - account.start)
    if days > left:
        message = (f"An account lives {LIFE_DAYS:,} days, five years; {max(left, 0):,} are left. "
                   "Open another one.")  # fmt: skip
        raise MarketError(409, "life_over", message, "days")
    if clock.state == "running":
        raise MarketError(409, "days_pass_already", "Days are passing already.", "clock")
    waiting = session.scalars(
        select(Upload.number).where(Upload.account == account.id, Upload.state != "done").limit(1)
    ).first()
    if waiting is not None:
        raise MarketError(409, "upload_waits", f"Upload {waiting} is still being taken in.",
                          "clock")  # fmt: skip
    clock.wanted, clock.done, clock.state, clock.message = days, 0, "running", ""
    return clock


def stop_clock(session: Session, account: Account) -> Clock:
    """Let no further day pass."""
    clock = clock_of(session, account)
    if clock.state == "running":
        clock.state = "stopped"
    return clock


class DayMaker:
    """Lets days pass; what doesn't change between them is worked out once."""

    def __init__(self) -> None:
        self._for: tuple[str, int] | None = None
        self._live: Live = Live()
        self._numbers: dict[str, Ints] = {}
        self._serving: Serving | None = None

    def make(self, session: Session, account: Account) -> DayResult:
        """Return the next day of an account, its keywords and spots by number."""
        world, level = world_of(account)
        self._look(session, account, world)
        assert self._serving is not None
        spent = spent_this_month(session, account, self._live, self._numbers)
        day = run_day(world, level, self._live, self._serving, account.today, spent)
        return _numbered(day, self._numbers)

    def _look(self, session: Session, account: Account, world: World) -> None:
        if self._for == (account.id, account.version):
            return
        things = things_of(session, account.id)
        self._live, numbers = live_of(account, things)
        self._numbers = {kind: np.array(some, dtype=np.int64) for kind, some in numbers.items()}
        self._serving = serving_of(self._live, world)
        self._for = (account.id, account.version)


def pass_day(session: Session, account: Account, maker: DayMaker) -> bool:
    """Let one day pass; False where none is to pass any more."""
    clock = clock_of(session, account)
    if clock.state != "running":
        return False
    day = maker.make(session, account)
    session.add(PassedDay(account=account.id, day=account.today, content=day_to_bytes(day)))
    account.today += 1
    clock.done += 1
    if clock.done >= clock.wanted:
        clock.state = "stands"
    return clock.state == "running"


def spent_this_month(
    session: Session, account: Account, live: Live, numbers: dict[str, Ints]
) -> Ints:
    """Return what each campaign was charged this month, less credit for overruns, millionths."""
    spent = np.zeros(len(live.campaigns), dtype=np.int64)
    first = date.fromordinal(account.today).replace(day=1).toordinal()
    days = session.scalars(
        select(PassedDay.content).where(
            PassedDay.account == account.id, PassedDay.day >= first, PassedDay.day < account.today
        )
    )
    places = _campaign_places(live, numbers)
    for content in days:
        day = day_from_bytes(content)
        at = np.array([places.get((s, n), -1) for s, n in
                       zip((day.text < 0).tolist(), day.keyword.tolist(), strict=True)],
                      dtype=np.int64)  # fmt: skip
        inside = at >= 0
        np.add.at(spent, at[inside], (day.cost - day.over)[inside])
    return spent


def _campaign_places(live: Live, numbers: dict[str, Ints]) -> dict[tuple[bool, int], int]:
    campaigns = {c.ref: at for at, c in enumerate(live.campaigns)}
    groups = {g.ref: campaigns.get(g.campaign, -1) for g in live.groups}
    found = {
        (False, int(number)): groups.get(keyword.group, -1)
        for keyword, number in zip(live.keywords, _some(numbers, "keywords"), strict=True)
    }
    for spot, number in zip(live.spots, _some(numbers, "spots"), strict=True):
        found[True, int(number)] = campaigns.get(spot.campaign, -1)
    return found


def _some(numbers: dict[str, Ints], kind: str) -> Sequence[int]:
    return [int(number) for number in numbers.get(kind, ())]


def _numbered(day: DayResult, numbers: dict[str, Ints]) -> DayResult:
    def number(place: Ints, text: Ints) -> Ints:
        found = place.copy()
        for kind, of_kind in (("keywords", text >= 0), ("spots", text < 0)):
            if of_kind.any():
                found[of_kind] = numbers[kind][place[of_kind]]
        return found

    sold = replace(day.sold, keyword=number(day.sold.keyword, day.sold.text))
    return replace(day, keyword=number(day.keyword, day.text), sold=sold)
