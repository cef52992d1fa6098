"""Columns of results whose headings don't tell what they hold: assigned once, remembered."""

import pytest

from milkwort.formats.result_columns import RESULT_COLUMNS, result_columns
from milkwort.formats.text_table import read_text_table
from tests.api.learning import learn

HEADS = ["Was", "Tag", "Gezeigt", "Gedrückt", "Bezahlt"]
FILE = (
    ";".join(HEADS)
    + "\n"
    + "".join(f"sash window repair;{day:02}.04.2027;200;12;14,50\n" for day in range(1, 4))
)
COLUMNS = {"keyword": 0, "day": 1, "impressions": 2, "clicks": 3, "cost": 4}


def bring(client, plan, text=FILE, columns=None, code=200):
    said = [f"{field}:{at}" for field, at in (columns or {}).items()]
    answer = client.post(f"{plan}/results", files={"file": ("april.csv", text.encode())},
                         params={"columns": said})  # fmt: skip
    assert answer.status_code == code, answer.text
    return answer.json()


def headings(client, plan, text=FILE):
    file = {"file": ("april.csv", text.encode())}
    answer = client.post(f"{plan}/results/headings", files=file)
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_a_file_nobody_knows_is_assigned_and_its_next_one_is_known(client, plan):
    assert "expected a column" in bring(client, plan, code=422)["error"]["message"]
    asked = headings(client, plan)
    assert asked["headings"] == HEADS and asked["columns"] == {}
    assert set(COLUMNS) <= set(asked["fields"])
    assert bring(client, plan, columns=COLUMNS)["taken"] == 3
    assert learn(client, plan)["month"]["pace"]["spent"] == pytest.approx(43.5)
    assert headings(client, plan)["columns"] == COLUMNS
    more = FILE + "sash window repair;04.04.2027;100;6;7,25\n"
    assert bring(client, plan, more)["taken"] == 4
    assert learn(client, plan)["month"]["pace"]["spent"] == pytest.approx(50.75)


def test_what_is_assigned_goes_before_what_headings_say(client, plan):
    """Its clicks are not what it calls clicks."""
    text = "keyword,day,clicks,visits that were paid,cost\nsash window repair,2027-04-01,9,5,2\n"
    columns = {"keyword": 0, "day": 1, "clicks": 3, "cost": 4}
    bring(client, plan, text, columns)
    (one,) = [k for k in learn(client, plan)["keywords"] if k["spend"] > 0]
    assert one["clicks"] == 5
    # a file with other headings is read by its own
    assert (
        headings(client, plan, text.replace("that were paid", "in all"))["columns"]["clicks"] == 2
    )


@pytest.mark.parametrize(
    "said",
    [["clicks"], ["clicks:x"], ["clicks:-1"], ["clicks:99"], ["wishes:1"], ["clicks:1", "clicks:2"],
     ["clicks:1", "cost:1"], ["clicks:²"], ["clicks:1"] * 41],
)  # fmt: skip
def test_columns_that_can_not_be_are_refused_and_nothing_is_kept(client, plan, said):
    file = {"file": ("april.csv", FILE.encode())}
    answer = client.post(f"{plan}/results", files=file, params={"columns": said})
    assert answer.status_code == 422, answer.text
    assert headings(client, plan)["columns"] == {}
    assert learn(client, plan)["imports"] == []


def test_an_assignment_that_reads_nothing_is_not_remembered(client, plan):
    wrong = COLUMNS | {"day": 0, "keyword": 1}
    bring(client, plan, columns=wrong, code=422)
    assert headings(client, plan)["columns"] == {}


TITLED = "Keywords\n1.4.2027 - 3.4.2027\nWas;Gedrückt;Bezahlt\nsash window repair;36;43,50\n"
IN_TITLED = {"keyword": 0, "clicks": 1, "cost": 2}


def test_days_that_a_title_says_are_offered_and_used(client, plan):
    asked = headings(client, plan, TITLED)
    assert asked["headings"] == ["Was", "Gedrückt", "Bezahlt"]
    assert (asked["since"], asked["until"]) == ("2027-04-01", "2027-04-03")
    taken = bring(client, plan, TITLED, IN_TITLED)
    assert taken["taken"] == 1 and "2027-04-01 to 2027-04-03" in " ".join(taken["notices"])
    assert learn(client, plan)["month"]["pace"]["spent"] == pytest.approx(43.5)
    # a file of another month has the same headings
    assert headings(client, plan, TITLED.replace(".4.", ".5."))["columns"] == IN_TITLED


