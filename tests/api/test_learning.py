"""Results come in, are held against the plan, decided on, and a month is closed."""

from __future__ import annotations

import pytest

from tests.api.learning import HEAD, RESULTS, TERMS, learn, put


def test_without_results_the_view_is_empty_and_says_so(client, plan):
    view = learn(client, plan)
    assert (view["imports"], view["keywords"], view["waiting"], view["since"]) == ([], [], [], None)
    for path, body in (("decide", {"terms": {"terms": ["x"]}}), ("close", {})):
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
    client.post(f"{plan}/learn/decide", json={"terms": {"terms": terms}}).raise_for_status()
    view = learn(client, plan)
    assert all(row["decided"] for row in view["terms"])
    assert not [one for one in view["waiting"] if one["kind"] in ("block", "own_keyword")]
    twice = client.post(f"{plan}/learn/decide", json={"terms": {"terms": terms}})
    assert twice.status_code == 422
    sheet = client.get(plan).json()["sheet"]["texts"]
    assert "sash window repair gold" in sheet["text"]
    client.post(f"{plan}/undo")
    assert not any(row["decided"] for row in learn(client, plan)["terms"])
    unknown = client.post(f"{plan}/learn/decide", json={"terms": {"terms": ["nobody typed this"]}})
    assert unknown.status_code == 404


def test_what_sold_and_stands_in_the_sheet_already_is_kept_there(client, plan):
    put(client, plan, RESULTS)
    put(client, plan, TERMS.replace("sash window repair gold", "sash cord maker"), "terms.csv")
    text = {"text": "keyword,call\nsash cord maker,drop\n", "name": "more"}
    tray = client.post(f"{plan}/gather/text", json=text).json()["key"]
    client.post(f"{plan}/gather/{tray}/take").raise_for_status()
    before = client.get(plan).json()["sheet"]["texts"]["text"]
    maker = {"terms": {"terms": ["sash cord maker"]}}
    client.post(f"{plan}/learn/decide", json=maker).raise_for_status()
    sheet = client.get(plan).json()["sheet"]["texts"]
    assert sheet["text"] == before
    assert sheet["call"][before.index("sash cord maker")] == "keep"
    client.post(f"{plan}/undo")
    sheet = client.get(plan).json()["sheet"]["texts"]
    assert sheet["call"][before.index("sash cord maker")] == "drop"


def test_a_keyword_is_stopped_with_the_results_as_the_reason(client, plan):
    put(client, plan, RESULTS)
    row = learn(client, plan)["keywords"][0]
    stop = {"keywords": {"ids": [row["id"]]}}
    client.post(f"{plan}/learn/decide", json=stop).raise_for_status()
    assert learn(client, plan)["keywords"][0]["call"] == "drop"
    client.post(f"{plan}/undo")
    assert learn(client, plan)["keywords"][0]["call"] == "keep"


def test_decisions_of_all_kinds_are_one_change_and_one_undo(client, plan):
    put(client, plan, RESULTS)
    put(client, plan, TERMS, "terms.csv")
    before = learn(client, plan)
    sheet = client.get(plan).json()
    (stop, *_), (line, *_) = before["keywords"], before["waiting"]
    made = client.post(f"{plan}/learn/decide", json={
        "terms": {"terms": ["sash window repair gold"], "act": "own_keyword"},
        "keywords": {"ids": [stop["id"]]},
        "aside": {"items": [{name: line[name] for name in ("kind", "key", "suggestion")}]},
    })  # fmt: skip
    assert made.status_code == 200, made.text
    did = made.json()["did"]
    assert did == "add 1 keyword from terms; stop 1 keyword; set 1 suggestion aside"
    after = learn(client, plan)
    assert [one["key"] for one in after["aside"]] == [line["key"]]
    assert after["keywords"][0]["call"] == "drop"
    assert "sash window repair gold" in client.get(plan).json()["sheet"]["texts"]["text"]
    client.post(f"{plan}/undo").raise_for_status()
    assert learn(client, plan)["waiting"] == before["waiting"]
    assert client.get(plan).json()["sheet"]["texts"] == sheet["sheet"]["texts"]


