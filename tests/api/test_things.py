"""Things sold: read from a file, shown by groups, their prices and titles in the ads."""

import pytest

SHEET = """Code;Title;Price;Margin;Page;In stock
p1;Sash cord kit;12,50;40 %;/p1;yes
p2;Brush seal;8,00;;/p2;no
p3;;9;;;yes
p4;Pulley;abc;;;yes
p5;Window lock;7;;;perhaps
"""


@pytest.fixture
def group(client, plan):
    view = client.get(f"{plan}/arrange").json()["groups"]
    return view["id"][view["name"].index("Repair")]


def post(client, path, body, expected=200):
    answer = client.post(path, json=body)
    assert answer.status_code == expected, answer.text
    return answer.json()


@pytest.fixture
def things(client, plan):
    files = {"file": ("things.csv", SHEET.encode())}
    read = client.post(f"{plan}/arrange/things/file", files=files).json()
    assert [(one["row"], one["why"].split(":")[0]) for one in read["refused"]] == [
        (4, "name"), (5, "price"), (6, "deliverable"),
    ]  # fmt: skip
    post(client, f"{plan}/arrange/things", {"things": read["things"]})
    view = client.get(f"{plan}/arrange/things").json()
    return {one["code"]: one for one in view["things"]}


def test_things_are_read_kept_and_changed_by_their_code(client, plan, things):
    assert (things["p1"]["price"], things["p1"]["margin"]) == (12.5, 0.4)
    assert not things["p2"]["deliverable"]
    post(client, f"{plan}/arrange/things", {"things": [{"code": "p1", "name": "Cord kit"}]})
    after = {t["code"]: t for t in client.get(f"{plan}/arrange/things").json()["things"]}
    assert after["p1"]["name"] == "Cord kit" and after["p1"]["id"] == things["p1"]["id"]
    client.post(f"{plan}/undo")
    client.post(f"{plan}/undo")
    assert client.get(f"{plan}/arrange/things").json()["things"] == []


def test_a_groups_ads_take_the_price_of_what_it_shows_and_what_cant_be_delivered_is_left_out(
    client, plan, things, group
):
    ids = [things["p1"]["id"], things["p2"]["id"]]
    post(client, f"{plan}/arrange/groups/{group}/things", {"ids": ids})
    view = client.get(f"{plan}/arrange").json()["groups"]
    at = view["id"].index(group)
    assert (view["things"][at], view["left_out"][at]) == (1, 1)
    draft = {"group_id": group, "headlines": ["‹offer› at ‹price›"], "descriptions": ["£12.50, £8"]}
    look = post(client, f"{plan}/arrange/ads/look", draft)
    assert look["headlines"][0]["shown"] == "Sash cord kit at £12.50"
    assert [(f["kind"], f["says"].split(" in")[0]) for f in look["faults"]] == [
        ("other_price", "8")
    ]  # fmt: skip
    post(client, f"{plan}/arrange/groups/{group}/things", {"ids": [999]}, 404)
    post(client, f"{plan}/arrange/things/remove", {"ids": ids[:1]})
    assert client.get(f"{plan}/arrange").json()["groups"]["things"][at] == 0


def test_without_written_ads_titles_must_say_the_words(client, plan, things, group):
    profile = {**client.get("/api/profiles").json()[0], "written_ads": False}
    assert client.patch(f"{plan}/brief", json={"profile": profile}).status_code == 200
    post(client, f"{plan}/arrange/groups/{group}/things", {"ids": [things["p1"]["id"]]})
    view = client.get(f"{plan}/arrange/things").json()
    assert not view["written_ads"]
    (title,) = view["titles"]
    assert "replacement" in title["unsaid"] and "sash" not in title["unsaid"]
    assert client.get(plan).json()["summary"]["trail"]["without_ad"] == 0
    assert client.get(f"{plan}/arrange/ads").json()["without"] == []


def test_merged_groups_show_what_both_did(client, plan, things, group):
    view = client.get(f"{plan}/arrange").json()["groups"]
    paint = view["id"][view["name"].index("Paint")]
    first, second = things["p1"]["id"], things["p2"]["id"]
    post(client, f"{plan}/arrange/groups/{group}/things", {"ids": [first]})
    post(client, f"{plan}/arrange/groups/{paint}/things", {"ids": [first, second]})
    post(client, f"{plan}/arrange/groups/merge", {"ids": [paint], "into": group})
    shown = client.get(f"{plan}/arrange/things").json()["things"]
    assert [t["groups"] for t in shown] == [[group], [group]]
    client.post(f"{plan}/undo")
    assert len(client.get(f"{plan}/arrange/things").json()["things"][0]["groups"]) == 2
