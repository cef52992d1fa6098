"""Results come in, are held against the plan, decided on, and a month is closed."""

from __future__ import annotations

import pytest
from fastapi.testclient import TestClient

HEAD = "keyword,match,day,impressions,clicks,cost,customers,could_show,lost_to_money\n"
RESULTS = HEAD + "".join(
    f"sash window repair,exact,2027-04-{day:02},200,12,{14 + day / 10},{1 if day % 9 == 0 else 0},"
    f"400,0\nsash cord replacement,exact,2027-04-{day:02},40,4,3.2,0,90,0\n"
    for day in range(1, 31)
)
TERMS = "term,keyword,match,day,impressions,clicks,cost,customers\n" + "".join(
    f"sash window repair jobs,sash window repair,exact,2027-04-{day:02},10,1,1.2,0\n"
    f"sash window repair gold,sash window repair,exact,2027-04-{day:02},10,1,1.2,{day % 3 == 0:d}\n"
    for day in range(1, 31)
)


def put(client: TestClient, plan: str, text: str, name: str = "april.csv") -> dict:
    answer = client.post(f"{plan}/results", files={"file": (name, text.encode())})
    assert answer.status_code == 200, answer.text
    return answer.json()


def learn(client: TestClient, plan: str) -> dict:
    answer = client.get(f"{plan}/learn")
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_without_results_the_view_is_empty_and_says_so(client, plan):
    view = learn(client, plan)
    assert (view["imports"], view["keywords"], view["waiting"], view["since"]) == ([], [], [], None)
    for path, body in (("terms", {"terms": ["x"]}), ("close", {})):
        answer = client.post(f"{plan}/learn/{path}", json=body)
        assert answer.status_code == 422
        assert "results" in answer.json()["error"]["message"]


def test_results_are_held_against_the_plan_and_add_up(client, plan):
    taken = put(client, plan, RESULTS)
    assert (taken["taken"], taken["same"], taken["level"]) == (60, False, "keyword")
    assert taken["refused"] == []
    view = learn(client, plan)
    assert (view["since"], view["until"], view["as_of"]) == ("2027-04-01", "2027-04-30",
                                                             "2027-04-30")  # fmt: skip
    by = {row["keyword"]: row for row in view["keywords"]}
    assert by["sash window repair"]["clicks"] == 360
    assert by["sash window repair"]["customers"] == 3
    assert len(view["days"]) == 30
    assert sum(day["cost"] for day in view["days"]) == pytest.approx(view["spend"]["actual"])
    for name, last in (("customers", "reported"), ("spend", "actual")):
        parts = dict(view[name])
        total = parts.pop(last)
        assert sum(parts.values()) == pytest.approx(total)
    assert view["searches_known"]


def test_the_same_file_twice_changes_nothing_and_a_later_one_corrects(client, plan):
    put(client, plan, RESULTS)
    before = learn(client, plan)
    again = put(client, plan, RESULTS)
    assert (again["same"], again["taken"]) == (True, 0)
    assert learn(client, plan) == before
    later = RESULTS.replace("sash window repair,exact,2027-04-02,200,12,14.2,0",
                            "sash window repair,exact,2027-04-02,200,12,14.2,2")  # fmt: skip
    put(client, plan, later, "april again.csv")
    after = learn(client, plan)
    assert after["keywords"][0]["customers"] == before["keywords"][0]["customers"] + 2
    assert after["spend"]["actual"] == pytest.approx(before["spend"]["actual"])


def test_overlapping_imports_in_any_order_give_the_same_sums(client, plan):
    lines = RESULTS.splitlines(keepends=True)
    first, second = HEAD + "".join(lines[1:41]), HEAD + "".join(lines[21:])
    put(client, plan, first, "a.csv")
    put(client, plan, second, "b.csv")
    one = learn(client, plan)
    for item in one["imports"]:
        client.post(f"{plan}/results/{item['id']}/force", json={"in_force": False})
    assert learn(client, plan)["since"] is None
    put(client, plan, second, "b.csv")
    put(client, plan, first, "a.csv")
    other = learn(client, plan)
    for name in ("spend", "customers", "keywords", "days"):
        assert other[name] == one[name], name


