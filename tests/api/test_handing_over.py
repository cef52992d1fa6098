"""Handing over: what is sent stays, what changed is told, one goes back; a look sends nothing."""

import csv
import io
import json

import openpyxl
import pytest

from milkwort.api.handover.schemas import ChangesView, HandOverView
from tests.api.conftest import ids_of


def view(client, plan):
    return HandOverView.model_validate(client.get(f"{plan}/hand-over").json())


def send(client, plan, **body):
    made = client.post(f"{plan}/hand-over", json={"kind": "csv"} | body)
    assert made.status_code == 201, made.text
    return made.json()["made"]


def changes(client, plan, since=""):
    found = client.get(f"{plan}/hand-over/changes{since}").json()
    return ChangesView.model_validate(found)


def rows_of(client, plan, made, at=0):
    file = made["files"][at]
    content = client.get(f"{plan}/hand-over/{made['id']}/files/{file['id']}").content
    return list(csv.DictReader(io.StringIO(content.decode("utf-8-sig"))))


def test_several_sheets_leave_together_and_are_described(client, plan):
    client.post(f"{plan}/arrange/negatives", json={"items": [{"text": "free", "match": "phrase"}]})
    made = send(client, plan, sheets=["keywords", "campaigns", "groups", "negatives"])
    names = [file["filename"] for file in made["files"]]
    assert len(names) == 5 and names[-1].endswith(".json")
    package = json.loads(
        client.get(f"{plan}/hand-over/{made['id']}/files/{made['files'][-1]['id']}").content
    )
    assert [r["path"] for r in package["resources"]] == names[:-1]
    for at, resource in enumerate(package["resources"]):
        rows = rows_of(client, plan, made, at)
        assert list(rows[0]) == [field["name"] for field in resource["schema"]["fields"]]
        assert len({row["ref"] for row in rows}) == len(rows)
    book = send(client, plan, kind="xlsx", sheets=["keywords", "negatives"])
    content = client.get(f"{plan}/hand-over/{book['id']}/file").content
    pages = openpyxl.load_workbook(io.BytesIO(content))
    assert pages.sheetnames == ["keywords", "negatives"]
    assert pages["negatives"]["C2"].value == "free"


def test_only_what_changed_leaves_with_what_it_was(client, plan):
    first = client.post(f"{plan}/hand-over", json={"kind": "csv", "only": "changed"})
    assert first.status_code == 422
    send(client, plan)
    ids = ids_of(client, plan)
    client.post(f"{plan}/bids", json={"ids": [ids["sash cord replacement"]], "bid": 0.77})
    client.post(f"{plan}/calls", json={"ids": [ids["draughty windows"]], "call": "keep"})
    rows = rows_of(client, plan, send(client, plan, only="changed"))
    turns = {row["keyword"]: row["change"] for row in rows}
    assert turns["draughty windows"] == "new"
    assert turns["sash cord replacement"] == "changed"
    assert "bid:" in next(r["was"] for r in rows if r["keyword"] == "sash cord replacement")


def test_what_changed_since_is_told_and_a_rename_is_one_row(client, plan):
    assert changes(client, plan).since is None
    made = send(client, plan)
    assert changes(client, plan).changes == []
    group = client.get(f"{plan}/arrange").json()["groups"]
    repair = group["id"][group["name"].index("Repair")]
    client.post(f"{plan}/arrange/groups/{repair}", json={"name": "Mend"})
    found = changes(client, plan)
    renamed = [c for c in found.changes if c.sheet == "groups"]
    assert [(c.turn, c.was) for c in renamed] == [("changed", {"ad group": "Repair"})]
    assert found.figures.then["spend"] == pytest.approx(found.figures.now["spend"])
    send(client, plan)
    assert changes(client, plan).changes == []
    assert changes(client, plan, f"?since={made['id']}").changes
    assert view(client, plan).changed["groups"] == 0


def test_a_look_sends_nothing(client, plan):
    looked = client.get(f"{plan}/hand-over/look?kind=csv&sheet=campaigns")
    assert "daily budget" in looked.text
    assert client.get(f"{plan}/hand-over/look?kind=xlsx").status_code == 200
    assert client.get(f"{plan}/hand-over/look?kind=exe").status_code == 422
    assert view(client, plan).sent == []
    assert client.get(plan).json()["summary"]["trail"]["hand_overs"] == 0


