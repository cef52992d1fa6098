"""Last checks say what is odd, how often, and where it is mended."""

import numpy as np

from milkwort.core.handover.checks import last_checks
from milkwort.core.plan.run import run_plan
from tests.samples import brief, calls, table

NAN = float("nan")


def said(result, **more):
    return [(check.text, check.stage) for check in last_checks(result, **more)]


def test_a_plan_in_order_has_nothing_to_look_at():
    result = run_plan(brief(), table([100.0, 80.0], [1.0, 1.0], [2.0, 2.0]))
    assert said(result) == []


def test_each_thing_is_counted_and_says_where_it_is_mended():
    rows = table([100.0, 80.0, 50.0, 10.0], [1.0, NAN, 1.0, 90.0], [2.0, NAN, 2.0, 95.0],
                 call=calls("keep", "keep", "none", "keep"),
                 locked_bid=np.array([9.0, NAN, NAN, NAN]))  # fmt: skip
    found = said(run_plan(brief(), rows), not_entered=("sale_value", "monthly_spend", "places"))
    assert found == [
        ("1 keyword is not yet called.", "sift"),
        ("1 kept keyword will not run.", "fit"),
        ("1 bid is above its ceiling.", "fit"),
        ("1 kept keyword has no price of its own.", "gather"),
        ("2 figures of the brief are still assumed.", "brief"),
    ]


def test_what_is_said_of_the_whole_plan_comes_first():
    rows = table([100.0], [1.0], [2.0], call=calls("none"))
    first, second = said(run_plan(brief(), rows))
    assert first == ("No keyword is kept yet, so nothing runs.", "sift")
    assert second[0] == "1 keyword is not yet called."
    assert said(run_plan(brief(), rows), notices=["Odd."])[0] == ("Odd.", "sift")
