import numpy as np
import pytest

from milkwort.core.keyword_table import blank_table
from milkwort.core.plan import run_plan
from milkwort.core.rivals import (
    RivalRow,
    changes_between,
    overlap_with,
    rank_gaps,
    staying_power,
)
from tests.samples import brief, calls, table

MAY = [
    RivalRow("Brightsash", "Sash Window Repair", cpc=2.0, clicks=30, first_seen=1, last_seen=90,
             ad="Bright sashes"),
    RivalRow("Brightsash", "window sills", cost=40.0, first_seen=80, last_seen=85, ad="Sills"),
    RivalRow("Mullion", "sash window repair", cpc=1.0, clicks=10, first_seen=30, last_seen=60,
             ad="Bright sashes"),
    RivalRow("Mullion", "!!", cpc=1.0),
]  # fmt: skip


def test_texts_are_both_ours_only_theirs_or_only_ours():
    rows = blank_table(["sash window repair", "box sash", "window sills"])
    rows = rows.with_calls(np.array([2]), "drop")
    found = overlap_with(rows, MAY)
    assert found.both == ("sash window repair",)
    assert found.only_they == ("window sills",) and found.only_we == ("box sash",)
    assert found.rivals_of["sash window repair"] == ("Brightsash", "Mullion")


def test_staying_power_counts_days_rivals_and_money():
    first, second = staying_power(MAY)
    assert (first.name, first.days, first.rivals) == ("sash window repair", 90, 2)
    assert first.running and first.monthly_cost == pytest.approx(70.0)
    assert not second.running and second.monthly_cost == 40.0
    assert [s.name for s in staying_power(MAY, by_ad=True)] == ["Bright sashes", "Sills"]


def test_two_lists_say_what_began_and_what_was_given_up():
    june = [RivalRow("Brightsash", "sash window repair"), RivalRow("Newpane", "bay window")]
    found = {c.rival: (c.new, c.given_up) for c in changes_between(MAY, june)}
    assert found == {
        "Brightsash": ((), ("window sills",)),
        "Mullion": ((), ("sash window repair",)),
        "Newpane": (("bay window",), ()),
    }


def test_gaps_are_ranked_by_what_they_would_bring_this_plan():
    kept = table([100.0, 80.0], [1.0, 1.2], [2.0, 2.4])
    result = run_plan(brief(monthly_spend=20.0), kept)
    more = table([10.0, 400.0, 50.0], [1.0, 1.0, 30.0], [2.0, 2.0, 60.0], call=calls(*["none"] * 3))
    texts = ["small thing here", "large thing here", "dear thing here"]
    from dataclasses import replace

    more = replace(more, texts=tuple(texts))
    order, customers = rank_gaps(result, more, texts)
    assert order.tolist() == [1, 0, 2] and customers[2] == 0.0
