"""Brief, Gather, Sift, Fit and Hand over, as the client asks them."""

import csv
import io

import openpyxl
import pytest

from milkwort.api.fit.choices_schemas import WaysView
from milkwort.api.fit.schemas import FitView
from milkwort.api.gather.tray_schemas import TrayView
from milkwort.api.handover.schemas import HandOverView
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.api.sift.workings_schemas import Workings
from tests.api.conftest import SHEET, ids_of


def frame_of(client, plan):
    return client.get(plan).json()["summary"]


# Brief


def test_a_change_of_the_brief_moves_the_purse_in_the_same_answer(client, plan):
    before = frame_of(client, plan)["purse"]
    answer = client.patch(f"{plan}/brief", json={"monthly_spend": 30}).json()
    assert answer["summary"]["purse"]["purse"] == 30
    assert answer["summary"]["purse"]["customers"] < before["customers"]
    assert "bid" in answer["columns"] and "ceiling" not in answer["columns"]


def test_what_is_entered_is_no_longer_assumed(client, plan):
    assert "close_low" in frame_of(client, plan)["brief"]["not_entered"]
    two_steps = {"close_low": 0.3, "close_likely": 0.4, "close_high": 0.5}
    answer = client.patch(f"{plan}/brief", json=two_steps).json()
    assert "close_low" not in answer["summary"]["brief"]["not_entered"]
    assert answer["summary"]["brief"]["worth"]["rate"] == pytest.approx(0.02 * 0.4)


@pytest.mark.parametrize(
    ("fields", "where"),
    [
        ({"gross_margin": 1.4}, "gross_margin"),
        ({"monthly_spend": -5}, "monthly_spend"),
        ({"rate_low": 0.9}, "conversion"),
        ({"goal": "fame"}, "goal"),
        ({"magic": 1}, "magic"),
    ],
)
def test_an_impossible_brief_is_refused_in_words_and_changes_nothing(client, plan, fields, where):
    before = frame_of(client, plan)
    answer = client.patch(f"{plan}/brief", json=fields)
    assert answer.status_code == 422
    assert where in answer.json()["error"]["where"] + answer.json()["error"]["message"]
    assert frame_of(client, plan) == before


def test_strange_briefs_are_said_in_words(client, plan):
    answer = client.patch(f"{plan}/brief", json={"sale_value": 0.5}).json()
    assert "least bid" in answer["summary"]["brief"]["strange"][0]


def test_an_assumption_is_changed_and_put_back(client, plan):
    rows = {a["name"]: a for a in client.get(f"{plan}/assumptions").json()}
    assert rows["intent_learn"]["value"] == 0.25 and not rows["intent_learn"]["changed"]
    client.patch(f"{plan}/assumptions", json={"values": {"intent_learn": 0.5}})
    assert frame_of(client, plan)["brief"]["assumptions"] == {"intent_learn": 0.5}
    client.patch(f"{plan}/assumptions", json={"values": {"intent_learn": None}})
    assert frame_of(client, plan)["brief"]["assumptions"] == {}


# Gather


def read(client, plan, text, name="file.csv"):
    answer = client.post(f"{plan}/gather/file", files={"file": (name, text.encode())})
    assert answer.status_code == 200, answer.text
    return TrayView.model_validate(answer.json())


def test_a_file_lands_in_the_tray_sorted_by_what_would_become_of_it(client, plan):
    text = SHEET + "sash lift,10,1,2,exact,buy,,\nbad one,10,3,2,exact,buy,,\n"
    tray = read(client, plan, text.replace("420", "430"))
    counts = {"new": 1, "near": 0, "caught": 0, "changed": 1, "there": 5, "refused": 1}
    assert tray.counts == counts
    (refused,) = tray.refused
    assert (refused.row, refused.column, refused.value) == (9, "cpc_low", "3")


def test_taking_in_adds_the_new_and_keeps_calls_of_the_known(client, plan):
    tray = read(
        client, plan, "keyword,volume,call\nsash lift,10,drop\nsash cord replacement,999,drop\n"
    )
    answer = client.post(f"{plan}/gather/{tray.key}/take").json()
    texts = answer["sheet"]["texts"]
    calls = dict(zip(texts["text"], texts["call"], strict=True))
    assert calls["sash lift"] == "drop" and calls["sash cord replacement"] == "keep"
    assert texts["volume_high"][texts["text"].index("sash cord replacement")] == 999
    assert client.post(f"{plan}/gather/{tray.key}/take").status_code == 404
    client.post(f"{plan}/undo")
    assert "sash lift" not in ids_of(client, plan)


