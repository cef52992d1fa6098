"""Texts that break programs through every field of the screens, and out in every file."""

import io
import json
import zipfile

import openpyxl
import pytest
from fastapi.testclient import TestClient

from tests.depth import DEEP
from tests.naughty import TEXTS as ALL

LONG = 120
TEXTS = ALL if DEEP else ALL[::3]


def asked(client: TestClient, path: str, body: dict, method: str = "POST") -> dict | None:
    """Ask for a change: what came of it, or None where it was refused in words."""
    answer = client.request(method, path, json=body)
    if answer.status_code == 422:
        assert answer.json()["error"]["message"]
        return None
    assert answer.status_code in (200, 201), (body, answer.text)
    return answer.json()


@pytest.fixture
def full(client: TestClient, plan: str) -> str:
    """The plan with every text wherever a person can type one; what was refused was said."""
    keywords = client.get(plan).json()["sheet"]["texts"]["id"]
    taken = 0
    for number, text in enumerate(TEXTS):
        keyword = {"ids": [keywords[number % len(keywords)]]}
        done = [
            asked(client, f"{plan}/brief", {"places": [text]}, "PATCH"),
            asked(client, f"{plan}/brief", {"offer_name": text}, "PATCH"),
            asked(client, f"{plan}/calls", keyword | {"call": "keep", "reason": text}),
            asked(client, f"{plan}/keywords/edit", keyword | {"note": text}),
            asked(client, f"{plan}/arrange/move", keyword | {"group": text[:LONG]}),
            asked(client, f"{plan}/arrange/campaigns", {"name": text[:LONG]}),
            asked(client, f"{plan}/arrange/negatives",
                  {"items": [{"text": text, "match": "exact"}]}),
            asked(client, f"{plan}/gather/page", {"content": f"<h1>{text}</h1>"}),
        ]  # fmt: skip
        taken += sum(one is not None for one in done)
        tray = asked(client, f"{plan}/gather/text", {"text": text, "name": text[:LONG]})
        if tray and tray.get("key"):
            asked(client, f"{plan}/gather/{tray['key']}/take", {})
    groups = client.get(f"{plan}/arrange").json()["groups"]["id"]
    for text, group in zip(TEXTS, groups, strict=False):
        body = {"group_id": group, "headlines": [text[:30]], "descriptions": [text[:50]]}
        taken += asked(client, f"{plan}/arrange/ads", body) is not None
    assert taken > 4 * len(TEXTS)
    return plan


def test_every_text_is_taken_as_it_is_or_refused_and_leaves_in_every_file(client, full):
    every_view_and_file(client, full)
    the_plans_own_file(client, full)
    the_upload_sheets(client, full)


def every_view_and_file(client, full):
    assert client.patch(f"{full}/brief", json={"monthly_spend": 60}).status_code == 200
    for view in ("", "/arrange", "/arrange/ads", "/arrange/negatives",
                 "/arrange/pages", "/hand-over", "/year"):  # fmt: skip
        answer = client.get(f"{full}{view}")
        assert answer.status_code == 200, (view, answer.text[:300])
    for kind in ("html", "pdf", "xlsx", "csv"):
        answer = client.get(f"{full}/report/{kind}")
        assert answer.status_code == 200, (kind, answer.text[:300])
        if kind == "html":
            assert "<script>alert" not in answer.text
        if kind == "xlsx":
            book = openpyxl.load_workbook(io.BytesIO(answer.content))
            cells = (c for page in book for row in page.iter_rows() for c in row)
            assert all(cell.data_type != "f" for cell in cells)


def the_plans_own_file(client, full):
    made = client.post(f"{full}/hand-over", json={"kind": "json"}).json()["made"]
    content = client.get(f"{full}/hand-over/{made['id']}/file").content
    loaded = client.post("/api/plans/load", files={"file": ("p.json", content)})
    assert loaded.status_code == 201, loaded.text
    twin = f"/api/plans/{loaded.json()['id']}"
    again = client.post(f"{twin}/hand-over", json={"kind": "json"}).json()["made"]
    back = json.loads(client.get(f"{twin}/hand-over/{again['id']}/file").content)
    for name, value in json.loads(content).items():
        if name != "client":
            assert back[name] == value, name


def the_upload_sheets(client, full):
    answer = client.post(f"{full}/hand-over", json={"kind": "xlsx"})
    assert answer.status_code == 201, answer.text
    made = answer.json()["made"]
    content = client.get(f"{full}/hand-over/{made['id']}/file").content
    names = zipfile.ZipFile(io.BytesIO(content)).namelist() if content[:2] == b"PK" else []
    assert names
    book = openpyxl.load_workbook(io.BytesIO(content))
    texts = [c.value for page in book for row in page.iter_rows() for c in row]
    assert not [t for t in texts if isinstance(t, str) and t.lstrip(" ")[:1] in ("=", "+", "@")]
