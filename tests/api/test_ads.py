"""Ads and pages of Arrange: written, drafted, copied, searched, brought in, and put back."""

import pytest

from milkwort.api.arrange.schemas import ArrangeView


@pytest.fixture
def groups(client, plan):
    view = ArrangeView.model_validate(client.get(f"{plan}/arrange").json()).groups
    return dict(zip(view.name, view.id, strict=True))


def post(client, path, body, expected=200, **kind):
    answer = client.post(path, json=body, **kind)
    assert answer.status_code == expected, answer.text
    return answer.json()


def ads_of(client, plan):
    return client.get(f"{plan}/arrange/ads").json()


def written(client, plan):
    return [
        (a["written_headlines"], a["written_descriptions"]) for a in ads_of(client, plan)["ads"]
    ]


def write(client, plan, group, *heads, text="Ask us.", **more):
    body = {"group_id": group, "headlines": list(heads), "descriptions": [text], **more}
    return post(client, f"{plan}/arrange/ads", body)


def test_an_ad_is_written_rewritten_removed_and_each_is_undone(client, plan, groups):
    assert ads_of(client, plan)["without"] == [groups["Repair"]]
    answer = write(client, plan, groups["Repair"], "Sash  repair ", "", "")
    assert answer["did"] == "write an ad of Repair"
    (one,) = ads_of(client, plan)["ads"]
    assert one["written_headlines"] == ["Sash repair"] and ads_of(client, plan)["without"] == []
    write(client, plan, groups["Repair"], "Sash cords", ad_id=one["id"])
    assert written(client, plan) == [(["Sash cords"], ["Ask us."])]
    post(client, f"{plan}/arrange/ads/remove", {"ids": [one["id"]]})
    assert written(client, plan) == []
    for expected in ("Sash cords", "Sash repair"):
        client.post(f"{plan}/undo")
        assert written(client, plan)[0][0] == [expected]
    assert ads_of(client, plan)["ads"][0]["key"] == one["key"]
    post(client, f"{plan}/arrange/ads/remove", {"ids": [999]}, 404)
    body = {"group_id": 999, "headlines": ["x"], "descriptions": []}
    post(client, f"{plan}/arrange/ads", body, 404)


def test_a_look_counts_and_checks_a_draft_beside_the_groups_other_ads(client, plan, groups):
    write(client, plan, groups["Repair"], "Sash repair")
    draft = {
        "group_id": groups["Repair"],
        "headlines": ["Sash repair"],
        "descriptions": ["Ask us."],
    }
    look = post(client, f"{plan}/arrange/ads/look", draft)
    assert [f["kind"] for f in look["faults"]] == ["same_twice"]
    (one,) = ads_of(client, plan)["ads"]
    assert post(client, f"{plan}/arrange/ads/look", {**draft, "ad_id": one["id"]})["faults"] == []
    draft["headlines"] = ["x" * 37, "‹keyword›"]
    look = post(client, f"{plan}/arrange/ads/look", draft)
    assert [(f["characters"], f["most"]) for f in look["headlines"]] == [(37, 36), (21, 36)]
    assert look["headlines"][1]["shown"] in ("sash window repair", "sash cord replacement")
    assert [f["kind"] for f in look["faults"]] == ["too_long"]
    assert len(written(client, plan)) == 1


def test_the_outline_says_what_is_missing_and_what_a_platform_would_refuse(client, plan, groups):
    write(client, plan, groups["Repair"], "x" * 40)
    view = ArrangeView.model_validate(client.get(f"{plan}/arrange").json())
    at = view.groups.name.index("Repair")
    assert (view.groups.ads[at], view.groups.ads_wrong[at], view.ads) == (1, 1, 1)
    assert not any(view.groups.without_ad)


def test_first_drafts_go_to_groups_without_an_ad(client, plan, groups):
    assert post(client, f"{plan}/arrange/ads/draft", {})["did"] == "draft 1 ad"
    (one,) = ads_of(client, plan)["ads"]
    assert one["group_id"] == groups["Repair"] and not [f for f in one["faults"] if f["must"]]
    post(client, f"{plan}/arrange/ads/draft", {}, 422)
    post(client, f"{plan}/arrange/ads/draft", {"group_ids": [groups["Paint"], 999]}, 404)
    assert len(written(client, plan)) == 1


