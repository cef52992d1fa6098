"""Ad groups through the API: seen, named, filled, arranged, and put back."""

import pytest

from milkwort.api.arrange_schemas import ArrangeView
from tests.api.conftest import ids_of


def arranged(client, plan) -> ArrangeView:
    return ArrangeView.model_validate(client.get(f"{plan}/arrange").json())


def groups_of(client, plan) -> dict[str, str]:
    """Each keyword's group by name."""
    sheet = client.get(plan).json()["sheet"]
    return dict(zip(sheet["texts"]["text"], sheet["texts"]["group"], strict=True))


def test_groups_say_what_they_hold_and_do(client, plan):
    groups = arranged(client, plan).groups
    at = groups.name.index("Repair")
    assert (groups.keywords[at], groups.kept[at]) == (2, 2)
    assert {w.word: w.keywords for w in groups.words[at]}["sash"] == 2
    purse = client.get(plan).json()["frame"]["purse"]
    assert sum(filter(None, groups.spend)) == pytest.approx(purse["spend"], rel=1e-5)
    assert sum(groups.running) == purse["running"]


def test_keywords_are_moved_to_a_new_group_and_undo_puts_them_back(client, plan):
    ids = ids_of(client, plan)
    before = groups_of(client, plan)
    answer = client.post(
        f"{plan}/arrange/move", json={"ids": [ids["sash cord replacement"]], "group": " Cords  "}
    )
    assert answer.status_code == 200 and answer.json()["did"] == "move 1 keyword to Cords"
    assert groups_of(client, plan)["sash cord replacement"] == "Cords"
    client.post(f"{plan}/undo")
    assert groups_of(client, plan) == before
    assert "Cords" not in arranged(client, plan).groups.name


def test_a_group_left_empty_goes_unless_it_leads_somewhere(client, plan):
    ids = ids_of(client, plan)
    paint = dict(
        zip(arranged(client, plan).groups.name, arranged(client, plan).groups.id, strict=True)
    )
    client.post(f"{plan}/arrange/groups/{paint['Repair']}", json={"page": "/repair"})
    everything = {"ids": list(ids.values()), "group": "All of it"}
    client.post(f"{plan}/arrange/move", json=everything)
    left = arranged(client, plan).groups
    assert sorted(left.name) == ["All of it", "Repair"]
    at = left.name.index("Repair")
    assert (left.page[at], left.keywords[at], left.spend[at]) == ("/repair", 0, 0.0)


def test_a_group_is_named_anew_and_its_negatives_follow(client, plan):
    groups = arranged(client, plan).groups
    repair = groups.id[groups.name.index("Repair")]
    block = {"text": "kit", "match": "phrase", "level": "group", "owner": "Repair"}
    assert client.post(f"{plan}/sift/block", json=block).status_code == 200
    named = client.post(f"{plan}/arrange/groups/{repair}", json={"name": "Mending"})
    assert named.status_code == 200
    assert "Mending" in arranged(client, plan).groups.name
    assert groups_of(client, plan)["sash window repair"] == "Mending"
    negatives = client.get(f"{plan}/negatives").json()
    assert [n["text"] for n in negatives if n["level"] == "group"] == ["kit"]


@pytest.mark.parametrize("name", ["", "   ", "Paint", "x" * 121])
def test_a_name_that_is_empty_long_or_taken_is_refused_in_words(client, plan, name):
    groups = arranged(client, plan).groups
    repair = groups.id[groups.name.index("Repair")]
    answer = client.post(f"{plan}/arrange/groups/{repair}", json={"name": name})
    assert answer.status_code == 422
    assert "a name of 1 to 120 characters" in answer.json()["error"]["message"]
    assert "Repair" in arranged(client, plan).groups.name


def test_a_group_or_keyword_that_is_not_there_is_said(client, plan):
    assert client.post(f"{plan}/arrange/groups/999", json={"page": "/x"}).status_code == 404
    assert client.post(f"{plan}/arrange/move", json={"ids": [999], "group": "A"}).status_code == 404


def test_each_ready_structure_says_what_it_would_do_and_does_it(client, plan):
    offered = client.get(f"{plan}/arrange/structures").json()
    assert {item["kind"] for item in offered} == {"theme", "match", "intent", "offer", "aim"}
    before = client.get(plan).json()["sheet"]["texts"]
    for item in offered:
        done = client.post(f"{plan}/arrange/structure", json={"kind": item["kind"]})
        assert done.status_code == 200, item
        now = {i["kind"]: i for i in client.get(f"{plan}/arrange/structures").json()}
        assert now[item["kind"]]["moves"] == 0 and now[item["kind"]]["adds"] == 0
        view = arranged(client, plan).groups
        used = {c for c, kept in zip(view.campaign, view.kept, strict=True) if kept}
        assert used == set(item["campaigns"])
        client.post(f"{plan}/undo")
        assert client.get(plan).json()["sheet"]["texts"] == before


def test_by_match_type_every_exact_keyword_gets_its_phrase(client, plan):
    client.post(f"{plan}/arrange/structure", json={"kind": "match"})
    texts = client.get(plan).json()["sheet"]["texts"]
    kept = {
        (text, match)
        for text, match, call in zip(texts["text"], texts["match"], texts["call"], strict=True)
        if call == "keep"
    }
    assert kept == {(t, m) for t in ("sash window repair", "sash cord replacement")
                    for m in ("exact", "phrase")}  # fmt: skip
    assert len(set(groups_of(client, plan).values())) >= 2


def test_a_negative_that_stops_a_kept_keyword_is_a_conflict(client, plan):
    assert arranged(client, plan).conflicts == []
    client.post(f"{plan}/negatives", json={"texts": ["cord"], "match": "phrase"})
    (conflict,) = arranged(client, plan).conflicts
    assert conflict.kind == "negative_stops_kept" and conflict.negative == "cord"
    assert conflict.texts == ["sash cord replacement"] and conflict.customers > 0


def test_a_blank_plan_has_nothing_to_arrange_and_says_so(client):
    made = client.post("/api/plans", json={"name": "Blank"}).json()
    address = f"/api/plans/{made['id']}"
    view = arranged(client, address)
    assert view.groups.id == [] and view.conflicts == []
    offered = client.get(f"{address}/arrange/structures").json()
    assert {(item["groups"], item["moves"], item["adds"]) for item in offered} == {(0, 0, 0)}
    assert client.post(f"{address}/arrange/structure", json={"kind": "match"}).status_code == 200
