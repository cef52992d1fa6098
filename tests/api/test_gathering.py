"""The sources of Gather and the further fields of the brief, as the client asks them."""

import io

import openpyxl
import pytest

from milkwort.api.gather.schemas import StarterAnswer
from milkwort.api.gather.tray_schemas import TrayView
from milkwort.api.plan.schemas import ChangeAnswer
from tests.api.conftest import ids_of, texts_of


def tray_of(answer):
    assert answer.status_code == 200, answer.text
    return TrayView.model_validate(answer.json())


def take(client, plan, tray, **choice):
    answer = client.post(f"{plan}/gather/{tray.key}/take", json=choice or None)
    assert answer.status_code == 200, answer.text
    return ChangeAnswer.model_validate(answer.json())


def paste(client, plan, text):
    return tray_of(client.post(f"{plan}/gather/text", json={"text": text}))


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


def test_a_workbook_is_read_sheet_by_sheet(client, plan):
    book = openpyxl.Workbook()
    book.active.append(["keyword", "searches"])
    book.active.append(["sash stop", 40])
    book.create_sheet("June").append(["sash lift"])
    out = io.BytesIO()
    book.save(out)
    answer = client.post(f"{plan}/gather/file", files={"file": ("k.xlsx", out.getvalue())})
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


def test_what_is_inside_the_monthly_sum_leaves_the_purse(client, plan):
    fields = {"gross_spend": 1000, "fee": 100, "tax_share": 0.2}
    answer = client.patch(f"{plan}/brief", json=fields).json()
    assert answer["summary"]["purse"]["purse"] == pytest.approx(750)
    refused = client.patch(f"{plan}/brief", json={"fee": 2000})
    assert refused.status_code == 422 and "fee" in refused.json()["error"]["message"]


def test_several_offers_have_each_their_worth_and_keywords_point_to_them(client, plan):
    other = {"name": "sills", "sale_value": 30, "gross_margin": 0.5, "rate_low": 0.01,
             "rate_likely": 0.02, "rate_high": 0.03}  # fmt: skip
    client.patch(f"{plan}/brief", json={"offer_name": "windows", "more_offers": [other]})
    tray = paste(client, plan, "keyword\toffer\tcpc_low\tcpc_high\tvolume\n"
                 "sill repair\tsills\t0.1\t0.3\t90\nsill moon\tmoons\t1\t2\t3\n")  # fmt: skip
    assert tray.refused[0].column == "offer"
    take(client, plan, tray)
    sheet = client.get(plan).json()["sheet"]
    row = sheet["texts"]["text"].index("sill repair")
    assert sheet["figures"]["ceiling"][row] == pytest.approx(30 * 0.5 * 0.02)
    twice = client.patch(f"{plan}/brief", json={"more_offers": [other, other]})
    assert twice.status_code == 422 and "offer name" in twice.json()["error"]["message"]


def test_a_platform_profile_decides_the_least_bid_and_is_kept_as_a_file(client, plan):
    shipped = client.get("/api/profiles").json()
    assert len(shipped) == 3 and shipped[2]["pricing"] == "pay_bid"
    own = shipped[1] | {"name": "Our own", "min_bid": 0.5, "raises": 0.25}
    client.patch(f"{plan}/brief", json={"profile": own})
    assert client.get(f"{plan}/profile.json").json() == own
    rows = {a["name"]: a["value"] for a in client.get(f"{plan}/assumptions").json()}
    assert (rows["min_bid"], rows["platform_raise"]) == (0.5, 0.25)
    bad = client.patch(f"{plan}/brief", json={"profile": own | {"raises": 3}})
    assert bad.status_code == 422 and "raises" in bad.json()["error"]["message"]


