"""The sources of Gather, as the client asks them."""

import pytest

from milkwort.api.gather.schemas import StarterAnswer
from tests.api.conftest import ids_of
from tests.api.gathering import paste, take, tray_of
from tests.books import book


def test_a_crossing_is_previewed_put_into_the_tray_and_saved(client, plan):
    parts = [{"words": ["sash", "box sash"]}, {"words": ["lift", "stop"]}]
    seen = client.post(f"{plan}/gather/crossing", json={"parts": parts}).json()
    assert seen["count"] == 4 and "box sash lift" in seen["preview"]
    tray = tray_of(client.post(f"{plan}/gather/crossing/tray", json={"parts": parts}))
    take(client, plan, tray)
    origin = client.get(plan).json()["sheet"]["texts"]
    assert origin["origin"][origin["text"].index("box sash lift")] == "crossing"
    again = client.post(f"{plan}/gather/crossing", json={"parts": parts}).json()
    assert (again["count"], again["known"]) == (0, 4)
    client.post(f"{plan}/recipes", json={"name": "Parts", "parts": parts})
    (recipe,) = client.get(f"{plan}/recipes").json()
    assert recipe["name"] == "Parts" and recipe["parts"][0]["words"] == ["sash", "box sash"]
    client.post(f"{plan}/undo")
    assert client.get(f"{plan}/recipes").json() == []
    client.post(f"{plan}/redo")
    assert client.delete(f"{plan}/recipes/{recipe['id']}").status_code == 200
    assert client.delete(f"{plan}/recipes/{recipe['id']}").status_code == 404


def test_the_almanac_brings_figures_page_by_page_and_says_its_quota(client, plan):
    body = {"roots": ["sash window"], "page": 0}
    tray = tray_of(client.post(f"{plan}/gather/almanac", json=body))
    assert tray.quota_left is not None and tray.rows.cpc_low[0] is not None
    near = tray_of(client.post(f"{plan}/gather/almanac", json=body | {"near_only": True}))
    assert all("sash window" in text for text in near.rows.text)
    assert near.quota_left == tray.quota_left - 1
    trades = client.get("/api/gather/categories").json()
    body = {"roots": trades[0]["roots"], "near_only": True}
    trade = tray_of(client.post(f"{plan}/gather/almanac", json=body))
    assert set(trades[0]["roots"]) <= set(trade.rows.text)
    typed = client.get(f"{plan}/gather/completions", params={"stem": "sash"}).json()
    assert len(typed["texts"]) == 10


def test_a_pages_words_are_weighed_and_looked_up(client, plan):
    html = "<title>Oak doors</title><h1>Oak doors and frames</h1><p>hinges</p>"
    words = client.post(f"{plan}/gather/page", json={"content": html}).json()
    assert words[0]["text"] == "oak doors"
    body = {"roots": [w["text"] for w in words], "only_these": True}
    tray = tray_of(client.post(f"{plan}/gather/almanac", json=body))
    assert set(tray.rows.text) == {w["text"] for w in words}
    assert client.post(f"{plan}/gather/page", json={"content": " "}).status_code == 422


def test_other_places_are_found_swapped_and_blocked(client, plan):
    client.patch(f"{plan}/brief", json={"places": ["Eastmere"]})
    take(
        client,
        plan,
        paste(
            client,
            plan,
            "sill repair eastmere\nbox sash eastmere\n"
            "sill repair hollowbrook\nbox sash hollowbrook\nvane hollowbrook\n",
        ),
    )
    (place,) = client.get(f"{plan}/gather/places").json()
    assert place == {"name": "hollowbrook", "keywords": 3}
    body = {"others": ["hollowbrook"], "own": "Eastmere"}
    tray = tray_of(client.post(f"{plan}/gather/places/swap", json=body))
    assert tray.rows.text == ["vane eastmere"]
    answer = client.post(f"{plan}/gather/places/block", json=body).json()
    assert answer["summary"]["trail"]["keywords"] == 11
    texts = client.get(plan).json()["sheet"]["texts"]
    call = dict(zip(texts["text"], texts["call"], strict=True))
    assert call["vane hollowbrook"] == "drop" and call["sill repair eastmere"] == "none"
    (negative,) = client.get(f"{plan}/negatives").json()
    assert (negative["text"], negative["match"]) == ("hollowbrook", "phrase")


def test_words_never_wanted_stop_searches_and_catch_keywords_on_arrival(client, plan):
    before = client.get(plan).json()["summary"]["purse"]
    answer = client.post(f"{plan}/negatives", json={"texts": ["cord", " cord "]}).json()
    assert answer["summary"]["purse"]["running"] == before["running"] - 1
    notes = client.get(plan).json()["sheet"]
    row = notes["texts"]["text"].index("sash cord replacement")
    assert "stopped" in notes["figures"]["notes"][row]
    tray = paste(client, plan, "sash cord price\nsash stop\n")
    assert (tray.counts["caught"], tray.counts["new"]) == (1, 1)
    take(client, plan, tray, caught=True)
    texts = client.get(plan).json()["sheet"]["texts"]
    row = texts["text"].index("sash cord price")
    assert (texts["call"][row], texts["reason"][row]) == ("drop", "a word never wanted")
    held = client.get(f"{plan}/negatives").json()
    answer = client.post(f"{plan}/negatives/remove", json={"ids": [n["id"] for n in held]}).json()
    assert answer["summary"]["purse"]["running"] == before["running"]
    assert client.post(f"{plan}/negatives", json={"texts": [" "]}).status_code == 422


