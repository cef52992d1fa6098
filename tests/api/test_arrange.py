"""Ad groups through the API: seen, named, filled, arranged, and put back."""

import pytest

from milkwort.api.arrange.schemas import ArrangeView
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
    assert {w.word: w.share for w in groups.words[at]}["sash"] == pytest.approx(1.0)
    purse = client.get(plan).json()["summary"]["purse"]
    assert sum(filter(None, groups.spend)) == pytest.approx(purse["spend"], rel=1e-5)
    assert sum(groups.running) == purse["running"]


def test_a_group_over_the_platforms_limit_says_by_how_many(client, plan):
    profile = {**client.get("/api/profiles").json()[0], "keywords_per_group": 1}
    assert client.patch(f"{plan}/brief", json={"profile": profile}).status_code == 200
    groups = arranged(client, plan).groups
    assert dict(zip(groups.name, groups.too_many, strict=True)) == {
        "Repair": 1, "Paint": 0, "General": 0,
    }  # fmt: skip


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


def test_a_group_left_empty_stays_until_it_is_removed(client, plan):
    everything = {"ids": list(ids_of(client, plan).values()), "group": "All of it"}
    client.post(f"{plan}/arrange/move", json=everything)
    assert sorted(arranged(client, plan).groups.name) == ["All of it", "General", "Paint", "Repair"]
    answer = client.post(f"{plan}/arrange/groups/remove", json={}).json()
    assert answer["did"] == "remove 3 empty groups"
    assert arranged(client, plan).groups.name == ["All of it"]
    client.post(f"{plan}/undo")
    assert sorted(arranged(client, plan).groups.name) == ["All of it", "General", "Paint", "Repair"]
    assert client.post(f"{plan}/arrange/groups/remove", json={"ids": [999]}).status_code == 404


def test_a_group_that_holds_keywords_is_not_removed(client, plan):
    groups = arranged(client, plan).groups
    repair = groups.id[groups.name.index("Repair")]
    answer = client.post(f"{plan}/arrange/groups/remove", json={"ids": [repair]})
    assert answer.status_code == 422 and "2 keywords" in answer.json()["error"]["message"]


def test_negatives_act_in_the_group_they_were_made_for_whatever_it_is_called(client, plan):
    groups = arranged(client, plan).groups
    repair = groups.id[groups.name.index("Repair")]
    block = {"text": "cord", "match": "phrase", "group_id": repair}
    assert client.post(f"{plan}/sift/block", json=block).status_code == 200
    for name in ("Mending", "General"):  # another group may have had the name
        other = groups.id[groups.name.index("General")]
        client.post(f"{plan}/arrange/groups/{other}", json={"name": "Everything"})
        named = client.post(f"{plan}/arrange/groups/{repair}", json={"name": name})
        assert named.status_code == 200
        assert groups_of(client, plan)["sash window repair"] == name
        (negative,) = client.get(f"{plan}/negatives").json()
        assert (negative["level"], negative["group_id"]) == ("group", repair)
        stopped = [c for c in arranged(client, plan).conflicts if c.kind == "negative_stops_kept"]
        assert [c.negative_id for c in stopped] == [negative["id"]]


def test_a_group_takes_its_negatives_with_it_and_brings_them_back(client, plan):
    ids = ids_of(client, plan)
    client.post(f"{plan}/arrange/move", json={"ids": [ids["windows"]], "group": "Wide"})
    groups = arranged(client, plan).groups
    wide = groups.id[groups.name.index("Wide")]
    client.post(f"{plan}/sift/block", json={"text": "doors", "group_id": wide})
    client.post(f"{plan}/arrange/move", json={"ids": [ids["windows"]], "group": "General"})
    before = client.get(f"{plan}/negatives").json()
    client.post(f"{plan}/arrange/groups/remove", json={"ids": [wide]})
    assert client.get(f"{plan}/negatives").json() == []
    client.post(f"{plan}/undo")
    assert client.get(f"{plan}/negatives").json() == before