def test_the_season_is_entered_or_taken_from_the_keywords(client, plan):
    assert client.post(f"{plan}/brief/season").status_code == 422
    months = "\t".join(f"m{n:02d}" for n in range(1, 13))
    figures = "\t".join("10" if n != 9 else "20" for n in range(1, 13))
    take(client, plan, paste(client, plan, f"keyword\t{months}\nsash stop\t{figures}\n"))
    answer = client.post(f"{plan}/brief/season").json()
    season = answer["summary"]["brief"]["values"]["season"]
    assert season[8] == pytest.approx(20 / (130 / 12), abs=1e-3) and len(season) == 12
    assert client.patch(f"{plan}/brief", json={"season": [1.0, 2.0]}).status_code == 422


@pytest.mark.parametrize("start", ["service", "shop", "subscription"])
def test_a_templates_figures_are_all_assumed(client, start):
    made = client.post("/api/plans", json={"name": "New", "start": start}).json()
    brief = client.get(f"/api/plans/{made['id']}").json()["summary"]["brief"]
    assert "sale_value" in brief["not_entered"] and brief["worth"]["ceiling"] > 0.05


def test_the_second_sample_pays_the_bid_in_euros_with_two_offers(client):
    body = {"name": "Brackish Jar", "start": "second_sample"}
    plan = f"/api/plans/{client.post('/api/plans', json=body).json()['id']}"
    frame = client.get(plan).json()["summary"]
    values = frame["brief"]["values"]
    assert (values["currency"], values["pricing"]) == ("EUR", "pay_bid")
    assert [o["name"] for o in values["more_offers"]] == ["fermenting kits"]
    assert frame["purse"]["running"] > 50 and frame["purse"]["spend"] <= 450
    assert {n["text"] for n in client.get(f"{plan}/negatives").json()} == {"recipe", "free"}
    copied = client.post(f"{plan}/copy", json={"name": "Copy"}).json()
    assert len(client.get(f"/api/plans/{copied['id']}/negatives").json()) == 2


RIVALS = """rival,keyword,cpc,clicks,first seen,last seen,ad
Brightsash,Sash Window Repair,2.0,30,2026-01-01,2026-03-31,Bright sashes
Brightsash,shutter repair,1.0,10,2026-03-01,2026-03-31,Shutters
Mullion,shutter repair,n/a,10,2026-03-01,2026-03-31,Shutters
,shutter,1,1,,,
Mullion,oak door,1.5,4,2026-03-09,2026-03-01,
"""


def test_rivals_are_held_against_the_plan_and_their_gaps_come_to_the_tray(client, plan):
    assert client.get(f"{plan}/gather/rivals").json() is None
    view = client.post(f"{plan}/gather/rivals", files={"file": ("r.csv", RIVALS.encode())}).json()
    assert (view["both"], view["only_they"], view["only_we"]) == (1, 1, 1)
    assert [r["row"] for r in view["refused"]] == [4, 5, 6]
    seen = view["keywords"]
    assert seen["name"] == ["shutter repair", "sash window repair"]
    assert seen["ours"] == [False, True] and seen["days"] == [31, 90]
    assert seen["would_bring"][0] >= 0 and seen["would_bring"][1] is None
    assert seen["monthly_cost"] == [10, 60] and seen["ads"][1] == ["Bright sashes"]
    assert view["months"] == ["2026-01", "2026-02", "2026-03"]
    assert seen["months"] == [[2], [0, 1, 2]]
    body = {"texts": ["shutter repair"]}
    tray = tray_of(client.post(f"{plan}/gather/rivals/tray", json=body))
    assert tray.rows.text == ["shutter repair"] and tray.rows.cpc_low[0] > 0
    june = "rival,keyword\nBrightsash,shutter repair\nBrightsash,bay window\n"
    later = client.post(f"{plan}/gather/rivals", files={"file": ("j.csv", june.encode())}).json()
    assert later["changes"] == [
        {"rival": "Brightsash", "new": ["bay window"], "given_up": ["sash window repair"]}
    ]
    client.post(f"{plan}/undo")
    assert client.get(f"{plan}/gather/rivals").json()["name"] == "r.csv"


