"""Groups split, named by a rule; a scouting campaign in one step; each undone in one."""

import pytest

from tests.api.conftest import ids_of


def post(client, path, body, expected=200):
    answer = client.post(path, json=body)
    assert answer.status_code == expected, answer.text
    return answer.json()


@pytest.fixture
def groups(client, plan):
    view = client.get(f"{plan}/arrange").json()["groups"]
    return dict(zip(view["name"], view["id"], strict=True))


def names(client, plan):
    return client.get(f"{plan}/arrange").json()["groups"]["name"]


def group_of(client, plan, text):
    texts = client.get(plan).json()["sheet"]["texts"]
    return texts["group"][texts["text"].index(text)]


def test_a_group_is_split_and_put_back(client, plan, groups):
    path = f"{plan}/arrange/groups/{groups['Repair']}/split"
    assert post(client, path, {"by": "word", "word": "cords"})["did"] == "split Repair by word"
    assert group_of(client, plan, "sash cord replacement") == "Repair cords"
    assert group_of(client, plan, "sash window repair") == "Repair"
    client.post(f"{plan}/undo")
    assert "Repair cords" not in names(client, plan)
    post(client, path, {"by": "match"}, 422)
    post(client, f"{plan}/arrange/groups/999/split", {"by": "match"}, 404)


def test_names_by_a_rule_are_looked_at_first_and_clashes_keep_theirs(client, plan, groups):
    rule = {"parts": ["note", "name", "match", "month"], "separator": "_", "note": "EM"}
    look = post(client, f"{plan}/arrange/names/look", rule)
    after = {one["before"]: one["after"] for one in look["names"]}
    assert after["Repair"].startswith("EM_Repair_exact_20") and look["changes"] == 3
    assert sorted(names(client, plan)) == ["General", "Paint", "Repair"]
    post(client, f"{plan}/arrange/names", rule)
    assert all(name.startswith("EM_") for name in names(client, plan))
    client.post(f"{plan}/undo")
    clash = {"parts": ["note"], "note": "same", "group_ids": [groups["Repair"], groups["Paint"]]}
    look = post(client, f"{plan}/arrange/names/look", clash)
    assert all("another group" in one["refused"] for one in look["names"])
    assert look["changes"] == 0
    post(client, f"{plan}/arrange/names", clash, 422)
    one = {**clash, "group_ids": [groups["Repair"]]}
    assert post(client, f"{plan}/arrange/names", one)["did"] == "name 1 group by a rule"
    assert sorted(names(client, plan)) == ["General", "Paint", "same"]


def test_a_rule_may_hand_a_name_from_one_group_to_another(client, plan, groups):
    for old, new in (("Paint", "EM Repair"), ("General", "EM EM Repair")):
        post(client, f"{plan}/arrange/groups/{groups[old]}", {"name": new})
    rule = {"parts": ["note", "name"], "separator": " ", "note": "EM"}
    post(client, f"{plan}/arrange/names", rule)
    assert sorted(names(client, plan)) == ["EM EM EM Repair", "EM EM Repair", "EM Repair"]
    assert group_of(client, plan, "sash window repair") == "EM Repair"
    client.post(f"{plan}/undo")
    assert sorted(names(client, plan)) == ["EM EM Repair", "EM Repair", "Repair"]
    client.post(f"{plan}/redo")
    assert group_of(client, plan, "sash window repair") == "EM Repair"


def test_a_scouting_campaign_is_one_step_there_and_back(client, plan):
    look = post(client, f"{plan}/arrange/scouting/look", {"share": 0.1})
    assert look["cost"] == pytest.approx(0.1 * client.get(plan).json()["summary"]["purse"]["purse"])
    assert 0 < look["bid"] < look["low_price"] and not look["there"]
    before = len(ids_of(client, plan))
    post(client, f"{plan}/arrange/scouting", {"share": 0.1})
    view = client.get(f"{plan}/arrange").json()
    scouting = next(c for c in view["campaigns"] if c["name"] == "Scouting")
    assert scouting["scouting_share"] == 0.1
    texts = client.get(plan).json()["sheet"]["texts"]
    wide = [t for t, m, g in zip(texts["text"], texts["match"], texts["group"], strict=True)
            if m == "broad" and g.startswith("Wide")]  # fmt: skip
    assert sorted(wide) == sorted(look["keywords"]) and wide
    blocked = [n for n in client.get(f"{plan}/negatives").json() if n["level"] == "campaign"]
    assert len(blocked) == look["blocked"] == 2
    assert [c for c in view["conflicts"] if c["kind"] == "negative_stops_kept"] == []
    post(client, f"{plan}/arrange/scouting", {"share": 0.1}, 422)
    client.post(f"{plan}/undo")
    assert len(ids_of(client, plan)) == before
    assert "Scouting" not in [c["name"] for c in client.get(f"{plan}/arrange").json()["campaigns"]]


@pytest.mark.parametrize("kind", ["match", "mixed"])
def test_a_twin_that_is_in_the_sheet_already_is_not_made_again(client, plan, groups, kind):
    ids = ids_of(client, plan)
    both = [ids["sash window repair"], ids["sash cord replacement"]]
    post(client, f"{plan}/keywords/edit", {"ids": both, "duplicate_as": "phrase"})
    texts = client.get(plan).json()["sheet"]["texts"]
    twins = [i for i, t, m in zip(texts["id"], texts["text"], texts["match"], strict=True)
             if m == "phrase" and t.startswith("sash") and "painting" not in t]  # fmt: skip
    post(client, f"{plan}/calls", {"ids": twins[:1], "call": "drop"})
    post(client, f"{plan}/calls", {"ids": twins[1:], "call": "keep"})
    offered = post(client, f"{plan}/arrange/structures", {})["items"]
    assert next(i for i in offered if i["kind"] == kind)["adds"] == 0
    post(client, f"{plan}/arrange/structures/fit", {"kind": kind})
    post(client, f"{plan}/arrange/structure", {"kind": kind})
    assert len(client.get(plan).json()["sheet"]["texts"]["id"]) == len(ids) + 2
