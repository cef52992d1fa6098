"""What somebody counted beside results: customers by hand, visits of the whole site."""

from __future__ import annotations

import pytest

from tests.api.learning import RESULTS, learn, put


def test_customers_counted_by_hand_stand_beside_and_a_later_count_replaces(client, plan):
    put(client, plan, RESULTS)
    before = learn(client, plan)
    body = {"since": "2027-04-01", "until": "2027-04-30", "customers": 3}
    for customers in (2, 3, 2):
        answer = client.post(f"{plan}/learn/counted", json=body | {"customers": customers})
        assert answer.status_code == 200, answer.text
    after = learn(client, plan)
    assert after["month"]["by_hand"] == 2
    assert after["customers"] == before["customers"]  # no keyword is told to have brought them
    words = client.get(f"{plan}/learn/word").json()["months"][0]["figures"]
    came = {one["figure"]: one["actual"] for one in words}
    assert came["customers"] == pytest.approx(before["customers"]["reported"] + 2)
    wrong = body | {"until": "2027-03-01"}
    assert client.post(f"{plan}/learn/counted", json=wrong).status_code == 422


def test_what_counted_customers_bought_for_is_their_worth(client, plan):
    put(client, plan, RESULTS)
    profit = profit_of(client, plan)
    body = {"since": "2027-04-01", "until": "2027-04-30", "customers": 2, "value": 1000.0}
    client.post(f"{plan}/learn/counted", json=body).raise_for_status()
    assert learn(client, plan)["month"]["by_hand_value"] == 1000.0
    margin = client.get(plan).json()["summary"]["brief"]["values"]["gross_margin"]
    assert profit_of(client, plan) - profit == pytest.approx(1000.0 * margin)
    client.post(f"{plan}/learn/counted", json=body | {"value": None}).raise_for_status()
    assert learn(client, plan)["month"]["by_hand_value"] is None
    assert profit_of(client, plan) - profit != pytest.approx(1000.0 * margin)


def profit_of(client, plan):
    figures = client.get(f"{plan}/learn/word").json()["months"][0]["figures"]
    return next(one["actual"] for one in figures if one["figure"] == "profit")


def test_the_whole_site_is_noted_replaced_and_undone(client, plan):
    put(client, plan, RESULTS)
    assert learn(client, plan)["month"]["site"] is None
    body = {"since": "2027-04-01", "until": "2027-04-30", "visits": 900, "unpaid": 6}
    for visits in (900, 1000):
        answer = client.post(f"{plan}/learn/site", json=body | {"visits": visits})
        assert answer.json()["did"] == "count the whole site", answer.text
    view = learn(client, plan)
    spend = view["month"]["spend"]["actual"]
    assert view["month"]["site"]["visits"] == 1000
    assert view["month"]["site"]["cost_per_visit"] == pytest.approx(spend / 1000)
    others = 6 / (6 + view["month"]["customers"]["reported"])
    assert view["month"]["site"]["without_ad"] == pytest.approx(others)
    client.post(f"{plan}/undo").raise_for_status()
    assert learn(client, plan)["month"]["site"]["visits"] == 900
    nothing = {"since": "2027-04-01", "until": "2027-04-30"}
    assert client.post(f"{plan}/learn/site", json=nothing).status_code == 422
    backwards = body | {"until": "2027-03-01"}
    assert client.post(f"{plan}/learn/site", json=backwards).status_code == 422


def test_a_file_by_day_may_bring_visits_and_customers_without_an_ad(client, plan):
    put(client, plan, RESULTS)
    days = "day,impressions,clicks,cost,customers,visits,unpaid customers\n"
    days += "2027-04-02,0,0,0,0,120,2\n2027-04-03,0,0,0,0,80,\n"
    put(client, plan, days, "days.csv")
    site = learn(client, plan)["month"]["site"]
    assert (site["visits"], site["unpaid"]) == (200, 2)
    assert learn(client, plan)["notices"] == [], "it says nothing of money"
    body = {"since": "2027-04-02", "until": "2027-04-03", "visits": 210}
    client.post(f"{plan}/learn/site", json=body).raise_for_status()
    assert learn(client, plan)["month"]["site"]["visits"] == 210, "what somebody counted counts"
    put(client, plan, days.replace("04-03", "04-09"), "more.csv")
    assert learn(client, plan)["month"]["site"]["visits"] == 290, "of other days the file does"


