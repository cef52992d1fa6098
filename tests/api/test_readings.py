"""Readings of several sources, and which of them is in use."""

import pytest

from tests.api.conftest import ids_of, texts_of
from tests.api.gathering import paste, take, tray_of


def test_readings_of_several_sources_stand_side_by_side_and_one_is_in_use(client, plan):
    take(client, plan, paste(client, plan, "keyword\tsearches\nsash cord replacement\t900\n"))
    keyword = ids_of(client, plan)["sash cord replacement"]
    newest, first = client.get(f"{plan}/keywords/{keyword}/workings").json()["readings"]
    assert (newest["in_use"], newest["volume_high"]) == (True, 900)
    assert newest["origin"] == "pasted" and newest["cpc_low"] is None
    assert (newest["prices_in_use"], first["prices_in_use"]) == (False, True)
    assert (first["in_use"], first["volume_high"], first["origin"]) == (False, 420, "six.csv")
    answer = client.post(f"{plan}/keywords/{keyword}/reading", json={"id": first["id"]}).json()
    assert answer["rows"]["volume_high"] == [420] and "searches" in answer["columns"]
    rule = f"{plan}/readings/rule"
    answer = client.post(rule, json={"rule": f"of {newest['origin']}"}).json()
    assert answer["rows"]["volume_high"] == [900]
    client.post(f"{plan}/undo")
    answer = client.post(rule, json={"rule": "mean"}).json()
    assert answer["rows"]["volume_high"] == pytest.approx([(900 * 420) ** 0.5])
    answer = client.post(rule, json={"rule": "newest"}).json()
    assert answer["rows"]["volume_high"] == [900]
    wrong = client.post(f"{plan}/keywords/{keyword}/reading", json={"id": 10_000})
    assert wrong.status_code == 404


def test_searches_and_prices_come_from_readings_of_their_own_each_with_its_area(client, plan):
    tray = paste(client, plan, "keyword\tsearches\nsash cord replacement\t900\n")
    units = {"columns": tray.columns, "first_row": tray.first_row, "area": "The county"}
    tray = tray_of(client.put(f"{plan}/gather/{tray.key}/columns", json=units))
    take(client, plan, tray)
    keyword = ids_of(client, plan)["sash cord replacement"]
    newest, first = client.get(f"{plan}/keywords/{keyword}/workings").json()["readings"]
    assert (newest["area"], first["area"]) == ("The county", "")
    assert "prices of six.csv" in texts_of(client, plan)["origin"]["sash cord replacement"]
    low = texts_of(client, plan)["cpc_low"]["sash cord replacement"]
    assert low == pytest.approx(first["cpc_low"])

    take(
        client,
        plan,
        paste(client, plan, "keyword\tlow price\thigh price\nsash cord replacement\t9\t10\n"),
    )
    assert texts_of(client, plan)["cpc_low"]["sash cord replacement"] == 9
    assert texts_of(client, plan)["volume_high"]["sash cord replacement"] == 900
    choice = {"id": first["id"], "use": "prices"}
    client.post(f"{plan}/keywords/{keyword}/reading", json={"id": newest["id"], "use": "prices"})
    assert texts_of(client, plan)["cpc_low"]["sash cord replacement"] == 9  # it says no price
    client.post(f"{plan}/keywords/{keyword}/reading", json=choice)
    found = texts_of(client, plan)
    assert found["cpc_low"]["sash cord replacement"] == pytest.approx(first["cpc_low"])
    assert found["volume_high"]["sash cord replacement"] == 900
    client.post(f"{plan}/undo")
    assert texts_of(client, plan)["cpc_low"]["sash cord replacement"] == 9
    copied = client.post(f"{plan}/copy", json={"name": "Copy"}).json()
    again = texts_of(client, f"/api/plans/{copied['id']}")
    assert again["cpc_low"]["sash cord replacement"] == 9
    assert again["volume_high"]["sash cord replacement"] == 900


def test_showings_at_a_bid_become_searches_and_popularity_stays_an_index(client, plan):
    head = "keyword\tsearches\tlow price\thigh price\tpopularity\tpaid rank"
    text = f"{head}\nsash weight\t100\t0.8\t2.4\t71\t3\n"
    tray = paste(client, plan, text)
    units = {"columns": tray.columns, "first_row": tray.first_row, "shown_at_bid": 1.5}
    tray = tray_of(client.put(f"{plan}/gather/{tray.key}/columns", json=units))
    assert tray.shown_at_bid == 1.5
    take(client, plan, tray)
    found = texts_of(client, plan)
    assert found["searches"]["sash weight"] == pytest.approx(100 / 0.538786, rel=1e-5)
    assert found["volume_high"]["sash weight"] == 100
    assert (found["popularity"]["sash weight"], found["paid_rank"]["sash weight"]) == (71, 3)
    again = paste(client, plan, "keyword\tpopularity\nsash weight\t80\n")
    assert again.counts["changed"] == 1
    take(client, plan, again)
    found = texts_of(client, plan)
    assert found["popularity"]["sash weight"] == 80
    assert found["searches"]["sash weight"] == pytest.approx(100 / 0.538786, rel=1e-5)
