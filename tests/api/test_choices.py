"""Fit's questions: ways to bid, limits, curves, the least money, the one cap, bids moved."""

import pytest

from milkwort.api.fit.choices_schemas import CapView, CurvesView, LeastView, LimitsView, SumsView
from tests.api.conftest import ids_of, texts_of


def asked(client, plan, what, model):
    answer = client.get(f"{plan}/fit/{what}")
    assert answer.status_code == 200, answer.text
    return model.model_validate(answer.json())


def purse(client, plan):
    return client.get(plan).json()["summary"]["purse"]


def kept(client, plan):
    columns = texts_of(client, plan)
    return [client_id for text, client_id in ids_of(client, plan).items()
            if columns["call"][text] == "keep"]  # fmt: skip


def test_what_a_move_would_do_is_what_it_does(client, plan):
    body = {"ids": kept(client, plan), "way": "times", "value": 0.8}
    before = purse(client, plan)
    tried = client.post(f"{plan}/bids/try", json=body).json()
    assert tried["changed"] == 2
    assert purse(client, plan) == before
    done = client.post(f"{plan}/bids/move", json=body).json()
    assert done["did"] == "bids of 2 keywords: a share more or less"
    assert done["summary"]["purse"] == tried["purse"]
    assert client.post(f"{plan}/undo").json()["summary"]["purse"] == before


def test_a_bid_given_back_takes_its_groups(client, plan):
    group = client.get(f"{plan}/arrange").json()["groups"]["id"][0]
    client.post(f"{plan}/arrange/groups/{group}", json={"bid": 0.31})
    ids = kept(client, plan)
    client.post(f"{plan}/bids/move", json={"ids": ids, "way": "high"})
    body = {"ids": ids, "way": "unlock"}
    tried = client.post(f"{plan}/bids/try", json=body).json()["purse"]
    done = client.post(f"{plan}/bids/move", json=body).json()["summary"]["purse"]
    assert tried == done
    assert texts_of(client, plan)["bid"]["sash window repair"] == 0.31


@pytest.mark.parametrize(
    "body",
    [{"way": "percentile"}, {"way": "times", "value": -1}, {"way": "up"}, {"way": "at_most"}],
)
def test_a_move_that_says_too_little_is_refused(client, plan, body):
    answer = client.post(f"{plan}/bids/move", json={"ids": kept(client, plan)} | body)
    assert answer.status_code == 422


def test_a_move_of_nothing_is_said_and_leaves_no_step_to_undo(client, plan):
    before = client.get(plan).json()["summary"]["journal"]
    body = {"ids": kept(client, plan), "way": "at_most", "value": 900}
    answer = client.post(f"{plan}/bids/move", json=body)
    assert answer.status_code == 422
    assert client.get(plan).json()["summary"]["journal"] == before


def test_a_limit_says_what_it_costs(client, plan):
    assert asked(client, plan, "limits", LimitsView).limits == []
    client.patch(f"{plan}/brief", json={"max_keywords": 1})
    view = asked(client, plan, "limits", LimitsView)
    (one,) = view.limits
    assert (one.limit, one.wanted) == ("max_keywords", 1)
    before = purse(client, plan)["customers"]
    client.patch(f"{plan}/brief", json={"max_keywords": None})
    assert purse(client, plan)["customers"] - before == pytest.approx(one.costs, abs=1e-6)


def test_versions_are_further_curves_for_one_goal(client, plan):
    other = client.post(f"{plan}/versions", json={}).json()["id"]
    client.patch(f"/api/plans/{other}/brief", json={"sale_value": 900, "monthly_spend": 10})
    view = asked(client, plan, f"curves?goal=profit&with={other}", CurvesView)
    own, second = view.curves
    assert second.value[-1] > own.value[-1]
    assert (own.at, second.at) == (60, 10)
    assert own.knee <= own.saturation
    assert len(own.gap) == len(own.value) and max(own.gap) < 0.05


def test_the_least_money_is_asked_both_ways(client, plan):
    now = purse(client, plan)
    some = asked(client, plan, f"least?wanted={now['customers'] / 2}", LeastView)
    assert 0 < some.purse < 60 and some.more < 0
    none = asked(client, plan, "least?wanted=5000", LeastView)
    assert none.purse is None and none.most < 5000
    each = asked(client, plan, "least?wanted=1&goal=clicks_each", LeastView)
    assert each.keywords + each.too_few_count == 2


def test_the_one_cap_brings_no_more_than_fitted_bids(client, plan):
    view = asked(client, plan, "cap?odd=true", CapView)
    assert round(view.bare.cap * 100) % 5
    assert view.own.value <= view.fitted * 1.0001


@pytest.mark.parametrize("by", ["group", "campaign"])
def test_sums_by_group_and_campaign_are_the_plans(client, plan, by):
    view, whole = asked(client, plan, f"sums?by={by}", SumsView), purse(client, plan)
    assert sum(view.spend) == pytest.approx(whole["spend"])
    assert sum(view.customers) == pytest.approx(whole["customers"])
    assert sum(view.running) == whole["running"]


def test_a_group_and_a_campaign_may_bid_their_own_way(client, plan):
    view = client.get(f"{plan}/arrange").json()
    group = view["groups"]["id"][view["groups"]["name"].index("Repair")]
    fitted = texts_of(client, plan)["bid"]["sash window repair"]
    client.post(f"{plan}/arrange/groups/{group}", json={"policy": {"name": "low"}})
    own = texts_of(client, plan)["bid"]["sash window repair"]
    assert own == 0.8 != fitted
    campaign = view["campaigns"][0]["id"]
    client.post(f"{plan}/arrange/campaigns/{campaign}", json={"policy": {"name": "high"}})
    assert texts_of(client, plan)["bid"]["sash window repair"] == own
    client.post(f"{plan}/arrange/groups/{group}", json={"policy": None})
    assert texts_of(client, plan)["bid"]["sash window repair"] == 2.4
    bad = {"policy": {"name": "flat"}}
    assert client.post(f"{plan}/arrange/groups/{group}", json=bad).status_code == 422
    client.post(f"{plan}/undo")
    client.post(f"{plan}/undo")
    assert texts_of(client, plan)["bid"]["sash window repair"] == own


def test_workings_say_what_the_next_bids_would_bring(client, plan):
    first = kept(client, plan)[0]
    sections = client.get(f"{plan}/keywords/{first}/workings").json()["sections"]
    beside = next(s for s in sections if s["title"] == "The bids beside it")
    assert {line["label"] for line in beside["lines"]} >= {"next bid down", "first for its search"}
