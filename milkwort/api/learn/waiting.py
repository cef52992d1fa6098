"""What waits: every decision that results ask for, the most money first, and what was set aside."""

from __future__ import annotations

from calendar import monthrange
from collections.abc import Mapping, Sequence
from datetime import date
from typing import Any

from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.counted import in_percent
from milkwort.core.errors import BadValueError
from milkwort.core.handover.rhythm import reviews_of
from milkwort.core.learn.learned import Learned
from milkwort.core.words.texts import normalise
from milkwort.store.set_aside import Aside

__all__ = ["about_of", "asked_of", "refused_asked", "reviews_asked", "sorted_out"]

Asked = dict[str, Any]
"""A decision that is asked for; `about` and `suggestion` say what would be set aside."""

_REVIEW_DAYS = 14
"""A look that is longer past than this is overtaken by the next one."""
_LONGEST_ID = 18
"""Digits of an id that the database can hold."""
_VERDICTS = {"stop": ("stop it", "misses"), "raise": ("raise its bid", "meets")}
_SOLD = {"own_keyword": "a keyword of its own", "spot": "a spot of its own"}
"""What is suggested for a term that sold."""
_WHY = {
    "negative": "a negative stops its own text",
    "money": "the money was gone for most of its searches",
    "few_searches": "far fewer search for it than was planned",
    "bid": "its bid lies under the market",
    "unseen": "nothing that was seen says why; is it approved, and shown where it is searched?",
}


def asked_of(
    plan: OpenPlan, learned: Learned, keywords: Sequence[Asked], terms: Sequence[Asked]
) -> list[Asked]:
    """Return what results ask about a plan's terms, keywords and month."""
    keys = dict(zip(plan.sheet.ids, (entry.key for entry in plan.sheet.entries), strict=True))
    found = [_of_term(term) for term in terms if term["suggestion"] != "wait"
             and not term["decided"]]  # fmt: skip
    for keyword in keywords:
        if keyword["call"] != "keep":
            continue
        about = ("keyword", keys[keyword["id"]])
        if keyword["verdict"] in _VERDICTS:
            found.append(_of_verdict(keyword, about))
        if keyword["hardly"] is not None:
            found.append(_of_hardly_shown(keyword, ("shown", keys[keyword["id"]])))
    return [*found, *_month_over(plan, learned)]


def about_of(plan: OpenPlan, kind: str, key: str) -> Aside:
    """Return what a line of the queue is about, as it is kept when it is set aside.

    Raises
    ------
    BadValueError
        Where a keyword is meant, and no id is given.
    NotFoundError
        For a keyword that isn't in the plan.
    """
    if kind in ("block", "own_keyword", "spot"):
        return "term", normalise(key)
    if kind in ("stop", "raise", "hardly"):
        if not (key.isascii() and key.isdecimal()) or len(key) > _LONGEST_ID:
            raise BadValueError("key", "the id of a keyword", key)
        row = plan.sheet.rows_of([int(key)])[0]
        return ("shown" if kind == "hardly" else "keyword"), plan.sheet.entries[row].key
    return kind, key


def sorted_out(
    asked: Sequence[Asked], aside: Mapping[Aside, tuple[str, str | None]], as_of: str
) -> tuple[list[Asked], list[Asked]]:
    """Return what waits, and what was set aside and would be asked about.

    What has no money of its own (refused rows, looks, a month that is over) comes first, then
    the most money.
    """
    waits: list[Asked] = []
    left: list[Asked] = []
    for one in sorted(asked, key=lambda one: (one["money"] > 0, -one["money"])):
        suggestion, until = aside.get(one["about"], ("", None))
        still = suggestion == one["suggestion"] and (until is None or until >= as_of)
        line = {name: value for name, value in one.items() if name != "about"}
        (left if still else waits).append(line)
    return waits, left


def reviews_asked(plan: OpenPlan, today: date) -> list[Asked]:
    """Return the newest look of each sort at a running plan that is due."""
    if not plan.handed_over:
        return []
    first = date.fromisoformat(str(plan.record.values["start_date"]))
    last = plan.record.values["last_day"]
    found: dict[str, Asked] = {}
    for review in reviews_of(first, date.fromisoformat(last) if last else None):
        if 0 <= (today - review.at.date()).days <= _REVIEW_DAYS:
            sort = review.key.partition("-")[0]
            found[sort] = _line("review", review.key, review.title, review.about, 0.0,
                                ("review", review.key))  # fmt: skip
    return list(found.values())


def refused_asked(sending_id: int, replies: Mapping[str, Sequence[Any]]) -> list[Asked]:
    """Return that rows of what was sent last were refused."""
    refused = sum(row.get("state") == "refused" for rows in replies.values() for row in rows)
    if not refused:
        return []
    rows = "1 row" if refused == 1 else f"{refused:,} rows"
    return [_line("refused", str(sending_id), f"{rows} refused",
                  "mend and send them again: Hand over, practice", 0.0,
                  ("refused", str(sending_id)))]  # fmt: skip


def _line(
    kind: str, key: str, name: str, says: str, money: float, about: Aside, suggestion: str = "",
    bid: float | None = None,
) -> Asked:  # fmt: skip
    return {"kind": kind, "key": key, "name": name, "says": says, "money": money, "about": about,
            "suggestion": suggestion or kind, "bid": bid}  # fmt: skip


def _of_term(term: Asked) -> Asked:
    suggestion = term["suggestion"]
    says = _SOLD.get(suggestion, f"block {term['form']}")
    kind = suggestion if suggestion in _SOLD else "block"
    name = f"{term['term']} {term['thing']}".strip()
    return _line(kind, term["term"], name, f"{says}: {term['ground']}", term["cost"],
                 ("term", normalise(term["term"])), suggestion)  # fmt: skip


def _of_verdict(keyword: Asked, about: Aside) -> Asked:
    verdict = keyword["verdict"]
    says, meets = _VERDICTS[verdict]
    sure = keyword["missing"] if verdict == "stop" else 1 - keyword["missing"]
    says = f"{says}: {in_percent(sure)} sure that it {meets} the rule"
    return _line(verdict, str(keyword["id"]), keyword["keyword"], says, keyword["spend"], about)


def _of_hardly_shown(keyword: Asked, about: Aside) -> Asked:
    seen = keyword["hardly"]
    says = f"shown {seen['seen']:,.0f} times of {seen['expected']:,.0f}: {_WHY[seen['why']]}"
    bid = seen["next_bid"] if seen["pays"] and seen["why"] == "bid" else None
    if seen["why"] == "bid" and seen["next_bid"] is not None:
        would = f"; {seen['next_bid']:.2f} would be shown for half its searches"
        says += would if bid is not None else would + ", which is more than it is worth"
    return _line("hardly", str(keyword["id"]), keyword["keyword"], says, keyword["spend"], about,
                 bid=bid)  # fmt: skip


def _month_over(plan: OpenPlan, learned: Learned) -> list[Asked]:
    last = learned.last
    if plan.record.closed_as is not None or last.day < monthrange(last.year, last.month)[1]:
        return []
    key = f"{last:%Y-%m}"
    return [_line("close", key, f"{last:%B %Y} is over", "close it: the next month begins with "
                  "what was learnt", 0.0, ("close", key))]  # fmt: skip