@pytest.mark.parametrize("text", ["keyword\nsash\n", "rival,cpc\nA,1\n", "rival,keyword\n,\nA,!\n"])
def test_a_list_of_rivals_that_lacks_its_columns_or_rows_says_which(client, plan, text):
    answer = client.post(f"{plan}/gather/rivals", files={"file": ("r.csv", text.encode())})
    assert answer.status_code == 422 and "r.csv" in answer.json()["error"]["message"]


def test_three_invented_rivals_ship(client, plan):
    view = client.post(f"{plan}/gather/rivals/sample").json()
    assert len(view["rivals"]) == 3 and view["only_they"] > 20 and view["refused"] == []
    brings = [b for b in view["keywords"]["would_bring"] if b is not None]
    assert len(brings) == view["only_they"] and brings == sorted(brings, reverse=True)
    assert view["shared"]["rivals"] == view["totals"]["name"]
    assert [row[at] for at, row in enumerate(view["shared"]["counts"])][1:] == (
        view["totals"]["keywords"]
    )


MONTHLY = """Rival,Keyword,Month,Clicks,CPC,Position,Landing page
Brightsash,shutter repair,2026-05,10,1.0,2.0,https://b.example/s
brightsash,shutter repair,Jun 2026,20,1.0,1.5,https://b.example/s
Brightsash,shutter repair,06/2026,30,1.0,1.5,https://b.example/s
Mullion,oak door,2026-13,4,1.0,3.0,
Mullion,oak door,2026-06,5,1.0,3.0,
"""


def test_a_row_a_month_is_read_and_one_rivals_part_can_be_looked_at(client, plan):
    view = client.post(f"{plan}/gather/rivals", files={"file": ("m.csv", MONTHLY.encode())}).json()
    assert view["rivals"] == ["Brightsash", "Mullion"]
    assert [(r["row"], r["column"]) for r in view["refused"]] == [(4, "keyword"), (5, "month")]
    assert "row 3" in view["refused"][0]["why"]
    part = client.get(f"{plan}/gather/rivals", params={"rival": "Brightsash"}).json()
    seen = part["keywords"]
    assert (seen["name"], seen["monthly_cost"]) == (["shutter repair"], [20])
    assert (seen["position"], seen["clicks_share"], seen["months"]) == ([1.5], [1.0], [[0, 1]])
    assert seen["pages"] == [["https://b.example/s"]]
    assert part["only_they"] == 1 and part["totals"]["name"] == ["Brightsash", "Mullion"]
    nobody = client.get(f"{plan}/gather/rivals", params={"rival": "Nobody"}).json()
    assert nobody["keywords"]["name"] == [] and nobody["only_they"] == 0


def test_looking_at_rivals_again_asks_the_almanac_nothing_and_goes_on_without_it(client, plan):
    client.post(f"{plan}/gather/rivals", files={"file": ("m.csv", MONTHLY.encode())})
    almanac = client.app.state.workspace.almanac
    almanac._left = 0
    assert client.get(f"{plan}/gather/rivals").json()["keywords"]["would_bring"][0] is not None
    part = client.get(f"{plan}/gather/rivals", params={"rival": "Mullion"}).json()["keywords"]
    assert part["would_bring"] == [None] and "used up" in part["unknown_why"]


def test_readings_of_several_sources_stand_side_by_side_and_one_is_in_use(client, plan):
    take(client, plan, paste(client, plan, "keyword\tsearches\nsash cord replacement\t900\n"))
    keyword = ids_of(client, plan)["sash cord replacement"]
    newest, first = client.get(f"{plan}/keywords/{keyword}/workings").json()["readings"]
    assert (newest["in_use"], newest["volume_high"]) == (True, 900)
    assert newest["origin"] == "pasted" and newest["cpc_low"] is None
    assert (newest["prices_in_use"], first["prices_in_use"]) == (False, True)
    assert (first["in_use"], first["volume_high"], first["origin"]) == (False, 420, "six.csv")
    answer = client.post(f"{plan}/keywords/{keyword}/reading", json={"id": first["id"]}).json()
    assert answer["rows"]["volume_high"] == [420] and "searches" in answer["columns"]
    rule = f"{plan}/readings/rule"
    answer = client.post(rule, json={"rule": f"of {newest['origin']}"}).json()
    assert answer["rows"]["volume_high"] == [900]
    client.post(f"{plan}/undo")
    answer = client.post(rule, json={"rule": "mean"}).json()
    assert answer["rows"]["volume_high"] == pytest.approx([(900 * 420) ** 0.5])
    answer = client.post(rule, json={"rule": "newest"}).json()
    assert answer["rows"]["volume_high"] == [900]
    wrong = client.post(f"{plan}/keywords/{keyword}/reading", json={"id": 10_000})
    assert wrong.status_code == 404


