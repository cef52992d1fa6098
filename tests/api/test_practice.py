"""A plan handed over to the practice market, a month lived, the envelope opened."""

from __future__ import annotations

import csv
import io
import time

import pytest
from fastapi.testclient import TestClient

from milkwort.platforms.http import HttpPlatform
from milkwort.platforms.platform import OpenAccount, PlatformError
from milkwort.store.practice import practice_of


@pytest.fixture
def client(client: TestClient) -> TestClient:
    practice = client.app.state.workspace.practice  # type: ignore[attr-defined]
    practice.connect = lambda: HttpPlatform("http://127.0.0.1:8710/practice", client)  # type: ignore[arg-type]
    return client


@pytest.fixture
def sample(client: TestClient) -> str:
    made = client.post("/api/plans", json={"name": "Eastmere", "start": "sample"}).json()
    return f"/api/plans/{made['id']}"


def settled(client: TestClient, plan: str) -> dict:
    for _ in range(600):
        view = client.get(f"{plan}/practice").json()
        if view["account"]["clock"] != "running":
            return view
        time.sleep(0.05)
    raise AssertionError("days pass for ever")


def opened(client: TestClient, plan: str, **how) -> dict:
    answer = client.post(f"{plan}/practice", json={"level": "usual", "seed": 7} | how)
    assert answer.status_code == 201, answer.text
    return answer.json()


def test_without_an_account_the_view_says_so_and_nothing_can_be_sent(client, plan):
    view = client.get(f"{plan}/practice").json()
    assert view == {"account": None, "sending": None, "days": [], "waits": 0}
    for path in ("send", "go-on", "clock", "envelope"):
        answer = client.post(f"{plan}/practice/{path}", json={"days": 1} if path == "clock" else {})
        assert answer.status_code == 404
        assert "No practice account" in answer.json()["error"]["message"]


def test_a_plan_is_sent_read_back_and_stands_as_it_should(client, sample):
    assert opened(client, sample)["waits"] > 150
    view = client.post(f"{sample}/practice/send", json={}).json()
    assert view["sending"]["state"] == "done"
    # one ad of the sample is too long: it alone is refused, and said not to stand
    (refused,) = [row for row in view["sending"]["replies"] if row["state"] == "refused"]
    assert (refused["sheet"], refused["code"]) == ("ads", "too_long")
    assert [one["ref"] for one in view["sending"]["differs"]] == [refused["ref"]]
    assert view["waits"] == 1
    sheets = client.get(f"{sample}/hand-over").json()["counts"]
    assert view["account"]["live"] == sheets | {"ads": sheets["ads"] - 1}
    # it is a hand-over like any other, and runs
    (item,) = client.get(f"{sample}/hand-over").json()["sent"]
    assert item["status"] == "running"
    # from the day the market lives next
    assert item["runs_from"] == view["account"]["today"]
    # once more: only what does not stand as it should
    again = client.post(f"{sample}/practice/send", json={"only": "changed"}).json()
    assert [row["ref"] for row in again["sending"]["replies"]] == [refused["ref"]]


def test_what_is_refused_is_said_row_by_row_and_mended_by_sending_only_that(client, sample):
    opened(client, sample)
    with client.app.state.workspace.database.read() as session:
        held = practice_of(session, int(sample.split("/")[-1]))
    platform = client.app.state.workspace.practice.platform()
    platform.set_faults(OpenAccount(held.account, held.key), {"half_failed": True})
    view = client.post(f"{sample}/practice/send", json={}).json()
    refused = view["sending"]["refused"]
    assert refused > 50
    assert view["waits"] >= refused
    assert {row["state"] for row in view["sending"]["replies"][:refused]} == {"refused"}
    first = view["sending"]["replies"][0]
    assert (first["code"], first["message"][:4]) == ("try_again", "row ")
    for _ in range(4):
        view = client.post(f"{sample}/practice/send", json={"only": "changed"}).json()
        if view["waits"] == 1:
            break
    assert [row["code"] for row in view["sending"]["replies"][:1]] == ["too_long"]
    assert view["waits"] == 1


