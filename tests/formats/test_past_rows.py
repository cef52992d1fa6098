import pytest

from milkwort.core.errors import NothingUsableError
from milkwort.formats.cleaning import cleaned
from milkwort.formats.past_rows import read_past_rows
from milkwort.formats.tables import read_table

ACCOUNT = """campaign,ad group,keyword,match type,bid,landing page,clicks,cost,customers
Windows,Repair,sash repair,Phrase match,1.20,/repair,40,"52,00",2
Windows,,jobs,negative phrase,,,,,
Windows,Repair,sash cord,wide,1,,,,
Windows,Repair,sill,exact,1,,3,4,9
,,,exact,,,,,
"""


def read(text):
    return read_past_rows(read_table(text.encode(), "a.csv"), "a.csv")


def test_live_keywords_and_negatives_are_told_apart():
    keyword, negative = read(ACCOUNT).rows
    assert (keyword.match, keyword.page, keyword.negative) == ("phrase", "/repair", False)
    assert (negative.text, negative.match, negative.negative) == ("jobs", "phrase", True)


def test_bad_rows_are_refused_one_by_one_with_what_was_expected():
    why = {r.row: (r.column, r.why) for r in read(ACCOUNT).refused}
    assert set(why) == {4, 5, 6}
    assert why[4][0] == "match" and "exact" in why[4][1]
    assert why[5][0] == "customers" and "3 clicks" in why[5][1]


def test_search_terms_need_no_more_than_their_text():
    (row,) = read("search term\nsash repair\n").rows
    assert (row.clicks, row.cpc, row.match) == (None, None, "exact")
    with pytest.raises(NothingUsableError, match="search term"):
        read("clicks,cost\n1,2\n")


@pytest.mark.parametrize(
    ("text", "became"),
    [
        ("Sash  Window", "sash window"),
        ("sash/casement!", "sash casement"),
        ("[sash]", "[sash]"),
        ("café", "café"),
    ],
)
def test_a_keyword_is_written_as_platforms_take_it(text, became):
    assert cleaned(text, "/!") == became
