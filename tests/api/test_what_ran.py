"""Results are held against what was handed over and ran, else against the version of the month."""

from __future__ import annotations

from datetime import UTC, datetime

import pytest

from milkwort.api.learn import word
from milkwort.core.errors import MilkwortError
from tests.api.learning import MAY, RESULTS, learn, next_month, put

OF_THE_BID_THAT_RAN = ("searches", "click_rate", "price", "rate", "missing", "verdict")


def sent(client, plan, runs_from: str | None = None, status: str = "running") -> int:
    """The id of what is handed over now, and of which is told that it runs."""
    answer = client.post(f"{plan}/hand-over", json={"kind": "csv"})
    assert answer.status_code == 201, answer.text
    made = answer.json()["made"]["id"]
    told(client, plan, made, status=status, runs_from=runs_from)
    return made


def told(client, plan, made: int, code: int = 200, **state) -> dict:
    body = {name: value for name, value in state.items() if value is not None}
    answer = client.patch(f"{plan}/hand-over/{made}", json=body)
    assert answer.status_code == code, answer.text
    return answer.json()


def copied(client, plan) -> str:
    answer = client.post(f"{plan}/copy", json={"name": "A copy"})
    assert answer.status_code == 201, answer.text
    return f"/api/plans/{answer.json()['id']}"


def purse(client, plan, money: float) -> None:
    answer = client.patch(f"{plan}/brief", json={"monthly_spend": money})
    assert answer.status_code == 200, answer.text


def planned(view: dict) -> list[float]:
    return [round(day["planned_cost"], 6) for day in view["days"]]


@pytest.fixture
def april(client, plan) -> str:
    """A plan for April 2027, with its results."""
    client.patch(f"{plan}/brief", json={"start_date": "2027-04-01"})
    put(client, plan, RESULTS)
    return plan


def test_what_is_changed_later_does_not_move_what_ran(client, april):
    before = learn(client, april)
    assert before["month"]["sent"] == []
    sent(client, april)
    purse(client, april, 20.0)
    view = learn(client, april)
    assert planned(view) == planned(before)
    for name in ("customers", "spend", "days"):
        assert view[name] == before[name]
    assert view["month"]["customers"] == before["month"]["customers"]
    assert view["month"]["pace"] == before["month"]["pace"]
    today = datetime.now(UTC).date().isoformat()
    (span,) = view["month"]["sent"]
    assert (span["at"][:10], span["first"], span["last"]) == (today, "2027-04-01", "2027-04-30")


def test_without_anything_that_runs_the_plan_itself_is_what_days_are_held_against(client, april):
    before = learn(client, april)
    made = sent(client, april, status="written")
    purse(client, april, 20.0)
    assert max(planned(learn(client, april))) < min(planned(before))
    told(client, april, made, status="running")
    assert planned(learn(client, april)) == planned(before)
    told(client, april, made, status="paused")  # it ran all the same
    assert planned(learn(client, april)) == planned(before)
    assert told(client, april, made, status="written")["runs_from"] is None
    assert max(planned(learn(client, april))) < min(planned(before))


def test_a_month_in_which_two_ran_is_held_against_each_on_its_days(client, april):
    before = learn(client, april)
    sent(client, april)
    purse(client, april, 20.0)
    small = learn(client, april)  # still held against what runs
    sent(client, april, "2027-04-16")
    purse(client, april, 1000.0)
    view = learn(client, april)
    assert planned(view)[:15] == planned(before)[:15] == planned(small)[:15]
    assert max(planned(view)[15:]) < min(planned(before)[15:])
    assert [(s["first"], s["last"]) for s in view["month"]["sent"]] == [
        ("2027-04-01", "2027-04-15"),
        ("2027-04-16", "2027-04-30"),
    ]
    for name, last in (("customers", "reported"), ("spend", "actual")):
        parts = dict(view[name])
        came = parts.pop(last)
        assert sum(parts.values()) == pytest.approx(came)
        assert came == pytest.approx(before[name][last])
        campaigns = [c[f"{name.removesuffix('s')}_parts"] for c in view["month"]["campaigns"]]
        assert sum(c["planned"] for c in campaigns) == pytest.approx(view[name]["planned"])
    assert view["spend"]["planned"] == pytest.approx(sum(planned(view)), rel=1e-6)
    assert view["month"]["pace"]["purse"] == pytest.approx(20.0)


def test_corrections_rest_on_the_bids_that_were_sent(client, april):
    """A bid that was raised after the days were seen was not the bid that they were seen at."""
    sent(client, april)
    before = learn(client, april)["keywords"]
    ids = client.get(april).json()["sheet"]["texts"]["id"]
    raised = client.post(f"{april}/bids", json={"ids": ids[:2], "bid": 2.4})
    assert raised.status_code == 200, raised.text
    after = learn(client, april)["keywords"]
    for name in OF_THE_BID_THAT_RAN:
        assert [one[name] for one in after] == [one[name] for one in before]


