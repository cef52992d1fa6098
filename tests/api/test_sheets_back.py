"""Upload sheets that come back: as they left they are the plan; what a person changed is said."""

import csv
import io

import openpyxl
import pytest

from milkwort.api.handover.schemas import ReadBack
from milkwort.api.plan.schemas import ChangeAnswer
from milkwort.core.brief.upload_shape import SHEET_NAMES
from tests.api.conftest import Shell


@pytest.fixture(scope="module")
def sample(tmp_path_factory):
    """The address of the sample, with negatives, a spot and texts that leave guarded."""
    folder = tmp_path_factory.mktemp("back")
    with Shell(folder).over(folder) as client:
        made = client.post("/api/plans", json={"name": "Sashes", "start": "sample"}).json()
        plan = f"/api/plans/{made['id']}"
        negatives = [
            {"text": "free", "match": "phrase"}, {"text": "=1+1 jobs", "match": "exact"},
            {"text": "+plus, \"quoted\"", "match": "broad"},
        ]  # fmt: skip
        assert client.post(f"{plan}/arrange/negatives", json={"items": negatives}).is_success
        campaign = client.get(f"{plan}/arrange").json()["campaigns"][0]["id"]
        spot = {
            "campaign_id": campaign,
            "name": "Old houses",
            "pays": "click",
            "clicks": 20,
            "price": 0.5,
        }
        answer = client.post(f"{plan}/arrange/spots", json=spot)
        assert answer.is_success, answer.text
        yield client, plan


def look(client, plan, sheet, kind="csv"):
    return client.get(f"{plan}/hand-over/look?kind={kind}&sheet={sheet}").content


def back(client, plan, content, name="back.csv"):
    answer = client.post(f"{plan}/hand-over/back", files={"file": (name, content)})
    assert answer.status_code == 200, answer.text
    return ReadBack.model_validate(answer.json())


@pytest.mark.parametrize("kind", ["csv", "xlsx"])
@pytest.mark.parametrize("sheet", SHEET_NAMES)
def test_a_sheet_as_it_left_gives_the_same_plan(sample, sheet, kind):
    client, plan = sample
    content = look(client, plan, sheet, kind)
    found = back(client, plan, content, f"back.{kind}")
    (one,) = found.sheets
    assert one.sheet == sheet and one.rows > 0
    assert (one.same, one.absent, one.refused) == (one.rows, 0, [])
    assert found.changes == [] and found.bids == {}


def test_a_book_of_all_sheets_is_read_page_by_page(sample):
    client, plan = sample
    made = client.post(
        f"{plan}/hand-over", json={"kind": "xlsx", "sheets": list(SHEET_NAMES)}
    ).json()["made"]
    content = client.get(f"{plan}/hand-over/{made['id']}/file").content
    found = back(client, plan, content, "all.xlsx")
    assert [one.sheet for one in found.sheets] == list(SHEET_NAMES)
    assert found.changes == [] and all(one.absent == 0 for one in found.sheets)
    book = openpyxl.load_workbook(io.BytesIO(content))
    book["groups"]["B2"] = "Renamed elsewhere"
    out = io.BytesIO()
    book.save(out)
    (change,) = back(client, plan, out.getvalue(), "all.xlsx").changes
    assert change.sheet == "groups" and change.turn == "changed"
    assert change.row["ad group"] == "Renamed elsewhere" and list(change.was) == ["ad group"]


def test_columns_under_headings_of_the_planner_s_own_are_known_again(sample):
    client, plan = sample
    columns = [
        {"column": "keyword", "heading": "=Phrase"}, {"column": "bid", "heading": "Most a click"},
        {"column": "run", "sent": False},
    ]  # fmt: skip
    shape = {"sheet": "keywords", "columns": columns}
    assert client.post(f"{plan}/hand-over/shape", json=shape).is_success
    found = back(client, plan, look(client, plan, "keywords"))
    assert found.sheets[0].sheet == "keywords" and found.changes == []
    assert client.post(f"{plan}/undo").is_success


def test_bids_that_a_person_changed_are_taken_over_and_nothing_else(sample):
    client, plan = sample
    rows = list(csv.reader(io.StringIO(look(client, plan, "keywords").decode("utf-8-sig"))))
    heads = rows[0]
    bid, ref, text = heads.index("bid"), heads.index("ref"), heads.index("keyword")
    rows[1][bid], rows[2][bid], rows[3][text] = "0.31", "many", "another text"
    rows.append(["", "", "a stranger", "exact", "1.00", "yes", "k-unknown"])
    rows.append(list(rows[4]))
    del rows[5]
    out = io.StringIO()
    csv.writer(out, delimiter=";").writerows(rows)
    found = back(client, plan, out.getvalue().encode())
    (one,) = found.sheets
    assert one.absent == 2 and len(one.refused) == 2
    assert "bid" in one.refused[0] and "many" in one.refused[0]
    assert [change.turn for change in found.changes] == ["changed", "changed", "new"]
    assert found.bids == {rows[1][ref]: 0.31}
    answer = client.post(f"{plan}/hand-over/back/bids", json={"bids": found.bids})
    assert ChangeAnswer.model_validate(answer.json()).did == (
        "take over 1 bid of a sheet that came back"
    )
    after = list(csv.reader(io.StringIO(look(client, plan, "keywords").decode("utf-8-sig"))))
    stands = {row[ref]: row for row in after[1:]}
    assert float(stands[rows[1][ref]][bid]) == 0.31 and len(stands) == len(after) - 1
    assert all(row[text] != "another text" for row in after)
    client.post(f"{plan}/undo")


@pytest.mark.parametrize(
    "content", [b"keyword,volume\nsash,20\n", b"one cell\n", b"ref\n"], ids=["other", "cell", "ref"]
)
def test_what_is_no_sheet_of_the_plan_is_refused_or_says_nothing(sample, content):
    client, plan = sample
    answer = client.post(f"{plan}/hand-over/back", files={"file": ("x.csv", content)})
    if answer.status_code == 200:
        assert ReadBack.model_validate(answer.json()).changes == []
    else:
        assert answer.status_code == 422 and "ref" in answer.json()["error"]["message"]


def test_bids_of_keywords_that_are_gone_are_refused(sample):
    client, plan = sample
    answer = client.post(f"{plan}/hand-over/back/bids", json={"bids": {"k-gone": 1.0}})
    assert answer.status_code == 422


def test_what_the_plan_bids_is_never_read_as_a_price_of_the_market(sample):
    client, plan = sample
    files = {"file": ("upload.csv", look(client, plan, "keywords"))}
    tray = client.post(f"{plan}/gather/file", files=files).json()
    assert set(tray["columns"]) == {"keyword", "match", "group", "campaign"}
    assert tray["counts"]["changed"] == 0
