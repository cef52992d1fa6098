"""All clients: a line each, a glance each, kept until something changes."""

from tests.api.test_learning import RESULTS, TERMS, learn, put


def lines(client):
    return {line["plan_id"]: line for line in client.get("/api/clients").json()}


def test_a_glance_says_what_the_plans_own_views_say(client, plan):
    put(client, plan, RESULTS)
    put(client, plan, TERMS, "terms.csv")
    seen, view = client.get(f"{plan}/glance").json(), learn(client, plan)
    kinds = [one["kind"] for one in view["waiting"]]
    assert seen["spent"] == view["month"]["pace"]["spent"]
    assert seen["terms"] == kinds.count("block") + kinds.count("own_keyword") > 0
    assert seen["stops"] == kinds.count("stop")
    assert seen["month_over"] and seen["low"] <= seen["high"]
    assert (seen["first"], seen["last"]) == ("2027-04-01", "2027-04-30")


def test_a_glance_is_kept_until_the_plan_or_its_results_change(client, plan):
    (line,) = lines(client).values()
    assert line["glance"] is None and line["keywords"] == 6
    client.get(f"{plan}/glance")
    assert lines(client)[line["plan_id"]]["glance"]["first"] is None
    client.patch(f"{plan}/brief", json={"monthly_spend": 99}).raise_for_status()
    assert lines(client)[line["plan_id"]]["glance"] is None
    assert client.get(f"{plan}/glance").json()["purse"] == 99
    put(client, plan, RESULTS)
    assert lines(client)[line["plan_id"]]["glance"] is None
    assert client.get(f"{plan}/glance").json()["first"] == "2027-04-01"
    # what was handed over has looks that come due, and rows that may be refused
    client.post(f"{plan}/hand-over", json={"kind": "csv"}).raise_for_status()
    assert lines(client)[line["plan_id"]]["glance"] is None


def test_only_the_version_that_counts_stands_in_the_list(client, plan):
    put(client, plan, RESULTS)
    first = list(lines(client))
    made = client.post(f"{plan}/learn/close", json={}).json()
    assert list(lines(client)) == [made["id"]]  # the next month is the plan from then on
    client.post(f"{plan}/learn/reopen").raise_for_status()
    assert list(lines(client)) == first
    again = client.post(f"{plan}/learn/close", json={}).json()
    client.patch(f"/api/plans/{again['id']}/brief", json={"monthly_spend": 90}).raise_for_status()
    client.post(f"{plan}/learn/reopen").raise_for_status()
    assert list(lines(client)) == first


def test_a_plan_that_cannot_be_read_costs_the_others_nothing(client, plan, tmp_path):
    other = client.post("/api/plans", json={"name": "Other"}).json()["id"]
    client.delete(f"/api/plans/{other}")
    assert len(lines(client)) == 1
    assert client.get(f"/api/plans/{other}/glance").status_code == 404
    assert client.get(f"{plan}/glance").status_code == 200
