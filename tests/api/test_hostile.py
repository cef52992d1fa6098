"""Requests that would do harm: answered in a sentence, the plan unharmed."""

import json
from contextlib import contextmanager

import pytest
from sqlalchemy import event
from sqlalchemy import text as sql

from tests.api.conftest import ids_of

HALF = "sash \\ud83d repair"


def raw(client, method, path, body):
    """Send JSON as a browser never would: with escapes that stand for nothing."""
    return client.request(method, path, content=body, headers={"Content-Type": "application/json"})


@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("PATCH", "/brief", '{"places": ["%s"]}'),
        ("PATCH", "/brief", '{"other_places": ["%s"]}'),
        ("PATCH", "/brief", '{"more_offers": [{"name": "%s", "sale_value": 1, "gross_margin": 0.5,'
         ' "rate_low": 0.1, "rate_likely": 0.1, "rate_high": 0.1}]}'),
        ("PATCH", "/own", '{"quick_reasons": ["%s"]}'),
        ("POST", "/gather/crossing", '{"parts": [{"words": ["%s"]}]}'),
        ("POST", "/recipes", '{"name": "x", "parts": [{"words": ["%s"]}]}'),
        ("POST", "/negatives", '{"texts": ["%s"]}'),
        ("POST", "/sift/block", '{"text": "%s"}'),
        ("POST", "/sift/word-kind", '{"word": "%s", "kind": "helper"}'),
        ("POST", "/gather/text", '{"text": "%s", "name": "x"}'),
        ("POST", "/gather/almanac", '{"roots": ["%s"]}'),
        ("PATCH", "", '{"name": "%s"}'),
    ],
)  # fmt: skip
def test_half_a_character_is_refused_wherever_it_stands(client, plan, method, path, body):
    answer = raw(client, method, plan + path, body % HALF)
    assert answer.status_code == 422, answer.text
    assert "half of one" in answer.json()["error"]["message"]
    assert client.get(plan).status_code == 200


@pytest.mark.parametrize("number", ["NaN", "Infinity", "-Infinity", "1e308", "1e999"])
@pytest.mark.parametrize("field", ["sales_per_customer", "sale_value", "monthly_spend", "max_cpc"])
def test_a_figure_past_all_bounds_is_refused(client, plan, field, number):
    answer = raw(client, "PATCH", f"{plan}/brief", f'{{"{field}": {number}}}')
    assert answer.status_code == 422 and answer.json()["error"]["message"]
    assert client.get(plan).status_code == 200


@pytest.mark.parametrize("number", [2**63, 2**64 + 1, -(2**63) - 1])
def test_an_id_past_what_the_database_counts_is_not_found(client, plan, number):
    for path in (f"/api/plans/{number}", f"{plan}/keywords/{number}/workings",
                 f"{plan}/hand-over/{number}/file", f"/api/plans/{number}/events",
                 f"/api/plans/{number}/recipes", f"/api/plans/{number}/raw.json"):  # fmt: skip
        assert client.get(path).status_code == 404, path
    for path, body in (
        ("/keywords/remove", {"ids": [number]}), ("/negatives/remove", {"ids": [number]}),
        ("/sift/block", {"text": "x", "group_id": number}),
        ("/arrange/move", {"ids": [next(iter(ids_of(client, plan).values()))],
                           "group_id": number}),
    ):  # fmt: skip
        assert client.post(plan + path, json=body).status_code in (200, 404), path
    assert client.post("/api/plans", json={"name": "x", "client_id": number}).status_code == 404


@pytest.mark.parametrize("origin", ["http://[", "http://[::1", "//", "http://127.0.0.1:8710@x"])
def test_an_origin_that_is_none_changes_nothing(client, plan, origin):
    answer = client.patch(plan, json={"name": "x"}, headers={"Origin": origin})
    assert answer.status_code == 403


@pytest.mark.parametrize(
    "host", ["127.0.0.1:8710 ", "127.0.0.1:port", "127.0.0.1:8710@evil", "[::1", "localhost:123456"]
)
def test_a_host_is_read_strictly(client, host):
    assert client.get("/api/plans", headers={"Host": host}).status_code == 403


def test_every_answer_says_how_it_may_be_kept_and_read(client, plan):
    for path in ("/api/plans", plan, "/api/nowhere", "/api/plans/99", f"{plan}/raw.json"):
        answer = client.get(path)
        assert answer.headers["X-Content-Type-Options"] == "nosniff", path
        assert answer.headers["Cache-Control"] == "no-store", path
    refused = client.get("/api/plans", headers={"Host": "evil.test"})
    assert refused.headers["X-Content-Type-Options"] == "nosniff"


