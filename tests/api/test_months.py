"""Months one after another: closed, learnt together, opened again, and what each change did."""

from __future__ import annotations

import pytest

from tests.api.learning import MAY, NOTHING, RESULTS, TERMS, learn, next_month, put, stored


def test_a_closed_month_is_a_version_with_what_was_learnt_and_the_plan_stays(client, plan):
    put(client, plan, RESULTS)
    put(client, plan, TERMS, "terms.csv")
    before = client.get(plan).json()["summary"]
    closed = client.post(f"{plan}/learn/close", json={})
    assert closed.status_code == 201, closed.text
    made = closed.json()
    assert made["label"] == "May 2027"
    assert made["corrected"] == 2
    assert (made["blocked"], made["added"]) == (1, 1)
    assert client.get(plan).json()["summary"]["purse"] == before["purse"]
    version = f"/api/plans/{made['id']}"
    values = client.get(version).json()["summary"]["brief"]["values"]
    assert values["start_date"] == "2027-05-01"
    # what April taught is in the version's figures: it is not learnt a second time
    assert learn(client, version)["since"] is None


def test_a_closed_month_stands_as_it_was_until_it_is_opened_again(client, plan):
    put(client, plan, RESULTS)
    made = client.post(f"{plan}/learn/close", json=NOTHING).json()
    closed = learn(client, plan)
    assert (closed["next_label"], closed["waiting"]) == ("May 2027", [])
    refused = [
        client.patch(f"{plan}/brief", json={"monthly_spend": 90}),
        client.post(f"{plan}/undo"),
        client.post(f"{plan}/learn/close", json=NOTHING),
        client.post(f"{plan}/hand-over", json={"kind": "csv"}),
    ]
    assert [one.json()["error"]["code"] for one in refused] == ["closed"] * 4
    opened = client.post(f"{plan}/learn/reopen").json()
    # nothing was done in the next month: it went away
    assert opened["removed"] and client.get(f"/api/plans/{made['id']}").status_code == 404
    assert client.patch(f"{plan}/brief", json={"monthly_spend": 90}).status_code == 200
    assert client.post(f"{plan}/learn/reopen").status_code == 422


def test_what_was_sold_leaves_conversion_less_unsure_in_the_next_month(client, plan):
    put(client, plan, RESULTS)
    before = client.get(plan).json()["summary"]["brief"]["values"]
    made = client.post(f"{plan}/learn/close", json=NOTHING | {"ranges": True}).json()
    after = client.get(f"/api/plans/{made['id']}").json()["summary"]["brief"]["values"]
    assert after["rate_likely"] == before["rate_likely"]
    assert before["rate_low"] < after["rate_low"] < after["rate_likely"]
    assert after["rate_likely"] < after["rate_high"] < before["rate_high"]


def test_a_next_month_that_was_worked_on_stays_when_the_one_before_is_opened(client, plan):
    put(client, plan, RESULTS)
    made = client.post(f"{plan}/learn/close", json=NOTHING).json()
    client.patch(f"/api/plans/{made['id']}/brief", json={"monthly_spend": 90}).raise_for_status()
    assert not client.post(f"{plan}/learn/reopen").json()["removed"]
    again = client.post(f"{plan}/learn/close", json=NOTHING).json()
    assert (again["label"], again["corrected"]) == ("May 2027, 2", 0)


def test_a_second_month_is_learnt_with_the_first_and_replaces_what_that_corrected(client, plan):
    entered, read = stored(client, plan)
    put(client, plan, RESULTS)
    may = next_month(client, plan)
    put(client, may, MAY, "may.csv")
    view = learn(client, may)
    assert (view["evidence_since"], view["since"]) == ("2027-04-01", "2027-05-01")
    repair = next(row for row in view["keywords"] if row["keyword"] == "sash window repair")
    assert (repair["clicks"], repair["customers"]) == (720, 6)
    assert len(view["days"]) == 30
    assert set(view["held"]) == {"searches", "click_rate", "price", "conversion"}
    june = next_month(client, may)
    spreads = []
    reported = 360 * 81.3873 / 90  # of thirty days' clicks by the last of them
    for month, clicks in ((may, reported), (june, 360 + reported)):
        keyword, held = stored(client, month)
        taught = held["taught"]
        # whichever month: what was read at first, times what all days taught
        many = taught["searches"] * taught["click_rate"]
        assert held["volume_low"] == pytest.approx(read["volume_low"] * many)
        assert held["cpc_high"] == pytest.approx(read["cpc_high"] * taught["price"])
        assert keyword["taught"]["rate"] == keyword["rate"]
        assert keyword["taught"]["before"] == entered["rate"]
        assert keyword["taught"]["clicks"] == pytest.approx(clicks, rel=1e-3)
        spreads.append(taught["own"])
    assert all(later < earlier for earlier, later in zip(*spreads, strict=True))


