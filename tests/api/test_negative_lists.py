"""Named negative lists: of a client or of all, used as they were when taken."""

import pytest


def post(client, path, body=None, expected=200):
    answer = client.post(path, json={} if body is None else body)
    assert answer.status_code == expected, answer.text
    return answer.json()


def lists_of(client, plan):
    answer = client.get(f"{plan}/arrange/lists")
    assert answer.status_code == 200, answer.text
    return {one["name"]: one for one in answer.json()["lists"]}


@pytest.fixture
def jobs(client, plan):
    rows = [{"text": "jobs", "match": "phrase"}, {"text": "jobs", "match": "phrase"}]
    post(client, f"{plan}/arrange/lists", {"name": "Jobs", "rows": rows})
    return lists_of(client, plan)["Jobs"]["id"]


def test_a_list_acts_once_it_is_used_and_a_newer_edition_when_it_is_taken(client, plan, jobs):
    one = lists_of(client, plan)["Jobs"]
    assert one["rows"] == [{"text": "jobs", "match": "phrase"}] and one["pinned_id"] is None
    before = client.get(plan).json()["summary"]["purse"]["customers"]
    assert post(client, f"{plan}/arrange/lists/{jobs}/use")["did"] == "use the list Jobs"
    rows = [{"text": "jobs", "match": "phrase"}, {"text": "cord", "match": "phrase"}]
    post(client, f"{plan}/arrange/lists/{jobs}", {"rows": rows})
    one = lists_of(client, plan)["Jobs"]
    assert (one["edition"], one["pinned_edition"], one["newer"]) == (2, 1, True)
    assert one["hurts"] == ["sash cord replacement"]
    assert client.get(plan).json()["summary"]["purse"]["customers"] == pytest.approx(before)
    post(client, f"{plan}/arrange/lists/{jobs}/use")
    assert not lists_of(client, plan)["Jobs"]["newer"]
    assert client.get(plan).json()["summary"]["purse"]["customers"] < before
    view = client.get(f"{plan}/arrange").json()
    (conflict,) = [c for c in view["conflicts"] if c["kind"] == "negative_stops_kept"]
    assert (conflict["negative"], conflict["negative_id"]) == ("cord", None)
    assert (conflict["pinned"], conflict["pinned_id"]) == ("Jobs", one["pinned_id"])
    assert client.get(f"{plan}/arrange/negatives").status_code == 200
    client.post(f"{plan}/undo")
    assert lists_of(client, plan)["Jobs"]["newer"]


def test_a_list_that_goes_stays_with_the_plans_that_took_it(client, plan, jobs):
    post(client, f"{plan}/arrange/lists/{jobs}/use")
    post(client, f"{plan}/arrange/lists/{jobs}/remove")
    one = lists_of(client, plan)["Jobs"]
    assert one["id"] is None and one["pinned_edition"] == 1
    post(client, f"{plan}/arrange/lists/pinned/{one['pinned_id']}/leave")
    assert lists_of(client, plan) == {}
    post(client, f"{plan}/arrange/lists/{jobs}/use", expected=404)
    post(client, f"{plan}/arrange/lists/pinned/999/leave", expected=404)


def test_a_list_of_all_clients_serves_another_client_and_one_of_a_client_does_not(client, plan):
    free = {"name": "Free", "rows": [{"text": "free", "match": "phrase"}], "of_client": False}
    post(client, f"{plan}/arrange/lists", free)
    post(client, f"{plan}/arrange/lists", {"name": "Ours", "rows": []})
    other = post(client, "/api/plans", {"name": "Other", "start": "blank"}, 201)["id"]
    theirs = lists_of(client, f"/api/plans/{other}")
    assert list(theirs) == ["Free"]
    post(client, f"/api/plans/{other}/arrange/lists/{theirs['Free']['id']}/use")
    assert lists_of(client, plan)["Free"]["pinned_id"] is None
    ours = lists_of(client, plan)["Ours"]["id"]
    post(client, f"/api/plans/{other}/arrange/lists/{ours}", {"name": "Theirs"}, 404)


def test_a_plans_file_whose_list_holds_no_word_is_refused(client, plan, jobs):
    post(client, f"{plan}/arrange/lists/{jobs}/use")
    made = post(client, f"{plan}/hand-over", {"kind": "json"}, 201)["made"]
    content = client.get(f"{plan}/hand-over/{made['id']}/file").text
    for text, code in ((content, 201), (content.replace('"text": "jobs"', '"text": "!!"'), 422)):
        answer = client.post("/api/plans/load", files={"file": ("plan.json", text.encode())})
        assert answer.status_code == code, answer.text
    assert "texts with at least one word" in answer.text


def test_names_and_texts_of_lists_are_checked(client, plan, jobs):
    for body in ({"name": "Jobs", "rows": []}, {"name": " ", "rows": []},
                 {"name": "x", "rows": [{"text": "!!", "match": "phrase"}]}):  # fmt: skip
        post(client, f"{plan}/arrange/lists", body, 422)
    assert list(lists_of(client, plan)) == ["Jobs"]
