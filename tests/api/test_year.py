"""The year over HTTP: columns that add up, months that are shifted, days of one month."""

import pytest

from milkwort.api.fit.sure_schemas import HowSureView
from milkwort.api.fit.year_schemas import MonthView, YearRanges, YearView
from tests.api.conftest import DRAWS


def year(client, plan):
    return YearView.model_validate(client.get(f"{plan}/year").json())


def test_twelve_months_add_up_to_the_year_to_the_cent(client, plan):
    client.patch(f"{plan}/brief", json={"start_date": "2027-09-18", "season": [1] * 11 + [3]})
    view = year(client, plan)
    assert len(view.first) == 12 and view.days[0] == 13
    for name in ("purse", "spend", "revenue", "profit", "gross"):
        assert round(sum(getattr(view, name)), 2) == getattr(view.sums, name)
    assert view.sums.customers == pytest.approx(sum(view.customers))


def test_a_months_days_add_up_to_the_month_to_the_cent(client, plan):
    whole = year(client, plan)
    for month in (0, 5):
        view = MonthView.model_validate(client.get(f"{plan}/year/months/{month}").json())
        assert round(sum(view.spend), 2) == view.total
        assert view.total == whole.spend[month]
        assert view.budgets <= view.purse + 1e-9
        assert len(view.dates) == whole.days[month]
    assert client.get(f"{plan}/year/months/12").status_code == 422


def test_money_is_shifted_between_months_and_the_sum_stays(client, plan):
    before = year(client, plan)
    client.post(f"{plan}/year/month", json={"month": 2, "money": 100})
    view = year(client, plan)
    assert view.kind == "own" and view.purse[2] == 100
    assert view.sums.purse == before.sums.purse
    client.post(f"{plan}/year/month", json={"month": 2, "money": 10, "keep_sum": False})
    assert year(client, plan).sums.purse == pytest.approx(before.sums.purse - 90)
    client.post(f"{plan}/year/month", json={"month": 2, "money": 1e9})
    greedy = year(client, plan)
    assert greedy.purse[2] == greedy.sums.purse
    for _ in range(3):
        client.post(f"{plan}/undo")
    assert year(client, plan) == before.model_copy(update={"revision": before.revision + 6})


def test_the_best_spread_is_one_press_and_brings_no_less(client, plan):
    client.patch(f"{plan}/brief", json={"season": [3, 1, 1, 1, 1, 1, 1, 1, 1, 1, 1, 3],
                                        "year_refit": True, "monthly_spend": 20})  # fmt: skip
    flat = year(client, plan)
    done = client.post(f"{plan}/year/best").json()
    assert done["did"] == "the best spread of the year"
    best = year(client, plan)
    assert best.sums.purse == flat.sums.purse
    assert best.sums.customers >= flat.sums.customers * 0.999
    client.patch(f"{plan}/brief", json={"policy": "low"})
    assert client.post(f"{plan}/year/best").status_code == 422


@pytest.mark.parametrize(
    "fields",
    [
        {"last_day": "2020-01-01"}, {"last_day": "soon"}, {"year_months": [1, 2]},
        {"year_months": [-1] * 12}, {"year_purse": "weekly"},
    ],
)  # fmt: skip
def test_a_year_that_cannot_be_is_refused(client, plan, fields):
    before = client.get(plan).json()
    assert client.patch(f"{plan}/brief", json=fields).status_code == 422
    assert client.get(plan).json() == before


def test_a_last_day_ends_the_year(client, plan):
    client.patch(f"{plan}/brief", json={"start_date": "2027-03-01", "last_day": "2027-05-10"})
    view = year(client, plan)
    assert view.days == [31, 30, 10] + [0] * 9
    assert view.spend[3:] == [0] * 9
    client.post(f"{plan}/year/month", json={"month": 0, "money": 1})
    assert year(client, plan).purse[3:] == [0] * 9


def test_the_years_ranges_hold_their_months(client, plan):
    drawn = YearRanges.model_validate(client.get(f"{plan}/year/ranges").json())
    assert len(drawn.months) == 12 and drawn.draws == DRAWS // 2
    for month in drawn.months:
        assert month["spend"].low <= month["spend"].middle <= month["spend"].high
    assert drawn.year["spend"].middle == pytest.approx(
        sum(m["spend"].middle for m in drawn.months), rel=0.1
    )


def test_how_sure_says_where_the_money_goes(client, plan):
    view = HowSureView.model_validate(client.get(f"{plan}/how-sure").json())
    assert len(view.figures["customers"].dots) * view.months_a_dot == view.draws
    assert sum(group.share for group in view.groups) == pytest.approx(1)
    use = view.use
    assert use.spent + use.cut + use.not_searched + use.not_planned == pytest.approx(use.purse)
    assert {one.input for one in view.must} >= {"conversion", "prices"}


def test_an_empty_plan_has_a_year_of_nothing_and_nothing_to_be_sure_of(client):
    made = client.post("/api/plans", json={"name": "Empty"}).json()
    plan = f"/api/plans/{made['id']}"
    assert year(client, plan).sums.spend == 0
    assert MonthView.model_validate(client.get(f"{plan}/year/months/0").json()).campaigns == []
    view = HowSureView.model_validate(client.get(f"{plan}/how-sure").json())
    assert view.must == [] and view.groups == []
    assert client.get(f"{plan}/fit/cap").json()["bare"] is None
    assert client.get(f"{plan}/fit/ways").json()["ways"] == []
    assert client.get(f"{plan}/fit/limits").status_code == 200
    assert client.get(f"{plan}/fit/curves").status_code == 200
    assert client.get(f"{plan}/fit/least?wanted=3").json()["purse"] is None
    assert client.post(f"{plan}/year/month", json={"month": 1, "money": 5}).status_code == 200