def test_columns_can_be_corrected(client, plan):
    tray = read(client, plan, "first,second\n10,sash lift\n20,sash stop\n")
    body = {"columns": {"keyword": 1, "volume": 0}, "first_row": 2}
    again = client.put(f"{plan}/gather/{tray.key}/columns", json=body).json()
    assert again["rows"]["text"] == ["sash lift", "sash stop"]
    assert again["rows"]["volume_high"] == [10, 20]
    for wrong in (
        {"columns": {"volume": 0}, "first_row": 1},
        {"columns": {"luck": 0}, "first_row": 1},
    ):
        assert client.put(f"{plan}/gather/{tray.key}/columns", json=wrong).status_code == 422


def test_an_unreadable_file_is_refused_in_words(client, plan):
    answer = client.post(f"{plan}/gather/file", files={"file": ("x.csv", b"PK\x03\x04\0\0")})
    assert answer.status_code == 422 and "x.csv" in answer.json()["error"]["message"]


def test_what_is_left_is_gone(client, plan):
    tray = read(client, plan, "keyword\nsash lift\n")
    assert client.delete(f"{plan}/gather/{tray.key}").status_code == 204
    assert client.post(f"{plan}/gather/{tray.key}/take").status_code == 404


# Sift


def test_a_call_answers_with_its_own_rows_and_the_columns_that_moved(client, plan):
    ids = ids_of(client, plan)
    body = {"ids": [ids["sash window painting"]], "call": "keep"}
    answer = ChangeAnswer.model_validate(client.post(f"{plan}/calls", json=body).json())
    assert answer.sheet is None and answer.rows is not None and answer.columns is not None
    assert answer.rows.id == body["ids"] and answer.rows.call == ["keep"]
    assert len(answer.columns.spend or []) == 6
    assert answer.summary.trail.kept == 3
    assert answer.summary.journal.undo == "keep 1 keyword"


def test_an_answer_laid_upon_the_sheet_is_the_sheet(client, plan):
    before = client.get(plan).json()
    ids = list(before["sheet"]["texts"]["id"])
    answer = client.post(f"{plan}/calls", json={"ids": ids, "call": "keep"}).json()
    moved = {k: v for k, v in answer["columns"].items() if v is not None}
    merged = before["sheet"]["figures"] | moved
    assert merged == client.get(plan).json()["sheet"]["figures"]


def test_a_call_of_an_unknown_keyword_changes_nothing(client, plan):
    before = frame_of(client, plan)
    assert client.post(f"{plan}/calls", json={"ids": [999], "call": "keep"}).status_code == 404
    assert client.post(f"{plan}/calls", json={"ids": [1], "call": "maybe"}).status_code == 422
    assert frame_of(client, plan) == before


def test_a_field_too_many_or_too_few_is_named(client, plan):
    def said(body):
        error = client.post(f"{plan}/calls", json=body).json()["error"]
        return error["where"], error["message"]

    where, message = said({"ids": [1], "call": "keep", "colour": "red"})
    assert where == "colour"
    assert message == "colour: expected one of the fields described, got one of another name"
    assert said({"ids": [1]}) == ("call", "call: expected a value, got none")
    assert "got 'maybe'" in said({"ids": [1], "call": "maybe"})[1]


def test_a_keywords_workings_name_its_source(client, plan):
    keyword = ids_of(client, plan)["draughty windows"]
    answer = Workings.model_validate(client.get(f"{plan}/keywords/{keyword}/workings").json())
    assert "six.csv, row 5" in answer.about and "hold" in answer.about


# Fit


def test_the_ladder_of_pounds_covers_the_purse(client, plan):
    view = FitView.model_validate(client.get(f"{plan}/fit").json())
    assert view.span >= 60 and view.blocks[0].start == 0
    found = WaysView.model_validate(client.get(f"{plan}/fit/ways?percentile=0.9").json())
    ways = {way.name: way for way in found.ways}
    assert ways["percentile"].share == 0.9
    assert set(ways) == {"fitted", "low", "middle", "high", "percentile", "high_plus", "flat",
                         "flat_or_middle"}  # fmt: skip
    assert ways["fitted"].value == view.value
    assert max(way.value for way in ways.values()) <= view.value * 1.0001


