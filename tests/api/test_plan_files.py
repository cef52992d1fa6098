"""A plan's file: everything goes along, every field is checked, a broken plan can be put away."""

import copy
import json
import random

import pytest
from sqlalchemy import text

from tests.api.conftest import ids_of
from tests.depth import cases

MANY = cases(40, 500)
"""Damaged files."""

FIRST = {
    "format": "milkwort-plan-1",
    "name": "Old",
    "brief": {"sale_value": 340.0, "gross_margin": 0.55, "rate_low": 0.02, "rate_likely": 0.03,
              "rate_high": 0.045, "monthly_spend": 60.0, "start_month": 3, "offer_name": "jobs",
              "more_offers": [{"name": "kits", "sale_value": 40.0, "gross_margin": 0.4,
                               "rate_low": 0.01, "rate_likely": 0.02, "rate_high": 0.03}]},
    "unsaid": ["start_month"],
    "assumptions": {"stretch": 0.3, "settle_days": 5.0},
    "own": {"quick_reasons": ["mine"]},
    "keywords": [
        {"text": "sash repair", "call": "keep", "group": "Repair", "campaign": "Brand",
         "volume_low": 10.0, "volume_high": 20.0, "cpc_low": 1.0},
        {"text": "kit", "offer": "kits"},
    ],
    "negatives": [{"text": "cheap"}, {"text": "old", "level": "group", "owner": "Repair"}],
}  # fmt: skip


def file_of(client, plan):
    made = client.post(f"{plan}/hand-over", json={"kind": "json"}).json()["made"]
    return json.loads(client.get(f"{plan}/hand-over/{made['id']}/file").content)


def load(client, tree, **query):
    content = tree if isinstance(tree, bytes) else json.dumps(tree).encode()
    return client.post("/api/plans/load", params=query, files={"file": ("p.json", content)})


def filled(client, plan):
    """Return the file of a plan that has something of everything."""
    ids = ids_of(client, plan)
    client.post(f"{plan}/sift/block", json={"text": "kit", "campaign_id": 1})
    client.post(f"{plan}/recipes", json={"name": "cross", "parts": [{"words": ["sash"]}]})
    client.post(f"{plan}/past/terms/sample")
    client.post(f"{plan}/gather/rivals/sample")
    client.post(f"{plan}/bids", json={"ids": [ids["windows"]], "bid": 2})
    client.post(f"{plan}/keywords/edit", json={"ids": [ids["windows"]], "volume": 9})
    client.post(f"{plan}/readings/rule", json={"rule": "mean"})
    client.post(f"{plan}/arrange/move", json={"ids": [ids["windows"]], "group": "Elsewhere"})
    return file_of(client, plan)


def test_everything_goes_along_also_what_the_client_owns(client, plan):
    tree = filled(client, plan)
    made = load(client, tree)
    assert made.status_code == 201 and made.json()["notices"] == []
    twin = f"/api/plans/{made.json()['id']}"
    assert file_of(client, twin) == tree
    assert [r["name"] for r in client.get(f"{twin}/recipes").json()] == ["cross"]
    assert client.get(f"{twin}/past/terms").json()["sold"] > 0
    assert len(tree["client"]["rival_lists"][0]["rows"]) > 50
    groups = client.get(f"{twin}/arrange").json()["groups"]
    assert "General" in groups["name"]  # the empty one, too
    lines = client.get("/api/plans").json()
    assert len({line["client_id"] for line in lines}) == 2


def test_a_plan_is_loaded_for_a_client_there_is(client, plan):
    tree = filled(client, plan)
    (line,) = client.get("/api/plans").json()
    assert load(client, tree, client_id=line["client_id"]).status_code == 201
    assert len({p["client_id"] for p in client.get("/api/plans").json()}) == 1
    assert len(client.get(f"{plan}/recipes").json()) == 1
    assert load(client, tree, client_id=999).status_code == 404


def test_a_copy_keeps_where_each_negative_acts(client, plan):
    groups = client.get(f"{plan}/arrange").json()["groups"]
    paint = groups["id"][groups["name"].index("Paint")]
    client.post(f"{plan}/sift/block", json={"text": "cord", "group_id": paint})
    twin = client.post(f"{plan}/copy", json={"name": "Twin"}).json()["id"]
    one, other = client.get(plan).json(), client.get(f"/api/plans/{twin}").json()
    assert one["sheet"]["figures"] == other["sheet"]["figures"]
    assert one["summary"]["purse"]["customers"] == other["summary"]["purse"]["customers"]
    names = [[n["text"], n["level"]] for n in client.get(f"/api/plans/{twin}/negatives").json()]
    assert names == [["cord", "group"]]


def test_a_file_of_the_first_format_still_loads_and_says_what_is_no_longer_counted(client):
    made = load(client, FIRST)
    assert made.status_code == 201, made.text
    assert "settle_days" in made.json()["notices"][0]
    plan = f"/api/plans/{made.json()['id']}"
    sheet = client.get(plan).json()["sheet"]
    assert dict(zip(sheet["texts"]["text"], sheet["texts"]["offer"], strict=True)) == {
        "sash repair": "", "kit": "kits"
    }  # fmt: skip
    assert [g["label"] for g in sheet["groups"]] == ["Repair", "General"]
    values = client.get(plan).json()["summary"]["brief"]["values"]
    assert values["start_date"].endswith("-03-01")
    levels = [(n["text"], n["level"]) for n in client.get(f"{plan}/negatives").json()]
    assert levels == [("cheap", "plan"), ("old", "group")]


