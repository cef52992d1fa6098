"""What stands in an account: campaigns, groups, keywords, negatives, ads and spots."""

from __future__ import annotations

from dataclasses import dataclass

__all__ = [
    "MICROS",
    "Ad",
    "Campaign",
    "Group",
    "Keyword",
    "Live",
    "Rules",
    "Spot",
    "Stop",
]  # fmt: skip

MICROS = 1_000_000
"""Money is counted in millionths, so that sums are the same in every order."""

ALL_WEEK = ((True,) * 24,) * 7


@dataclass(frozen=True)
class Campaign:
    """One campaign; its money a day in millionths, None without a limit.

    `shown` says of each weekday and hour whether it is shown; `spreads` whether it leaves out
    searches evenly where its day's money would not last.
    """

    ref: str
    name: str
    day_money: int | None = None
    first_day: int | None = None
    last_day: int | None = None
    shown: tuple[tuple[bool, ...], ...] = ALL_WEEK
    spreads: bool = False
    moves: float = 0.0


@dataclass(frozen=True)
class Group:
    """One ad group; its bid, money a click, is that of keywords without one."""

    ref: str
    campaign: str
    name: str
    page: str = ""
    bid: float | None = None


@dataclass(frozen=True)
class Keyword:
    """One keyword with its bid, money a click."""

    ref: str
    group: str
    text: str
    match: str
    bid: float
    runs: bool = True


@dataclass(frozen=True)
class Stop:
    """One negative, for the whole account, a campaign or a group."""

    ref: str
    text: str
    match: str
    campaign: str = ""
    group: str = ""


@dataclass(frozen=True)
class Ad:
    """One ad: its fields as texts."""

    ref: str
    group: str
    fields: tuple[str, ...]


@dataclass(frozen=True)
class Spot:
    """A place to be shown that has no keyword."""

    ref: str
    campaign: str
    name: str
    pays: str
    price: float
    money_a_month: float


@dataclass(frozen=True)
class Rules:
    """The rules an account is run by.

    Attributes
    ----------
    pays_bid : bool
        Whether a click costs the bid, or just enough to win.
    needs_ads : bool
        Whether a group without an ad is shown at all.
    close_forms, stop_close_forms : bool
        Whether a plural is its singular, for keywords and for negatives.
    day_over : float
        How far a day may run over its budget, as a share.
    """

    pays_bid: bool = False
    needs_ads: bool = True
    close_forms: bool = True
    stop_close_forms: bool = False
    day_over: float = 0.0


@dataclass(frozen=True)
class Live:
    """Everything that is live."""

    campaigns: tuple[Campaign, ...] = ()
    groups: tuple[Group, ...] = ()
    keywords: tuple[Keyword, ...] = ()
    stops: tuple[Stop, ...] = ()
    ads: tuple[Ad, ...] = ()
    spots: tuple[Spot, ...] = ()
    rules: Rules = Rules()
