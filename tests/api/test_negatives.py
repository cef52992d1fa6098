"""Negatives of Arrange: what each does, what to block next, and none that hurts unasked."""

import pytest

from tests.api.conftest import ids_of


@pytest.fixture
def sheet(client, plan):
    """Return the plan's address, with one keyword kept wide and one dropped beside it."""
    ids = ids_of(client, plan)
    wide = ids["windows"]
    client.post(
        f"{plan}/keywords/edit",
        json={"ids": [wide], "match": "broad", "cpc_low": 0.3, "cpc_high": 0.9, "volume": 500},
    )
    client.post(f"{plan}/calls", json={"ids": [wide], "call": "keep"})
    return plan


def view(client, plan):
    answer = client.get(f"{plan}/arrange/negatives")
    assert answer.status_code == 200, answer.text
    return answer.json()


def read(client, plan, text, **more):
    answer = client.post(f"{plan}/arrange/negatives/read", json={"text": text, **more})
    assert answer.status_code == 200, answer.text
    return answer.json()["lines"]


def add(client, plan, *items, **more):
    body = {"items": [{"text": t, "match": m} for t, m in items], **more}
    return client.post(f"{plan}/arrange/negatives", json=body)


def test_negatives_leave_a_file_as_lines_that_are_then_read(client, plan):
    sheet = "negative;match\n'=jobs;phrase\n free  quote ;exact\n;\n".encode("utf-16")
    files = {"file": ("negatives.csv", sheet)}
    answer = client.post(f"{plan}/arrange/negatives/file", files=files)
    assert answer.status_code == 200, answer.text
    assert answer.json()["text"].splitlines()[1:] == ["=jobs\tphrase", "free quote\texact"]
    lines = read(client, plan, answer.json()["text"])
    assert [(n["text"], n["match"]) for n in lines if not n["refused"]][-1] == (
        "free quote", "exact",
    )  # fmt: skip


def test_each_pasted_line_says_what_it_would_do_and_a_bad_one_costs_no_other(client, sheet):
    pasted = 'negative\n-jobs\n"free quote"\n[old windows]\nwindows, broad\n !! \ncord; near\n\n'
    lines = read(client, sheet, pasted)
    said = {one["line"]: one for one in lines}
    assert [(o["text"], o["match"]) for o in lines[:4]] == [
        ("jobs", "phrase"), ("free quote", "phrase"), ("old windows", "exact"),
        ("windows", "broad"),
    ]  # fmt: skip
    assert "at least one word" in said[6]["refused"]
    assert 'expected one of exact, phrase, broad, got "near"' in said[7]["refused"]
    assert said[5]["hurt"] >= 1 and "windows" in said[5]["hurts"]
    assert said[5]["customers"] > 0
    assert said[2]["hurt"] == 0 and said[2]["narrower"] is None


def test_one_that_stops_what_is_kept_needs_a_note(client, sheet):
    before = len(view(client, sheet)["negatives"])
    refused = add(client, sheet, ("jobs", "phrase"), ("windows", "exact"))
    assert refused.status_code == 422
    assert "it stops windows" in refused.json()["error"]["message"]
    assert len(view(client, sheet)["negatives"]) == before
    assert add(client, sheet, ("windows", "exact"), note="a rival's name").status_code == 200
    (last,) = [n for n in view(client, sheet)["negatives"] if n["text"] == "windows"]
    assert last["note"] == "a rival's name" and last["hurt"] == 1 and last["by"] == "hand"
    client.post(f"{sheet}/undo")
    assert len(view(client, sheet)["negatives"]) == before


def test_all_that_is_proposed_can_be_taken_at_once_and_nothing_of_it_hurts(client, sheet):
    ids = ids_of(client, sheet)
    texts = [t for t in ids if "windows" in t and t != "windows"]
    client.post(f"{sheet}/calls", json={"ids": [ids[t] for t in texts], "call": "drop"})
    found = view(client, sheet)["to_block"]
    assert found and found == sorted(found, key=lambda o: (-o["saves"], o["text"]))
    taken = add(client, sheet, *((o["text"], o["match"]) for o in found), by="advice")
    assert taken.status_code == 200, taken.text
    after = view(client, sheet)
    assert after["to_block"] == []
    mine = [n for n in after["negatives"] if n["by"] == "advice"]
    assert len(mine) == len(found) and all(n["hurt"] == 0 and not n["sold"] for n in mine)
    assert sum(n["saves"] for n in mine) == pytest.approx(sum(o["saves"] for o in found), rel=0.5)