def test_searches_and_prices_come_from_readings_of_their_own_each_with_its_area(client, plan):
    tray = paste(client, plan, "keyword\tsearches\nsash cord replacement\t900\n")
    units = {"columns": tray.columns, "first_row": tray.first_row, "area": "The county"}
    tray = tray_of(client.put(f"{plan}/gather/{tray.key}/columns", json=units))
    take(client, plan, tray)
    keyword = ids_of(client, plan)["sash cord replacement"]
    newest, first = client.get(f"{plan}/keywords/{keyword}/workings").json()["readings"]
    assert (newest["area"], first["area"]) == ("The county", "")
    assert "prices of six.csv" in texts_of(client, plan)["origin"]["sash cord replacement"]
    low = texts_of(client, plan)["cpc_low"]["sash cord replacement"]
    assert low == pytest.approx(first["cpc_low"])

    take(
        client,
        plan,
        paste(client, plan, "keyword\tlow price\thigh price\nsash cord replacement\t9\t10\n"),
    )
    assert texts_of(client, plan)["cpc_low"]["sash cord replacement"] == 9
    assert texts_of(client, plan)["volume_high"]["sash cord replacement"] == 900
    choice = {"id": first["id"], "use": "prices"}
    client.post(f"{plan}/keywords/{keyword}/reading", json={"id": newest["id"], "use": "prices"})
    assert texts_of(client, plan)["cpc_low"]["sash cord replacement"] == 9  # it says no price
    client.post(f"{plan}/keywords/{keyword}/reading", json=choice)
    found = texts_of(client, plan)
    assert found["cpc_low"]["sash cord replacement"] == pytest.approx(first["cpc_low"])
    assert found["volume_high"]["sash cord replacement"] == 900
    client.post(f"{plan}/undo")
    assert texts_of(client, plan)["cpc_low"]["sash cord replacement"] == 9
    copied = client.post(f"{plan}/copy", json={"name": "Copy"}).json()
    again = texts_of(client, f"/api/plans/{copied['id']}")
    assert again["cpc_low"]["sash cord replacement"] == 9
    assert again["volume_high"]["sash cord replacement"] == 900


def test_showings_at_a_bid_become_searches_and_popularity_stays_an_index(client, plan):
    head = "keyword\tsearches\tlow price\thigh price\tpopularity\tpaid rank"
    text = f"{head}\nsash weight\t100\t0.8\t2.4\t71\t3\n"
    tray = paste(client, plan, text)
    units = {"columns": tray.columns, "first_row": tray.first_row, "shown_at_bid": 1.5}
    tray = tray_of(client.put(f"{plan}/gather/{tray.key}/columns", json=units))
    assert tray.shown_at_bid == 1.5
    take(client, plan, tray)
    found = texts_of(client, plan)
    assert found["searches"]["sash weight"] == pytest.approx(100 / 0.538786, rel=1e-5)
    assert found["volume_high"]["sash weight"] == 100
    assert (found["popularity"]["sash weight"], found["paid_rank"]["sash weight"]) == (71, 3)
    again = paste(client, plan, "keyword\tpopularity\nsash weight\t80\n")
    assert again.counts["changed"] == 1
    take(client, plan, again)
    found = texts_of(client, plan)
    assert found["popularity"]["sash weight"] == 80
    assert found["searches"]["sash weight"] == pytest.approx(100 / 0.538786, rel=1e-5)
