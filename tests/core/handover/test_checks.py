"""Last checks say what is odd, how often, how bad, and where it is mended."""

from dataclasses import replace
from datetime import date

import numpy as np
import pytest

from milkwort.core.brief.platform import Profile
from milkwort.core.handover.checks import (
    Leaving,
    LeavingCampaign,
    LeavingGroup,
    last_checks,
)
from milkwort.core.plan.run import run_plan
from tests.samples import brief, calls, table

NAN = float("nan")
GOOD = LeavingGroup("Repair", kept=2, ads=1, address="https://eastmere.test/repair")
TODAY = date(2027, 3, 1)
RICH = brief(monthly_spend=900.0)


def leaving(result=None, texts=("one", "two"), **changes):
    if result is None:
        result = run_plan(RICH, table([100.0, 80.0], [1.0, 1.0], [2.0, 2.0]))
    ready = {
        "result": result, "texts": texts, "profile": Profile(), "today": TODAY,
        "first_day": date(2027, 3, 8), "groups": [GOOD], "counted_by": "the order book",
        "campaigns": [LeavingCampaign("Search", 2)],
    }  # fmt: skip
    return Leaving(**ready | changes)


def codes(found):
    return [check.code for check in found]


def test_a_plan_in_order_has_nothing_to_look_at():
    assert last_checks(leaving()) == []


def test_what_must_be_mended_comes_first_then_money_and_so_on_by_harm():
    rows = table([100.0, 80.0, 50.0, 10.0], [1.0, NAN, 1.0, 90.0], [2.0, NAN, 2.0, 95.0],
                 call=calls("keep", "keep", "none", "keep"),
                 locked_bid=np.array([9.0, NAN, NAN, NAN]))  # fmt: skip
    found = last_checks(leaving(
        run_plan(RICH, rows), ("a", "b <c>", "c", "d"), counted_by="",
        not_entered=("sale_value", "monthly_spend", "places"), groups=[replace(GOOD, ads=0)],
    ))  # fmt: skip
    assert codes(found) == ["refused_characters", "over_ceiling", "without_ad", "not_counted",
                            "uncalled", "idle", "no_price", "assumed"]  # fmt: skip
    assert found[0].must and not found[1].must
    said = {check.code: check for check in found}
    assert said["refused_characters"].names == ("b <c>",)
    assert said["over_ceiling"].mend and said["over_ceiling"].stage == "fit"
    assert said["assumed"].text == "2 figures of the brief are still assumed."
    assert said["without_ad"].text == "1 group has no ad."


@pytest.mark.parametrize(
    ("changes", "code", "must"),
    [
        ({"profile": Profile(matches=("phrase",))}, "match_types", True),
        ({"profile": Profile(keywords_per_group=1)}, "group_full", True),
        ({"groups": [replace(GOOD, ads=99)]}, "ads_full", True),
        ({"groups": [replace(GOOD, faults=("headline 1: too long",))]}, "ad_refused", True),
        ({"groups": [replace(GOOD, address="")]}, "without_page", False),
        ({"groups": [replace(GOOD, unsaid=("sash",))]}, "page_silent", False),
        ({"visit_tag": "from=ads"}, "without_tag", False),
        ({"campaigns": [LeavingCampaign("Old", 0)]}, "empty_campaign", False),
        ({"campaigns": [LeavingCampaign("repair", 1)]}, "names_twice", False),
        ({"conflicts": [("jobs stops sash jobs.", "arrange")]}, "conflict", False),
        ({"first_day": date(2027, 2, 1)}, "in_the_past", False),
        ({"last_day": date(2027, 2, 1), "first_day": date(2027, 1, 1)}, "over", True),
        ({"last_day": date(2027, 3, 9)}, "too_short", False),
        ({"first_day": date(2027, 3, 5), "tell_weekend": True}, "weekend", False),
        ({"first_day": date(2027, 12, 27), "holidays_of": "GB"}, "holiday", False),
        ({"first_day": date(2027, 3, 16), "holidays_of": "GB-NIR"}, "holiday", False),
        ({"counted_by": " "}, "not_counted", False),
        ({"read_at": ["2026-01-01", ""]}, "stale", False),
        ({"profile": Profile(upload_rows=1)}, "many_rows", False),
        ({"notices": ["Odd."]}, "notice", False),
    ],
)
def test_each_thing_is_found_alone_and_told_apart(changes, code, must):
    (found,) = last_checks(leaving(**changes))
    assert (found.code, found.must) == (code, must)
    assert found.text.endswith(".") and found.stage


def test_groups_without_ads_are_fine_where_none_are_written():
    quiet = leaving(profile=Profile(written_ads=False), groups=[replace(GOOD, ads=0)])
    assert last_checks(quiet) == []


def test_a_plan_that_runs_nothing_can_not_be_sent():
    result = run_plan(brief(), table([100.0], [1.0], [2.0], call=calls("none")))
    found = last_checks(leaving(result, ("one",), groups=[], campaigns=[]))
    assert found[0].code == "nothing_runs" and found[0].must


def test_a_purse_for_a_handful_of_clicks_is_said():
    result = run_plan(brief(monthly_spend=3.0), table([100.0, 80.0], [1.0, 1.0], [2.0, 2.0]))
    assert "few_clicks" in codes(last_checks(leaving(result)))
