"""Reports as platforms write them: titles, sums, days said once, match types in words."""

from datetime import date

import numpy as np
import pytest

from milkwort.core.errors import NothingUsableError
from milkwort.formats.keyword_rows import columns_by_heading, read_keyword_rows
from milkwort.formats.match_words import read_match, unwrapped
from milkwort.formats.past_rows import read_past_rows
from milkwort.formats.result_columns import result_table
from milkwort.formats.result_remarks import said_of_sums
from milkwort.formats.result_rows import places_of, read_result_rows
from milkwort.formats.text_table import read_text_table

TITLES = "How keywords did\n1 May 2026 - 31 May 2026\n\n"
HEADS = "Keyword,Match type,Currency,Clicks,Impr.,CTR,Avg. CPC,Cost,Conversions\n"
ROWS = """[sash window repair],Exact match,GBP,60,"1,010",5.94%,1.50,£90.12,2.00
\"\"\"window sill repair\"\"\",Phrase match (close form),GBP,12, -- ,--,1.10,13.20,0.00
sash cord,Broad match,GBP,--,55,0%,--,--,--
"""
SUMS = 'Total: Keywords,,GBP,72,"1,065",,,103.32,2.00\nTotals,,,72,,,,,\n'
MAY = (date(2026, 5, 1).toordinal(), date(2026, 5, 31).toordinal())


def read(text, **how):
    return read_result_rows(read_text_table(text, "may.csv"), "may.csv", **how)


def test_a_report_is_read_below_its_titles_and_without_its_sums():
    file = read(TITLES + HEADS + ROWS + SUMS, currency="GBP")
    assert file.keyword == ["sash window repair", "window sill repair", "sash cord"]
    assert file.match == ["exact", "phrase", "broad"]
    assert file.figures["clicks"].tolist() == [60.0, 12.0, 0.0]
    assert file.figures["impressions"].tolist() == [1010.0, 0.0, 55.0]
    assert file.cost.tolist() == [90.12, 13.2, 0.0]
    assert list(zip(file.first.tolist(), file.last.tolist(), strict=True)) == [MAY] * 3
    assert file.row.tolist() == [5, 6, 7], "rows are those of the file"
    assert file.refused == ()
    (days,) = file.remarks
    assert "2026-05-01 to 2026-05-31" in days
    assert file.sums == (8, 9)


def test_of_many_rows_of_sums_some_are_named():
    assert said_of_sums([]) == []
    assert said_of_sums(["8"]) == ["Row 8 sums up others and was passed over."]
    (said,) = said_of_sums([str(row) for row in range(1, 10_001)])
    assert said == "Rows 1, 2, 3, 4, 5 and 9,995 more sum up others and were passed over."


@pytest.mark.parametrize(
    "line",
    ["2026-05-01 to 2026-05-31", '"May 1, 2026 - May 31, 2026"', "Period: 01/05/2026–31/05/2026",
     "from,2026-05-01,to,2026-05-31", "May 2026", "Month: 2026-05",
     "1st May 2026 until 31st May 2026",
     "Days 1 May 2026 – 31 May 2026 (all times local)"],
)  # fmt: skip
def test_the_days_that_a_title_names_are_those_of_every_row(line):
    file = read(f"What was searched\n{line}\n{HEADS}{ROWS}")
    assert list(zip(file.first.tolist(), file.last.tolist(), strict=True)) == [MAY] * 3


@pytest.mark.parametrize(
    "line", ["31 May 2026 to 1 May 2026", "made on 3 June 2026", "99/99/2026 - x", ""]
)
def test_without_days_anywhere_they_are_asked_for(line):
    with pytest.raises(NothingUsableError, match="row 2: expected a column day"):
        read(f"{line or 'all'}\n{HEADS}{ROWS}")
    given = read(f"{line or 'all'}\n{HEADS}{ROWS}", window=MAY)
    assert set(given.first.tolist()) == {MAY[0]} and given.remarks == ()


def test_rows_that_say_their_days_keep_them_whatever_a_title_says():
    file = read(
        "1 May 2026 - 31 May 2026\nkeyword,day,clicks,cost,customers\nsash,2026-04-02,1,1,0\n"
    )
    assert file.first.tolist() == [date(2026, 4, 2).toordinal()]


def test_money_in_another_currency_is_refused_row_by_row_or_as_a_whole():
    rows = ROWS + "glass,Exact match,EUR,3,4,,,5,0\n"
    assert [one.column for one in read(TITLES + HEADS + rows, currency="GBP").refused] == [
        "currency"
    ]
    assert len(read(TITLES + HEADS + rows)) == 4, "where nobody says the plan's, all is taken"
    text = "keyword,day,clicks,Cost (EUR),customers\nsash,2026-05-01,3,4,0\n"
    with pytest.raises(NothingUsableError, match=r"row 1: expected money in GBP, got Cost \(EUR\)"):
        read(text, currency="GBP")
    assert read(text, currency="EUR").cost.tolist() == [4.0]
    assert read(text.replace("(EUR)", "net"), currency="GBP").cost.tolist() == [4.0]


