"""Everything results teach about a plan: evidence, verdicts, corrections, terms, the difference."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.learn.by_now import elapsed_of, share_of_month
from milkwort.core.learn.clicked import ClickRates, clicked_of
from milkwort.core.learn.corrections import FACTORS, Corrections, Segment, corrections_of
from milkwort.core.learn.difference import Difference, difference_of
from milkwort.core.learn.evidence import (
    Evidence,
    GroupEvidence,
    factor_weight,
    group_evidence,
    judge,
)
from milkwort.core.learn.hardly_shown import HardlyShown, hardly_shown
from milkwort.core.learn.own_rules import OwnRule, RuleOutcome, apply_rule
from milkwort.core.learn.ran import Ran, due_of
from milkwort.core.learn.results import Results, per_enquiry
from milkwort.core.learn.seen import ResultRows, Seen, seen_by
from milkwort.core.learn.terms import TermAdvice, TermRows, advise_terms
from milkwort.core.learn.worth_testing import Testing, worth_testing
from milkwort.core.market.prices import reach_at
from milkwort.core.plan.calendar import months_from
from milkwort.core.plan.run import PlanResult
from milkwort.core.plan.year import YearAhead
from milkwort.core.words.lexicon import Lexicon

__all__ = [
    "Before", "Judged", "Learned", "judged_of", "learned_of", "month_differs",
    "overall_factors",
]  # fmt: skip

OWN_RULE = OwnRule(clicks=10.0)
"""A rule of thumb that many use, shown beside evidence with its honest price."""


@dataclass(frozen=True)
class Judged:
    """Evidence with what it was judged on.

    Attributes
    ----------
    results : Results
        Customers, or enquiries where a two-step offer reports them.
    rate, allowed, contribution : Floats, shape (n_keywords,)
        Of a customer, or of an enquiry.
    on_enquiries : ndarray of bool
    evidence : Evidence
    groups : GroupEvidence
    weight : float
        w, of the forecast of the plan or a group.
    """

    results: Results
    rate: Floats
    allowed: Floats
    contribution: Floats
    on_enquiries: NDArray[np.bool_]
    evidence: Evidence
    groups: GroupEvidence
    weight: float


@dataclass(frozen=True)
class Before:
    """What evidence and corrections rest on: all days so far, and the plan without corrections.

    Attributes
    ----------
    base : PlanResult
        With uncorrected inputs; its keywords are the plan's, row by row.
    rows : ResultRows
        Of all days.
    spans : sequence of Ran
        Rising; what came before the first ran at its bids, what comes after the last at those.
    """

    base: PlanResult
    rows: ResultRows
    spans: Sequence[Ran]


@dataclass(frozen=True)
class Learned:
    """What some days taught.

    Attributes
    ----------
    first, last, as_of : date
        The days of the plan's own that were seen, and up to which is reported.
    since : date
        The first day that evidence and corrections rest on.
    seen : Seen
        Since then.
    judged : Judged
    corrections : Corrections
    testing : Testing
    own_rule : RuleOutcome
    terms : list of TermAdvice
    customers, spend : Difference
    hardly : HardlyShown
    clicked : ClickRates
        Of the plan's own days.
    """

    first: date
    last: date
    as_of: date
    since: date
    seen: Seen
    judged: Judged
    corrections: Corrections
    testing: Testing
    own_rule: RuleOutcome
    terms: list[TermAdvice]
    customers: Difference
    spend: Difference
    hardly: HardlyShown
    clicked: ClickRates


def learned_of(
    result: PlanResult,
    lexicon: Lexicon,
    rows: ResultRows,
    as_of: date,
    terms: TermRows | None = None,
    own_rule: OwnRule = OWN_RULE,
    before: Before | None = None,
) -> Learned:
    """Learn from results that a plan's own bids brought.

    Parameters
    ----------
    result : PlanResult
        As it ran.
    lexicon : Lexicon
    rows : ResultRows
        Of the plan's own days, one or more; those of no keyword count as unplanned.
    as_of : date
        Up to which is reported.
    terms : TermRows, optional
    own_rule : OwnRule
    before : Before, optional
        Where months before are to be judged with; without, the plan's inputs are uncorrected
        and its own days are all there is.
    """
    n, assumed = len(result.table), result.brief.assumed
    own = seen_by(rows, n, as_of.toordinal(), assumed)
    first = date.fromordinal(int(rows.first.min()))
    last = date.fromordinal(int(rows.last.max()))
    if before is None:
        before = Before(result, rows, [Ran(first, last, result.bid)])
    base = before.base
    seen = own if before.rows is rows else seen_by(before.rows, n, as_of.toordinal(), assumed)
    reach = np.nan_to_num(reach_at(np.nan_to_num(before.spans[-1].bid), result.prices))
    judged = judged_of(base, seen, reach)
    elapsed = elapsed_of(result, first, last)
    customers, spend = _differences(result, rows, own, first, last, elapsed.factor)
    advice = [] if terms is None else advise_terms(base, lexicon, terms, judged.evidence)
    segments = _segments(base, before.rows, before.spans, as_of)
    own_days = segments if own is seen else _segments(result, rows, before.spans, as_of)
    corrections = corrections_of(base, segments)
    # what results say beyond what the plan's own prices hold of it already
    further = np.nan_to_num(corrections.price.shift + base.prices.mu - result.prices.mu)
    return Learned(
        first=first, last=last, as_of=as_of, since=date.fromordinal(int(before.rows.first.min())),
        seen=seen, judged=judged, corrections=corrections,
        hardly=hardly_shown(result, due_of(result, before.spans, first, last), own, further),
        clicked=clicked_of(result, own_days),
        testing=_testing(result, judged), own_rule=apply_rule(own_rule, seen.results(),
                                                              result.demand.rate),
        terms=advice, customers=customers, spend=spend,
    )  # fmt: skip


def _segments(
    result: PlanResult, rows: ResultRows, spans: Sequence[Ran], as_of: date
) -> list[Segment]:
    """Return what was seen on the days of each span, at the bids that ran."""
    starts = [span.first.toordinal() for span in spans]
    # a window over two spans counts where it begins
    number = np.maximum(np.searchsorted(starts, rows.first, side="right") - 1, 0)
    found = []
    for at, span in enumerate(spans):
        mine = rows.at(np.flatnonzero(number == at))
        if not len(mine):
            continue
        first, last = (date.fromordinal(int(d)) for d in (mine.first.min(), mine.last.max()))
        seen = seen_by(mine, len(result.table), as_of.toordinal(), result.brief.assumed)
        found.append(Segment(span.bid, elapsed_of(result, first, last).factor, seen))
    return found


def month_differs(
    result: PlanResult, rows: ResultRows, as_of: date, first: date, last: date
) -> tuple[Difference, Difference]:
    """Say why the customers and the money of some days are not as planned.

    Parameters
    ----------
    result : PlanResult
    rows : ResultRows
        Of those days.
    as_of : date
        Up to which is reported.
    first, last : date
        Ends included.

    Returns
    -------
    customers, spend : Difference
    """
    seen = seen_by(rows, len(result.table), as_of.toordinal(), result.brief.assumed)
    factor = elapsed_of(result, first, last).factor
    return _differences(result, rows, seen, first, last, factor)


def _differences(
    result: PlanResult, rows: ResultRows, seen: Seen, first: date, last: date, factor: Floats
) -> tuple[Difference, Difference]:
    stray = rows.keyword < 0
    unmatched = (float(rows.customers[stray].sum()), float(rows.cost[stray].sum()))
    month, share = _as_planned(result, first, last, factor)
    return difference_of(month, share, seen, unmatched)


def judged_of(result: PlanResult, seen: Seen, reach: Floats | None = None) -> Judged:
    """Judge every keyword and group of a plan.

    Parameters
    ----------
    result : PlanResult
    seen : Seen
    reach : Floats, optional
        At the bids that ran; at the plan's where left out.
    """
    brief, table = result.brief, result.table
    assumed = brief.assumed
    rate = np.where(np.isfinite(result.demand.rate), result.demand.rate, 0.0)
    allowed, contribution = result.worth.allowed, result.worth.contribution
    close = np.array([o.close.likely if o.close is not None else np.nan for o in brief.offers])
    of_row = close[table.offer] if len(table) else np.zeros(0)
    told = np.isfinite(seen.enquiries) & np.isfinite(of_row) & (of_row > 0)
    safe = np.where(told, of_row, 1.0)
    asked_rate, asked_allowed = per_enquiry(rate, allowed, safe)
    rate, allowed = np.where(told, asked_rate, rate), np.where(told, asked_allowed, allowed)
    contribution = np.where(told, contribution * safe, contribution)
    customers = np.where(told, np.nan_to_num(seen.enquiries), seen.customers)
    exposure = np.where(told, seen.asked_exposure, seen.exposure)
    results = Results(seen.clicks, exposure, customers, seen.cost)
    offer = _of_most_exposure(results, table.offer, len(brief.offers))
    weight = factor_weight(brief.offers[offer].rate, assumed)
    if reach is None:
        reach = np.nan_to_num(reach_at(np.nan_to_num(result.bid), result.prices))
    groups = int(table.group.max(initial=-1)) + 1
    return Judged(
        results=results, rate=rate, allowed=allowed, contribution=contribution, on_enquiries=told,
        evidence=judge(results, rate, allowed, contribution, table.group, reach, weight, assumed),
        groups=group_evidence(results, rate, allowed, table.group, groups, weight, assumed),
        weight=weight,
    )  # fmt: skip


def overall_factors(learned: Learned) -> dict[str, float]:
    """Return what was seen over what was planned, for the whole plan, by input.

    Parameters
    ----------
    learned : Learned

    Returns
    -------
    dict of str to float
        Shrunk by what is known; of searches, click rate, price and conversion.
    """
    factors = {name: float(np.exp(getattr(learned.corrections, name).plan)) for name in FACTORS}
    judged = learned.judged
    due = float((judged.results.counted_clicks * judged.rate).sum())
    sold = float(judged.results.counted_customers[judged.rate > 0].sum())
    return factors | {"conversion": (judged.weight + sold) / (judged.weight + due)}


def _of_most_exposure(results: Results, offer: Ints, many: int) -> int:
    return int(np.bincount(offer, results.counted_clicks, minlength=many).argmax())


def _as_planned(
    result: PlanResult, first: date, last: date, factor: Floats
) -> tuple[PlanResult, Floats]:
    """Return the plan that the days are held against, and their share of its searches."""
    if (first.year, first.month) == (last.year, last.month):
        month = YearAhead(result, months_from(first.replace(day=1))).month(0)
        return month, np.full(len(result.table), share_of_month(result, first, last))
    return result, factor


def _testing(result: PlanResult, judged: Judged) -> Testing:
    assumed, evidence = result.brief.assumed, judged.evidence
    x, n = judged.results.counted_customers, judged.results.counted_clicks
    prior = evidence.prior_rate
    alpha = np.maximum(assumed["prior_weight"] * prior + x, 1e-9)
    beta = np.maximum(assumed["prior_weight"] * (1 - prior) + n - x, 1e-9)
    paid = np.where(np.isfinite(evidence.cpc), evidence.cpc, np.nan_to_num(result.expected.cpc))
    clicks = np.where(prior > 0, np.nan_to_num(result.expected.clicks), 0.0)
    found = worth_testing(alpha, beta, judged.allowed, paid, clicks, evidence.clicks_needed)
    return replace(found, pays=found.pays & (paid > 0))
