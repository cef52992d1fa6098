"""Every assumption acts somewhere: changing it changes what a plan says."""

from dataclasses import replace

import numpy as np
import pytest

from milkwort.core.assumptions import TABLE, Assumed
from milkwort.core.brief import MATCHES, Policy
from milkwort.core.demand import per_month
from milkwort.core.draws import draw_month
from milkwort.core.keyword_table import INTENTS
from milkwort.core.notes import notes_of
from milkwort.core.plan import run_plan
from milkwort.core.workings import keyword_workings
from tests.samples import brief, table

NAN = np.nan
CHANGED = {
    "area_share": 0.5, "low_percentile": 0.2, "high_percentile": 0.8, "click_rate_bottom": 0.6,
    "in_reach": 0.9, "stretch": 0.1, "first_sale_chance": 0.5, "stop_chance": 0.7,
    "least_evidence": 4000.0, "never_months": 1.0, "thin_clicks": 500.0, "min_bid": 0.9,
    "bid_step": 0.5, "lattice_ratio": 1.3, "least_reach": 0.4, "most_reach": 0.6,
    "month_days": 31.0, "intent_job": 0.5, "least_sigma": 0.9, "prior_weight": 5.0,
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
    texts = tuple(" ".join([f"w{i}", *["more"] * (words - 1)]) for i, (_, words, _) in
                  enumerate(shapes))  # fmt: skip
    ranged = np.arange(n) % 4 == 0
    return replace(rows, texts=texts, volume_low=np.where(ranged, rows.volume_low / 3,
                                                          rows.volume_low))  # fmt: skip


def everything_said(changes):
    """Return all that a fitted plan, a method's plan, the workings and the draws say."""
    assumed = Assumed(changes)
    said = [per_month(10.0, "day", assumed)]
    for policy in (Policy(), Policy("middle")):
        plan = brief(assumed=assumed, monthly_spend=60.0, policy=policy)
        result = run_plan(plan, sheet())
        said += [result.bid, result.expected.spend, result.standing.standing, notes_of(result)]
        said += [
            [(line.label, line.value, line.text) for s in keyword_workings(result, row)
             for line in s.lines]
            for row in range(0, 36, 5)
        ]  # fmt: skip
        said += [draw_month(result, 200).customers, draw_month(result, 200).spend]
    return repr([x.tolist() if isinstance(x, np.ndarray) else x for x in said])


BEFORE = everything_said({})


NOT_YET = ("variant_clicks_exact", "variant_sales_exact")  # exact keywords serve no variants yet


@pytest.mark.parametrize("name", [n for n in TABLE if n not in NOT_YET])
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