def test_an_ad_is_copied_with_the_words_exchanged(client, plan, groups):
    answer = client.get(plan).json()["sheet"]["texts"]
    paint = answer["id"][answer["text"].index("sash window painting")]
    client.post(f"{plan}/calls", json={"ids": [paint], "call": "keep"})
    write(client, plan, groups["Paint"], "Windows painted. Painting")
    (one,) = ads_of(client, plan)["ads"]
    post(client, f"{plan}/arrange/ads/copy", {"ad_id": one["id"], "group_ids": [groups["Repair"]]})
    other = ads_of(client, plan)["ads"][1]
    assert other["group_id"] == groups["Repair"]
    assert other["written_headlines"] != one["written_headlines"]


def test_search_and_replace_is_shown_before_it_is_done(client, plan, groups):
    write(client, plan, groups["Repair"], "Ask Anna", "Sash repair", text="Anna asks.")
    write(client, plan, groups["Paint"], "Paint")
    body = {"search": "anna", "by": "Berta"}
    look = post(client, f"{plan}/arrange/ads/replace/look", body)
    assert [(f["field"], f["after"]) for f in look["fields"]] == [
        ("headline 1", "Ask Berta"), ("description 1", "Berta asks."),
    ]  # fmt: skip
    assert look["ads"] == 1 and "Anna" in written(client, plan)[0][0][0]
    assert "in 1 ad" in post(client, f"{plan}/arrange/ads/replace", body)["did"]
    assert written(client, plan)[0] == (["Ask Berta", "Sash repair"], ["Berta asks."])
    post(client, f"{plan}/arrange/ads/replace", body, 422)


def test_ads_leave_as_written_and_as_they_appear_and_come_back_by_their_ref(client, plan, groups):
    write(client, plan, groups["Repair"], "=‹keyword›")
    appearing = client.get(f"{plan}/arrange/ads.csv?form=appearing").text
    assert "‹" not in appearing and ",'=sash" in appearing
    sheet = client.get(f"{plan}/arrange/ads.csv").text
    changed = sheet.replace("'=‹keyword›", "Sash cords") + (
        "Search,Paint,New,,,ask,\nSearch,Nobody,New,,,ask,\nSearch,Paint,,,,,\n"
    )
    files = {"file": ("ads.csv", changed.encode())}
    read = client.post(f"{plan}/arrange/ads/file", files=files).json()
    assert [(r["row"], r["group"], bool(r["refused"])) for r in read["rows"]] == [
        (2, "Repair", False), (3, "Paint", False), (4, "Nobody", True), (5, "", True),
    ]  # fmt: skip
    assert len(written(client, plan)) == 1, "nothing is kept by reading"
    brought = post(client, f"{plan}/arrange/ads/bring", {"rows": read["rows"]})
    assert brought["did"] == "bring in 2 ads"
    assert [heads for heads, _ in written(client, plan)] == [["Sash cords"], ["New"]]
    same = client.post(
        f"{plan}/arrange/ads/file",
        files={"file": ("ads.csv", client.get(f"{plan}/arrange/ads.csv").content)},
    ).json()
    assert [r["same"] for r in same["rows"]] == [True, True]
    client.post(f"{plan}/undo")
    assert [heads for heads, _ in written(client, plan)] == [["=‹keyword›"]]


def test_merging_keeps_ads_and_removing_a_group_takes_its_own(client, plan, groups):
    write(client, plan, groups["Paint"], "Paint")
    post(
        client, f"{plan}/arrange/groups/merge", {"ids": [groups["Paint"]], "into": groups["Repair"]}
    )
    assert [a["group_id"] for a in ads_of(client, plan)["ads"]] == [groups["Repair"]]
    client.post(f"{plan}/undo")
    assert [a["group_id"] for a in ads_of(client, plan)["ads"]] == [groups["Paint"]]


def test_a_groups_bid_is_its_keywords_unless_they_have_one(client, plan, groups):
    sheet = client.get(plan).json()["sheet"]
    ids = dict(zip(sheet["texts"]["text"], sheet["texts"]["id"], strict=True))
    own = ids["sash cord replacement"]
    client.post(f"{plan}/bids/lock", json={"bids": {str(own): 0.7}})
    post(client, f"{plan}/arrange/groups/{groups['Repair']}", {"bid": 0.9})
    after = client.get(plan).json()["sheet"]
    bids = dict(zip(after["texts"]["id"], after["figures"]["bid"], strict=True))
    assert bids[ids["sash window repair"]] == pytest.approx(0.9)
    client.post(f"{plan}/undo")
    again = client.get(plan).json()["sheet"]
    assert again["figures"]["bid"] != after["figures"]["bid"]
    post(client, f"{plan}/arrange/groups/{groups['Repair']}", {"bid": 0}, 422)