def test_one_goes_back_to_what_was_sent_as_a_version(client, plan):
    made = send(client, plan)
    before = client.get(plan).json()["summary"]["purse"]
    client.patch(f"{plan}/brief", json={"monthly_spend": 900, "sale_value": 12})
    back = client.post(f"{plan}/hand-over/{made['id']}/version").json()["id"]
    again = client.get(f"/api/plans/{back}").json()["summary"]["purse"]
    assert again["customers"] == pytest.approx(before["customers"])
    assert again["purse"] == before["purse"]
    twice = client.post(f"{plan}/hand-over/{made['id']}/version")
    assert twice.status_code == 201
    labels = [v["label"] for v in client.get(f"{plan}/versions").json()["versions"]]
    assert len(labels) == 3 and len(set(labels)) == 3


def test_what_is_sent_bears_its_open_points_its_state_and_a_note(client, plan):
    made = send(client, plan, note="to Ann")
    assert any("not yet called" in point for point in made["points"])
    address = f"{plan}/hand-over/{made['id']}"
    assert client.patch(address, json={"status": "running"}).json()["status"] == "running"
    client.patch(address, json={"note": "to Ann, by mail"})
    (kept,) = view(client, plan).sent
    assert (kept.status, kept.note) == ("running", "to Ann, by mail")
    assert client.patch(address, json={"status": "gone"}).status_code == 422
    other = client.post("/api/plans", json={"name": "Other"}).json()["id"]
    stranger = f"/api/plans/{other}/hand-over/{made['id']}"
    assert client.patch(stranger, json={"status": "paused"}).status_code == 404
    assert client.get(f"{stranger}/files/{made['files'][0]['id']}").status_code == 404
    assert client.post(f"{stranger}/version").status_code == 404


def test_a_check_is_mended_in_one_step_and_taken_back(client, plan):
    ids = ids_of(client, plan)
    client.post(f"{plan}/bids", json={"ids": [ids["sash window repair"]], "bid": 90})
    over = next(c for c in view(client, plan).checks if c.code == "over_ceiling")
    assert over.mend and over.names == ["sash window repair"]
    done = client.post(f"{plan}/hand-over/mend", json={"code": "over_ceiling"}).json()
    assert done["did"] == over.mend
    assert "over_ceiling" not in [c.code for c in view(client, plan).checks]
    client.post(f"{plan}/undo")
    assert "over_ceiling" in [c.code for c in view(client, plan).checks]
    refused = client.post(f"{plan}/hand-over/mend", json={"code": "uncalled"})
    assert refused.status_code == 422


def test_a_sheet_longer_than_the_platform_takes_leaves_in_parts(client, plan):
    profile = {"name": "Small", "pricing": "pay_enough", "matches": ["exact", "phrase", "broad"],
               "min_bid": 0.05, "bid_step": 0.01, "raises": 0, "keywords_per_group": 50,
               "ads_per_group": 3, "headline_characters": 36, "description_characters": 110,
               "refused_characters": "", "negative_close_forms": False,
               "upload_rows": 1}  # fmt: skip
    assert client.patch(f"{plan}/brief", json={"profile": profile}).status_code == 200
    made = send(client, plan)
    assert [file["rows"] for file in made["files"]] == [1, 1]
    assert "many_rows" in [c.code for c in view(client, plan).checks]


ACCOUNT = (
    "No;Wording;Kind;Top €;Lit\r\n"
    "7;sash window repair;Exact;0,40;ON\r\n"
    "8;window jobs;Exact;0,10;ON\r\n"
    "9;a stranger;Exact;0,10;ON\r\n"
)


def bring(client, plan, text=ACCOUNT, where="account"):
    file = ("account.csv", text.encode(), "text/csv")
    return client.post(f"{plan}/hand-over/{where}", files={"file": file})


def test_an_accounts_file_goes_there_and_back_in_its_own_shape(client, plan):
    assert client.get(f"{plan}/hand-over/account").json() is None
    assert client.get(f"{plan}/hand-over/account/changes").status_code == 404
    text = ACCOUNT
    seen = bring(client, plan).json()
    assert seen["columns"] == {} and seen["changed"] == 0
    columns = {"keyword": 1, "match": 2, "bid": 3, "run": 4}
    seen = client.put(f"{plan}/hand-over/account/columns", json={"columns": columns}).json()
    assert (seen["changed"], seen["strangers"], seen["missing"]) == (2, 1, 1)
    back = client.get(f"{plan}/hand-over/account/changes").content.decode()
    rows = list(csv.reader(io.StringIO(back), delimiter=";"))
    assert rows[0] == ["No", "Wording", "Kind", "Top €", "Lit"]
    assert rows[1][0] == "7" and rows[1][4] == "ON" and "," in rows[1][3]
    assert rows[2] == ["8", "window jobs", "Exact", "0,10", "OFF"]
    fresh = text.replace("7;sash window repair;Exact;0,40;ON", ";".join(rows[1])).replace(
        "8;window jobs;Exact;0,10;ON", ";".join(rows[2])
    )
    reply = bring(client, plan, fresh, "account/reply").json()
    assert (reply["changed"], reply["same"]) == (0, 2)
    # the next file of these headings is read as this one was
    other = client.post(f"{plan}/copy", json={"name": "Copy"}).json()["id"]
    assert client.get(f"/api/plans/{other}/hand-over/account").json() is None
    assert bring(client, f"/api/plans/{other}", text).json()["columns"] == columns