def test_a_version_whose_month_begins_takes_its_place_until_it_is_sent_itself(client, april):
    sent(client, april)
    days = planned(learn(client, april))
    may = next_month(client, april)
    put(client, may, RESULTS.replace("2027-04-", "2027-05-"))
    assert learn(client, may)["month"]["sent"] == []
    purse(client, may, 20.0)
    small = planned(learn(client, may))
    made = sent(client, may, "2027-05-11")
    purse(client, may, 1000.0)
    view = learn(client, may)
    assert planned(view)[10:] == small[10:]
    assert min(planned(view)[:10]) > max(small[:10])
    assert [s["first"] for s in view["month"]["sent"]] == ["2027-05-11"]
    # April stays held against what ran in April
    assert planned(learn(client, april))[:30] == days
    told(client, may, made, runs_from="2027-05-01")
    assert planned(learn(client, may)) == small


def test_the_range_that_was_given_is_the_one_of_what_was_sent(client, april):
    before = client.get(f"{april}/learn/word").json()["months"]
    sent(client, april)
    purse(client, april, 20.0)
    assert client.get(f"{april}/learn/word").json()["months"] == before


def test_the_months_so_far_change_by_the_bids_that_were_sent(client, april):
    sent(client, april)
    may = next_month(client, april)
    put(client, may, MAY, "may.csv")
    raw = client.get(f"{may}/raw.json").json()["keyword"]
    repair = next(one["id"] for one in raw if one["text"] == "sash window repair")

    def lowered() -> int:
        newest, _ = client.get(f"{may}/learn/history").json()["months"]
        return sum(one["keywords"] for one in newest["changes"] if one["change"] == "lowered")

    def bid(money: float) -> None:
        answer = client.post(f"{may}/bids", json={"ids": [repair], "bid": money})
        assert answer.status_code == 200, answer.text

    bid(0.05)
    low = lowered()
    bid(4.0)
    high = lowered()
    assert high < low  # nothing was sent of May: its own bids ran
    sent(client, may, "2027-05-01")
    bid(0.05)
    assert lowered() == high  # what is typed after it was sent did not run


def test_a_copy_has_nothing_that_ran(client, april):
    sent(client, april)
    copy = copied(client, april)
    assert client.get(f"{copy}/hand-over").json()["sent"] == []
    assert learn(client, copy)["month"]["sent"] == []


def test_it_runs_from_today_but_not_before_its_plan_begins(client, plan):
    today = datetime.now(UTC).date().isoformat()
    client.patch(f"{plan}/brief", json={"start_date": "2020-01-01"})
    first = sent(client, plan)
    client.patch(f"{plan}/brief", json={"start_date": "2099-03-01"})
    second = sent(client, plan)
    items = {one["id"]: one for one in client.get(f"{plan}/hand-over").json()["sent"]}
    assert items[first]["runs_from"] == today
    assert items[second]["runs_from"] == "2099-03-01"
    assert told(client, plan, second, status="paused")["runs_from"] == "2099-03-01"


@pytest.mark.parametrize("day", ["2027-4-1", "April", "2027-02-30", 7])
def test_a_first_day_is_a_day_and_of_something_that_runs(client, plan, day):
    made = sent(client, plan, status="written")
    told(client, plan, made, code=422, runs_from="2027-04-01")
    told(client, plan, made, code=422, status="running", runs_from=day)
    assert client.get(f"{plan}/hand-over").json()["sent"][0]["status"] == "written"


def test_another_plans_hand_over_can_not_be_told_about(client, plan):
    made = sent(client, plan)
    other = copied(client, plan)
    told(client, other, made, code=404, status="paused")


def test_what_can_not_be_read_any_more_leaves_the_plan(client, april, monkeypatch):
    sent(client, april)
    purse(client, april, 20.0)

    def refuse(state: bytes) -> None:
        raise MilkwortError("It can't be read.", "plan")

    monkeypatch.setattr("milkwort.api.learn.ran.frozen", refuse)
    view = learn(client, april)
    (lost,) = view["month"]["sent"]
    assert not lost["read"]
    assert view["month"]["pace"]["purse"] == pytest.approx(20.0)


def test_months_of_what_was_sent_are_not_drawn_again_when_the_plan_changes(
    client, april, monkeypatch
):
    drawn = []
    draw = word.word_of
    monkeypatch.setattr(
        word, "word_of", lambda result, first, *rest, **more: (
            drawn.append(first), draw(result, first, *rest, **more))[1],
    )  # fmt: skip

    def drawn_now() -> int:
        drawn.clear()
        months = client.get(f"{april}/learn/word").json()["months"]
        assert months
        return len(drawn)

    assert drawn_now() == 1
    purse(client, april, 20.0)
    assert drawn_now() == 1  # the plan itself ran: it promises something else now
    sent(client, april)
    assert drawn_now() == 1
    purse(client, april, 30.0)
    assert drawn_now() == 0
    put(client, april, MAY, "may.csv")
    assert drawn_now() == 2  # other results count: April is held against them anew too


def test_every_window_hears_that_something_runs(client, april):
    made = sent(client, april, status="written")
    before = client.get(april).json()["summary"]["revision"]
    told(client, april, made, note="by post")
    assert client.get(april).json()["summary"]["revision"] == before
    told(client, april, made, status="running")
    assert client.get(april).json()["summary"]["revision"] > before