# pages


def pages_of(client, plan):
    return client.get(f"{plan}/arrange/pages").json()


PAGE = b"<title>Sash repairs</title><h1>Sash windows</h1><p>Cords.</p>"


def test_files_are_read_kept_and_held_against_the_groups_words(client, plan, groups):
    files = [("file", ("repair.html", PAGE)), ("file", ("big.html", b"x" * (6 * 2**20))),
             ("file", ("blank.txt", b" \n"))]  # fmt: skip
    read = client.post(f"{plan}/arrange/pages/read", files=files).json()["pages"]
    assert [bool(p["refused"]) for p in read] == [False, True, True]
    assert "6 MB" in read[1]["refused"]
    page = {k: read[0][k] for k in ("address", "title", "headings", "text")}
    body = {"pages": [{**page, "address": "/repair"}], "group_id": groups["Repair"]}
    post(client, f"{plan}/arrange/pages", body)
    view = pages_of(client, plan)
    (one,) = view["pages"]
    assert (one["address"], one["groups"]) == ("/repair", [groups["Repair"]])
    (group,) = view["groups"]
    said = {w["word"]: w["where"] for w in group["words"]}
    assert said["sash"] == ["title", "heading"] and said["replacement"] == []
    assert "“replacement”" in group["sentence"] and group["said"] == len(group["words"]) - 1
    outline = ArrangeView.model_validate(client.get(f"{plan}/arrange").json())
    at = outline.groups.name.index("Repair")
    assert outline.groups.page_said[at] == group["said"] and outline.pages == 1
    client.post(f"{plan}/undo")
    assert pages_of(client, plan)["pages"] == []


def test_a_page_that_moves_takes_along_what_leads_to_it(client, plan, groups):
    keep = {"pages": [{"address": "a.html", "title": "Sash"}], "group_id": groups["Repair"]}
    post(client, f"{plan}/arrange/pages", keep)
    (one,) = pages_of(client, plan)["pages"]
    post(client, f"{plan}/arrange/pages/{one['id']}", {"address": "https://x.example/sash/"})
    assert pages_of(client, plan)["groups"][0]["own"] == "https://x.example/sash/"
    assert pages_of(client, plan)["pages"][0]["groups"] == [groups["Repair"]]
    post(client, f"{plan}/arrange/pages", {"pages": [{"address": "/sash", "title": "New"}]})
    assert [p["title"] for p in pages_of(client, plan)["pages"]] == ["New"]
    post(client, f"{plan}/arrange/pages", {"pages": [{"address": "/other", "title": "Cords"}]})
    other = pages_of(client, plan)["pages"][1]["id"]
    post(client, f"{plan}/arrange/pages/{other}", {"address": "/sash"}, 422)
    post(client, f"{plan}/arrange/pages/remove", {"ids": [other, 999]}, 404)
    post(client, f"{plan}/arrange/pages/remove", {"ids": [other]})
    assert len(pages_of(client, plan)["pages"]) == 1


def test_a_campaigns_page_serves_its_groups_and_a_better_one_is_named(client, plan, groups):
    pages = [
        {"address": "/", "title": "Windows"},
        {"address": "/sash", "title": "Sash cord repair"},
    ]
    post(client, f"{plan}/arrange/pages", {"pages": pages})
    campaign = client.get(f"{plan}/arrange").json()["campaigns"][0]["id"]
    post(client, f"{plan}/arrange/campaigns/{campaign}", {"page": "/"})
    (group,) = pages_of(client, plan)["groups"]
    assert (group["address"], group["own"], group["better"]) == ("/", "", "/sash")
    assert group["better_said"] > group["said"]


def test_pages_are_the_clients_and_another_of_its_plans_sees_them(client, plan, groups):
    copied = post(client, f"{plan}/copy", {"name": "Twin"}, 201)["id"]
    before = client.get(f"/api/plans/{copied}").json()["summary"]["revision"]
    post(client, f"{plan}/arrange/pages", {"pages": [{"address": "/", "title": "Windows"}]})
    other = pages_of(client, f"/api/plans/{copied}")
    assert [p["address"] for p in other["pages"]] == ["/"] and other["revision"] > before