WRONG = [
    ({"own": {"word_kinds": "x"}}, "word_kinds"),
    ({"brief": {"places": [1]}}, "places"),
    ({"brief": {"start_month": 13}}, "start_month"),
    ({"brief": {"luck": 1}}, "luck"),
    ({"brief": {"monthly_spend": -1.0}}, "monthly_spend"),
    ({"assumptions": {"stretch": 7.0}}, "stretch"),
    ({"assumptions": {"luck": 1.0}}, "assumption"),
    ({"own": {"house_rules": [{"when": [], "call": "buy"}]}}, "house_rules"),
    ({"unsaid": ["luck"]}, "not_entered"),
    ({"negatives": [{"text": "x", "level": "group", "owner": ""}]}, "negatives"),
    ({"negatives": [{"text": "!"}]}, "negatives"),
]


@pytest.mark.parametrize(("changed", "field"), WRONG, ids=lambda c: str(c)[:40])
def test_each_wrong_field_is_refused_by_name(client, changed, field):
    tree = copy.deepcopy(FIRST)
    for name, value in changed.items():
        if isinstance(value, dict) and name in tree:
            tree[name] |= value
        else:
            tree[name] = value
    answer = load(client, tree)
    assert answer.status_code == 422, answer.text
    assert field in answer.json()["error"]["message"]
    assert client.get("/api/plans").json() == []


@pytest.mark.parametrize(
    ("field", "value"),
    [("locked_bid", -1.0), ("locked_bid", "1"), ("group", "nowhere"), ("offer", 9),
     ("rate", 2.0), ("text", "!!"), ("match", "near"), ("key", 5), ("readings", [{"months": [1]}]),
     ("readings", [{"cpc_low": 3.0, "cpc_high": 1.0}]), ("readings", [{}, {}]),
     ("call", {"call": "none"}), ("luck", 1)],
)  # fmt: skip
def test_each_wrong_field_of_a_keyword_is_refused(client, plan, field, value):
    tree = file_of(client, plan)
    tree["keywords"][1][field] = value
    answer = load(client, tree)
    assert answer.status_code == 422
    message = answer.json()["error"]["message"]
    assert "keywords" in message and "expected" in message and "got" in message
    assert len(client.get("/api/plans").json()) == 1


def test_a_key_or_a_keyword_stands_once(client, plan):
    for change in ("key", "text"):
        tree = file_of(client, plan)
        tree["keywords"][2][change] = tree["keywords"][0][change]
        tree["keywords"][2]["match"] = tree["keywords"][0]["match"]
        answer = load(client, tree)
        assert answer.status_code == 422 and "number 1" in answer.json()["error"]["message"]


def damaged(tree, rng):
    """Return the tree with one place of it made into something else."""
    tree = copy.deepcopy(tree)
    node, path = tree, []
    while isinstance(node, dict | list) and node:
        at = rng.choice(list(node)) if isinstance(node, dict) else rng.randrange(len(node))
        path.append((node, at))
        if not isinstance(node[at], dict | list) or rng.random() < 0.15:
            break
        node = node[at]
    holder, at = path[-1]
    strange = [None, -1, 2**70, 1e308, "", "\x00", "x" * 5000, [], {}, [1], {"a": 1}, True, 0.5,
               "2027-02-30", "exact", "\ud83d"]  # fmt: skip
    if rng.random() < 0.15 and isinstance(holder, dict):
        del holder[at]
    else:
        holder[at] = rng.choice(strange)
    return tree


@pytest.mark.parametrize("day", ["\x00", "soon", "2027-02-30", "27-1-1"])
def test_a_campaigns_day_that_is_none_is_refused_by_name(client, plan, day):
    tree = file_of(client, plan)
    tree["campaigns"][0]["last_day"] = day
    answer = load(client, tree)
    assert answer.status_code == 422 and "last_day" in answer.json()["error"]["message"]


def test_a_damaged_file_is_refused_or_makes_a_plan_that_opens(client, plan):
    whole = filled(client, plan)
    whole["keywords"] = whole["keywords"][:4]
    for name in ("rival_lists", "past_lists"):
        for one in whole["client"][name]:
            one["rows"] = one["rows"][:3]
    rng = random.Random(7)
    opened = 0
    for _ in range(MANY):
        tree = damaged(whole, rng)
        answer = load(client, tree)
        assert answer.status_code in (201, 422), answer.text
        if answer.status_code == 201:
            opened += 1
            plan_id = answer.json()["id"]
            for page in ("", "/arrange", "/fit", "/hand-over", "/gather/rivals", "/past/terms",
                         "/past/account", "/recipes", "/sift/rules", "/negatives"):  # fmt: skip
                seen = client.get(f"/api/plans/{plan_id}{page}")
                assert seen.status_code < 500, (page, seen.text)
            assert client.delete(f"/api/plans/{plan_id}").status_code == 204
        else:
            assert answer.json()["error"]["message"]
    assert 0 < opened < MANY


def test_a_plan_that_cannot_be_read_is_listed_taken_out_raw_and_deleted(client, plan):
    work = client.app.state.workspace
    with work.database.begin() as session:
        session.execute(text("""update plan set word_kinds = '"x"', places = '["\\ud83d"]'"""))
    work.forget(1)
    answer = client.get(plan)
    assert answer.status_code == 422 and answer.json()["error"]["message"]
    (line,) = client.get("/api/plans").json()
    raw = client.get(f"{plan}/raw.json")
    assert raw.status_code == 200 and len(raw.json()["keyword"]) == line["keywords"] == 6
    assert client.delete(plan).status_code == 204
    assert client.get("/api/plans").json() == []