def test_a_method_that_is_not_there_says_which_are(client):
    answer = client.put("/api/plans")
    assert answer.status_code == 405 and "GET" in answer.headers["Allow"]


def test_a_body_that_grows_past_the_bound_without_saying_so_is_too_large(client, plan):
    def chunks():
        for _ in range(30):
            yield b"x" * 2**20

    answer = client.post(f"{plan}/gather/text", content=chunks(),
                         headers={"Content-Type": "application/json"})  # fmt: skip
    assert answer.status_code == 413 and answer.json()["error"]["code"] == "too_large"


def test_the_description_says_what_streams_and_files_are(client):
    paths = client.get("/api/openapi.json").json()["paths"]
    for path, kind in (
        ("/api/plans/{plan_id}/events", "text/event-stream"),
        ("/api/plans/{plan_id}/raw.json", "application/json"),
        ("/api/plans/{plan_id}/gather/{key}/refused.csv", "text/csv"),
        ("/api/plans/{plan_id}/hand-over/{hand_over_id}/file", "text/csv; charset=utf-8"),
    ):
        assert kind in paths[path]["get"]["responses"]["200"]["content"], path


def test_trays_are_bounded_in_sum(client, plan, monkeypatch):
    monkeypatch.setattr("milkwort.api.gather.trays._HEAVIEST", 250)
    text = "keyword\n" + "\n".join(f"keyword {n} of many" for n in range(100))
    keys = [
        client.post(f"{plan}/gather/text", json={"text": text, "name": f"{n}"}).json()["key"]
        for n in range(4)
    ]
    taken = [client.post(f"{plan}/gather/{key}/take").status_code for key in keys]
    assert taken[:2] == [404, 404] and taken[2] == 200


@pytest.mark.parametrize("name", ["", "x" * 121, " "])
def test_a_name_out_of_bounds_is_refused_in_words(client, plan, name):
    answer = client.patch(plan, json={"name": name})
    assert answer.status_code == 422 and answer.json()["error"]["message"]


def test_the_longest_of_everything_is_taken(client, plan):
    text = json.dumps({"text": "keyword\n" + "x" * 990, "name": "n" * 120})
    assert raw(client, "POST", f"{plan}/gather/text", text).status_code == 200


def test_a_disk_that_is_full_is_said_and_nothing_is_kept_of_the_change(client, plan):
    work = client.app.state.workspace
    before = client.get(plan).json()["summary"]["brief"]["name"]
    with only_so_large(work.database):
        text = "keyword\n" + "\n".join(f"keyword {n} of very many words" for n in range(3000))
        answer = client.post(f"{plan}/gather/text", json={"text": text, "name": "x"})
        taken = client.post(f"{plan}/gather/{answer.json()['key']}/take")
    assert taken.status_code == 507 and "disk is full" in taken.json()["error"]["message"]
    assert client.patch(plan, json={"name": "Other"}).status_code == 200
    work.forget(1)
    now = client.get(plan).json()
    assert len(now["sheet"]["texts"]["id"]) == 6 and before != "Other"


@contextmanager
def only_so_large(database):
    """Let the file not grow any more, as on a disk that is full."""
    with database.read() as session:
        pages = session.scalar(sql("pragma page_count"))
    limit = f"pragma max_page_count = {pages + 2}"

    def full(connection, _record, _proxy):
        connection.cursor().execute(limit)

    event.listen(database.engine, "checkout", full)
    try:
        yield
    finally:
        event.remove(database.engine, "checkout", full)
        event.listen(database.engine, "checkout", _roomy)


def _roomy(connection, _record, _proxy):
    connection.cursor().execute("pragma max_page_count = 1073741823")


def test_what_a_list_holds_keeps_its_defaults(client, plan):
    sent = {"house_rules": [{"when": [{"field": "words", "least": 1}], "call": "hold"}]}
    assert client.patch(f"{plan}/own", json=sent).status_code == 200
    assert client.get(f"{plan}/sift/rules").json()["rules"][0]["ids"]
    offer = {"name": "Shutters", "sale_value": 90, "gross_margin": 0.4}
    answer = client.patch(f"{plan}/brief", json={"more_offers": [offer]})
    assert answer.status_code in (200, 422), answer.text
    assert client.get(plan).status_code == 200