SVG = b'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 4 4"><path d="M0 0h4v4z"/></svg>'


def test_the_clients_sheet_bears_the_style_and_logo_that_were_chosen(client, plan):
    page = client.get(f"{plan}/report.html")
    assert page.headers["content-security-policy"].startswith("default-src 'none'")
    assert "To buy now" in page.text and "sash cord replacement" in page.text
    style = client.get(plan).json()["summary"]["own"]["report_style"]
    chosen = style | {"sections": ["promise", "steps"], "letterhead": ["Ann"], "note": "Hello",
                      "marks": "1.234,5", "sign_first": False}  # fmt: skip
    assert client.patch(f"{plan}/own", json={"report_style": chosen}).status_code == 200
    logo = {"file": ("l.svg", SVG, "image/svg+xml")}
    assert client.post(f"{plan}/report/logo", files=logo).status_code == 200
    page = client.get(f"{plan}/report.html").text
    assert "To buy now" not in page and "Ann" in page and "Hello" in page
    assert "60,00 £" in page and "data:image/svg+xml;base64," in page
    bad = {"file": ("l.svg", b"<svg><script/></svg>", "image/svg+xml")}
    assert client.post(f"{plan}/report/logo", files=bad).status_code == 422
    # a copy, and a file of the plan, have it all
    copy = client.post(f"{plan}/copy", json={"name": "Copy"}).json()["id"]
    assert "base64," in client.get(f"/api/plans/{copy}/report.html").text
    client.post(f"{plan}/report/logo/remove")
    assert "base64," not in client.get(f"{plan}/report.html").text
    client.post(f"{plan}/undo")
    assert "base64," in client.get(f"{plan}/report.html").text


@pytest.mark.parametrize(
    ("kind", "starts"),
    [("pdf", b"%PDF"), ("html", b"<!doctype"), ("xlsx", b"PK"), ("csv", b"\xef\xbb\xbf")],
)
def test_the_clients_sheet_is_taken_in_every_kind(client, plan, kind, starts):
    other = client.post(f"{plan}/versions", json={}).json()["id"]
    answer = client.get(f"{plan}/report/{kind}?with={other}")
    assert answer.content.startswith(starts)
    assert f".{kind}" in answer.headers["content-disposition"]
    assert client.get(f"{plan}/report/docx").status_code == 422


def test_the_rhythm_is_a_calendar(client, plan):
    assert client.get(f"{plan}/rhythm.ics").text.startswith("BEGIN:VCALENDAR")


def test_a_style_is_used_again_in_another_plan_and_its_note_stays(client, plan):
    style = {"letterhead": ["Reed & Daughters", "Calder Stoke"], "marks": "1.234,5", "note": "Ours"}
    client.patch(f"{plan}/own", json={"report_style": style}).raise_for_status()
    logo = {"file": ("l.svg", SVG, "image/svg+xml")}
    client.post(f"{plan}/report/logo", files=logo).raise_for_status()
    other = f"/api/plans/{client.post('/api/plans', json={'name': 'Second'}).json()['id']}"
    of = int(plan.rsplit("/", 1)[1])
    client.post(f"{other}/report/style", json={"of": of}).raise_for_status()
    page = client.get(f"{other}/report.html").text
    assert "Reed &amp; Daughters" in page and "data:image" in page and "Ours" not in page
    client.post(f"{other}/undo").raise_for_status()
    assert "Reed" not in client.get(f"{other}/report.html").text
    assert client.post(f"{other}/report/style", json={"of": 999}).status_code == 404


def test_a_language_that_there_are_no_words_of_is_english(client, plan):
    style = client.get(plan).json()["summary"]["own"]["report_style"]
    client.patch(
        f"{plan}/own", json={"report_style": style | {"language": "¤x"}}
    ).raise_for_status()
    assert client.get(f"{plan}/report/pdf").content.startswith(b"%PDF")
    assert 'lang="en"' in client.get(f"{plan}/report.html").text
