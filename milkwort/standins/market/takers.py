"""Reading a row of each kind of sheet: what it says, what is warned of, why it is refused."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from functools import lru_cache

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
from milkwort.standins.market.standing import Data, Standing

__all__ = ["TAKERS", "Taker", "Warned"]


@dataclass(frozen=True)
class Warned:
    """What is taken, but looks wrong: as a refusal is, with what it was and what it became."""

    code: str
    message: str
    column: str
    old: str = ""
    new: str = ""


def _campaign(standing: Standing, row: Mapping[str, str], ref: str) -> tuple[Data, Warned | None]:
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
        return data, Warned("budget_under_bid", message, "daily budget", cell_said(highest),
                              cell_said(budget))  # fmt: skip
    return data, None


def _group(standing: Standing, row: Mapping[str, str], ref: str) -> tuple[Data, Warned | None]:
    before = standing.things["groups"].get(ref, {})
    bid = money_cell(row, "bid", before.get("bid"), blank=None)
    data: Data = {"campaign": _campaign_of(standing, row), "name": name_cell(row, "ad group"),
            "page": row.get("page", "")[:2000], "bid": bid}  # fmt: skip
    _check_bid(standing, data["campaign"], bid)
    return data, None


def _keyword(standing: Standing, row: Mapping[str, str], ref: str) -> tuple[Data, Warned | None]:
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
            return data, Warned("negative_stops_keyword", message, "keyword", stop["text"], text)
    return data, None


def _negative(standing: Standing, row: Mapping[str, str], _: str) -> tuple[Data, Warned | None]:
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
            return data, Warned("negative_stops_keyword", message, "negative",
                                  keyword["text"], text)  # fmt: skip
    return data, None


def _ad(standing: Standing, row: Mapping[str, str], ref: str) -> tuple[Data, Warned | None]:
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


def _spot(standing: Standing, row: Mapping[str, str], _: str) -> tuple[Data, Warned | None]:
    pays = row.get("pays", "click")
    if pays not in ("click", "showings"):
        raise RefusedError("pays_unknown", f'expected click or showings, got "{pays}"', "pays")
    return {"campaign": _campaign_of(standing, row), "name": name_cell(row, "spot"), "pays": pays,
            "price": money_cell(row, "price", None), "money": money_cell(row, "money a month", None)
            }, None  # fmt: skip


Taker = Callable[[Standing, Mapping[str, str], str], tuple[Data, Warned | None]]
"""Reads one row: what stands, the row, the ref it gives (empty for none)."""

TAKERS: dict[str, Taker] = {
    "campaigns": _campaign, "groups": _group, "keywords": _keyword, "negatives": _negative,
    "ads": _ad, "spots": _spot,
}  # fmt: skip
"""Who reads a row of each kind of sheet; each raises a refusal for one that can't be taken."""


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
        raise RefusedError("bid_over_day", f"expected at most a day’s money, {day:g}, got {bid:g}",
                            "bid", cell_said(day), cell_said(bid))  # fmt: skip
