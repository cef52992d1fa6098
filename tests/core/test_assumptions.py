"""Every assumption acts somewhere: changing it changes what a plan says."""

from dataclasses import replace

import numpy as np
import pytest

from milkwort.core.assumptions import TABLE, Assumed
from milkwort.core.brief.brief import Policy
from milkwort.core.brief.showing import Showing, shown_share
from milkwort.core.brief.taught import Taught
from milkwort.core.brief.worth import Conversion
from milkwort.core.learn.clicked import click_rates
from milkwort.core.learn.corrections import Segment, corrections_of
from milkwort.core.learn.evidence import factor_weight, group_evidence, judge
from milkwort.core.learn.learned import judged_of
from milkwort.core.learn.results import exposed
from milkwort.core.learn.seen import Seen
from milkwort.core.learn.terms import TermRows, advise_terms
from milkwort.core.market.demand import per_month
from milkwort.core.plan.draws import draw_month
from milkwort.core.plan.notes import notes_of
from milkwort.core.plan.run import run_plan
from milkwort.core.words.intents import INTENTS
from milkwort.core.words.lexicon import shipped_lexicon
from milkwort.core.words.match_types import MATCHES
from milkwort.core.workings.keyword import keyword_workings
from tests.samples import brief, table

NAN = np.nan
CHANGED = {
    "day_over": 0.4,
    "area_share": 0.5, "low_percentile": 0.2, "high_percentile": 0.8, "click_rate_bottom": 0.6,
    "in_reach": 0.9, "stretch": 0.1, "first_sale_chance": 0.5, "stop_chance": 0.7,
    "least_evidence": 4000.0, "never_months": 1.0, "thin_clicks": 500.0, "min_bid": 0.9,
    "bid_step": 0.5, "lattice_ratio": 1.3, "least_reach": 0.4, "most_reach": 0.6,
    "month_days": 31.0, "intent_job": 0.5, "least_sigma": 0.9, "prior_weight": 5.0,
    "platform_raise": 0.2, "raise_chance": 0.4, "raise_reach": 0.9, "judge_clicks": 10.0,
    "judge_impressions": 300.0,
}  # fmt: skip
SHAPES = [("exact", 1), ("phrase", 2), ("broad", 3), ("phrase", 4), ("broad", 5), ("phrase", 1)]


def sheet():
    """Keywords of every match type, length and intent, some without a price or a figure."""
    shapes = [(*shape, intent) for shape in SHAPES for intent in range(len(INTENTS))]
    n = len(shapes)
    lows = np.linspace(0.4, 6, n)
    rows = table(
        np.linspace(4, 400, n),
        np.where(np.arange(n) % 7 == 0, NAN, lows),
        np.where(np.arange(n) % 5 == 0, lows * 1.01, lows * 2.6),
        match=np.array([MATCHES.index(m) for m, _, _ in shapes]),
        intent=np.array([i for _, _, i in shapes]),
    )
    texts = [" ".join([f"w{i}", *["more"] * (words - 1)]) for i, (_, words, _) in
             enumerate(shapes)]  # fmt: skip
    # the first two are close forms of each other, one kept and one not called; the odd
    # one's own searches convert, as a comparing keyword's do
    texts[:2] = ["glasses", "glass"]
    call = rows.call.copy()
    call[1] = 0
    rows = replace(rows, call=call, texts=tuple(texts))
    ranged = np.arange(n) % 4 == 0
    return replace(rows, volume_low=np.where(ranged, rows.volume_low / 3,
                                                          rows.volume_low))  # fmt: skip


