"""Plans at their edges: every question of Fit is answered, with figures that are figures."""

import pytest

from tests.api.conftest import ids_of

ASKED = ["fit", "fit/ways", "fit/limits", "fit/curves", "fit/least?wanted=2", "fit/cap",
         "fit/least?wanted=2&goal=clicks_each", "fit/sums", "fit/sums?by=campaign", "how-sure",
         "year", "year/ranges", "year/months/3", "versions", "compare", "compare/odds"]  # fmt: skip


def purse_of_nothing(client, plan):
    client.patch(f"{plan}/brief", json={"monthly_spend": 0})


def nothing_kept(client, plan):
    ids = list(ids_of(client, plan).values())
    client.post(f"{plan}/calls", json={"ids": ids, "call": "drop"})


def all_locked_above_the_purse(client, plan):
    ids = list(ids_of(client, plan).values())
    client.post(f"{plan}/calls", json={"ids": ids, "call": "keep"})
    client.post(f"{plan}/bids", json={"ids": ids, "bid": 20.0})


def limits_that_contradict_each_other(client, plan):
    client.patch(f"{plan}/brief", json={"max_keywords": 1, "min_clicks": 1e6})
    campaign = client.get(f"{plan}/arrange").json()["campaigns"][0]["id"]
    client.post(f"{plan}/arrange/campaigns/{campaign}", json={"least_spend": 5000})


def a_method_far_above_the_purse(client, plan):
    change = {"policy": "high_plus", "policy_share": 9, "monthly_spend": 0.5}
    client.patch(f"{plan}/brief", json=change)


def nobody_ever_buys(client, plan):
    change = {"rate_low": 0, "rate_likely": 0, "rate_high": 0, "goal": "clicks"}
    client.patch(f"{plan}/brief", json=change)


@pytest.mark.parametrize(
    "made_so",
    [purse_of_nothing, nothing_kept, all_locked_above_the_purse,
     limits_that_contradict_each_other, a_method_far_above_the_purse, nobody_ever_buys],
)  # fmt: skip
def test_every_question_is_answered(client, plan, made_so):
    made_so(client, plan)
    for what in ASKED:
        answer = client.get(f"{plan}/{what}")
        assert answer.status_code == 200, (what, answer.text[:300])
        assert "NaN" not in answer.text and "Infinity" not in answer.text


def test_what_gives_way_is_said(client, plan):
    limits_that_contradict_each_other(client, plan)
    notices = client.get(plan).json()["summary"]["purse"]["notices"]
    assert any("least" in notice or "5,000" in notice for notice in notices), notices
