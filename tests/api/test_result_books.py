"""Books of results: which of their sheets are read, as what, and what is said of the others."""

from datetime import date

import pytest

from tests.api.learning import learn
from tests.books import book

HEADS = ["keyword", "day", "impressions", "clicks", "cost", "customers"]
APRIL = [["sash window repair", date(2027, 4, 2), 300, 4, 5.5, 1]]
MAY = [
    ["sash window repair", date(2027, 5, 3), 200, 2, 2.5, 0],
    ["sash cord replacement", date(2027, 5, 4), 100, 1, 1.0, 0],
]


def spring(sheets):
    return {"file": ("spring.xlsx", book(**sheets))}


def bring(client, plan, sheets, **said):
    answer = client.post(f"{plan}/results", files=spring(sheets), params=said)
    assert answer.status_code == 200, answer.text
    return answer.json()


def test_a_sheet_with_the_headings_is_found_behind_others(client, plan):
    sheets = {
        "about": [["About this report"]], "nothing": [],
        "May": [["Keywords of May"], HEADS, *MAY],
    }  # fmt: skip
    asked = client.post(f"{plan}/results/headings", files=spring(sheets)).json()
    assert asked["headings"][0] == "keyword"
    taken = bring(client, plan, sheets)
    assert (taken["taken"], taken["notices"]) == (2, [])
    (one,) = learn(client, plan)["imports"]
    assert (one["source"], one["since"]) == ("spring.xlsx", "2027-05-03")


def test_rows_of_sums_are_named_by_their_own_sheet(client, plan):
    total = ["Total", None, 300, 4, 5.5, 1]
    sheets = {"April": [["Keywords of April"], [], HEADS, *APRIL, total],
              "May": [HEADS, *MAY, total]}  # fmt: skip
    said = bring(client, plan, sheets)["notices"]
    assert ("Rows 5 of the sheet April and 4 of the sheet May sum up others and were passed over."
            in said)  # fmt: skip
    alone = bring(client, plan, {"May": [*sheets["May"], ["Total", None, 500, 6, 8, 1]]})
    assert "Rows 4 and 5 sum up others and were passed over." in alone["notices"]


def test_months_on_sheets_of_their_own_are_one_table(client, plan):
    sheets = {
        "April": [["Keywords of April"], [], HEADS, *APRIL], "May": [HEADS, *MAY],
        "May again": [HEADS, *MAY],
    }  # fmt: skip
    taken = bring(client, plan, sheets)
    assert (taken["taken"], taken["level"]) == (3, "keyword")
    assert any("May again was not read: it holds the same rows as May" in s
               for s in taken["notices"])  # fmt: skip
    view = learn(client, plan)
    (one,) = view["imports"]
    assert (one["source"], one["since"], one["until"]) == (
        "spring.xlsx, April to May", "2027-04-02", "2027-05-04",
    )  # fmt: skip
    assert sum(one["spend"] for one in view["keywords"]) == pytest.approx(9.0)
    # the same book once more changes nothing, and undoing takes all of it back
    assert bring(client, plan, sheets)["same"]
    client.post(f"{plan}/undo").raise_for_status()
    assert [one["in_force"] for one in learn(client, plan)["imports"]] == [False]


def test_a_row_is_refused_by_where_it_stands_in_its_own_sheet(client, plan):
    sheets = {
        "April": [["Keywords of April"], [], HEADS, *APRIL, ["sash", "soon", 1, 1, 1, 1]],
        "May": [["Keywords of May"], HEADS, ["sash", "late", 1, 1, 1, 1], *MAY],
        "June": [HEADS, ["sash", date(2027, 6, 1), 1, 1, 1, 1], ["sash", "never", 1, 1, 1, 1]],
    }
    refused = bring(client, plan, sheets)["refused"]
    assert [(one["row"], one["value"], one["why"].split(" (")[-1]) for one in refused] == [
        (5, "soon", "sheet April)"), (3, "late", "sheet May)"), (3, "never", "sheet June)"),
    ]  # fmt: skip