def test_a_change_of_the_plan_waits_until_it_is_sent(client, sample):
    opened(client, sample)
    client.post(f"{sample}/practice/send", json={})
    texts = client.get(sample).json()["sheet"]["texts"]
    client.post(f"{sample}/calls", json={"ids": texts["id"][:1], "call": "hold"})
    view = client.get(f"{sample}/practice").json()
    assert view["waits"] >= 2
    view = client.post(f"{sample}/practice/send", json={"only": "changed"}).json()
    assert view["waits"] == 1
    assert "removed" in {one["code"] for one in view["sending"]["replies"]}


def test_days_pass_results_come_and_the_envelope_shows_what_was_true(client, sample):
    opened(client, sample)
    client.post(f"{sample}/practice/send", json={})
    client.post(f"{sample}/practice/clock", json={"days": 30})
    view = settled(client, sample)
    assert len(view["days"]) == 30
    assert view["account"]["done"] == 30
    # no group of the sample without an ad is shown; those that have one bring clicks
    for level in ("day", "campaign", "group", "keyword", "term"):
        answer = client.get(f"{sample}/practice/results", params={"level": level})
        rows = list(csv.DictReader(io.StringIO(answer.content.decode("utf-8-sig"))))
        assert sum(int(row["clicks"]) for row in rows) == sum(d["clicks"] for d in view["days"])
    assert client.get(f"{sample}/practice/results", params={"level": "no"}).status_code == 422
    envelope = client.post(f"{sample}/practice/envelope").json()
    assert envelope["since"] == view["days"][0]["day"]
    assert envelope["hindsight"]["profit"] >= envelope["plan"]["profit"] - 1e-6
    assert len(envelope["keywords"]) > 100
    assert client.get(f"{sample}/practice").json()["account"]["envelope"] == envelope["opened"]


def test_a_sending_that_is_cut_short_goes_on_without_doing_anything_twice(
    client, sample, monkeypatch
):
    opened(client, sample)
    made = HttpPlatform.uploaded
    calls = []

    def cut(self, account, number):
        calls.append(number)
        if len(calls) == 3:
            raise PlatformError("The platform did not do it: it went away.")
        return made(self, account, number)

    monkeypatch.setattr(HttpPlatform, "uploaded", cut)
    view = client.post(f"{sample}/practice/send", json={}).json()
    assert view["sending"]["state"] == "cut short"
    assert "it went away" in view["sending"]["message"]
    assert view["sending"]["differs"] is None
    monkeypatch.setattr(HttpPlatform, "uploaded", made)
    view = client.post(f"{sample}/practice/go-on", json={}).json()
    assert (view["sending"]["state"], view["sending"]["refused"], view["waits"]) == ("done", 1, 1)
    assert client.post(f"{sample}/practice/go-on", json={}).status_code == 404
    assert len(client.get(f"{sample}/hand-over").json()["sent"]) == 1


def test_versions_share_an_account_and_a_copy_has_none(client, sample):
    opened(client, sample)
    version = client.post(f"{sample}/versions", json={"label": "cheaper", "reason": "why"}).json()
    shared = client.get(f"/api/plans/{version['id']}/practice").json()
    assert shared["account"]["seed"] == 7
    copy = client.post(f"{sample}/copy", json={"name": "Copy"})
    assert copy.status_code == 201, copy.text
    assert client.get(f"/api/plans/{copy.json()['id']}/practice").json()["account"] is None


def test_where_no_market_answers_that_is_said_in_a_sentence(client, sample, monkeypatch):
    from milkwort.platforms import http

    monkeypatch.setattr(http, "_ATTEMPTS", 1)
    client.app.state.workspace.practice.connect = lambda: HttpPlatform("http://127.0.0.1:9")
    answer = client.post(f"{sample}/practice", json={})
    assert answer.status_code == 422
    assert "nothing answers" in answer.json()["error"]["message"]


def test_taking_results_over_again_leaves_out_what_was_taken_before(client, sample):
    opened(client, sample)
    client.post(f"{sample}/practice/send", json={})
    for _ in range(2):
        client.post(f"{sample}/practice/clock", json={"days": 3})
        settled(client, sample)
        client.post(f"{sample}/results/practice").raise_for_status()
    view = client.get(f"{sample}/learn").json()
    assert [one["in_force"] for one in view["imports"]] == [True, True, False, False]
    assert len(view["days"]) == 6
    client.post(f"{sample}/undo")
    assert len(client.get(f"{sample}/learn").json()["days"]) == 3