def test_near_duplicates_wait_until_they_are_asked_for(client, plan):
    tray = paste(client, plan, "replacement sash cord\ncafé sash\ncafe sash\n")
    assert tray.rows.status == ["near", "new", "near"]
    assert tray.rows.like == ["sash cord replacement", "", "café sash"]
    take(client, plan, tray)
    assert "replacement sash cord" not in ids_of(client, plan)
    again = paste(client, plan, "replacement sash cord\n")
    take(client, plan, again, near="take")
    assert "replacement sash cord" in ids_of(client, plan)


def test_units_are_said_remembered_and_brought_to_months(client, plan):
    tray = paste(client, plan, "keyword\tsearches\nsash stop\t12\n")
    body = {"columns": tray.columns, "first_row": tray.first_row, "period": "day",
            "basis": "phrase", "area": "Marlshire"}  # fmt: skip
    tray = tray_of(client.put(f"{plan}/gather/{tray.key}/columns", json=body))
    assert (tray.period, tray.basis, tray.area) == ("day", "phrase", "Marlshire")
    answer = take(client, plan, tray)
    texts = answer.sheet.texts
    row = texts.text.index("sash stop")
    searches = answer.sheet.figures.searches[row]
    assert searches == pytest.approx(12 * 365 / 12 / (1 + 0.6 * 1.4), rel=1e-5)
    again = paste(client, plan, "keyword\tsearches\nsash lift\t5\n")
    assert (again.period, again.basis) == ("day", "phrase")


def test_prices_in_other_money_wait_for_what_one_of_it_is(client, plan):
    text = "keyword,searches,CPC (USD)\nsash stop,12,2\n"
    tray = paste(client, plan, text)
    assert (tray.currency, tray.price_rate, tray.rows.cpc_low) == ("USD", None, [None])
    assert tray.rows.volume_low == [12]
    body = {"columns": tray.columns, "first_row": tray.first_row, "price_rate": 0.8}
    tray = tray_of(client.put(f"{plan}/gather/{tray.key}/columns", json=body))
    assert (tray.currency, tray.rows.cpc_low) == ("USD", [1.6])
    take(client, plan, tray)
    # it is asked for again: another plan has other money, another day another rate
    again = paste(client, plan, text.replace("stop,12,2", "lift,9,3"))
    assert (again.price_rate, again.rows.cpc_low) == (None, [None])
    # in a plan of that money there is nothing to bring to another
    client.patch(f"{plan}/brief", json={"currency": "USD"}).raise_for_status()
    assert paste(client, plan, text.replace("stop,12,2", "cord,9,3")).rows.cpc_low == [3.0]


def test_a_workbook_is_read_sheet_by_sheet(client, plan):
    data = book(Sheet=[["keyword", "searches"], ["sash stop", 40]], June=[["sash lift"]])
    answer = client.post(f"{plan}/gather/file", files={"file": ("k.xlsx", data)})
    tray = tray_of(answer)
    assert (tray.sheets, tray.sheet, tray.rows.text) == (["Sheet", "June"], "Sheet", ["sash stop"])
    body = {"columns": tray.columns, "first_row": 1, "sheet": "June"}
    assert tray_of(client.put(f"{plan}/gather/{tray.key}/columns", json=body)).rows.text == [
        "sash lift"
    ]


def test_unpaid_ranks_join_by_text_and_undo_takes_them_out(client, plan):
    tray = paste(client, plan, "keyword\trank\nsash cord replacement\t4\n")
    assert tray.counts["changed"] == 1
    take(client, plan, tray)
    assert paste(client, plan, "keyword\trank\nsash cord replacement\t4\n").counts["there"] == 1
    client.post(f"{plan}/undo")
    assert paste(client, plan, "keyword\trank\nsash cord replacement\t4\n").counts["changed"] == 1


def test_refused_rows_are_given_back_as_a_file(client, plan):
    tray = paste(client, plan, "keyword\tsearches\nsash stop\tmany\nsash lift\t3\n")
    answer = client.get(f"{plan}/gather/{tray.key}/refused.csv")
    assert answer.status_code == 200 and "attachment" in answer.headers["content-disposition"]
    assert "sash stop,many" in answer.content.decode("utf-8-sig")


def test_the_starter_set_names_what_it_would_keep(client, plan):
    answer = client.post(f"{plan}/gather/starter", json={"most": 2})
    found = StarterAnswer.model_validate(answer.json())
    assert len(found.ids) == 2 and found.total_spend <= 60 + 1e-9
    assert found.total_customers == pytest.approx(sum(found.customers))
    assert client.post(f"{plan}/gather/starter", json={"most": 0}).status_code == 422
