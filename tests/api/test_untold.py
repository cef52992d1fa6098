"""Reports that leave out what Milkwort learns from: nothing is concluded from what nobody said."""

import pytest

from tests.api.learning import learn

ROWS = {
    "sash window repair": (900, 60, 90.0, 0),
    "sash cord replacement": (4000, 400, 800.0, 0),
}


def report(*left_out):
    names = ["impressions", "clicks", "cost", "customers"]
    held = [name for name in names if name not in left_out]
    lines = [",".join(["keyword", "since", "until", *held])]
    for keyword, figures in ROWS.items():
        said = [str(figures[names.index(name)]) for name in held]
        lines.append(",".join([keyword, "2027-04-01", "2027-04-30", *said]))
    return "\n".join(lines)


def bring(client, plan, text):
    answer = client.post(f"{plan}/results", files={"file": ("april.csv", text.encode())})
    assert answer.status_code == 200, answer.text
    return answer.json()


def kinds(view):
    return {one["kind"] for one in view["waiting"]}


def test_without_showings_nothing_is_called_hardly_shown_and_searches_stay(client, plan):
    bring(client, plan, report())
    told = learn(client, plan)
    client.post(f"{plan}/undo").raise_for_status()
    (said,) = bring(client, plan, report("impressions"))["notices"]
    assert "how often a keyword was shown" in said
    view = learn(client, plan)
    assert kinds(view) == kinds(told) - {"hardly"}
    assert view["corrections"] | {"price": 0} == told["corrections"] | {
        "price": 0, "searches": 1.0, "click_rate": 1.0,
    }  # fmt: skip
    assert view["corrections"]["price"] == pytest.approx(told["corrections"]["price"])
    assert all(one["clicked"] is None for one in view["keywords"])
    # so many clicks at the click rate that was planned: all of it lies in the showings
    assert view["month"]["customers"]["click_rate"] == pytest.approx(0.0)
    assert any("without showings" in said for said in view["notices"])


def test_without_customers_nothing_is_stopped_and_no_range_is_held_against_none(client, plan):
    bring(client, plan, report())
    told = learn(client, plan)
    assert "stop" in {one["verdict"] for one in told["keywords"]}
    client.post(f"{plan}/undo").raise_for_status()
    (said,) = bring(client, plan, report("customers"))["notices"]
    assert "No column says customers" in said
    view = learn(client, plan)
    assert {one["verdict"] for one in view["keywords"] if one["clicks"]} == {"wait"}
    assert all(one["exposure"] == 0 for one in view["keywords"])
    assert view["corrections"]["conversion"] == pytest.approx(1.0)
    assert view["month"]["pace"]["spent"] == told["month"]["pace"]["spent"] == pytest.approx(890.0)
    assert view["month"]["customers"]["conversion"] == pytest.approx(0.0)
    (month,) = client.get(f"{plan}/learn/word").json()["months"]
    assert [one["figure"] for one in month["figures"]] == ["clicks", "spend"]
    page = client.get(f"{plan}/learn/page/html")
    assert page.status_code == 200 and "is not known" in page.text


def test_what_a_later_file_says_stands_in_the_place_of_what_was_not(client, plan):
    bring(client, plan, report("customers", "impressions"))
    bring(client, plan, report())
    assert "stop" in {one["verdict"] for one in learn(client, plan)["keywords"]}
    assert not any("without" in said for said in learn(client, plan)["notices"])


def test_enquiries_are_evidence_of_an_offer_in_two_steps_and_of_no_other(client, plan):
    text = "keyword,since,until,impressions,clicks,cost,enquiries\n" + "".join(
        f"{keyword},2027-04-01,2027-04-30,{shown},{clicks},{cost},1\n"
        for keyword, (shown, clicks, cost, _) in ROWS.items()
    )
    bring(client, plan, text)
    assert all(one["exposure"] == 0 for one in learn(client, plan)["keywords"])
    steps = {"rate_low": 0.06, "rate_likely": 0.1, "rate_high": 0.14,
             "close_low": 0.2, "close_likely": 0.3, "close_high": 0.4}  # fmt: skip
    client.patch(f"{plan}/brief", json=steps).raise_for_status()
    seen = {one["keyword"]: one for one in learn(client, plan)["keywords"]}
    assert seen["sash cord replacement"]["exposure"] > 350
    assert seen["sash cord replacement"]["verdict"] == "stop"
