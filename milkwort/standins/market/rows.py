"""Taking a sheet in, row by row: what is taken, what is warned of, what is refused and why."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from datetime import date
from functools import lru_cache
from typing import Any

from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.matching import text_matches
from milkwort.core.words.texts import MAX_TEXT, canonical, normalise
from milkwort.standins.market.cells import (
    LONGEST,
    RefusedError,
    cell_said,
    day_cell,
    days_cell,
    hour_cell,
    money_cell,
    name_cell,
    yes_cell,
)
from milkwort.standins.market.limits import Limits

__all__ = ["COLUMNS", "KINDS", "Reply", "Standing", "take_row"]

Data = dict[str, Any]

KINDS = ("campaigns", "groups", "keywords", "negatives", "ads", "spots")
"""Kinds of sheets, in the order in which they can be taken: what is pointed at comes first."""


COLUMNS: dict[str, tuple[str, ...]] = {
    "campaigns": ("campaign",),
    "groups": ("campaign", "ad group"),
    "keywords": ("campaign", "ad group", "keyword", "match"),
    "negatives": ("negative", "match"),
    "ads": ("campaign", "ad group"),
    "spots": ("campaign", "spot"),
}
"""Columns that a sheet of each kind must have."""


@dataclass(frozen=True)
class Reply:
    """The answer to one row.

    Attributes
    ----------
    row : int
        Of the sheet, its heading being 1.
    state : str
        ``taken``, ``warned`` or ``refused``.
    code, message, field, old, new : str
    ref : str
        What it is known by.
    """

    row: int
    state: str
    code: str
    message: str
    field: str = ""
    old: str = ""
    new: str = ""
    ref: str = ""


@dataclass
class Standing:
    """What stands in an account while sheets are taken in; data by kind and ref."""

    limits: Limits
    today: date
    things: dict[str, dict[str, Data]] = field(default_factory=lambda: {k: {} for k in KINDS})
    touched: dict[tuple[str, str], Data | None] = field(default_factory=dict)
    made: int = 0

    def __post_init__(self) -> None:
        self._by_name: dict[str, dict[Any, str]] = {k: {} for k in KINDS}
        for kind in KINDS:
            for ref, data in self.things[kind].items():
                self._by_name[kind][_identity(kind, data)] = ref
        self.in_group: dict[tuple[str, str], int] = {}
        for kind in ("keywords", "ads"):
            for data in self.things[kind].values():
                self._count(kind, data, 1)

    def find(self, kind: str, identity: Any) -> str | None:
        """Return the ref of what has a name; None where nothing has."""
        return self._by_name[kind].get(identity)

    def set(self, kind: str, ref: str, data: Data) -> None:
        """Put a thing there, or in the place of what it was."""
        self._forget(kind, ref)
        self.things[kind][ref] = data
        self._by_name[kind][_identity(kind, data)] = ref
        self._count(kind, data, 1)
        self.touched[kind, ref] = data

    def drop(self, kind: str, ref: str) -> None:
        """Take a thing away, and what hangs on it."""
        if ref not in self.things[kind]:
            return
        self._forget(kind, ref)
        self.touched[kind, ref] = None
        if kind in ("campaigns", "groups"):
            part = kind.removesuffix("s")
            for other in KINDS:
                for hanging in [r for r, d in self.things[other].items() if d.get(part) == ref]:
                    self.drop(other, hanging)

    def _forget(self, kind: str, ref: str) -> None:
        before = self.things[kind].pop(ref, None)
        if before is not None:
            self._count(kind, before, -1)
            if self._by_name[kind].get(_identity(kind, before)) == ref:
                del self._by_name[kind][_identity(kind, before)]

    def _count(self, kind: str, data: Data, by: int) -> None:
        if kind in ("keywords", "ads"):
            at = (kind, data["group"])
            self.in_group[at] = self.in_group.get(at, 0) + by


def _identity(kind: str, data: Data) -> Any:
    if kind == "campaigns":
        return data["name"]
    if kind == "groups":
        return data["campaign"], data["name"]
    if kind == "keywords":
        return data["group"], canonical(normalise(data["text"]), {}, True), data["match"]
    if kind == "negatives":
        return data["campaign"], data["group"], normalise(data["text"]), data["match"]
    if kind == "ads":
        return data["group"], tuple(data["fields"])
    return data["campaign"], data["name"]


@dataclass(frozen=True)
class _Warning:
    code: str
    message: str
    column: str
    old: str = ""
    new: str = ""


def take_row(standing: Standing, kind: str, number: int, row: Mapping[str, str]) -> Reply:
    """Take one row of a sheet in; the account changes only where it is taken.

    Parameters
    ----------
    standing : Standing
        Changed in place.
    kind : str
        From `KINDS`.
    number : int
        Of the row, the heading being 1.
    row : mapping of str to str
    """
    try:
        ref, data, warning, before = _understood(standing, kind, row)
    except RefusedError as no:
        message = f"row {number}, {no.column}: {no.message}"
        return Reply(number, "refused", no.code, message, no.column, no.old, no.new,
                     row.get("ref", ""))  # fmt: skip
    if data is None:
        standing.drop(kind, ref)
        return Reply(number, "taken", "removed", f"row {number}: removed", "", ref=ref)
    if data == before and warning is None:
        return Reply(number, "taken", "same_as_before", f"row {number}: as it was", ref=ref)
    if data != before:
        standing.set(kind, ref, data)
    if warning is not None:
        message = f"row {number}, {warning.column}: {warning.message}"
        return Reply(number, "warned", warning.code, message, warning.column, warning.old,
                     warning.new, ref)  # fmt: skip
    changed = next((n for n in data if before is not None and before.get(n) != data[n]), "")
    old = cell_said(before.get(changed)) if before is not None and changed else ""
    new = cell_said(data[changed]) if changed else ""
    return Reply(number, "taken", "taken", f"row {number}: taken", changed, old, new, ref)


def _understood(
    standing: Standing, kind: str, row: Mapping[str, str]
) -> tuple[str, Data | None, _Warning | None, Data | None]:
    removed = row.get("change", "").casefold() == "removed"
    given = row.get("ref", "")
    if len(given) > LONGEST:
        raise RefusedError("too_long", f"expected at most {LONGEST} characters", "ref")
    if removed and given:
        if given not in standing.things[kind]:
            raise RefusedError("not_there", f'expected what stands here, got "{given}"', "ref")
        return given, None, None, standing.things[kind][given]
    data, warning = _TAKERS[kind](standing, row, given)
    named = standing.find(kind, _identity(kind, data))
    if given and named is not None and named != given:
        code = "keyword_twice" if kind == "keywords" else "name_twice"
        what = cell_said(data.get("text", data.get("name", "")))
        raise RefusedError(code, f'expected each once in its place, got "{what}" again',
                            COLUMNS[kind][-1], named, given)  # fmt: skip
    ref = given or named or _new_ref(standing, kind)
    return ref, None if removed else data, warning, standing.things[kind].get(ref)


def _new_ref(standing: Standing, kind: str) -> str:
    while True:
        standing.made += 1
        ref = f"m-{kind[:2]}-{standing.made}"
        if ref not in standing.things[kind]:
            return ref


def _campaign(standing: Standing, row: Mapping[str, str], ref: str) -> tuple[Data, _Warning | None]:
    before = standing.things["campaigns"].get(ref, {})
    budget = money_cell(row, "daily budget", before.get("daily budget"))
    first, last = (day_cell(row, c, before.get(c, "")) for c in ("first day", "last day"))
    if last and first and last < first:
        raise RefusedError("date_wrong", f"expected a day from {first} on, got {last}", "last day")
    if last and last < standing.today.isoformat() and last != before.get("last day"):
        message = f"expected a day from {standing.today} on, got {last}"
        raise RefusedError("date_past", message, "last day")
    data = {
        "name": name_cell(row, "campaign"), "daily budget": budget, "first day": first,
        "last day": last, "days": days_cell(row), "from hour": hour_cell(row, "from hour", 0),
        "to hour": hour_cell(row, "to hour", 24), "spread": yes_cell(row, "spread", False),
        "partner sites": yes_cell(row, "partner sites", False),
        "bid moves": row.get("bid moves", "")[:LONGEST],
    }  # fmt: skip
    highest = max((k["bid"] or 0 for k in standing.things["keywords"].values()
                   if k["campaign"] == ref), default=0.0)  # fmt: skip
    if budget is not None and 0 < budget < highest:
        message = f"expected at least the highest bid, {highest:g}, got {budget:g}"
        return data, _Warning("budget_under_bid", message, "daily budget", cell_said(highest),
                              cell_said(budget))  # fmt: skip
    return data, None


def _group(standing: Standing, row: Mapping[str, str], ref: str) -> tuple[Data, _Warning | None]:
    before = standing.things["groups"].get(ref, {})
    bid = money_cell(row, "bid", before.get("bid"), blank=None)
    data: Data = {"campaign": _campaign_of(standing, row), "name": name_cell(row, "ad group"),
            "page": row.get("page", "")[:2000], "bid": bid}  # fmt: skip
    _check_bid(standing, data["campaign"], bid)
    return data, None


def _keyword(standing: Standing, row: Mapping[str, str], ref: str) -> tuple[Data, _Warning | None]:
    campaign, group = _group_of(standing, row)
    text = row.get("keyword", "")
    _check_text(standing, text, "keyword")
    match = _match(standing, row)
    before = standing.things["keywords"].get(ref)
    most = standing.limits.keywords_per_group
    if (before is None or before["group"] != group) and (
        standing.in_group.get(("keywords", group), 0) >= most
    ):
        raise RefusedError("group_full", f"expected at most {most} keywords in a group, got one "
                            "more", "ad group", "", row.get("ad group", ""))  # fmt: skip
    bid = money_cell(row, "bid", None, blank=None)
    runs = yes_cell(row, "run", True)
    if bid is None and runs:
        if standing.things["groups"][group]["bid"] is None:
            raise RefusedError("bid_missing", "expected a bid for what runs, got none", "bid")
    else:
        _check_bid(standing, campaign, bid if runs else None)
    data: Data = {"campaign": campaign, "group": group, "text": text, "match": match,
                  "bid": bid, "run": runs}  # fmt: skip
    for stop in standing.things["negatives"].values():
        there = stop["group"] == group or (not stop["group"] and stop["campaign"] in ("", campaign))
        if runs and there and _stops(standing, stop, text):
            message = (
                f'expected no negative that matches it, got "{stop["text"]}" ({stop["match"]})'
            )
            return data, _Warning("negative_stops_keyword", message, "keyword", stop["text"], text)
    return data, None


def _negative(standing: Standing, row: Mapping[str, str], _: str) -> tuple[Data, _Warning | None]:
    campaign = group = ""
    if row.get("ad group"):
        campaign, group = _group_of(standing, row)
    elif row.get("campaign"):
        campaign = _campaign_of(standing, row)
    text = row.get("negative", "")
    if not normalise(text):
        raise RefusedError("name_missing", f'expected at least one word, got "{text}"', "negative")
    if len(text) > MAX_TEXT:
        raise RefusedError("too_long", f"expected at most {MAX_TEXT} characters", "negative")
    match = row.get("match", "").casefold() or "phrase"
    if match not in MATCHES:
        raise RefusedError("match_not_offered", f'expected one of {", ".join(MATCHES)}, got '
                            f'"{match}"', "match")  # fmt: skip
    data = {"campaign": campaign, "group": group, "text": text, "match": match}
    for keyword in standing.things["keywords"].values():
        there = keyword["group"] == group or (not group and campaign in ("", keyword["campaign"]))
        if there and keyword["run"] and _stops(standing, data, keyword["text"]):
            message = f'expected to match no keyword that runs, got "{keyword["text"]}"'
            return data, _Warning("negative_stops_keyword", message, "negative",
                                  keyword["text"], text)  # fmt: skip
    return data, None


def _ad(standing: Standing, row: Mapping[str, str], ref: str) -> tuple[Data, _Warning | None]:
    campaign, group = _group_of(standing, row)
    limits, before = standing.limits, standing.things["ads"].get(ref)
    most = limits.ads_per_group
    if (before is None or before["group"] != group) and (
        standing.in_group.get(("ads", group), 0) >= most
    ):
        message = f"expected at most {most} ads in a group, got one more"
        raise RefusedError("group_full", message, "ad group")
    fields = []
    for stem, many, most in (
        ("headline", limits.headlines, limits.headline_characters),
        ("description", limits.descriptions, limits.description_characters),
    ):
        for number in range(1, 21):
            text = row.get(f"{stem} {number}", "")
            if text and number > many:
                raise RefusedError("too_many", f"expected at most {many}, got one more",
                                    f"{stem} {number}")  # fmt: skip
            if len(text) > most:
                message = f"expected at most {most} characters, got {len(text)}"
                raise RefusedError("too_long", message, f"{stem} {number}", str(most), text)
            if number <= many:
                fields.append(text)
    if not any(fields):
        raise RefusedError("name_missing", "expected a headline, got none", "headline 1")
    return {"campaign": campaign, "group": group, "fields": fields}, None


def _spot(standing: Standing, row: Mapping[str, str], _: str) -> tuple[Data, _Warning | None]:
    pays = row.get("pays", "click")
    if pays not in ("click", "showings"):
        raise RefusedError("pays_unknown", f'expected click or showings, got "{pays}"', "pays")
    return {"campaign": _campaign_of(standing, row), "name": name_cell(row, "spot"), "pays": pays,
            "price": money_cell(row, "price", None), "money": money_cell(row, "money a month", None)
            }, None  # fmt: skip


_TAKERS: dict[
    str, Callable[[Standing, Mapping[str, str], str], tuple[Data, _Warning | None]]
] = {
    "campaigns": _campaign, "groups": _group, "keywords": _keyword, "negatives": _negative,
    "ads": _ad, "spots": _spot,
}  # fmt: skip


def _stops(standing: Standing, stop: Data, text: str) -> bool:
    if not _told(stop["text"]) <= _told(text):  # most don't, and that is seen at once
        return False
    return text_matches(stop["match"], stop["text"], text,
                        close_forms=standing.limits.negative_close_forms)  # fmt: skip


@lru_cache(maxsize=50_000)
def _told(text: str) -> frozenset[str]:
    return frozenset(canonical(normalise(text), {}, True))


def _campaign_of(standing: Standing, row: Mapping[str, str]) -> str:
    name = row.get("campaign", "")
    ref = standing.find("campaigns", name)
    if ref is None:
        message = f'expected a campaign that stands here, got "{name}"'
        raise RefusedError("campaign_unknown", message, "campaign", "", name)
    return ref


def _group_of(standing: Standing, row: Mapping[str, str]) -> tuple[str, str]:
    campaign, name = _campaign_of(standing, row), row.get("ad group", "")
    ref = standing.find("groups", (campaign, name))
    if ref is None:
        message = f'expected an ad group of that campaign, got "{name}"'
        raise RefusedError("group_unknown", message, "ad group", "", name)
    return campaign, ref


def _check_text(standing: Standing, text: str, column: str) -> None:
    if not normalise(text):
        raise RefusedError("name_missing", f'expected at least one word, got "{text}"', column)
    if len(text) > MAX_TEXT:
        message = f"expected at most {MAX_TEXT} characters, got {len(text)}"
        raise RefusedError("too_long", message, column, str(MAX_TEXT), text)
    refused = [c for c in text if c in standing.limits.refused_characters]
    if refused:
        message = f'expected none of {standing.limits.refused_characters}, got "{refused[0]}"'
        raise RefusedError("character_refused", message, column, "", text)


def _match(standing: Standing, row: Mapping[str, str]) -> str:
    match = row.get("match", "").casefold() or "exact"
    if match not in standing.limits.matches:
        message = f'expected one of {", ".join(standing.limits.matches)}, got "{match}"'
        raise RefusedError("match_not_offered", message, "match", "", match)
    return match


def _check_bid(standing: Standing, campaign: str, bid: float | None) -> None:
    if bid is None:
        return
    least, step = standing.limits.min_bid, standing.limits.bid_step
    if bid < least - 1e-9:
        raise RefusedError("bid_under_least", f"expected {least:g} or more, got {bid:g}", "bid",
                            cell_said(least), cell_said(bid))  # fmt: skip
    if abs(bid / step - round(bid / step)) > 1e-6:
        raise RefusedError("bid_off_step", f"expected whole steps of {step:g}, got {bid:g}", "bid",
                            cell_said(round(bid / step) * step), cell_said(bid))  # fmt: skip
    day = standing.things["campaigns"][campaign]["daily budget"]
    if day is not None and bid > day + 1e-9:
        raise RefusedError("bid_over_day", f"expected at most a day's money, {day:g}, got {bid:g}",
                            "bid", cell_said(day), cell_said(bid))  # fmt: skip
