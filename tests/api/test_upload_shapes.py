"""Upload sheets in a platform's own columns, headings and names, kept with its profile."""

import csv
import io
import json

import openpyxl

from tests.api.conftest import ids_of
from tests.api.test_handing_over import rows_of, send, view

COLUMNS = [
    {"column": "keyword", "heading": "Phrase", "place": 0},
    {"column": "bid", "heading": "=Most a click", "place": 1},
    {"column": "match", "heading": "Kind", "place": 2},
    {"column": "run", "sent": False},
]


def shape(client, plan, status=200, **body):
    answer = client.post(f"{plan}/hand-over/shape", json=body)
    assert answer.status_code == status, answer.text
    return answer.json()


def heads_of(client, plan, query="kind=csv"):
    text = client.get(f"{plan}/hand-over/look?{query}").content.decode("utf-8-sig")
    return next(csv.reader(io.StringIO(text)))


def test_columns_leave_in_the_order_and_under_the_headings_said(client, plan):
    before = rows_of(client, plan, send(client, plan))
    shape(client, plan, sheet="keywords", columns=COLUMNS)
    heads = heads_of(client, plan)
    assert heads == ["Phrase", "'=Most a click", "Kind", "campaign", "ad group", "ref"]
    after = rows_of(client, plan, send(client, plan))
    assert [r["Phrase"] for r in after] == [r["keyword"] for r in before]
    assert [r["'=Most a click"] for r in after] == [r["bid"] for r in before]
    book = send(client, plan, kind="xlsx", sheets=["keywords", "campaigns"])
    content = client.get(f"{plan}/hand-over/{book['id']}/file").content
    pages = openpyxl.load_workbook(io.BytesIO(content))
    assert [cell.value for cell in pages["keywords"][1]] == heads
    assert pages["campaigns"]["A1"].value == "campaign"
    assert view(client, plan).changed["keywords"] == 0, "a heading is no change of the plan"
    made = send(client, plan, sheets=["keywords", "campaigns"])
    file = made["files"][-1]
    package = json.loads(client.get(f"{plan}/hand-over/{made['id']}/files/{file['id']}").content)
    described = [field["name"] for field in package["resources"][0]["schema"]["fields"]]
    assert described == heads
    assert [r["schema"].get("primaryKey") for r in package["resources"]] == ["ref", "ref"]


def test_changed_rows_come_in_the_same_shape_even_when_all_are_gone(client, plan):
    client.post(f"{plan}/arrange/negatives", json={"items": [{"text": "free", "match": "phrase"}]})
    said = [{"column": "negative", "heading": "Not for"}]
    shape(client, plan, sheet="negatives", columns=said)
    send(client, plan, sheets=["negatives"])
    ids = [one["id"] for one in client.get(f"{plan}/negatives").json()]
    client.post(f"{plan}/negatives/remove", json={"ids": ids})
    assert view(client, plan).shapes["negatives"] == []
    content = client.get(f"{plan}/hand-over/look?kind=csv&sheet=negatives&only=changed").content
    row = next(csv.DictReader(io.StringIO(content.decode("utf-8-sig"))))
    assert (row["change"], row["Not for"]) == ("removed", "free")


def test_a_shape_goes_with_the_profile_and_is_undone(client, plan):
    usual = heads_of(client, plan)
    shape(client, plan, sheet="keywords", columns=COLUMNS)
    profile = client.get(f"{plan}/profile.json").json()
    assert profile["name"] == "Usual auction, our own"
    client.post(f"{plan}/undo")
    assert heads_of(client, plan) == usual
    taken = client.patch(f"{plan}/brief", json={"profile": profile})
    assert taken.status_code == 200, taken.text
    assert heads_of(client, plan)[0] == "Phrase"
    made = send(client, plan, kind="json")
    document = client.get(f"{plan}/hand-over/{made['id']}/file").content
    loaded = client.post("/api/plans/load", files={"file": ("plan.json", document)})
    assert loaded.status_code in (200, 201), loaded.text
    assert heads_of(client, f"/api/plans/{loaded.json()['id']}")[0] == "Phrase"
    shape(client, plan, sheet="keywords", as_it_comes=True)
    assert heads_of(client, plan) == usual


def test_two_windows_that_change_two_columns_lose_neither(client, plan):
    shape(client, plan, sheet="keywords", columns=[{"column": "keyword", "place": 0}])
    shape(client, plan, sheet="keywords", columns=[{"column": "campaign", "sent": False}])
    shape(client, plan, sheet="keywords", columns=[{"column": "bid", "heading": "Most"}])
    assert heads_of(client, plan) == ["keyword", "ad group", "match", "Most", "run", "ref"]


def test_shapes_that_no_file_can_have_are_refused_and_say_why(client, plan):
    twice = [{"column": "keyword", "heading": "A"}, {"column": "bid", "heading": " a"}]
    assert "once" in shape(client, plan, 422, sheet="keywords", columns=twice)["error"]["message"]
    heads = heads_of(client, plan)
    none = [{"column": head, "sent": False} for head in heads]
    assert (
        "at least one"
        in shape(client, plan, 422, sheet="keywords", columns=none)["error"]["message"]
    )
    shape(client, plan, 422, sheet="keywords", columns=[{"column": "bid", "heading": "a\nb"}])
    unknown = shape(client, plan, 422, sheet="keywords", columns=[{"column": "colour"}])
    assert "ad group" in unknown["error"]["message"]
    shape(client, plan, 422, columns=COLUMNS)
    for rule in ("‹plan›", "‹what›-‹who›", "‹what›" + "x" * 80):
        shape(client, plan, 422, file_name=rule)
    assert view(client, plan).file_name == "‹plan›-‹what›-‹date›-r‹revision›"
    assert heads_of(client, plan) == heads


def test_an_own_heading_never_meets_that_of_a_column_left_as_it_is(client, plan):
    profile = client.get(f"{plan}/profile.json").json()
    columns = [{"sheet": "keywords", "column": "keyword", "heading": "Ref", "sent": True}]
    own = {"profile": profile | {"name": "Loaded", "upload_columns": columns}}
    assert client.patch(f"{plan}/brief", json=own).status_code == 200
    heads = heads_of(client, plan)
    assert heads[0] == "Ref" and heads[-1] == "ref 2"
    assert len({head.casefold() for head in heads}) == len(heads)


def test_files_are_named_by_the_rule(client, plan):
    shape(client, plan, file_name="../‹client›/‹what› r‹revision›")
    made = send(client, plan, sheets=["keywords", "campaigns"])
    names = [file["filename"] for file in made["files"]]
    assert len(set(names)) == 3
    assert all("/" not in name and not name.startswith(".") for name in names)
    assert "upload-campaigns" in names[1]
    ids_of(client, plan)
    shape(client, plan, file_name="")
    assert view(client, plan).file_name == "‹plan›-‹what›-‹date›-r‹revision›"


def test_every_part_of_a_sheet_is_described(client, plan):
    profile = client.get(f"{plan}/profile.json").json() | {"name": "Small", "upload_rows": 1}
    assert client.patch(f"{plan}/brief", json={"profile": profile}).status_code == 200
    made = send(client, plan, sheets=["keywords", "campaigns"])
    *names, last = (file["filename"] for file in made["files"])
    assert len(names) > 2
    content = client.get(f"{plan}/hand-over/{made['id']}/files/{made['files'][-1]['id']}").content
    resources = json.loads(content)["resources"]
    assert [one["path"] for one in resources] == names and last.endswith(".json")
    assert len({one["name"] for one in resources}) == len(names)