def judged(assumed):
    """Return all that results say of six keywords in two groups."""
    day = np.array([1, 2, 3, 4, 5, 6, 6, 2])
    keyword = np.array([0, 1, 2, 3, 4, 5, 0, 3])
    clicks = np.array([90.0, 300, 40, 200, 25, 60, 30, 100])
    sold = np.array([0.0, 14, 2, 0, 1, 6, 0, 9])
    weights = [factor_weight(c, assumed) for c in (
        Conversion(0.02, 0.03, 0.045), Conversion(0.001, 0.03, 0.9), Conversion(0.03, 0.03, 0.03)
    )]  # fmt: skip
    weight = weights[0]
    results = exposed(day, clicks, sold, clicks * 1.5, keyword, 6, 10, assumed)
    rate, allowed = np.full(6, 0.03), np.full(6, 157.0)
    group, reach = np.array([0, 0, 0, 1, 1, 1]), np.array([0.5, 0.5, 0.7, 0.7, 0.2, 0.2])
    evidence = judge(results, rate, allowed, allowed * 1.4, group, reach, weight, assumed)
    groups = group_evidence(results, rate, allowed, group, 2, weight, assumed)
    shown = np.full(6, 500.0)
    low = click_rates(shown, np.arange(6) * 5.0, shown * 0.05, assumed)
    return [*weights, *vars(evidence).values(), *vars(groups).values(), *vars(low).values()]


def learnt(result):
    """Return what a month unlike the plan teaches, and what is said of two terms of it."""
    n, e = len(result.table), result.expected
    odd = 1 + (np.arange(n) % 5) / 4
    nothing = np.full(n, np.nan)
    seen = Seen(e.impressions * odd, e.clicks * odd, e.spend * odd * 1.2, e.customers, e.clicks,
                result.demand.searches * odd, np.zeros(n), nothing, e.clicks)  # fmt: skip
    found = corrections_of(result, [Segment(result.bid, np.ones(n), seen)])
    many = np.array([30.0, 12.0])
    rows = TermRows(("sash window gold", "blue sash"), np.array([0, 0]), many * 9, many, many,
                    many * 1.5, np.array([1.0, 0.0]))  # fmt: skip
    advice = advise_terms(result, shipped_lexicon(), rows, judged_of(result, seen).evidence)
    factors = (found.price.factor, found.click_rate.factor, found.searches.factor)
    return [*factors, *[(one.missing, one.suggestion) for one in advice]]


def everything_said(changes):
    """Return all that a fitted plan, a method's plan, the workings and the draws say."""
    assumed = Assumed(changes)
    said = [per_month(10.0, "day", assumed)]
    daytime = Showing(days=(True,) * 6 + (False,), from_hour=9, to_hour=17)
    said += [shown_share(daytime, assumed)]
    for policy in (Policy(), Policy("middle")):
        plan = brief(assumed=assumed, monthly_spend=60.0, policy=policy)
        result = run_plan(plan, sheet())
        said += [
            result.bid,
            result.demand.rate,
            result.demand.click_weight,
            result.expected.spend,
            result.standing.standing,
            notes_of(result),
        ]
        said += [
            [(line.label, line.value, line.text) for s in keyword_workings(result, row)
             for line in s.lines]
            for row in range(0, 36, 5)
        ]  # fmt: skip
        said += learnt(result)
        told = replace(result, brief=replace(result.brief, taught=Taught(0.05, 0.08, 0.04)))
        for drawn in (draw_month(result, 200), draw_month(told, 200)):
            said += [drawn.customers, drawn.spend]
    said += judged(assumed)
    return repr([x.tolist() if isinstance(x, np.ndarray) else x for x in said])


BEFORE = everything_said({})


@pytest.mark.parametrize("name", list(TABLE))
def test_changing_it_changes_what_the_plan_says(name):
    value = CHANGED.get(name, TABLE[name].value * 0.5)
    assert everything_said({name: value}) != BEFORE


def test_changes_are_kept_apart_from_defaults():
    assumed = Assumed({"stretch": 0.3})
    assert assumed.changes == {"stretch": 0.3}
    assert assumed.is_changed("stretch") and not assumed.is_changed("in_reach")
    assert len(assumed) == len(TABLE) == len(list(assumed))


def test_putting_the_default_itself_changes_no_figure():
    assert everything_said({"stretch": 0.25}) == BEFORE