@pytest.mark.parametrize("also", [{}, {"keywords": {"ids": [99999]}},
                                  {"terms": {"terms": ["nobody typed this"]}}])  # fmt: skip
def test_of_decisions_all_are_done_or_none(client, plan, also):
    put(client, plan, RESULTS)
    put(client, plan, TERMS, "terms.csv")
    before = client.get(plan).json()
    gold = {"terms": {"terms": ["sash window repair gold"], "act": "own_keyword"}} if also else {}
    answer = client.post(f"{plan}/learn/decide", json=gold | also)
    assert answer.status_code in (404, 422), answer.text
    after = client.get(plan).json()
    assert after["sheet"] == before["sheet"]
    assert after["summary"]["revision"] == before["summary"]["revision"]


def aside(client, plan, one, until):
    item = {name: one[name] for name in ("kind", "key", "suggestion")}
    answer = client.post(f"{plan}/learn/decide", json={"aside": {"items": [item], "until": until}})
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
    answer = client.post(f"{plan}/learn/decide", json={"aside": {"items": [item]}})
    assert answer.status_code in (404, 422), answer.text


def test_what_waits_for_later_results_is_asked_again_with_them(client, plan):
    put(client, plan, RESULTS)
    put(client, plan, TERMS, "terms.csv")
    first = next(w for w in learn(client, plan)["waiting"] if w["kind"] in ("block", "own_keyword"))
    assert first["key"] in {one["key"] for one in aside(client, plan, first, "later")["aside"]}
    later = "\n".join([RESULTS.splitlines()[0], RESULTS.splitlines()[1].replace("-04-", "-06-")])
    put(client, plan, later + "\n", "june.csv")
    assert first["key"] in {one["key"] for one in learn(client, plan)["waiting"]}


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
    client.post(f"{plan}/learn/decide", json={"bids": {"ids": ids}}).raise_for_status()
    sheet = client.get(plan).json()["sheet"]
    at = sheet["texts"]["id"].index(one["id"])
    assert (sheet["texts"] | sheet["figures"])["bid"][at] == one["hardly"]["next_bid"]


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


def test_days_written_otherwise_come_in_and_how_they_were_read_is_said(client, plan):
    plain = "keyword,day,impressions,clicks,cost\n" + "".join(
        f"sash window repair,2027-04-{day:02},200,12,14.5\n" for day in range(1, 4)
    )
    put(client, plan, plain)
    days = learn(client, plan)["days"]
    client.post(f"{plan}/undo").raise_for_status()
    other = "Search keyword;Date;Impr.;Clicks;Cost (GBP);Orders\n" + "".join(
        f"sash window repair;04/{day:02}/2027;200;12;14,5;0\n" for day in range(1, 4)
    )
    (said,) = put(client, plan, other)["notices"]
    assert said.startswith("04/01/2027 was read as 2027-04-01")
    assert learn(client, plan)["days"] == days


def test_one_bad_row_never_costs_the_good_ones(client, plan):
    taken = put(client, plan, RESULTS + "sash window repair,exact,2027-05-40,1,1,1,0,1,0\n")
    assert taken["taken"] == 60
    assert [(one["row"], one["column"]) for one in taken["refused"]] == [(62, "day")]


def test_keywords_say_which_rivals_moved_and_which_are_listed_well(client, plan):
    put(client, plan, RESULTS)
    for name, texts in (("may", ["sash window repair"]), ("june", ["sash cord replacement"])):
        rows = "domain,keyword,cpc\n" + "".join(f"brightsash.example,{t},1.2\n" for t in texts)
        file = {"file": (f"{name}.csv", rows.encode())}
        client.post(f"{plan}/gather/rivals", files=file).raise_for_status()
    ranks = "keyword,unpaid rank\nsash window repair,2\n"
    tray = client.post(f"{plan}/gather/text", json={"text": ranks}).json()
    client.post(f"{plan}/gather/{tray['key']}/take").raise_for_status()
    found = {one["keyword"]: one for one in learn(client, plan)["keywords"]}
    assert found["sash window repair"]["rivals_gone"] == ["brightsash.example"]
    assert found["sash cord replacement"]["rivals_came"] == ["brightsash.example"]
    assert found["sash window repair"]["listed_well"]
    assert not found["sash cord replacement"]["listed_well"]