def test_a_count_of_a_campaign_that_was_renamed_replaces_the_one_before(client, plan):
    put(client, plan, RESULTS)
    (held,) = client.get(f"{plan}/arrange").json()["campaigns"]
    body = {"since": "2027-04-01", "until": "2027-04-30", "campaign": held["name"], "customers": 3}
    client.post(f"{plan}/learn/counted", json=body).raise_for_status()
    path = f"{plan}/arrange/campaigns/{held['id']}"
    client.post(path, json={"name": "Everything"}).raise_for_status()
    assert client.post(f"{plan}/learn/counted", json=body).status_code == 404
    again = body | {"campaign": "Everything", "customers": 5}
    client.post(f"{plan}/learn/counted", json=again).raise_for_status()
    assert learn(client, plan)["month"]["by_hand"] == 5
    client.post(f"{plan}/undo").raise_for_status()
    assert learn(client, plan)["month"]["by_hand"] == 3


APRIL = {"since": "2027-04-01", "until": "2027-04-30"}


def days(first: int, last: int) -> dict[str, str]:
    return {"since": f"2027-04-{first:02}", "until": f"2027-04-{last:02}"}


def counted(client, plan, what: str, code: int = 200, **body) -> dict:
    answer = client.post(f"{plan}/learn/{what}", json=body)
    assert answer.status_code == code, answer.text
    return answer.json()


@pytest.mark.parametrize(
    ("what", "figure", "shown"), [("counted", "customers", "by_hand"), ("site", "visits", "site")]
)
def test_every_day_is_counted_once(client, plan, what, figure, shown):
    put(client, plan, RESULTS)

    def now() -> float:
        found = learn(client, plan)["month"][shown]
        return found if shown == "by_hand" else found[figure]

    counted(client, plan, what, **days(1, 10), **{figure: 3})
    counted(client, plan, what, **days(11, 20), **{figure: 4})
    assert now() == pytest.approx(7)
    for first, last in ((5, 12), (2, 9), (10, 11), (20, 30)):
        refused = counted(client, plan, what, 422, **days(first, last), **{figure: 9})["error"]
        assert "2027-04-" in refused["message"] and refused["where"] == "since"
        assert now() == pytest.approx(7)
    # one that holds them both takes their place, and gives it back
    counted(client, plan, what, **days(1, 25), **{figure: 9})
    assert now() == pytest.approx(9)
    client.post(f"{plan}/undo").raise_for_status()
    assert now() == pytest.approx(7)


def test_a_count_that_was_left_out_counts_again_only_where_its_days_are_free(client, plan):
    put(client, plan, RESULTS)
    counted(client, plan, "counted", **days(1, 10), customers=3)
    (first,) = [i for i in learn(client, plan)["imports"] if i["level"] == "by hand"]
    counted(client, plan, "counted", **days(1, 30), customers=5)
    force = f"{plan}/results/{first['id']}/force"
    assert client.post(force, json={"in_force": True}).status_code == 422
    (last,) = [i for i in learn(client, plan)["imports"]
               if i["level"] == "by hand" and i["in_force"]]  # fmt: skip
    client.post(f"{plan}/results/{last['id']}/force", json={"in_force": False}).raise_for_status()
    client.post(force, json={"in_force": True}).raise_for_status()
    assert learn(client, plan)["month"]["by_hand"] == 3


def test_counts_of_two_campaigns_do_not_meet(client, plan):
    put(client, plan, RESULTS)
    client.post(f"{plan}/arrange/campaigns", json={"name": "Another"}).raise_for_status()
    names = [c["name"] for c in client.get(f"{plan}/arrange").json()["campaigns"]]
    assert len(names) == 2
    for name, customers in zip(names, (2, 3), strict=True):
        counted(client, plan, "counted", **APRIL, campaign=name, customers=customers)
    assert learn(client, plan)["month"]["by_hand"] == 5


def test_what_is_not_said_of_the_site_stays_as_it_was_said(client, plan):
    put(client, plan, RESULTS)
    counted(client, plan, "site", **APRIL, visits=900)
    counted(client, plan, "site", **APRIL, unpaid=6)
    site = learn(client, plan)["month"]["site"]
    assert (site["visits"], site["unpaid"]) == (900, 6)
    counted(client, plan, "site", **APRIL, visits=1000, unpaid=0)
    site = learn(client, plan)["month"]["site"]
    assert (site["visits"], site["unpaid"]) == (1000, 0)


def test_the_month_says_what_was_counted_of_its_own_days(client, plan):
    put(client, plan, RESULTS)
    counted(client, plan, "counted", since="2027-03-01", until="2027-03-31", customers=8)
    counted(client, plan, "site", since="2027-03-01", until="2027-03-31", visits=700)
    month = learn(client, plan)["month"]
    assert (month["by_hand"], month["site"]) == (0, None)
    # half of these days are April's
    counted(client, plan, "counted", since="2027-04-16", until="2027-05-15", customers=8)
    assert learn(client, plan)["month"]["by_hand"] == pytest.approx(4)
