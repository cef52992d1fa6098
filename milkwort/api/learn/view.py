"""What the Learn stage shows: the month, terms, keywords, corrections, and what waits."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import timedelta
from typing import Any

import numpy as np

from milkwort.api.learn.held import held_against, late_of, sums_of
from milkwort.api.learn.known import Known
from milkwort.api.learn.month import month_block, unmatched_of
from milkwort.api.learn.ran import Span
from milkwort.api.learn.waiting import asked_of, sorted_out
from milkwort.api.plan.open_plan import OpenPlan
from milkwort.core.learn.by_now import share_of_month
from milkwort.core.learn.corrections import FACTORS
from milkwort.core.learn.evidence import VERDICTS
from milkwort.core.learn.hardly_shown import WHYS, HardlyShown
from milkwort.core.learn.learned import Learned, overall_factors
from milkwort.core.market.in_force import negatives_in_force
from milkwort.core.plan.calendar import months_from
from milkwort.core.plan.year import YearAhead
from milkwort.core.sift.ranks import strong_unpaid
from milkwort.core.words.foreign import is_item_code
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.matching import index_of
from milkwort.core.words.negatives import stopped_by
from milkwort.core.words.texts import joints_of, normalise
from milkwort.store.models import ResultImport
from milkwort.store.set_aside import Aside
from milkwort.store.spots import spots_by_code
from milkwort.store.uncorrected import applied_factors

__all__ = [
    "Around",
    "held_factors",
    "import_item",
    "learn_view",
    "stopped_terms",
    "undecided",
    "verdict_rows",
]

_MOST_DAYS = 400
_ITEM = ("id", "at", "source", "level", "since", "until", "as_of", "rows", "in_force")


def import_item(one: ResultImport) -> dict[str, Any]:
    """Return an import as it is listed."""
    return {name: getattr(one, name) for name in _ITEM}


@dataclass(frozen=True)
class Around:
    """What Learn shows beside results.

    Attributes
    ----------
    has_practice : bool
        Whether the plan has an account in the practice market.
    aside : mapping
        Suggestions that were set aside.
    next_label : str or None
        What the next month is called, where this one is closed.
    also : sequence of dict
        What waits beside decisions about results.
    rivals : mapping of str to (tuple of str, tuple of str)
        By a keyword's normalised text, rivals that came to pay for it and that are gone.
    """

    has_practice: bool = False
    aside: Mapping[Aside, tuple[str, str | None]] = field(default_factory=dict)
    next_label: str | None = None
    also: Sequence[dict[str, Any]] = ()
    rivals: Mapping[str, tuple[tuple[str, ...], tuple[str, ...]]] = field(default_factory=dict)


def learn_view(plan: OpenPlan, known: Known, around: Around) -> dict[str, Any]:
    """Return everything Learn shows."""
    waiting, left = sorted_out(list(around.also), around.aside, "")
    base: dict[str, Any] = {
        "revision": plan.record.revision,
        "imports": [import_item(one) for one in known.imports],
        "since": None, "until": None, "as_of": None, "days": [], "customers": {}, "spend": {},
        "late": 0.0, "keywords": [], "groups": [], "terms": [], "corrections": {}, "held": {},
        "evidence_since": None, "searches_known": False, "on_enquiries": False,
        "waiting": waiting, "aside": left, "unmatched": [], "unmatched_rows": 0,
        "has_practice": around.has_practice, "month": None,
        "closed_as": plan.record.closed_as, "next_label": around.next_label,
        "stop_chance": plan.record.brief.assumed["stop_chance"],
        "raise_chance": plan.record.brief.assumed["raise_chance"],
    }  # fmt: skip
    learned = known.learned
    if learned is None:
        return base
    keywords, terms = _keywords(plan, learned, around), _terms(plan, known)
    # a month that is closed has nothing to decide: its next month asks
    is_open = plan.record.closed_as is None
    asked = [*asked_of(plan, learned, keywords, terms), *around.also] if is_open else []
    waiting, left = sorted_out(asked, around.aside, learned.as_of.isoformat())
    held = held_against(plan, known, learned.first, learned.last)
    customers, spend = sums_of(held)
    return base | {
        "since": learned.first.isoformat(), "until": learned.last.isoformat(),
        "as_of": learned.as_of.isoformat(), "days": _days(known),
        "customers": customers, "spend": spend, "late": late_of(held), "keywords": keywords,
        "groups": _groups(plan, learned), "terms": terms,
        "corrections": overall_factors(learned), "held": held_factors(plan),
        "evidence_since": learned.since.isoformat(),
        "searches_known": learned.corrections.searches_known,
        "on_enquiries": bool(learned.judged.on_enquiries.any()),
        "waiting": waiting, "aside": left, "month": month_block(plan, known),
        "unmatched": unmatched_of(plan, known),
        "unmatched_rows": int((known.keyword < 0).sum()),
    }  # fmt: skip


def undecided(plan: OpenPlan, known: Known) -> list[int]:
    """Return the terms, by place, about which something is suggested and nothing was done."""
    if known.terms is None or known.learned is None:
        return []
    done = _decided(plan, known)
    return [at for at, one in enumerate(known.learned.terms)
            if one.suggestion != "wait" and not done[at]]  # fmt: skip


def held_factors(plan: OpenPlan) -> dict[str, float]:
    """Return the factors of the whole plan that its figures hold already, by input."""
    taught = plan.record.taught
    return dict(taught.held) if taught is not None else {}


def verdict_rows(plan: OpenPlan, learned: Learned) -> tuple[list[int], list[int]]:
    """Return the rows of kept keywords that evidence stops, and that it raises."""
    verdict, kept = learned.judged.evidence.verdict, plan.result.table.kept
    stops, raises = (
        np.flatnonzero((verdict == VERDICTS.index(name)) & kept).tolist()
        for name in ("stop", "raise")
    )
    return stops, raises


def _keywords(plan: OpenPlan, learned: Learned, around: Around) -> list[dict[str, Any]]:
    judged, e, seen = learned.judged, learned.judged.evidence, learned.seen
    table, entries = plan.result.table, plan.sheet.entries
    labels = plan.sheet.labels
    nobody: tuple[tuple[str, ...], tuple[str, ...]] = ((), ())
    hidden = {row: at for at, row in enumerate(learned.hardly.row.tolist())}
    # against what the plan holds already
    fixes = [getattr(learned.corrections, name).factor / held
             for name, held in zip(FACTORS, applied_factors(plan.sheet), strict=True)]  # fmt: skip
    rows = np.flatnonzero(seen.shown | (table.kept & np.isfinite(plan.result.bid)))
    order = rows[np.argsort(-seen.cost[rows], kind="stable")].tolist()
    return [
        {
            "id": plan.sheet.ids[row], "keyword": entries[row].text, "match": entries[row].match,
            "group": labels[table.group[row]] if table.group[row] >= 0 else "",
            "call": entries[row].call, "clicks": float(seen.clicks[row]),
            "exposure": float(judged.results.counted_clicks[row]),
            "customers": float(seen.customers[row]), "spend": float(seen.cost[row]),
            "enquiries": float(seen.enquiries[row]) if judged.on_enquiries[row] else None,
            "cpc": _plain(e.cpc[row]), "rate": float(e.rate[row]),
            "prior_rate": float(e.prior_rate[row]),
            "needed_rate": _plain(e.cpc[row] / judged.allowed[row]),
            "missing": _plain(e.missing[row]), "losing": _plain(e.losing[row]),
            "verdict": VERDICTS[e.verdict[row]], "clicks_needed": _plain(e.clicks_needed[row]),
            "rule_cuts": bool(learned.own_rule.cuts[row]),
            "false_cut": float(learned.own_rule.false_cut[row]),
            "searches": float(fixes[0][row]), "click_rate": float(fixes[1][row]),
            "price": float(fixes[2][row]), "worth_testing": float(learned.testing.worth[row]),
            "testing_pays": bool(learned.testing.pays[row]),
            "click_rate_low": bool(learned.clicked.low[row]),
            "clicked": _plain(learned.clicked.ratio[row]),
            "hardly": _hardly(plan, learned.hardly, row, hidden[row]) if row in hidden else None,
            "listed_well": strong_unpaid(entries[row].unpaid_rank, entries[row].paid_rank),
            "rivals_came": around.rivals.get(entries[row].normalised, nobody)[0],
            "rivals_gone": around.rivals.get(entries[row].normalised, nobody)[1],
        }
        for row in order
    ]  # fmt: skip


def _hardly(plan: OpenPlan, found: HardlyShown, row: int, at: int) -> dict[str, Any]:
    bid = float(found.next_bid[at])
    ceiling = float(np.nan_to_num(plan.result.standing.ceiling[row]))
    return {
        "expected": float(found.expected[at]), "seen": float(found.seen[at]),
        "why": WHYS[found.why[at]], "next_bid": _plain(bid), "pays": bid <= ceiling,
    }  # fmt: skip


def _groups(plan: OpenPlan, learned: Learned) -> list[dict[str, Any]]:
    g, labels = learned.judged.groups, plan.sheet.labels
    some = [at for at in range(len(g.spend)) if g.spend[at] > 0]
    return [
        {
            "group": labels[at], "exposure": float(g.exposure[at]),
            "customers": float(g.customers[at]), "spend": float(g.spend[at]),
            "factor": float(g.factor[at]), "missing": _plain(g.missing[at]),
            "verdict": VERDICTS[g.verdict[at]],
        }
        for at in sorted(some, key=lambda at: -g.spend[at])
    ]  # fmt: skip


def _terms(plan: OpenPlan, known: Known) -> list[dict[str, Any]]:
    rows, learned = known.terms, known.learned
    if rows is None or learned is None:
        return []
    decided, entries, labels = _decided(plan, known), plan.sheet.entries, plan.sheet.labels
    things = {normalise(one.thing.code): one.thing.name for one in plan.sheet.structure.things}
    found = []
    for at in np.argsort(-rows.cost, kind="stable").tolist():
        advice, row = learned.terms[at], int(rows.keyword[at])
        item, own = is_item_code(rows.texts[at]), advice.suggestion == "own_keyword"
        found.append({
            "term": rows.texts[at], "keyword": entries[row].text if row >= 0 else "",
            "match": entries[row].match if row >= 0 else "",
            "impressions": float(rows.impressions[at]), "clicks": float(rows.clicks[at]),
            "cost": float(rows.cost[at]), "customers": float(rows.customers[at]),
            "exposure": float(rows.exposure[at]), "rate": advice.rate, "missing": advice.missing,
            "suggestion": "spot" if item and own else advice.suggestion, "ground": advice.ground,
            "form": advice.form[0] if advice.form else None,
            "form_match": advice.form[1] if advice.form else None, "bid": advice.bid,
            "group": labels[advice.group] if advice.group >= 0 else None,
            "clicks_needed": _plain(advice.clicks_needed), "decided": decided[at],
            "item": item,
            "thing": things.get(normalise(rows.texts[at]), ""),
        })  # fmt: skip
    return found


def stopped_terms(plan: OpenPlan, known: Known) -> list[bool]:
    """Say which terms a negative in force stops."""
    if known.terms is None:
        return []
    texts = tuple(normalise(text) for text in known.terms.texts)
    brief, table = plan.record.brief, plan.result.table
    negatives = negatives_in_force(plan.result.brief.negatives, table)
    joints = table.joints | joints_of([*texts, *(n.text for n in negatives)])
    index = index_of(texts, joints, brief.negative_close_forms)
    stopped = stopped_by(negatives, index, joints, brief.negative_close_forms).everywhere
    return [bool(one) for one in stopped.tolist()]


def _decided(plan: OpenPlan, known: Known) -> list[bool]:
    """Say which terms are blocked, or stand in the sheet as exact keywords."""
    assert known.terms is not None
    table = plan.result.table
    exact = {
        table.texts[row]
        for row in range(len(table))
        if MATCHES[table.match[row]] == "exact" and table.kept[row]
    }
    stopped, spots = stopped_terms(plan, known), spots_by_code(plan.sheet.structure.spots)
    return [s or normalise(text) in exact or normalise(text) in spots
            for s, text in zip(stopped, known.terms.texts, strict=True)]  # fmt: skip


def _days(known: Known) -> list[dict[str, Any]]:
    """Return each day with what came and what was to be expected of it."""
    rows, learned = known.rows, known.learned
    assert rows is not None
    assert learned is not None
    days = (learned.last - learned.first).days + 1
    if days > _MOST_DAYS:
        return []
    sums = {}
    at = rows.first - learned.first.toordinal()
    length = (rows.last - rows.first + 1).astype(np.float64)
    for name, values in (("cost", rows.cost), ("clicks", rows.figures["clicks"]),
                         ("customers", rows.figures["customers"])):  # fmt: skip
        # a window is spread evenly over its days
        steps = np.zeros(days + 1)
        np.add.at(steps, at, values / length)
        np.add.at(steps, at + length.astype(np.int64), -values / length)
        sums[name] = np.cumsum(steps)[:days]
    planned = _planned(known.spans)
    return [
        {
            "day": (learned.first + timedelta(n)).isoformat(),
            **{name: float(max(column[n], 0.0)) for name, column in sums.items()},
            **{f"planned_{name}": float(column[n]) for name, column in planned.items()},
        }
        for n in range(days)
    ]  # fmt: skip


def _planned(spans: Sequence[Span]) -> dict[str, list[float]]:
    """Return what was planned of each day, by the plan that ran on it."""
    found: dict[str, list[float]] = {"cost": [], "clicks": [], "customers": []}
    for span in spans:
        result, day = span.plan.result, span.first
        months = YearAhead(result, months_from(day.replace(day=1)))
        place = {(d.year, d.month): number for number, d in enumerate(months.months.first)}
        totals: dict[int, Any] = {}
        while day <= span.last:
            number = place.get((day.year, day.month), 0)
            if number not in totals:
                totals[number] = months.month(number).totals
            share = share_of_month(result, day, day)
            found["cost"].append(totals[number].spend * share)
            found["clicks"].append(totals[number].clicks * share)
            found["customers"].append(totals[number].customers * share)
            day += timedelta(1)
    return found


def _plain(value: float) -> float | None:
    return float(value) if np.isfinite(value) else None