@pytest.mark.parametrize(("figures", "ranges"), [(True, False), (False, True), (True, True)])
def test_figures_and_ranges_are_each_taken_over_alone(client, plan, figures, ranges):
    put(client, plan, RESULTS)
    chosen = NOTHING | {"figures": figures, "ranges": ranges}
    made = client.post(f"{plan}/learn/close", json=chosen).json()
    may = f"/api/plans/{made['id']}"
    taught = client.get(f"{may}/raw.json").json()["plan"]["taught"]
    assert bool(taught["held"]) == figures
    assert (taught["conversion"] < 1) == ranges
    assert (taught["searches"] is not None) == (figures and ranges)
    moves = {m["input"]: m for m in client.get(f"{may}/how-sure").json()["moves"]}
    if figures and ranges:
        # what results left, with the noise of a month: no assumption says it any more
        assert moves["searches"]["assumption"] == ""
        assert moves["searches"]["spread"] == pytest.approx((taught["searches"] ** 2 + 0.01) ** 0.5)
    else:
        assert (moves["searches"]["assumption"], moves["searches"]["spread"]) == (
            "draw_searches", 0.10)  # fmt: skip


def test_what_was_taken_over_before_stays_where_less_is_taken_over_later(client, plan):
    put(client, plan, RESULTS)
    may = next_month(client, plan)
    before = client.get(f"{may}/raw.json").json()["plan"]["taught"]
    put(client, may, MAY, "may.csv")
    made = client.post(f"{may}/learn/close", json=NOTHING | {"figures": True}).json()
    after = client.get(f"/api/plans/{made['id']}/raw.json").json()["plan"]["taught"]
    kept = ("searches", "click_rate", "price", "conversion")
    assert [after[name] for name in kept] == [before[name] for name in kept]
    assert after["held"] != before["held"]


def test_a_month_that_goes_as_the_one_before_asks_for_little_more(client, plan):
    put(client, plan, RESULTS)
    april, may = learn(client, plan)["corrections"], next_month(client, plan)
    put(client, may, MAY, "may.csv")
    after = learn(client, may)
    for name in ("searches", "click_rate"):
        further = after["corrections"][name] / after["held"][name]
        assert abs(further - 1) < abs(april[name] - 1)


def test_the_months_so_far_say_what_was_changed_and_what_it_did(client, plan):
    put(client, plan, RESULTS)
    may = next_month(client, plan)
    ids = [row["id"] for row in learn(client, plan)["keywords"]]
    assert client.get(f"{may}/learn/history").json()["months"][0]["changes"] == []
    row = next(r for r in client.get(f"{may}/raw.json").json()["keyword"]
               if r["text"] == "sash window repair")  # fmt: skip
    client.post(f"{may}/bids", json={"ids": [row["id"]], "bid": 0.05}).raise_for_status()
    less = MAY.replace(",200,12,", ",100,6,").replace(
        "sash cord replacement,exact", "sash cord x,exact"
    )
    put(client, may, less, "may.csv")
    newest, first = client.get(f"{may}/learn/history").json()["months"]
    assert (first["first"], first["changes"], first["version"]) == ("2027-04-01", [], "")
    assert (newest["version"], newest["first"]) == ("May 2027", "2027-05-01")
    done = {one["change"]: one for one in newest["changes"]}
    assert done["lowered"]["keywords"] >= 1
    assert done["lowered"]["before"]["clicks"] >= 360
    assert done["lowered"]["after"]["clicks"] == pytest.approx(180)
    # what no keyword is meant by is of the month, but of no change
    assert newest["clicks"] == pytest.approx(180 + 120)
    assert len(ids) == 2


