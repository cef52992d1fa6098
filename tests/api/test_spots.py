"""Spots: places without a keyword, made, fitted beside keywords, in the purse, and put back."""

import pytest

PAGE = {"name": "Item page", "pays": "click", "price": 0.3, "clicks": 100}


def spots_of(client, plan):
    answer = client.get(f"{plan}/arrange/spots")
    assert answer.status_code == 200, answer.text
    return answer.json()["spots"]


def make(client, plan, expected=200, **values):
    answer = client.post(f"{plan}/arrange/spots", json=PAGE | values)
    assert answer.status_code == expected, answer.text
    return answer.json()


def test_a_spot_takes_money_where_it_is_worth_it_and_stands_in_the_purse(client, plan):
    before = client.get(plan).json()["summary"]["purse"]
    answer = make(client, plan)
    assert answer["did"] == "add the spot Item page"
    (one,) = spots_of(client, plan)
    assert one["expected_spend"] == pytest.approx(30.0 * one["shown_share"], rel=1e-6)
    assert one["click_price"] == 0.3 < one["ceiling"]
    purse = client.get(plan).json()["summary"]["purse"]
    (mine,) = [part for part in purse["segments"] if part["spot_id"] is not None]
    assert mine == {
        "id": None, "spot_id": one["id"], "name": "Item page", "spend": one["expected_spend"],
    }  # fmt: skip
    assert purse["customers"] > before["customers"] and purse["spend"] <= purse["purse"] + 1e-6
    for figure, name in (("spend", "expected_spend"), ("customers", "expected_customers")):
        sections = client.get(f"{plan}/workings/{figure}").json()["sections"]
        lines = {line["label"]: line["value"] for part in sections for line in part["lines"]}
        assert lines["of it on spots, which have no keyword"] == pytest.approx(one[name])
    client.post(f"{plan}/undo")
    assert spots_of(client, plan) == []


def test_every_screen_and_file_stands_beside_spots(client, plan):
    make(client, plan)
    shown = {"pays": "showings", "price": 2.0, "showings": 9000, "click_rate": 0.01, "clicks": 0}
    make(client, plan, name="Item page", **shown)
    account = {"file": ("a.csv", b"keyword,bid\nsash window repair,0.1\n", "text/csv")}
    assert client.post(f"{plan}/hand-over/account", files=account).status_code == 200
    number = plan.rsplit("/", 1)[1]
    asked = [
        path.replace("{plan_id}", number).replace("{figure}", "customers")
        for path, verbs in client.app.openapi()["paths"].items()
        if "get" in verbs and "{plan_id}" in path and "events" not in path
        and not any(p.get("required") for p in verbs["get"]["parameters"] if p["in"] == "query")
    ]  # fmt: skip
    plain = [path for path in asked if "{" not in path]
    assert len(plain) > 20
    assert {path: code for path in plain if (code := client.get(path).status_code) != 200} == {}
    view = client.get(f"{plan}/fit").json()
    assert view["groups"][-2:] == ["Item page", "Item page"]
    assert any("Item page" in block["keywords"] for block in view["blocks"])


def test_a_spot_too_dear_for_its_ceiling_is_kept_but_takes_nothing(client, plan):
    make(client, plan, price=900.0)
    (one,) = spots_of(client, plan)
    assert one["click_price"] > one["ceiling"] and one["expected_spend"] == 0


def test_showings_are_paid_by_the_thousand_and_a_spot_is_changed(client, plan):
    shown = {"pays": "showings", "price": 2.0, "showings": 9000, "click_rate": 0.01, "clicks": 0}
    make(client, plan, **shown)
    (one,) = spots_of(client, plan)
    assert one["click_price"] == pytest.approx(0.2) and one["usual_sells"] == 0.4
    path = f"{plan}/arrange/spots/{one['id']}"
    assert client.post(path, json={"sells": 0.1, "name": "Banner"}).status_code == 200
    (after,) = spots_of(client, plan)
    assert (after["name"], after["sells"], after["price"]) == ("Banner", 0.1, 2.0)
    assert after["ceiling"] == pytest.approx(one["ceiling"] / 4)
    assert client.post(path, json={"click_rate": 0}).status_code == 422
    assert client.post(path, json={"campaign_id": 999}).status_code == 404
    gone = client.post(f"{plan}/arrange/spots/remove", json={"ids": [one["id"]]})
    assert gone.status_code == 200 and spots_of(client, plan) == []


def test_a_campaign_that_holds_a_spot_is_not_empty(client, plan):
    client.post(f"{plan}/arrange/campaigns", json={"name": "Places"})
    campaigns = client.get(f"{plan}/arrange").json()["campaigns"]
    places = next(c["id"] for c in campaigns if c["name"] == "Places")
    make(client, plan, campaign_id=places)
    client.post(f"{plan}/arrange/groups/remove", json={})
    assert [s["campaign"] for s in spots_of(client, plan)] == ["Places"]


def test_a_spot_falls_back_to_the_first_offer_when_its_own_goes(client, plan):
    more = {"name": "kits", "sale_value": 40.0, "gross_margin": 0.4, "rate_low": 0.01,
            "rate_likely": 0.02, "rate_high": 0.03}  # fmt: skip
    answer = client.patch(f"{plan}/brief", json={"offer_name": "jobs", "more_offers": [more]})
    assert answer.status_code == 200, answer.text
    offer = client.get(plan).json()["summary"]["brief"]["values"]["more_offers"][0]["id"]
    make(client, plan, offer_id=offer)
    own = spots_of(client, plan)[0]["ceiling"]
    client.patch(f"{plan}/brief", json={"more_offers": []})
    assert spots_of(client, plan)[0]["offer_id"] is None
    assert spots_of(client, plan)[0]["ceiling"] != pytest.approx(own)