def test_one_name_in_two_campaigns_is_two_groups(client, plan):
    ids = ids_of(client, plan)
    client.post(f"{plan}/sift/word-kind", json={"word": "cord", "kind": "own"})
    client.post(f"{plan}/arrange/structure", json={"kind": "aim"})
    campaigns = {c.name: c.id for c in arranged(client, plan).campaigns}
    for text, home in (("sash window repair", "What we do"), ("sash cord replacement", "Our name")):
        client.post(f"{plan}/arrange/move", json={
            "ids": [ids[text]], "group": "Same", "campaign_id": campaigns[home]})  # fmt: skip
    labels = groups_of(client, plan)
    assert labels["sash window repair"] == "What we do · Same"
    assert labels["sash cord replacement"] == "Our name · Same"
    groups = arranged(client, plan).groups
    assert sorted(groups.keywords[i] for i, n in enumerate(groups.name) if n == "Same") == [1, 1]
    # a label is typed, and means the one it names
    client.post(f"{plan}/arrange/move", json={"ids": [ids["windows"]], "group": "Our name · Same"})
    assert groups_of(client, plan)["windows"] == "Our name · Same"
    client.patch(f"{plan}/brief", json={"monthly_spend": 61})
    copy = client.post(f"{plan}/copy", json={"name": "Twin"}).json()
    assert groups_of(client, f"/api/plans/{copy['id']}") == groups_of(client, plan)


def test_a_conflicts_negative_is_taken_out_alone(client, plan):
    client.post(f"{plan}/negatives", json={"texts": ["cord"], "match": "phrase"})
    client.post(f"{plan}/negatives", json={"texts": ["cord"], "match": "broad"})
    found = {c.negative_id for c in arranged(client, plan).conflicts}
    assert len(found) == 2
    client.post(f"{plan}/negatives/remove", json={"ids": [min(found)]})
    assert {c.negative_id for c in arranged(client, plan).conflicts} == {max(found)}


def test_a_campaigns_money_is_kept_by_the_fit_also_when_it_is_named_anew(client, plan):
    (campaign,) = arranged(client, plan).campaigns
    path = f"{plan}/arrange/campaigns/{campaign.id}"
    answer = client.post(path, json={"most_spend": 10.0, "name": "Anything"})
    assert answer.status_code == 200
    assert answer.json()["summary"]["purse"]["spend"] <= 10.0
    refused = client.post(path, json={"least_spend": 20.0})
    assert refused.status_code == 422 and "10" in refused.json()["error"]["message"]


def test_words_called_so_make_campaigns_of_their_own(client, plan):
    for word, kind in (("cord", "own"), ("window", "rival")):
        client.post(f"{plan}/sift/word-kind", json={"word": word, "kind": kind})
    client.post(f"{plan}/arrange/structure", json={"kind": "aim"})
    groups = arranged(client, plan).groups
    kept = [c for c, n in zip(groups.campaign, groups.kept, strict=True) if n]
    assert sorted(kept) == ["Others' names", "Our name"]


@pytest.mark.parametrize("name", ["", "   ", "General", "x" * 121])
def test_a_name_that_is_empty_long_or_taken_is_refused_in_words(client, plan, name):
    groups = arranged(client, plan).groups
    repair = groups.id[groups.name.index("Repair")]
    answer = client.post(f"{plan}/arrange/groups/{repair}", json={"name": name})
    assert answer.status_code == 422
    message = answer.json()["error"]["message"]
    assert "a name of 1 to 120 characters" in message or "no other group" in message
    assert "Repair" in arranged(client, plan).groups.name


def test_a_group_or_keyword_that_is_not_there_is_said(client, plan):
    assert client.post(f"{plan}/arrange/groups/999", json={"page": "/x"}).status_code == 404
    assert client.post(f"{plan}/arrange/move", json={"ids": [999], "group": "A"}).status_code == 404


def offers(client, plan, **asked):
    answer = client.post(f"{plan}/arrange/structures", json=asked)
    assert answer.status_code == 200, answer.text
    return answer.json()["items"]