def test_an_import_is_undone_and_done_again(client, plan):
    put(client, plan, RESULTS)
    held = learn(client, plan)
    assert "take in april.csv" in client.post(f"{plan}/undo").text
    assert learn(client, plan)["since"] is None
    client.post(f"{plan}/redo")
    again = learn(client, plan)
    assert again["keywords"] == held["keywords"]


def test_terms_are_decided_once_and_can_be_taken_back(client, plan):
    put(client, plan, RESULTS)
    put(client, plan, TERMS, "terms.csv")
    view = learn(client, plan)
    by = {row["term"]: row for row in view["terms"]}
    assert by["sash window repair jobs"]["suggestion"] == "block_family"
    assert by["sash window repair gold"]["suggestion"] == "own_keyword"
    assert {one["kind"] for one in view["waiting"]} >= {"block", "own_keyword"}
    terms = list(by)
    client.post(f"{plan}/learn/terms", json={"terms": terms}).raise_for_status()
    view = learn(client, plan)
    assert all(row["decided"] for row in view["terms"])
    assert not [one for one in view["waiting"] if one["kind"] in ("block", "own_keyword")]
    twice = client.post(f"{plan}/learn/terms", json={"terms": terms})
    assert twice.status_code == 422
    sheet = client.get(plan).json()["sheet"]["texts"]
    assert "sash window repair gold" in sheet["text"]
    client.post(f"{plan}/undo")
    assert not any(row["decided"] for row in learn(client, plan)["terms"])
    unknown = client.post(f"{plan}/learn/terms", json={"terms": ["nobody typed this"]})
    assert unknown.status_code == 404


def test_what_sold_and_stands_in_the_sheet_already_is_kept_there(client, plan):
    put(client, plan, RESULTS)
    put(client, plan, TERMS.replace("sash window repair gold", "sash cord maker"), "terms.csv")
    text = {"text": "keyword,call\nsash cord maker,drop\n", "name": "more"}
    tray = client.post(f"{plan}/gather/text", json=text).json()["key"]
    client.post(f"{plan}/gather/{tray}/take").raise_for_status()
    before = client.get(plan).json()["sheet"]["texts"]["text"]
    client.post(f"{plan}/learn/terms", json={"terms": ["sash cord maker"]}).raise_for_status()
    sheet = client.get(plan).json()["sheet"]["texts"]
    assert sheet["text"] == before
    assert sheet["call"][before.index("sash cord maker")] == "keep"
    client.post(f"{plan}/undo")
    sheet = client.get(plan).json()["sheet"]["texts"]
    assert sheet["call"][before.index("sash cord maker")] == "drop"


def test_a_keyword_is_stopped_with_the_results_as_the_reason(client, plan):
    put(client, plan, RESULTS)
    row = learn(client, plan)["keywords"][0]
    client.post(f"{plan}/learn/keywords", json={"ids": [row["id"]]}).raise_for_status()
    assert learn(client, plan)["keywords"][0]["call"] == "drop"
    client.post(f"{plan}/undo")
    assert learn(client, plan)["keywords"][0]["call"] == "keep"


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


NOTHING = {"figures": False, "stops": False, "terms": False, "ranges": False}


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


def stored(client, plan, text: str = "sash window repair") -> tuple[dict, dict]:
    """A keyword of a plan and its reading in use, as they are kept."""
    raw = client.get(f"{plan}/raw.json").json()
    keyword = next(row for row in raw["keyword"] if row["text"] == text)
    (reading,) = (r for r in raw["reading"] if r["keyword_id"] == keyword["id"] and r["in_use"])
    return keyword, reading


def next_month(client, plan) -> str:
    return f"/api/plans/{client.post(f'{plan}/learn/close', json={}).json()['id']}"


MAY = RESULTS.replace("2027-04-", "2027-05-")


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


def aside(client, plan, one, until):
    item = {name: one[name] for name in ("kind", "key", "suggestion")}
    answer = client.post(f"{plan}/learn/aside", json={"items": [item], "until": until})
    assert answer.status_code == 200, answer.text
    return learn(client, plan)


