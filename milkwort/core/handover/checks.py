"""What a careful person looks at before a plan leaves, in order of harm."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, field
from datetime import date, timedelta

import numpy as np

from milkwort.core.arrays import Ints
from milkwort.core.brief.holidays import holiday_on
from milkwort.core.brief.platform import Profile
from milkwort.core.counted import counted
from milkwort.core.market.keyword_table import CALLS
from milkwort.core.plan.budgets import Budgets, daily_budgets
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.match_types import MATCHES

__all__ = ["Check", "Leaving", "LeavingCampaign", "LeavingGroup", "last_checks"]

_FIGURES = ("sale_value", "gross_margin", "rate_likely", "monthly_spend")
"""Figures of the brief without which every other is a guess."""
_FEW_CLICKS = 10
"""A purse that pays for fewer a month can't tell a good keyword from a bad one."""
_FRIDAY = 4
_NAMED = 6


@dataclass(frozen=True)
class LeavingGroup:
    """One ad group as it leaves; counts of what it holds.

    Attributes
    ----------
    name : str
        With its campaign's where it repeats.
    kept, ads : int
    faults : tuple of str
        What the platform would refuse in its ads.
    address : str
        Where its ads lead; empty for nowhere.
    unsaid : tuple of str
        Main words that the page doesn't say; empty also where no text of it is known.
    """

    name: str
    kept: int
    ads: int
    faults: tuple[str, ...] = ()
    address: str = ""
    unsaid: tuple[str, ...] = ()


@dataclass(frozen=True)
class LeavingCampaign:
    """One campaign as it leaves; days as ISO 8601, empty for the plan's."""

    name: str
    kept: int
    spots: int = 0
    first_day: str = ""
    last_day: str = ""


@dataclass(frozen=True)
class Leaving:
    """A plan that is about to be handed over, with what stands around it.

    Attributes
    ----------
    result : PlanResult
    texts : sequence of str
        Of the keywords, as they are written.
    profile : Profile
        The rules of the ad platform.
    today, first_day : date
    last_day : date or None
    groups : sequence of LeavingGroup
        By number.
    campaigns : sequence of LeavingCampaign
    conflicts : sequence of (str, str)
        What each says, and the stage where it is mended.
    notices : sequence of str
        What is said of the plan as a whole.
    not_entered : sequence of str
        Fields of the brief nobody has entered.
    read_at : sequence of str
        When the reading in use of each keyword was read, ISO 8601; empty for none.
    stale_days : int
        Readings older than this are stale.
    counted_by : str
        How customers are counted, in words.
    visit_tag : str
        What page addresses carry so that visits can be told apart; empty where none is used.
    tell_weekend : bool
        Whether a start before a week-end is to be told.
    holidays_of : str
        Country, or part of one, whose public holidays are to be told; empty for none.
    """

    result: PlanResult
    texts: Sequence[str]
    profile: Profile
    today: date
    first_day: date
    last_day: date | None = None
    groups: Sequence[LeavingGroup] = ()
    campaigns: Sequence[LeavingCampaign] = ()
    conflicts: Sequence[tuple[str, str]] = ()
    notices: Sequence[str] = ()
    not_entered: Sequence[str] = ()
    read_at: Sequence[str] = ()
    stale_days: int = 180
    counted_by: str = ""
    visit_tag: str = ""
    tell_weekend: bool = False
    holidays_of: str = ""


@dataclass(frozen=True)
class Check:
    """One thing to look at.

    Attributes
    ----------
    code : str
        What kind it is.
    text : str
        A sentence.
    stage : str
        Where it is mended: a stage's path.
    must : bool
        Whether the platform would refuse it, or nothing would run; else it may be sent as it is.
    names : tuple of str
        Some of what it is about.
    mend : str
        What one key does about it; empty where only a person can.
    """

    code: str
    text: str
    stage: str
    must: bool = False
    names: tuple[str, ...] = field(default=())
    mend: str = ""


def last_checks(leaving: Leaving) -> list[Check]:
    """Return what to look at before a plan is handed over, the most harmful first.

    Parameters
    ----------
    leaving : Leaving
    """
    found = [check for look in _LOOKS for check in look(leaving)]
    # what must be mended comes before what may stay, else in order of harm
    return sorted(found, key=lambda check: not check.must)