def fitted(client, plan, **choice):
    answer = client.post(f"{plan}/arrange/structures/fit", json=choice)
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_what_a_structure_says_is_worked_out_line_by_line(client, plan):
    now = client.post(f"{plan}/arrange/structures", json={}).json()["now"]
    choice = {"kind": "mixed", "lower": "phrase", "by": 0.3}
    promised = fitted(client, plan, **choice)
    answer = client.post(f"{plan}/arrange/structures/workings", json=choice)
    assert answer.status_code == 200, answer.text
    lines = {line["label"]: line for s in answer.json()["sections"] for line in s["lines"]}
    for label, figure in (
        ("ads to write", promised["to_write"]),
        ("groups with kept keywords", promised["groups"]),
        ("customers a month", promised["customers"]),
        ("spend a month", promised["spend"]),
        ("bids that the dial sets", promised["bids_set"]),
        ("customers more, arranged so", promised["customers"] - now["customers"]),
        ("keywords more that run", promised["running"] - now["running"]),
    ):
        assert lines[label]["value"] == pytest.approx(figure), label
    assert promised["bids_set"] > 0 and lines["ads to write"]["result"]
    before = client.get(plan).json()["summary"]["revision"]
    assert answer.json()["revision"] == before, "nothing is changed by it"


def test_a_structure_says_what_it_brings_for_the_same_money_and_keeps_its_word(client, plan):
    now = client.post(f"{plan}/arrange/structures", json={}).json()["now"]
    purse = client.get(plan).json()["summary"]["purse"]
    assert now["customers"] == pytest.approx(purse["customers"])
    for kind in ("theme", "match", "mixed"):
        promised = fitted(client, plan, kind=kind)
        done = client.post(f"{plan}/arrange/structure", json={"kind": kind}).json()
        after = client.get(plan).json()["summary"]
        assert after["purse"]["customers"] == pytest.approx(promised["customers"]), kind
        assert after["trail"]["without_ad"] == promised["to_write"], kind
        assert (
            after["trail"]["groups"] == promised["groups"] and done["did"] == f"arrange by {kind}"
        )
        client.post(f"{plan}/undo")


def test_the_dial_says_which_twin_bids_lower_and_sets_it(client, plan):
    choice = {"kind": "mixed", "lower": "phrase", "by": 0.25}
    assert fitted(client, plan, **choice)["bids_set"] == 2
    client.post(f"{plan}/arrange/structure", json=choice)
    sheet = client.get(plan).json()["sheet"]
    bids = {}
    for text, match, bid in zip(sheet["texts"]["text"], sheet["texts"]["match"],
                                sheet["figures"]["bid"], strict=True):  # fmt: skip
        bids[text, match] = bid
    for text in ("sash window repair", "sash cord replacement"):
        assert 0 < bids[text, "phrase"] < bids[text, "exact"]
    client.post(f"{plan}/undo")
    assert len(client.get(plan).json()["sheet"]["texts"]["text"]) == len(ids_of(client, plan))


def test_group_sizes_follow_the_dial_and_locked_groups_are_left_alone(client, plan):
    assert [i["largest"] for i in offers(client, plan, most=1)] == [1] * 6
    groups = arranged(client, plan).groups
    repair = groups.id[groups.name.index("Repair")]
    client.post(f"{plan}/arrange/groups/{repair}", json={"locked": True})
    assert {i["moves"] for i in offers(client, plan)} == {0}
    client.post(f"{plan}/arrange/structure", json={"kind": "theme"})
    assert groups_of(client, plan)["sash window repair"] == "Repair"
    client.post(f"{plan}/arrange/groups/{repair}", json={"locked": False})
    only = groups.id[groups.name.index("Paint")]
    none = client.post(f"{plan}/arrange/structures", json={"group_ids": [only]})
    assert none.status_code == 422, "no keyword of it is kept"


def test_each_ready_structure_says_what_it_would_do_and_does_it(client, plan):
    offered = offers(client, plan)
    assert {item["kind"] for item in offered} == {
        "theme",
        "match",
        "mixed",
        "intent",
        "offer",
        "aim",
    }
    before = client.get(plan).json()["sheet"]["texts"]
    for item in offered:
        done = client.post(f"{plan}/arrange/structure", json={"kind": item["kind"]})
        assert done.status_code == 200, item
        now = {i["kind"]: i for i in offers(client, plan)}
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
    offered = offers(client, address)
    assert {(item["groups"], item["moves"], item["adds"]) for item in offered} == {(0, 0, 0)}
    assert client.post(f"{address}/arrange/structure", json={"kind": "match"}).status_code == 200