def test_days_can_be_said_beside_a_file_that_says_none(client, plan):
    text = TITLED.split("\n", 2)[2]
    assert "expected a column day" in bring(client, plan, text, IN_TITLED, 422)["error"]["message"]
    file = {"file": ("april.csv", text.encode())}
    said = {"columns": [f"{f}:{at}" for f, at in IN_TITLED.items()], "since": "2027-04-01"}
    wrong = client.post(f"{plan}/results", files=file, params=said | {"until": "2027-03-01"})
    assert wrong.status_code == 422 and "in order" in wrong.json()["error"]["message"]
    assert client.post(f"{plan}/results", files=file, params=said).status_code == 422
    answer = client.post(f"{plan}/results", files=file, params=said | {"until": "2027-04-03"})
    assert answer.status_code == 200, answer.text
    (one,) = learn(client, plan)["imports"]
    assert (one["since"], one["until"]) == ("2027-04-01", "2027-04-03")


def test_money_that_no_column_says_is_asked_for_and_laid_evenly_on_the_clicks(client, plan):
    text = (
        "keyword,day,impressions,clicks,customers\n"
        "sash window repair,2027-04-01,900,60,0\nsash cord replacement,2027-04-02,4000,240,0\n"
    )
    assert "expected a column cost" in bring(client, plan, text, code=422)["error"]["message"]
    assert learn(client, plan)["imports"] == []
    file = {"file": ("april.csv", text.encode())}
    for wrong in ("-1", "nan", "inf", "much"):
        assert client.post(f"{plan}/results", files=file, params={"spent": wrong}).is_error
    answer = client.post(f"{plan}/results", files=file, params={"spent": "600"})
    assert answer.status_code == 200, answer.text
    assert any("each click counts as 2.00" in said for said in answer.json()["notices"])
    view = learn(client, plan)
    assert {one["keyword"]: one["spend"] for one in view["keywords"] if one["clicks"]} == {
        "sash window repair": pytest.approx(120.0), "sash cord replacement": pytest.approx(480.0),
    }  # fmt: skip
    # what was said for a file that has a column is of no use to it
    priced = text.replace("customers", "cost").replace(",0\n", ",3\n").replace("04-0", "05-0")
    bring_file = {"file": ("may.csv", priced.encode())}
    client.post(f"{plan}/results", files=bring_file, params={"spent": "600"}).raise_for_status()
    assert learn(client, plan)["month"]["pace"]["spent"] == pytest.approx(6.0)


@pytest.mark.parametrize(("spent", "left_out"), [("600", True), ("0", False)])
def test_money_said_for_rows_that_nobody_clicked_is_left_out_aloud(client, plan, spent, left_out):
    text = "keyword,day,impressions,clicks\nsash window repair,2027-04-01,900,0\n"
    file = {"file": ("april.csv", text.encode())}
    answer = client.post(f"{plan}/results", files=file, params={"spent": spent})
    assert answer.status_code == 200, answer.text
    assert any("Nobody clicked" in said for said in answer.json()["notices"]) is left_out
    assert learn(client, plan)["month"]["pace"]["spent"] == 0


def test_clicks_of_days_alone_need_no_price_and_are_not_held_against_the_keywords(client, plan):
    text = "day,clicks,visits\n2027-04-01,40,900\n"
    assert bring(client, plan, text)["taken"] == 1
    whole = "keyword,day,impressions,clicks,cost,customers\nsash window repair,2027-04-01,9,6,9,0\n"
    bring(client, plan, whole)
    assert not any("by keyword 9" in said for said in learn(client, plan)["notices"])


def test_money_in_another_currency_is_not_taken_for_the_plans(client, plan):
    text = "keyword,day,clicks,Cost (EUR),customers\nsash window repair,2027-04-01,3,4,0\n"
    assert "expected money in GBP" in bring(client, plan, text, code=422)["error"]["message"]
    # what is assigned is the planner's own word
    columns = {"keyword": 0, "day": 1, "clicks": 2, "cost": 3, "customers": 4}
    assert bring(client, plan, text, columns)["taken"] == 1


def test_results_and_keywords_of_the_same_headings_are_assigned_apart(client, plan):
    bring(client, plan, columns=COLUMNS)
    tray = client.post(f"{plan}/gather/text", json={"text": FILE, "name": "same.csv"})
    assert tray.status_code == 200, tray.text
    assert headings(client, plan)["columns"] == COLUMNS


@pytest.mark.parametrize("field", list(RESULT_COLUMNS))
def test_what_a_column_is_called_is_known_as_its_heading(field):
    table = read_text_table(f"{RESULT_COLUMNS[field]},other\n1,2\n", "x")
    assert result_columns(table) == {field: 0}