def _money(leaving: Leaving) -> Iterator[Check]:
    result = leaving.result
    budgets = daily_budgets(result)
    if result.totals.keywords == 0 and not result.spots.steps.any():
        yield Check("nothing_runs", "Nothing would run.", "fit", must=True)
        return
    yield from _over_purse(result, budgets)
    price = result.totals.spend / result.totals.clicks if result.totals.clicks else 0.0
    if price > 0 and result.brief.monthly_spend < _FEW_CLICKS * price:
        yield Check(
            "few_clicks", f"The purse pays for under {_FEW_CLICKS} clicks a month.", "brief"
        )
    bid, kept = np.nan_to_num(result.bid), result.table.kept
    # a bid may sit a rounding error above its ceiling
    over = np.flatnonzero((bid > result.standing.ceiling * (1 + 1e-9)) & kept)
    yield from _of_bids(leaving, over, "over_ceiling", "is above its ceiling",
                        "are above their ceilings")  # fmt: skip
    daily = {int(c): float(d) for c, d in zip(budgets.campaign, budgets.daily, strict=True)}
    day = np.array([daily.get(int(c), np.inf) for c in result.table.campaign])
    half = np.flatnonzero((bid > day / 2) & np.isfinite(result.bid))
    yield from _of_bids(leaving, half, "half_a_day", "is over half of a day’s money",
                        "are over half of a day’s money")  # fmt: skip


def _over_purse(result: PlanResult, budgets: Budgets) -> Iterator[Check]:
    month = float(budgets.daily.sum()) * result.brief.assumed["month_days"]
    if month > result.brief.monthly_spend + 0.005:
        yield Check(
            "over_purse", "The daily budgets come to more than the purse.", "fit", must=True
        )


def _of_bids(leaving: Leaving, rows: Ints, code: str, one: str, many: str) -> Iterator[Check]:
    if len(rows):
        said = counted(len(rows), f"bid {one}", f"bids {many}")
        held = np.isfinite(leaving.result.table.locked_bid[rows]).any()
        mend = "give the bids back to the policy" if held else ""
        yield Check(code, f"{said}.", "fit", names=_some(leaving, rows), mend=mend)


def _some(leaving: Leaving, rows: Ints) -> tuple[str, ...]:
    return tuple(leaving.texts[row] for row in rows[:_NAMED].tolist())


def _limits(leaving: Leaving) -> Iterator[Check]:
    profile, table = leaving.profile, leaving.result.table
    kept = np.flatnonzero(table.kept)
    refused = set(profile.refused_characters)
    bad = np.array([row for row in kept.tolist() if refused & set(leaving.texts[row])],
                   dtype=np.int64)  # fmt: skip
    if len(bad):
        said = counted(len(bad), "kept keyword holds", "kept keywords hold")
        yield Check("refused_characters", f"{said} a character that the platform refuses.", "sift",
                    must=True, names=_some(leaving, bad))  # fmt: skip
    other = np.array([row for row in kept.tolist() if MATCHES[table.match[row]] not in
                      profile.matches], dtype=np.int64)  # fmt: skip
    if len(other):
        said = counted(len(other), "kept keyword has", "kept keywords have")
        yield Check("match_types", f"{said} a match type that the platform doesn’t know.", "sift",
                    must=True, names=_some(leaving, other))  # fmt: skip
    full = [g for g in leaving.groups if g.kept > profile.keywords_per_group]
    yield from _of_groups(full, "group_full", "holds more keywords than the platform takes",
                          "hold more keywords than the platform takes", must=True)  # fmt: skip
    many = [g for g in leaving.groups if g.ads > profile.ads_per_group]
    yield from _of_groups(many, "ads_full", "has more ads than the platform takes",
                          "have more ads than the platform takes", must=True)  # fmt: skip
    faulty = [g for g in leaving.groups if g.faults]
    for group in faulty[:_NAMED]:
        yield Check("ad_refused", f"{group.name}: {group.faults[0]}.", "arrange", must=True)
    if len(faulty) > _NAMED:
        more = counted(len(faulty) - _NAMED, "more group has an ad", "more groups have ads")
        yield Check("ad_refused", f"{more} that the platform would refuse.", "arrange", must=True)
    if len(kept) > profile.upload_rows:
        yield Check("many_rows", f"The sheet is sent in parts of {profile.upload_rows:,} rows.",
                    "hand-over")  # fmt: skip


def _of_groups(
    groups: Sequence[LeavingGroup], code: str, one: str, many: str, *, must: bool = False
) -> Iterator[Check]:
    if groups:
        said = counted(len(groups), f"group {one}", f"groups {many}")
        names = tuple(group.name for group in groups[:_NAMED])
        yield Check(code, f"{said}.", "arrange", must=must, names=names)


def _conflicts(leaving: Leaving) -> Iterator[Check]:
    for says, stage in leaving.conflicts[:_NAMED]:
        yield Check("conflict", says, stage)
    if len(leaving.conflicts) > _NAMED:
        more = counted(len(leaving.conflicts) - _NAMED, "more conflict")
        yield Check("conflict", f"{more}.", "arrange")


def _groups(leaving: Leaving) -> Iterator[Check]:
    kept = [g for g in leaving.groups if g.kept]
    if leaving.profile.written_ads:
        yield from _of_groups([g for g in kept if not g.ads], "without_ad", "has no ad",
                              "have no ad")  # fmt: skip
    yield from _of_groups([g for g in kept if not g.address], "without_page",
                          "leads to no page", "lead to no page")  # fmt: skip
    for group in [g for g in kept if g.unsaid][:_NAMED]:
        words = ", ".join(group.unsaid)
        yield Check("page_silent", f"The page of {group.name} doesn’t say {words}.", "arrange")
    if leaving.visit_tag:
        bare = [g for g in kept if g.address and leaving.visit_tag not in g.address]
        yield from _of_groups(bare, "without_tag", "leads to a page without your tag",
                              "lead to pages without your tag")  # fmt: skip