def test_a_keyword_that_was_removed_is_one_that_was_stopped(client, plan):
    put(client, plan, RESULTS)
    may = next_month(client, plan)
    raw = client.get(f"{may}/raw.json").json()["keyword"]
    cord = next(r["id"] for r in raw if r["text"] == "sash cord replacement")
    client.post(f"{may}/keywords/remove", json={"ids": [cord]}).raise_for_status()
    put(client, may, MAY, "may.csv")
    (newest, _) = client.get(f"{may}/learn/history").json()["months"]
    stopped = next(one for one in newest["changes"] if one["change"] == "stopped")
    assert (stopped["keywords"], stopped["before"]["clicks"]) == (1, 120)
    assert stopped["after"] == {"clicks": 0, "spend": 0, "customers": 0}


def test_a_version_that_only_stands_beside_planned_no_month(client, plan):
    put(client, plan, RESULTS)
    may = next_month(client, plan)
    put(client, may, MAY, "may.csv")
    beside = client.post(f"{may}/versions", json={"label": "bold", "reason": ""}).json()["id"]
    client.patch(f"/api/plans/{beside}/brief", json={"monthly_spend": 999}).raise_for_status()
    for path in ("history", "word"):
        months = client.get(f"{may}/learn/{path}").json()["months"]
        assert [one["version"] for one in months] == ["May 2027", ""]
    assert client.get(f"{may}/learn/history").json()["months"][0]["purse"] == 60
    client.post(f"/api/plans/{beside}/choose").raise_for_status()
    assert client.get(f"{may}/learn/history").json()["months"][0]["version"] == "bold"


def test_a_reading_that_is_entered_later_stands_as_it_was_entered(client, plan):
    put(client, plan, RESULTS)
    may = next_month(client, plan)
    keyword, _ = stored(client, may)
    body = {"ids": [keyword["id"]], "volume": 90_000}
    client.post(f"{may}/keywords/edit", json=body).raise_for_status()
    put(client, may, MAY, "may.csv")
    row = next(r for r in learn(client, may)["keywords"] if r["id"] == keyword["id"])
    # far fewer searched than was entered, and nothing of that stands corrected
    assert row["searches"] < 0.2
    client.post(f"{may}/undo").raise_for_status()  # the results
    client.post(f"{may}/undo").raise_for_status()
    assert stored(client, may)[1]["taught"] is not None


def test_what_results_taught_goes_along_with_a_version_and_a_file(client, plan):
    put(client, plan, RESULTS)
    may = next_month(client, plan)
    made = client.post(f"{may}/hand-over", json={"kind": "json"}).json()["made"]
    whole = client.get(f"{may}/hand-over/{made['id']}/file")
    assert 0 < whole.json()["plan"]["taught"]["conversion"] < 1
    loaded = client.post("/api/plans/load", files={"file": ("may.json", whole.content)}).json()
    version = client.post(f"{may}/versions", json={"label": "bold", "reason": ""}).json()
    for other in (loaded["id"], version["id"]):
        raw, before = (client.get(f"{one}/raw.json").json()
                       for one in (f"/api/plans/{other}", may))  # fmt: skip
        assert raw["plan"]["taught"] == before["plan"]["taught"]
        for table in ("keyword", "reading"):
            told = [sorted(str(r["taught"]) for r in one[table]) for one in (raw, before)]
            assert told[0] == told[1]
        assert stored(client, f"/api/plans/{other}")[1]["taught"] is not None


def test_results_of_before_the_plan_begins_close_a_month_too(client, plan):
    put(client, plan, RESULTS.replace("2027-04-", "2026-04-"))
    made = client.post(f"{plan}/learn/close", json={})
    assert made.status_code == 201, made.text
    assert (made.json()["label"], made.json()["corrected"]) == ("May 2026", 2)