def test_what_is_set_aside_is_not_asked_again_until_it_turns(client, plan):
    put(client, plan, RESULTS)
    put(client, plan, TERMS, "terms.csv")
    (first, *rest) = learn(client, plan)["waiting"]
    left = aside(client, plan, first, "turned")
    assert [one["key"] for one in left["waiting"]] == [one["key"] for one in rest]
    assert [one["key"] for one in left["aside"]] == [first["key"]]
    client.post(f"{plan}/undo").raise_for_status()
    assert learn(client, plan)["waiting"][0] == first
    aside(client, plan, first, "turned")
    assert aside(client, plan, first, "now")["waiting"][0] == first


@pytest.mark.parametrize("key", ["", "x", "-1", "9" * 30, "99999"])
def test_what_no_keyword_is_meant_by_is_refused(client, plan, key):
    item = {"kind": "stop", "key": key, "suggestion": "stop"}
    answer = client.post(f"{plan}/learn/aside", json={"items": [item]})
    assert answer.status_code in (404, 422), answer.text


def test_what_waits_for_later_results_is_asked_again_with_them(client, plan):
    put(client, plan, RESULTS)
    put(client, plan, TERMS, "terms.csv")
    first = next(w for w in learn(client, plan)["waiting"] if w["kind"] in ("block", "own_keyword"))
    assert first["key"] in {one["key"] for one in aside(client, plan, first, "later")["aside"]}
    later = "\n".join([RESULTS.splitlines()[0], RESULTS.splitlines()[1].replace("-04-", "-06-")])
    put(client, plan, later + "\n", "june.csv")
    assert first["key"] in {one["key"] for one in learn(client, plan)["waiting"]}


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


def test_every_range_that_was_given_is_held_against_what_came(client, plan):
    put(client, plan, RESULTS)
    word = client.get(f"{plan}/learn/word").json()
    (month,) = word["months"]
    assert (month["first"], month["last"], month["ended"]) == ("2027-04-01", "2027-04-30", True)
    by = {one["figure"]: one for one in month["figures"]}
    assert by["spend"]["actual"] == pytest.approx(learn(client, plan)["spend"]["actual"])
    for one in by.values():
        inside = one["actual"] is not None and one["low"] < one["actual"] < (one["high"] or 1e9)
        assert one["held"] or not inside
        assert one["fewer"] + one["more"] >= 1 - 1e-9
    days = word["so_far"]["days"]
    assert days[-1] == "2027-04-30" and len(word["so_far"]["spend"]) == len(days)
    middles = [one["middle"] for one in word["so_far"]["spend"]]
    assert middles == sorted(middles)


def test_the_clients_page_says_the_figures_of_the_view_in_every_file(client, plan):
    empty = client.get(f"{plan}/learn/page.html").text
    assert "No results are in yet" in empty
    put(client, plan, RESULTS)
    put(client, plan, TERMS, "terms.csv")
    view, word = learn(client, plan), client.get(f"{plan}/learn/word").json()["months"][0]
    page = client.get(f"{plan}/learn/page.html").text
    spent = f"£{view['month']['pace']['spent']:,.2f} of £{view['month']['pace']['purse']:,.2f}"
    came = {one["figure"]: one for one in word["figures"]}
    assert spent in page and "1 April 2027 to 30 April 2027" in page
    assert f"{came['customers']['actual']:.0f} customers are reported" in page
    for figure in ("clicks", "spend"):
        assert f"{came[figure]['actual']:,.{0 if figure == 'clicks' else 2}f}" in page
    assert "sash window repair" in page and "1 May 2027: the next month begins" in page
    for kind in ("html", "pdf", "xlsx", "csv"):
        answer = client.get(f"{plan}/learn/page/{kind}")
        assert answer.status_code == 200 and len(answer.content) > 500, kind


def test_the_account_is_looked_over_with_the_checks_of_handing_over(client, plan):
    before = client.get(f"{plan}/learn/account").json()["found"]
    assert {one["money"] for one in before} == {None}  # checks alone
    put(client, plan, RESULTS)
    found = client.get(f"{plan}/learn/account").json()["found"]
    by = {one["code"]: one for one in found}
    cord = next(k for k in learn(client, plan)["keywords"] if k["keyword"].startswith("sash cord"))
    assert by["no_sale"]["money"] == pytest.approx(cord["spend"])
    assert [one["code"] for one in found if one["money"] is None] == [o["code"] for o in before]