def group_columns(client, plan):
    return client.get(f"{plan}/arrange").json()["groups"]


def test_campaigns_and_groups_are_made_moved_and_merged_each_undone_in_one(client, plan):
    before = group_columns(client, plan)
    first, second = before["id"][:2]
    made = client.post(f"{plan}/arrange/campaigns", json={"name": "Weekdays"})
    assert made.status_code == 200, made.text
    campaigns = {c["name"]: c["id"] for c in client.get(f"{plan}/arrange").json()["campaigns"]}
    assert "Weekdays" in campaigns
    twice = client.post(f"{plan}/arrange/campaigns", json={"name": " Weekdays "})
    assert twice.status_code == 422 and "no other campaign" in twice.json()["error"]["message"]
    where = {"name": "Fresh", "campaign_id": campaigns["Weekdays"]}
    assert client.post(f"{plan}/arrange/groups", json=where).status_code == 200
    assert client.post(f"{plan}/arrange/groups", json=where).status_code == 422
    body = {"ids": [first, second], "campaign_id": campaigns["Weekdays"]}
    assert client.post(f"{plan}/arrange/groups/move", json=body).status_code == 200
    now = group_columns(client, plan)
    at = dict(zip(now["id"], now["campaign"], strict=True))
    assert at[first] == at[second] == "Weekdays"
    merged = client.post(f"{plan}/arrange/groups/merge", json={"ids": [first], "into": second})
    assert merged.status_code == 200, merged.text
    after = group_columns(client, plan)
    assert first not in after["id"]
    held = dict(zip(after["id"], after["keywords"], strict=True))
    assert held[second] == sum(
        n for i, n in zip(now["id"], now["keywords"], strict=True) if i in (first, second)
    )
    for _ in range(4):
        client.post(f"{plan}/undo")
    assert group_columns(client, plan) == before


def test_a_campaigns_own_area_and_hours_count_its_keywords_searches(client, plan):
    ids = ids_of(client, plan)
    campaign = client.get(f"{plan}/arrange").json()["campaigns"][0]
    row = list(ids).index("sash cord replacement")

    def searches():
        return client.get(plan).json()["sheet"]["figures"]["searches"][row]

    whole = searches()
    weekdays = {"days": [True] * 5 + [False] * 2, "from_hour": 0, "to_hour": 24, "share": 0.5}
    path = f"{plan}/arrange/campaigns/{campaign['id']}"
    changed = client.post(path, json={"area_share": 0.25, "showing": weekdays, "note": "a trial"})
    assert changed.status_code == 200, changed.text
    assert searches() == pytest.approx(whole * 0.25 * 0.5)
    (line,) = [c for c in client.get(f"{plan}/arrange").json()["campaigns"]
               if c["id"] == campaign["id"]]  # fmt: skip
    assert (line["area_share"], line["shown_share"], line["note"]) == (0.25, 0.5, "a trial")
    copy = client.post(f"{plan}/copy", json={"name": "A copy"}).json()["id"]
    copied = client.get(f"/api/plans/{copy}/arrange").json()["campaigns"][0]
    assert (copied["area_share"], copied["note"]) == (0.25, "a trial")
    assert client.post(path, json={"area_share": 1.5}).status_code == 422
    client.post(f"{plan}/undo")
    assert searches() == pytest.approx(whole)


def test_a_group_says_its_main_words_and_which_of_its_keywords_would_fit_better(client, plan):
    groups = group_columns(client, plan)
    assert all(len(words) <= 5 for words in groups["words"])
    repair = groups["name"].index("Repair")
    words = {w["word"]: w["share"] for w in groups["words"][repair]}
    assert words and all(0.25 <= share <= 1.0 for share in words.values())
    assert len(groups["likeness"]) == len(groups["least_like"]) == len(groups["id"])
