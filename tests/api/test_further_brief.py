"""The further fields of the brief: fee and tax, offers, profile, season, and where it starts."""

import pytest

from tests.api.gathering import paste, take


def test_what_is_inside_the_monthly_sum_leaves_the_purse(client, plan):
    fields = {"gross_spend": 1000, "fee": 100, "tax_share": 0.2}
    answer = client.patch(f"{plan}/brief", json=fields).json()
    assert answer["summary"]["purse"]["purse"] == pytest.approx(750)
    refused = client.patch(f"{plan}/brief", json={"fee": 2000})
    assert refused.status_code == 422 and "fee" in refused.json()["error"]["message"]


def test_several_offers_have_each_their_worth_and_keywords_point_to_them(client, plan):
    other = {"name": "sills", "sale_value": 30, "gross_margin": 0.5, "rate_low": 0.01,
             "rate_likely": 0.02, "rate_high": 0.03}  # fmt: skip
    client.patch(f"{plan}/brief", json={"offer_name": "windows", "more_offers": [other]})
    tray = paste(client, plan, "keyword\toffer\tcpc_low\tcpc_high\tvolume\n"
                 "sill repair\tsills\t0.1\t0.3\t90\nsill moon\tmoons\t1\t2\t3\n")  # fmt: skip
    assert tray.refused[0].column == "offer"
    take(client, plan, tray)
    sheet = client.get(plan).json()["sheet"]
    row = sheet["texts"]["text"].index("sill repair")
    assert sheet["figures"]["ceiling"][row] == pytest.approx(30 * 0.5 * 0.02)
    twice = client.patch(f"{plan}/brief", json={"more_offers": [other, other]})
    assert twice.status_code == 422 and "offer name" in twice.json()["error"]["message"]


def test_a_platform_profile_decides_the_least_bid_and_is_kept_as_a_file(client, plan):
    shipped = client.get("/api/profiles").json()
    assert len(shipped) == 3 and shipped[2]["pricing"] == "pay_bid"
    own = shipped[1] | {"name": "Our own", "min_bid": 0.5, "raises": 0.25}
    client.patch(f"{plan}/brief", json={"profile": own})
    assert client.get(f"{plan}/profile.json").json() == own
    rows = {a["name"]: a["value"] for a in client.get(f"{plan}/assumptions").json()}
    assert (rows["min_bid"], rows["platform_raise"]) == (0.5, 0.25)
    bad = client.patch(f"{plan}/brief", json={"profile": own | {"raises": 3}})
    assert bad.status_code == 422 and "raises" in bad.json()["error"]["message"]


def test_the_season_is_entered_or_taken_from_the_keywords(client, plan):
    assert client.post(f"{plan}/brief/season").status_code == 422
    months = "\t".join(f"m{n:02d}" for n in range(1, 13))
    figures = "\t".join("10" if n != 9 else "20" for n in range(1, 13))
    take(client, plan, paste(client, plan, f"keyword\t{months}\nsash stop\t{figures}\n"))
    answer = client.post(f"{plan}/brief/season").json()
    season = answer["summary"]["brief"]["values"]["season"]
    assert season[8] == pytest.approx(20 / (130 / 12), abs=1e-3) and len(season) == 12
    assert client.patch(f"{plan}/brief", json={"season": [1.0, 2.0]}).status_code == 422


@pytest.mark.parametrize("start", ["service", "shop", "subscription"])
def test_a_templates_figures_are_all_assumed(client, start):
    made = client.post("/api/plans", json={"name": "New", "start": start}).json()
    brief = client.get(f"/api/plans/{made['id']}").json()["summary"]["brief"]
    assert "sale_value" in brief["not_entered"] and brief["worth"]["ceiling"] > 0.05


def test_the_second_sample_pays_the_bid_in_euros_with_two_offers(client):
    body = {"name": "Brackish Jar", "start": "second_sample"}
    plan = f"/api/plans/{client.post('/api/plans', json=body).json()['id']}"
    frame = client.get(plan).json()["summary"]
    values = frame["brief"]["values"]
    assert (values["currency"], values["pricing"]) == ("EUR", "pay_bid")
    assert [o["name"] for o in values["more_offers"]] == ["fermenting kits"]
    assert frame["purse"]["running"] > 50 and frame["purse"]["spend"] <= 450
    assert {n["text"] for n in client.get(f"{plan}/negatives").json()} == {"recipe", "free"}
    copied = client.post(f"{plan}/copy", json={"name": "Copy"}).json()
    assert len(client.get(f"/api/plans/{copied['id']}/negatives").json()) == 2