def test_a_negative_of_a_group_says_where_it_acts_and_follows_its_name(client, sheet):
    group = client.get(f"{sheet}/arrange").json()["groups"]
    at, name = group["id"][0], group["name"][0]
    assert add(client, sheet, ("oddword", "phrase"), group_id=at).status_code == 200
    (mine,) = [n for n in view(client, sheet)["negatives"] if n["text"] == "oddword"]
    assert (mine["level"], mine["where"]) == ("group", name)
    client.post(f"{sheet}/arrange/groups/{at}", json={"name": "Another name"})
    (mine,) = [n for n in view(client, sheet)["negatives"] if n["text"] == "oddword"]
    assert mine["where"] == "Another name"
    assert add(client, sheet, ("x", "phrase"), group_id=10_000_000).status_code == 404


def test_too_many_lines_are_refused_in_a_sentence(client, sheet):
    answer = client.post(
        f"{sheet}/arrange/negatives/read", json={"text": "\n".join(["word"] * 10_001)}
    )
    assert answer.status_code == 413
    assert "expected at most 10,000 lines, got 10,001" in answer.json()["error"]["message"]


def test_negatives_that_left_come_back_to_where_they_acted(client, plan):
    view = client.get(f"{plan}/arrange").json()
    campaign, groups = view["campaigns"][0], view["groups"]
    at = groups["name"].index("Paint")
    for text, where in (
        ("drawing", {}), ("brush", {"campaign_id": campaign["id"]}),
        ("tester", {"group_id": groups["id"][at]}),
    ):  # fmt: skip
        body = {"items": [{"text": text, "match": "phrase"}], **where}
        assert client.post(f"{plan}/arrange/negatives", json=body).status_code == 200
    kept = {
        (n["text"], n["match"], n["level"], n["where"])
        for n in client.get(f"{plan}/arrange/negatives").json()["negatives"]
    }
    sheet = client.get(f"{plan}/hand-over/look?kind=csv&sheet=negatives").content
    rows = "".join(
        f"{text},{match},{where or 'the whole plan'}\r\n" for text, match, _, where in sorted(kept)
    )
    list_that_left = f"negative,match,acts in\r\n{rows}".encode()
    for content in (sheet, list_that_left):
        file = {"file": ("negatives.csv", content)}
        text = client.post(f"{plan}/arrange/negatives/file", files=file).json()["text"]
        # what is said of all does not reach those that say where they act
        body = {"text": text, "group_id": groups["id"][0]}
        lines = client.post(f"{plan}/arrange/negatives/read", json=body).json()["lines"]
        if content is sheet:  # in it an empty cell is what says *everywhere*
            lines = client.post(f"{plan}/arrange/negatives/read", json={"text": text}).json()
            lines = lines["lines"]
        assert all(line["refused"] == "" for line in lines)
        levels = {(True, False): "campaign", (False, True): "group", (False, False): "plan"}
        found = {
            (n["text"], n["match"],
             levels[n["campaign_id"] is not None, n["group_id"] is not None], n["where"])
            for n in lines
        }  # fmt: skip
        assert found == kept
        items = [{k: n[k] for k in ("text", "match", "campaign_id", "group_id")} for n in lines]
        ids = [n["id"] for n in client.get(f"{plan}/negatives").json()]
        client.post(f"{plan}/negatives/remove", json={"ids": ids})
        client.post(f"{plan}/arrange/negatives", json={"items": items})
        again = client.get(f"{plan}/arrange/negatives").json()["negatives"]
        assert {(n["text"], n["match"], n["level"], n["where"]) for n in again} == kept


def test_a_place_that_the_plan_has_not_is_refused_and_a_firms_everyday_name_asked_about(
    client, plan
):
    for text in ("jobs", ""):
        nowhere = {"text": text, "group_id": 999_999}
        assert client.post(f"{plan}/arrange/negatives/read", json=nowhere).status_code == 404
    body = {"text": "jobs\tphrase\tNowhere\ncord\texact\n"}
    lines = client.post(f"{plan}/arrange/negatives/read", json=body).json()["lines"]
    assert "a campaign or group of this plan" in lines[0]["refused"]
    assert lines[1]["refused"] == "" and not lines[1]["firm"]
    kind = {"word": "cord", "kind": "rival"}
    assert client.post(f"{plan}/sift/word-kind", json=kind).status_code == 200
    lines = client.post(f"{plan}/arrange/negatives/read", json=body).json()["lines"]
    assert lines[1]["firm"] and lines[1]["hurt"] == 0
