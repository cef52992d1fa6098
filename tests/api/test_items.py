"""Codes of things among what people typed: kept apart, given spots, bid down."""

import pytest

from tests.api.learning import RESULTS, TERMS, learn, put

SOLD, IDLE = "b07xyz1234", "4006381333931"
CODES = TERMS + "".join(
    f"{SOLD},sash window repair,exact,2027-04-{day:02},10,1,0.9,{day % 4 == 0:d}\n"
    f"{IDLE},sash window repair,exact,2027-04-{day:02},10,1,0.5,0\n"
    for day in range(1, 31)
)
THING = {
    "code": SOLD.upper(), "name": "Brass sash lift", "price": 12, "margin": 0.4, "page": "",
    "deliverable": True,
}  # fmt: skip


@pytest.fixture
def typed(client, plan):
    """The plan with a month of results, codes among its terms, and one thing by its code."""
    put(client, plan, RESULTS)
    put(client, plan, CODES, "terms.csv")
    answer = client.post(f"{plan}/arrange/things", json={"things": [THING]})
    assert answer.status_code == 200, answer.text
    return plan


def terms(client, plan):
    return {one["term"]: one for one in learn(client, plan)["terms"]}


def decide(client, plan, *codes, status=200):
    answer = client.post(f"{plan}/learn/decide", json={"items": {"terms": list(codes)}})
    assert answer.status_code == status, answer.text
    return answer.json()


def test_codes_are_told_from_words_and_wait_for_a_spot(client, typed):
    found = terms(client, typed)
    assert {text for text, one in found.items() if one["item"]} == {SOLD, IDLE}
    assert found[SOLD]["suggestion"] == "spot" and found[SOLD]["thing"] == "Brass sash lift"
    waits = {one["key"]: one for one in learn(client, typed)["waiting"]}
    assert waits[SOLD]["kind"] == "spot" and "a spot of its own" in waits[SOLD]["says"]
    # as suggested, no code becomes a keyword
    both = {"terms": {"terms": [SOLD, "sash window repair gold"]}}
    client.post(f"{typed}/learn/decide", json=both).raise_for_status()
    texts = client.get(typed).json()["sheet"]["texts"]["text"]
    assert "sash window repair gold" in texts and SOLD not in texts


def test_one_that_sold_gets_a_spot_and_its_name_is_offered_as_a_keyword(client, typed):
    did = decide(client, typed, SOLD)["did"]
    assert did == "1 spot of item codes"
    (spot,) = client.get(f"{typed}/arrange/spots").json()["spots"]
    assert spot["name"] == f"{SOLD} Brass sash lift" and spot["pays"] == "click"
    assert spot["price"] == pytest.approx(0.99)
    assert spot["clicks"] == pytest.approx(30 * (365 / 12) / 30)
    sheet = client.get(typed).json()["sheet"]["texts"]
    assert sheet["call"][sheet["text"].index("Brass sash lift")] == "none"
    assert terms(client, typed)[SOLD]["decided"]
    assert SOLD not in {one["key"] for one in learn(client, typed)["waiting"]}
    decide(client, typed, SOLD, status=422)
    client.post(f"{typed}/undo").raise_for_status()
    assert client.get(f"{typed}/arrange/spots").json()["spots"] == []
    assert not terms(client, typed)[SOLD]["decided"]


def test_a_spot_that_never_sold_bids_a_tenth_less(client, typed):
    decide(client, typed, IDLE, status=422)
    made = {"name": IDLE, "pays": "click", "price": 0.5, "clicks": 30}
    client.post(f"{typed}/arrange/spots", json=made).raise_for_status()
    assert decide(client, typed, IDLE, SOLD)["did"] == (
        "1 spot of item codes and a lower price for 1 spot"
    )
    spots = {one["name"]: one for one in client.get(f"{typed}/arrange/spots").json()["spots"]}
    assert spots[IDLE]["price"] == pytest.approx(0.45)


def test_what_is_no_code_of_the_report_is_refused(client, typed, plan):
    decide(client, typed, "sash window repair jobs", status=422)
    decide(client, typed, "b07abc9999", status=422)


def test_rows_of_codes_stand_apart_from_words_that_are_no_keyword(client, plan):
    rows = RESULTS.splitlines()[0] + "\n" + "".join(
        f"{text},exact,2027-04-0{day},10,1,0.5,0,,\n"
        for text in (SOLD, "sash windw repair") for day in (1, 2)
    )  # fmt: skip
    put(client, plan, RESULTS + rows.split("\n", 1)[1])
    found = {one["keyword"]: one for one in learn(client, plan)["unmatched"]}
    assert found[SOLD]["item"] and found[SOLD]["nearest"] is None
    assert not found["sash windw repair"]["item"]
    assert found["sash windw repair"]["nearest"] == "sash window repair, exact"