def test_what_is_strange_about_results_is_noticed_and_what_a_later_file_changes(client, plan):
    lines = RESULTS.splitlines(keepends=True)
    gap = "".join(line for line in lines if "-04-11" not in line and "-04-12" not in line)
    assert put(client, plan, gap)["notices"] == []
    assert learn(client, plan)["notices"] == ["No rows from 11 April to 12 April 2027."]
    late = "".join(lines[:1] + [line.replace(",0,400,0", ",2,400,0") for line in lines[1:3]])
    (said,) = put(client, plan, late, "late.csv")["notices"]
    assert said.startswith("2 rows that stood there before") and "+2 customers" in said
    other = HEAD + "".join(f"blue kettle {n},exact,2027-04-02,9,1,1,0,9,0\n" for n in range(9))
    (said,) = put(client, plan, other, "kettles.csv")["notices"]
    assert said.startswith("Only 0 of 9 rows are keywords of this plan")
    by_campaign = "campaign,since,until,impressions,clicks,cost,customers\n"
    put(client, plan, by_campaign + "Search,2027-04-01,2027-04-30,900,90,999,3\n", "c.csv")
    said = learn(client, plan)["notices"][-1]
    assert said.startswith(
        "By campaign 999.00 were spent from 1 April to 30 April 2027, by keyword"
    )


def test_a_keyword_that_is_hardly_shown_gets_the_bid_that_would_be(client, plan):
    few = "".join(line.replace(",200,12,", ",1,1,") + "\n" for line in RESULTS.splitlines())
    put(client, plan, few)
    found = [one for one in learn(client, plan)["keywords"] if one["hardly"]]
    assert found, learn(client, plan)["keywords"]
    one = found[0]
    assert one["hardly"]["seen"] < one["hardly"]["expected"] / 4
    ids = [one["id"]]
    client.post(f"{plan}/learn/bids", json={"ids": ids}).raise_for_status()
    sheet = client.get(plan).json()["sheet"]
    at = sheet["texts"]["id"].index(one["id"])
    assert (sheet["texts"] | sheet["figures"])["bid"][at] == one["hardly"]["next_bid"]


def test_results_of_before_the_plan_begins_close_a_month_too(client, plan):
    put(client, plan, RESULTS.replace("2027-04-", "2026-04-"))
    made = client.post(f"{plan}/learn/close", json={})
    assert made.status_code == 201, made.text
    assert (made.json()["label"], made.json()["corrected"]) == ("May 2026", 2)


def test_no_more_rows_count_at_once_than_may(client, plan, monkeypatch):
    monkeypatch.setattr("milkwort.store.results._MOST_ROWS", 100)
    put(client, plan, RESULTS)
    (item,) = learn(client, plan)["imports"]
    client.post(f"{plan}/results/{item['id']}/force", json={"in_force": False}).raise_for_status()
    put(client, plan, RESULTS.replace("2027-04-", "2027-06-"), "june.csv")
    again = client.post(f"{plan}/results/{item['id']}/force", json={"in_force": True})
    assert again.status_code == 422
    assert "at most 100 rows in force" in again.json()["error"]["message"]


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("keyword,clicks\nsash,1\n", "expected a column day"),
        ("keyword,day\nsash,2027-04-01\n", "expected a column for clicks"),
        ("keyword,day,clicks\nsash,never,1\n", "no usable row, 1 refused"),
        ("", "empty"),
    ],
)
def test_what_is_no_results_is_refused_in_a_sentence(client, plan, text, says):
    answer = client.post(f"{plan}/results", files={"file": ("r.csv", text.encode())})
    assert answer.status_code == 422
    assert says in answer.json()["error"]["message"]


def test_one_bad_row_never_costs_the_good_ones(client, plan):
    taken = put(client, plan, RESULTS + "sash window repair,exact,2027-05-40,1,1,1,0,1,0\n")
    assert taken["taken"] == 60
    assert [(one["row"], one["column"]) for one in taken["refused"]] == [(62, "day")]