def test_a_bid_is_locked_and_given_back(client, plan):
    keyword = ids_of(client, plan)["sash window repair"]
    answer = client.post(f"{plan}/bids", json={"ids": [keyword], "bid": 0.777}).json()
    assert answer["rows"]["locked_bid"] == [0.777]
    assert client.get(plan).json()["sheet"]["figures"]["bid"][0] == 0.77
    answer = client.post(f"{plan}/bids", json={"ids": [keyword], "bid": None}).json()
    assert answer["rows"]["locked_bid"] == [None]
    assert client.post(f"{plan}/bids", json={"ids": [keyword], "bid": -1}).status_code == 422


def test_a_method_takes_the_place_of_the_fit(client, plan):
    answer = client.patch(f"{plan}/brief", json={"policy": "low"}).json()
    assert answer["summary"]["purse"]["policy"] == "low"
    assert client.get(plan).json()["sheet"]["figures"]["bid"][0] == pytest.approx(0.80)


# Hand over


def test_the_upload_sheet_is_what_is_kept_and_a_copy_stays_frozen(client, plan):
    made = client.post(f"{plan}/hand-over", json={"kind": "csv"}).json()
    assert made["summary"]["trail"]["hand_overs"] == 1
    address = f"{plan}/hand-over/{made['made']['id']}/file"
    first = client.get(address)
    rows = list(csv.DictReader(io.StringIO(first.content.decode("utf-8-sig"))))
    assert {r["keyword"] for r in rows} == {"sash window repair", "sash cord replacement"}
    assert all(r["run"] == "yes" and float(r["bid"]) > 0 for r in rows)
    client.patch(f"{plan}/brief", json={"monthly_spend": 1})
    assert client.get(address).content == first.content


def test_the_xlsx_holds_the_same_rows(client, plan):
    made = client.post(f"{plan}/hand-over", json={"kind": "xlsx"}).json()["made"]
    content = client.get(f"{plan}/hand-over/{made['id']}/file").content
    page = openpyxl.load_workbook(io.BytesIO(content)).active
    assert page.max_row == 3


def test_the_view_lists_rows_checks_and_what_was_sent(client, plan):
    client.post(f"{plan}/hand-over", json={"kind": "csv"})
    view = HandOverView.model_validate(client.get(f"{plan}/hand-over").json())
    assert len(view.rows) == 2 and len(view.sent) == 1
    assert any("not yet called" in check.text for check in view.checks)


def test_another_plans_hand_over_is_not_given_out(client, plan):
    made = client.post(f"{plan}/hand-over", json={"kind": "csv"}).json()["made"]
    other = client.post("/api/plans", json={"name": "Other"}).json()["id"]
    assert client.get(f"/api/plans/{other}/hand-over/{made['id']}/file").status_code == 404


def test_another_ceiling_rule_starts_with_its_own_figure_and_the_same_keeps_what_was_entered(
    client, plan
):
    def values():
        return client.get(plan).json()["summary"]["brief"]["values"]

    client.patch(f"{plan}/brief", json={"ceiling_rule": "profit_share"})
    assert values()["ceiling_value"] == 0.3
    client.patch(f"{plan}/brief", json={"ceiling_value": 0.45})
    client.patch(f"{plan}/brief", json={"ceiling_rule": "profit_share"})
    assert values()["ceiling_value"] == 0.45
    client.patch(f"{plan}/brief", json={"ceiling_rule": "return_on_spend", "ceiling_value": 6})
    assert values()["ceiling_value"] == 6
    client.patch(f"{plan}/brief", json={"ceiling_rule": "break_even"})
    assert values()["ceiling_value"] is None


def test_customers_are_counted_in_two_steps_and_one_again_with_the_same_ceiling(client, plan):
    def ceiling():
        return client.get(plan).json()["summary"]["brief"]["worth"]["ceiling"]

    before = ceiling()
    for steps in (2, 1):
        assert client.put(f"{plan}/brief/steps", json={"steps": steps}).status_code == 200
        assert ceiling() == pytest.approx(before)
    assert client.put(f"{plan}/brief/steps", json={"steps": 3}).status_code == 422
