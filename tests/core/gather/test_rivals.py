from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from milkwort.core.gather.rival_sightings import ads_seen, month_of, months_listed, sightings
from milkwort.core.gather.rival_totals import rival_totals, shared_keywords
from milkwort.core.gather.rivals import (
    RivalRow,
    changes_between,
    overlap_with,
    rank_gaps,
    rivals_moved,
)
from milkwort.core.market.keyword_table import blank_table
from milkwort.core.plan.run import run_plan
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


def test_what_stays_longest_comes_first_with_its_days_rivals_and_money():
    first, second = sightings(MAY)
    assert (first.name, first.days, first.rivals) == (
        "sash window repair", 90, ("Brightsash", "Mullion")
    )  # fmt: skip
    assert first.running and first.monthly_cost == pytest.approx(70.0)
    assert not second.running and second.monthly_cost == 40.0
    undated = sightings([RivalRow("Mullion", "sash")])[0]
    assert undated.days is None and not undated.running
    assert [(ad.sighting.name, ad.keywords) for ad in ads_seen(MAY)] == [
        ("Bright sashes", ("sash window repair",)), ("Sills", ("window sills",))
    ]  # fmt: skip


def month(rival, text, at, clicks, cpc=1.0, **more):
    first = date(2026, at, 1).toordinal()
    last = date(2026, at, 28).toordinal()
    return RivalRow(rival, text, cpc, clicks, first_seen=first, last_seen=last, **more)


BY_MONTH = [
    month("A", "sash repair", 1, 30, position=1.0, page="a.example/1"),
    month("A", "sash repair", 3, 10, position=2.0, page="a.example/2"),
    month("A", "box sash", 3, 30, 2.0, position=4.0),
    month("B", "sash repair", 2, 20, position=3.0),
]


def test_a_row_a_month_is_one_keyword_whose_last_month_says_what_it_costs():
    seen = {s.name: s for s in sightings(BY_MONTH)}
    repair = seen["sash repair"]
    assert [m % 12 + 1 for m in repair.months] == [1, 2, 3]
    assert repair.clicks == 30 and repair.monthly_cost == 30.0
    assert repair.position == pytest.approx((10 * 2 + 20 * 3) / 30)
    assert repair.clicks_share == pytest.approx(30 / 60)
    assert repair.pages == ("a.example/1", "a.example/2")
    assert len(months_listed(BY_MONTH)) == 3


def test_one_rivals_part_keeps_the_lists_last_day_and_its_own_figures():
    (repair,) = sightings(BY_MONTH, "B")
    assert not repair.running and repair.clicks_share == 1.0 and repair.position == 3.0
    first, second = sightings(BY_MONTH, "A")
    assert (first.name, first.clicks_share) == ("sash repair", 10 / 40)
    assert [m % 12 + 1 for m in first.months] == [1, 3]
    assert (second.name, second.running) == ("box sash", True)


def test_a_share_of_clicks_that_is_only_listed_is_taken_as_listed():
    (seen,) = sightings([RivalRow("A", "sash", clicks_share=0.4)])
    assert seen.clicks_share == 0.4


def test_a_list_of_a_hundred_years_tells_its_last_two_apart():
    old = RivalRow("A", "sash", first_seen=date(1926, 1, 1).toordinal(),
                   last_seen=date(2026, 5, 31).toordinal())  # fmt: skip
    window = months_listed([old])
    assert len(window) == 24 and window[-1] == month_of(date(2026, 5, 1).toordinal())
    assert sightings([old])[0].months == tuple(window)
    ended = replace(old, rival="B", last_seen=date(1930, 1, 1).toordinal())
    assert sightings([old, ended], "B")[0].months == ()


def test_rivals_are_summed_up_and_held_against_each_other():
    a, b = rival_totals(BY_MONTH, {"box sash", "sash cord"})
    assert (a.sighting.name, a.keywords, a.shared, a.alone, a.running) == ("A", 2, 1, 1, 2)
    assert a.sighting.monthly_cost == 70.0 and a.sighting.clicks == 40
    assert (b.sighting.name, b.keywords, b.shared, b.alone, b.running) == ("B", 1, 0, 0, 0)
    both = shared_keywords(BY_MONTH, {"box sash", "sash cord"})
    assert both.rivals == ("A", "B")
    assert both.counts.tolist() == [[2, 1, 0], [1, 2, 1], [0, 1, 1]]


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
    more = replace(more, texts=tuple(texts))
    order, customers = rank_gaps(result, more, texts)
    assert order.tolist() == [1, 0, 2] and customers[2] == 0.0


@pytest.mark.parametrize(("first", "last"), [(-5, 9), (9, 2**70), (90, 3), (0, 0)])
def test_days_that_no_calendar_holds_are_as_if_they_were_not_listed(first, last):
    odd = RivalRow("A", "sash", first_seen=first, last_seen=last)
    (seen,) = sightings([odd])
    assert seen.days is None and seen.months == () and len(months_listed([odd])) == 0


def test_who_came_and_who_is_gone_is_told_of_rivals_that_both_lists_speak_of():
    def rows(**bought):
        return [RivalRow(name, text) for name, texts in bought.items() for text in texts]

    before = rows(Ann=["Sash repair", "putty"], Bob=["putty"], Old=["sash repair"])
    now = rows(Ann=["putty", "cords"], Bob=["putty", "sash repair"], New=["cords"])
    assert rivals_moved(before, now) == {
        "sash repair": (("Bob",), ("Ann",)), "cords": (("Ann",), ()),
    }  # fmt: skip
    assert rivals_moved(now, now) == {} and rivals_moved([], now) == {}
