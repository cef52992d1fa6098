"""Results out of files in many dresses: each row is taken, or refused with its reason."""

from datetime import date

import numpy as np
import pytest

from milkwort.core.errors import NothingUsableError
from milkwort.formats.result_columns import level_of
from milkwort.formats.result_rows import read_result_rows
from milkwort.formats.text_table import read_text_table


def read(text, **how):
    return read_result_rows(read_text_table(text, "april.csv"), "april.csv", **how)


def days(file):
    return [(date.fromordinal(a).isoformat(), date.fromordinal(b).isoformat())
            for a, b in zip(file.first.tolist(), file.last.tolist(), strict=True)]  # fmt: skip


def test_the_plain_form():
    file = read("keyword,match,day,impressions,clicks,cost,customers\n"
                "Sash Window,phrase,2027-04-01,200,12,14.5,1\n")  # fmt: skip
    assert (file.level, file.keyword, file.match) == ("keyword", ["Sash Window"], ["phrase"])
    assert days(file) == [("2027-04-01", "2027-04-01")]
    assert file.cost.tolist() == [14.5] and file.figures["clicks"].tolist() == [12.0]
    assert np.isnan(file.figures["enquiries"]).all(), "what is not told is missing, not 0"
    assert file.remarks == ()


@pytest.mark.parametrize(
    ("head", "row", "level"),
    [
        ("Search term;Keyword;Date;Impr.;Clicks;Cost (GBP);Conv.",
         "sash repair;sash;01.04.2027;1.200;12;1.014,50;1", "term"),
        ("Search_keyword\tDay\tShowings\tAd clicks\tAmount spent\tOrders",
         "sash\t1 Apr 2027\t1200\t12\t1014.50\t1", "keyword"),
        ("Campaign name,Ad group name,Date,Imps,Clicks,Total cost EUR,Sales",
         'Search,Sash,"Apr 1, 2027","1,200",12,"1,014.50",1', "group"),
        ("Campaign,From,To,Impressions,Clicks,Spend,Purchases",
         "Search,2027-04-01,2027-04-01,1200,12,1014.50,1", "campaign"),
        ("date,impressions,clicks,costs,conversions", "20270401,1200,12,1014.50,1", "day"),
    ],
)  # fmt: skip
def test_headings_numbers_and_days_in_other_dresses(head, row, level):
    file = read(f"{head}\n{row}\n")
    assert file.level == level
    assert days(file) == [("2027-04-01", "2027-04-01")]
    figures = {name: file.figures[name].tolist() for name in ("impressions", "clicks", "customers")}
    assert figures == {"impressions": [1200.0], "clicks": [12.0], "customers": [1.0]}
    assert file.cost.tolist() == [1014.5]


HEAD = "keyword,day,clicks,cost,customers,impressions\n"


def test_the_month_comes_first_where_a_day_says_so():
    file = read(HEAD + "sash,04/01/2027,3,4\nsash,04/30/2027,3,4\n")
    assert days(file) == [("2027-04-01",) * 2, ("2027-04-30",) * 2]
    assert file.remarks == ()


def test_a_day_that_can_be_read_either_way_is_said():
    file = read(HEAD + "sash,04/01/2027,3,4\nsash,04/02/2027,3,4\n")
    assert days(file) == [("2027-04-01",) * 2, ("2027-04-02",) * 2]
    assert file.remarks[0].startswith("04/01/2027 was read as 2027-04-01")
    alone = read(HEAD + "sash,04/01/2027,3,4\n")
    assert days(alone) == [("2027-01-04",) * 2] and "2027-01-04" in alone.remarks[0]


def test_one_bad_row_never_costs_the_good_ones():
    file = read(HEAD + "sash,2027-04-01,3,4\nsash,soon,3,4\n,2027-04-01,3,4\n"
                "sash,2027-04-02,many,4\nsash,2027-04-03,3,-4\nsash,2027-04-04,5,6\n")  # fmt: skip
    assert file.row.tolist() == [2, 7]
    assert [(one.row, one.column) for one in file.refused] == [
        (3, "day"), (4, "keyword"), (5, "clicks"), (6, "cost")]  # fmt: skip
    assert all("expected" in one.why and "got" in one.why for one in file.refused)


@pytest.mark.parametrize(
    ("text", "says"),
    [
        ("keyword,day,cost\nsash,2027-04-01,4\n", "clicks"),
        ("keyword,clicks,cost\nsash,3,4\n", "since and until"),
        ("keyword,since,clicks\nsash,2027-04-01,3\n", "since and until"),
        (HEAD + "sash,soon,3,4\n", "no usable row, 1 refused; the first: row 2, day: expected"),
    ],
)
def test_what_can_not_be_used_says_what_is_missing(text, says):
    with pytest.raises(NothingUsableError, match=says):
        read(text)


def test_windows_have_two_ends_in_order_and_may_be_given_beside_the_file():
    file = read("campaign,since,until,clicks,cost\nSearch,2027-04-01,2027-04-07,3,4\n"
                "Search,2027-04-07,2027-04-01,3,4\n")  # fmt: skip
    assert days(file) == [("2027-04-01", "2027-04-07")]
    assert file.refused[0].column == "until"
    window = (date(2027, 4, 1).toordinal(), date(2027, 4, 30).toordinal())
    assert days(read("keyword,clicks,cost\nsash,3,4\n", window=window)) == [
        ("2027-04-01", "2027-04-30")
    ]


@pytest.mark.parametrize(
    ("heads", "level"),
    [("day,clicks", "day"), ("campaign,day", "campaign"), ("campaign,ad group", "group"),
     ("ad group,keyword", "keyword"), ("keyword,search term", "term"), ("", "day")],
)  # fmt: skip
def test_what_rows_are_about_is_told_by_the_finest_heading(heads, level):
    assert level_of(read_text_table(heads or "x", "x")) == level


def test_progress_is_told_and_may_end_it():
    told = []
    read(HEAD + "sash,2027-04-01,3,4\n" * 4100, progress=told.append)
    assert told == [2000, 4000]

    def stop(rows):
        raise KeyboardInterrupt

    with pytest.raises(KeyboardInterrupt):
        read(HEAD + "sash,2027-04-01,3,4\n" * 2100, progress=stop)