def _campaigns(leaving: Leaving) -> Iterator[Check]:
    empty = [c.name for c in leaving.campaigns if not c.kept and not c.spots]
    if empty:
        said = counted(len(empty), "campaign holds", "campaigns hold")
        yield Check("empty_campaign", f"{said} no kept keyword.", "arrange",
                    names=tuple(empty[:_NAMED]), mend="remove what is empty")  # fmt: skip
    seen: dict[str, str] = {}
    for name in (*(c.name for c in leaving.campaigns), *(g.name for g in leaving.groups)):
        twin = seen.setdefault(name.casefold(), name)
        if twin is not name and twin != name:
            yield Check(
                "names_twice", f"{twin} and {name} are one name to most platforms.", "arrange"
            )


def _dates(leaving: Leaving) -> Iterator[Check]:
    spans = [("The plan", leaving.first_day, leaving.last_day)]
    for c in leaving.campaigns:
        if c.first_day or c.last_day:
            first = date.fromisoformat(c.first_day) if c.first_day else leaving.first_day
            last = date.fromisoformat(c.last_day) if c.last_day else leaving.last_day
            spans.append((c.name, first, last))
    waits = timedelta(days=3 * leaving.result.brief.assumed["report_half_life"])
    for name, first, last in spans:
        if last is not None and last < leaving.today:
            yield Check("over", f"{name} ends in the past, on {last:%d %B %Y}.", "brief", must=True)
        elif first < leaving.today:
            yield Check("in_the_past", f"{name} begins in the past, on {first:%d %B %Y}.", "brief",
                        mend="begin tomorrow" if name == "The plan" else "")  # fmt: skip
        elif last is not None and last - first < waits:
            yield Check(
                "too_short", f"{name} ends before its customers could be reported.", "brief"
            )
        if first >= leaving.today:
            yield from _nobody_looks(leaving, name, first)


def _nobody_looks(leaving: Leaving, name: str, first: date) -> Iterator[Check]:
    """What is told of a start before days without work, where the planner wants that told."""
    if leaving.tell_weekend and first.weekday() >= _FRIDAY:
        said = f"{name} begins on a {first:%A}, when nobody looks for two days."
        yield Check("weekend", said, "brief")
    for day, when in ((first, "on"), (first + timedelta(days=1), "on the day before")):
        called = holiday_on(leaving.holidays_of, day)
        if called:
            said = f"{name} begins {when} a public holiday: {called}, {day:%d %B %Y}."
            yield Check("holiday", said, "brief")
            return


def _known(leaving: Leaving) -> Iterator[Check]:
    result, table = leaving.result, leaving.result.table
    for said in leaving.notices:
        yield Check("notice", said, "sift")
    if not leaving.counted_by.strip():
        yield Check("not_counted", "Nothing says how customers are counted.", "brief")
    kept = table.kept
    for code, call, said in (("uncalled", "none", "not yet called"), ("held", "hold", "held")):
        rows = np.flatnonzero(table.call == CALLS.index(call))
        if len(rows):
            many = counted(len(rows), "keyword is", "keywords are")
            yield Check(code, f"{many} {said}.", "sift", names=_some(leaving, rows))
    idle = np.flatnonzero(kept & ~np.isfinite(result.bid))
    if len(idle):
        said = counted(len(idle), "kept keyword")
        yield Check("idle", f"{said} will not run.", "fit", names=_some(leaving, idle))
    assumed = np.flatnonzero(result.prices.assumed & kept)
    if len(assumed):
        said = counted(len(assumed), "kept keyword has", "kept keywords have")
        own = "its" if len(assumed) == 1 else "their"
        yield Check("no_price", f"{said} no price of {own} own.", "gather",
                    names=_some(leaving, assumed))  # fmt: skip
    guessed = sum(name in leaving.not_entered for name in _FIGURES)
    if guessed:
        said = counted(guessed, "figure of the brief is", "figures of the brief are")
        yield Check("assumed", f"{said} still assumed.", "brief")
    old = (leaving.today - timedelta(days=leaving.stale_days)).isoformat()
    stale = [row for row, at in enumerate(leaving.read_at) if kept[row] and at and at[:10] < old]
    if stale:
        said = counted(len(stale), "kept keyword was", "kept keywords were")
        yield Check("stale", f"{said} read over {leaving.stale_days} days ago.", "gather",
                    names=_some(leaving, np.array(stale)))  # fmt: skip


_LOOKS: tuple[Callable[[Leaving], Iterator[Check]], ...] = (
    _money, _limits, _conflicts, _groups, _campaigns, _dates, _known,
)  # fmt: skip
"""In order of harm."""