def test_the_price_of_a_click_tells_the_cost_where_no_column_does():
    heads = "keyword,day,clicks,Avg. CPC,customers,shown"
    file = read(f"{heads}\nsash,2026-05-01,4,1.25,0,9\nsill,2026-05-01,0,,0,9\n")
    assert file.cost.tolist() == [5.0, 0.0] and file.remarks == ()
    both = read("keyword,day,clicks,cost,cpc,customers\nsash,2026-05-01,4,4.80,1.25,0\n")
    assert both.cost.tolist() == [4.8]


def test_what_a_file_lacks_is_said():
    file = read("keyword,day,clicks\nsash,2026-05-01,4\n", spent=6.0)
    said = " ".join(file.remarks)
    assert "No column says customers" in said and "counts as 1.50" in said and "shown" in said
    assert {name: column.tolist() for name, column in file.untold.items()} == {
        "impressions": [True], "customers": [True],
    }  # fmt: skip
    assert file.figures["customers"].tolist() == [0.0]
    assert np.isnan(file.as_said("customers")).all()
    whole = read("keyword,day,clicks,cost,leads,shown\nsash,2026-05-01,4,2,1,--\n")
    assert whole.remarks == () and not whole.untold["impressions"].any()


def test_clicks_are_evidence_only_with_their_price():
    text = (
        "Report of May\nkeyword,day,clicks,customers\nsash,2026-05-01,3,1\nshutter,2026-05-01,1,0\n"
    )
    with pytest.raises(NothingUsableError, match="row 2: expected a column cost, or cost per"):
        read(text)
    assert read(text, spent=8.0).cost.tolist() == [6.0, 2.0]
    unclicked = read(text.replace(",3,", ",0,").replace(",1,0", ",0,0"), spent=8.0)
    assert unclicked.cost.tolist() == [0.0, 0.0] and not any(
        "counts as" in s for s in unclicked.remarks
    )
    # days of the whole site are held against no keyword
    assert read("day,clicks\n2026-05-01,3\n").cost.tolist() == [0.0]


def test_headings_nobody_knows_are_those_over_all_columns():
    table = read_text_table("Bericht\n1.5.2026 - 31.5.2026\nWort;Gedrückt;Bezahlt\nsash;3;4\n", "x")
    assert result_table(table).rows[0] == ("Wort", "Gedrückt", "Bezahlt")
    assert result_table(result_table(table)) == result_table(table)


def test_a_list_of_the_past_is_read_the_same_way():
    heads = "Search term,Match type,Clicks,Cost"
    text = f"Terms of May\n{heads}\nsash repair,Broad match,4,2\nTotal,,4,2\n"
    file = read_past_rows(read_text_table(text, "may.csv"), "may.csv")
    assert [(row.text, row.match) for row in file.rows] == [("sash repair", "broad")]
    assert [one.row for one in file.refused] == [4]


def test_keywords_say_their_match_types_in_words():
    table = read_text_table("keyword,match\nsash,Exact match\nsill,Broad\ntotal,\nbox,some\n", "x")
    rows = read_keyword_rows(table, columns_by_heading(table))
    assert [row.identity for row in rows.taken] == [("sash", "exact"), ("sill", "broad")]
    assert [one.row for one in rows.refused] == [4, 5]


@pytest.mark.parametrize(
    "text", ["", "negative exact", "exactly", "exact phrase", "match", "e" * 999]
)
def test_what_names_no_match_type_is_none(text):
    assert read_match(text) is None


@pytest.mark.parametrize(
    ("text", "said"),
    [("[sash]", ("sash", "exact")), ('"sash box"', ("sash box", "phrase")), ("sash", ("sash", "")),
     ("[sash", ("[sash", "")), ("[a] b", ("[a] b", ""))],
)  # fmt: skip
def test_marks_round_a_keyword_say_its_match_type(text, said):
    assert unwrapped(text) == said


@pytest.mark.parametrize(
    ("level", "match", "place"),
    [
        ("term", "exact", 0),
        ("term", "phrase", 0),
        ("keyword", "phrase", -1),
        ("keyword", "exact", 0),
    ],
)
def test_how_a_term_was_matched_does_not_lose_the_keyword_it_is_of(level, match, place):
    term = "Search term" if level == "term" else "Campaign"
    heads = f"{term},Keyword,Match type,Day,Clicks,Cost,Orders"
    file = read(f"{heads}\nx,sash,{match},2026-05-01,1,1,0\n")
    assert file.level == level
    assert places_of(file, {}, {("sash", "exact"): 0, ("sash", ""): 0}).tolist() == [place]