def test_keywords_and_terms_are_both_taken_and_an_overview_counts_nothing_twice(client, plan):
    terms = ["search term", *HEADS]
    sheets = {
        "Overview": [["campaign", *HEADS[1:]], ["Search", date(2027, 4, 2), 300, 4, 5.5, 1]],
        "Terms": [terms, ["sash windows mended", *APRIL[0]]],
        "Keywords": [HEADS, *APRIL],
        "Totals": [["keyword", "clicks", "cost"], ["sash window repair", 4, 5.5]],
    }
    taken = bring(client, plan, sheets)
    assert taken["level"] == "keyword, term and campaign"
    assert any("Totals was not read: it is by keyword too" in said for said in taken["notices"])
    view = learn(client, plan)
    assert {one["source"] for one in view["imports"]} == {
        f"spring.xlsx, {name}" for name in ("Overview", "Terms", "Keywords")
    }
    assert view["month"]["pace"]["spent"] == pytest.approx(5.5)
    assert [one["term"] for one in view["terms"]] == ["sash windows mended"]


def test_what_is_said_beside_a_book_is_said_of_the_sheet_that_is_read_first(client, plan):
    undated = [["keyword", "clicks", "cost"], ["sash window repair", 4, 5.5]]
    sheets = {"one": undated, "two": [undated[0], ["sash cord replacement", 1, 1.0]]}
    assert client.post(f"{plan}/results", files=spring(sheets)).status_code == 422
    taken = bring(client, plan, sheets, since="2027-04-01", until="2027-04-30")
    assert taken["taken"] == 1
    assert any("spring.xlsx, two" in said and "expected a column day" in said
               for said in taken["notices"])  # fmt: skip
    titled = {"one": [["1 April 2027 - 30 April 2027"], *undated],
              "two": [["1 May 2027 - 31 May 2027"], *undated]}  # fmt: skip
    bring(client, plan, titled)
    days = {one["source"]: (one["since"], one["until"]) for one in learn(client, plan)["imports"]}
    assert days["spring.xlsx, one"] == ("2027-04-01", "2027-04-30")
    assert days["spring.xlsx, two"] == ("2027-05-01", "2027-05-31")


def test_columns_assigned_once_hold_for_all_sheets_under_the_same_headings(client, plan):
    heads = ["Was", "Tag", "Gezeigt", "Gedrückt", "Bezahlt", "Kunden"]
    columns = [f"{field}:{at}" for at, field in enumerate(HEADS)]
    sheets = {"April": [heads, *APRIL], "Mai": [heads, *MAY]}
    assert bring(client, plan, sheets, columns=columns)["taken"] == 3
    assert bring(client, plan, sheets | {"Juni": [heads, *MAY[:1]]})["taken"] == 4


def test_all_sheets_find_room_or_none_is_kept(client, plan, monkeypatch):
    monkeypatch.setattr("milkwort.store.results._MOST_ROWS", 3)
    sheets = {"Keywords": [HEADS, *MAY], "Terms": [["search term", *HEADS],
              *(["sash windows", *row] for row in MAY)]}  # fmt: skip
    answer = client.post(f"{plan}/results", files=spring(sheets))
    assert answer.status_code == 422 and "at most 3 rows" in answer.json()["error"]["message"]
    assert learn(client, plan)["imports"] == []


def test_a_sheet_that_can_not_be_read_costs_the_others_nothing(client, plan, monkeypatch):
    monkeypatch.setattr("milkwort.formats.workbook.MAX_ROWS", 40)
    many = [["note"]] * 60
    sheets = {"May": [HEADS, *MAY], "notes": many, "April": [HEADS, *APRIL]}
    taken = bring(client, plan, sheets)
    assert taken["taken"] == 3
    assert any("The sheet notes was not read: " in said for said in taken["notices"])


def test_sheets_past_the_most_are_named(client, plan, monkeypatch):
    monkeypatch.setattr("milkwort.api.learn.sheets._MOST_SHEETS", 2)
    sheets = {"April": [HEADS, *APRIL], "May": [HEADS, *MAY], "June": [HEADS, *MAY], "July": []}
    taken = bring(client, plan, sheets)
    assert taken["taken"] == 3
    assert any("The sheet June and those behind it were not read" in s for s in taken["notices"])
