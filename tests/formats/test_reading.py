"""From the bytes of a file to keywords taken and refused."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.core.errors import BadValueError, NothingUsableError, TooLargeError
from milkwort.formats import text_table
from milkwort.formats.guess_columns import guess_columns
from milkwort.formats.keyword_rows import columns_by_heading, read_keyword_rows, table_of
from milkwort.formats.text_table import read_text_table


def rows_of(text, **options):
    table = read_text_table(text)
    return read_keyword_rows(table, columns_by_heading(table), **options)


@pytest.mark.parametrize("mark", [",", ";", "\t"])
@pytest.mark.parametrize("start", [b"", b"\xef\xbb\xbf"])
def test_any_separator_is_found_with_or_without_a_byte_order_mark(mark, start):
    text = "keyword,volume,cpc_low\nsash repair,10,1\nsill repair,20,2\n".replace(",", mark)
    table = read_text_table(start + text.encode())
    assert table.separator == mark
    assert table.rows[0] == ("keyword", "volume", "cpc_low")


def test_quoted_line_breaks_stay_within_their_cell():
    taken = rows_of('keyword,volume\n"sash\nrepair",10\nnext one,20\n').taken
    assert [(r.row, r.text) for r in taken] == [(2, "sash repair"), (3, "next one")]


@pytest.mark.parametrize(
    ("data", "error"),
    [
        (b"keyword\0x", BadValueError),
        (b"keyword\nsash \x81 repair", BadValueError),
        (b"  \n\n", NothingUsableError),
        (b"term,volume\na,1\n", NothingUsableError),
    ],
)
def test_a_file_that_cannot_be_read_says_why(data, error):
    with pytest.raises(error):
        columns_by_heading(read_text_table(data))


@pytest.mark.parametrize(
    ("encoding", "mark", "said"),
    [
        ("utf-8", b"", "UTF-8"),
        ("utf-16-le", b"\xff\xfe", "UTF-16"),
        ("utf-16-be", b"\xfe\xff", "UTF-16"),
        ("utf-16-le", b"", "UTF-16"),
        ("cp1252", b"", "Windows-1252"),
    ],
)
def test_the_usual_encodings_are_guessed_and_said(encoding, mark, said):
    text = "keyword;volume\nfenêtre à guillotine;10\n" + "vitre ancienne;20\n" * 40
    table = read_text_table(mark + text.encode(encoding))
    assert table.encoding == said
    assert table.rows[1] == ("fenêtre à guillotine", "10")


def test_bounds_on_size_are_held(monkeypatch):
    monkeypatch.setattr(text_table, "MAX_ROWS", 3)
    with pytest.raises(TooLargeError, match="rows"):
        read_text_table("keyword\na\nb\nc\nd\n")
    monkeypatch.setattr(text_table, "MAX_BYTES", 4)
    with pytest.raises(TooLargeError, match="MB"):
        read_text_table("keyword\n")


@pytest.mark.parametrize(
    ("cells", "column", "expected"),
    [
        ("a b,n/a,1,2,exact,0.1,buy,keep,", "volume", "a number or a range"),
        ("a b,10,3,1,exact,0.1,buy,keep,", "cpc_low", "not above the high price"),
        ("a b,10,-1,1,exact,0.1,buy,keep,", "cpc_low", "a price above 0"),
        ("a b,-10,1,1,exact,0.1,buy,keep,", "volume", "0 or more"),
        ("a b,100 to 10,1,1,exact,0.1,buy,keep,", "volume", "low end"),
        ("a b,10,1,2,near,0.1,buy,keep,", "match", "exact, phrase, broad"),
        ("a b,10,1,2,exact,1.5,buy,keep,", "rate", "a share from 0 to 1"),
        ("a b,10,1,2,exact,0.1,wish,keep,", "intent", "one of buy"),
        ("a b,10,1,2,exact,0.1,buy,maybe,", "call", "one of none"),
        ("!!,10,1,2,exact,0.1,buy,keep,", "keyword", "at least one word"),
        ("a b,10,1,2,exact,0.1,buy,keep,doors", "offer", "an offer of the brief"),
        (f"{'a' * 1001},10,1,2,exact,0.1,buy,keep,", "keyword", "1000 characters"),
    ],
)
def test_a_bad_row_is_refused_alone_with_its_column_and_reason(cells, column, expected):
    heading = "keyword,volume,cpc_low,cpc_high,match,rate,intent,call,offer\n"
    rows = rows_of(heading + "good one,10,1,2,exact,0.1,buy,keep,\n" + cells + "\n")
    assert [r.text for r in rows.taken] == ["good one"]
    (refusal,) = rows.refused
    assert (refusal.row, refusal.column) == (3, column)
    assert expected in refusal.why and "got" in refusal.why


def test_a_second_row_of_the_same_identity_names_the_first():
    rows = rows_of("keyword,match\nSash Repair,\nsash-repair,exact\nsash repair,phrase\n")
    assert [r.match for r in rows.taken] == ["exact", "phrase"]
    assert "row 2 has it" in rows.refused[0].why


def test_marks_round_a_keyword_say_its_match_type_and_are_never_kept():
    taken = rows_of('keyword\n[sash repair]\n"""sash repair"""\n').taken
    assert [(r.text, r.match) for r in taken] == [
        ("sash repair", "exact"),
        ("sash repair", "phrase"),
    ]


def test_calls_are_keep_without_a_column_and_none_where_blank():
    assert rows_of("keyword\na\n").taken[0].call == "keep"
    assert rows_of("keyword,call\na,\n").taken[0].call == "none"
    assert rows_of("keyword\na\n", call_if_absent="none").taken[0].call == "none"


def test_ends_of_a_volume_may_stand_in_two_columns():
    taken = rows_of("keyword,volume_low,volume_high\na,10,100\nb,,70\nc,,\n").taken
    assert [r.volume for r in taken] == [(10, 100), (70, 70), None]


def test_twelve_months_are_read_or_none():
    heading = ",".join(["keyword", *(f"m{n:02d}" for n in range(1, 13))])
    taken = rows_of(heading + "\na," + ",".join("123456789012") + "\nb,1,2\n").taken
    assert taken[0].months is not None and len(taken[0].months) == 12
    assert taken[1].months is None


def test_rows_become_columns_with_numbered_groups():
    rows = rows_of("keyword,group,volume,basis\na,Repair,10,phrase\nb,,20,\n").taken
    table, places = table_of(rows, "broad")
    assert places.groups == ((0, "Repair"),) and places.campaigns == ("Search",)
    assert table.group.tolist() == [0, -1] and table.campaign.tolist() == [0, 0]
    assert table.basis.tolist() == [1, 2]


def test_one_group_name_in_two_campaigns_is_two_groups():
    rows = rows_of("keyword,group,campaign\na,Paint,Brand\nb,Paint,\nc,Paint,Brand\n").taken
    table, places = table_of(rows, "exact", campaigns=["Wide"])
    assert places.campaigns == ("Wide", "Brand", "Search")
    assert places.groups == ((1, "Paint"), (2, "Paint"))
    assert (table.group.tolist(), table.campaign.tolist()) == ([0, 1, 0], [1, 2, 1])


@pytest.mark.parametrize(
    ("text", "columns", "first_row"),
    [
        ("Search term;Monthly searches;Low price;High price\na b;1.200;0,80;2,40\n",
         {"keyword": 0, "volume": 1, "cpc_low": 2, "cpc_high": 3}, 2),
        ("volume,keyword\n10,a\n", {"keyword": 1, "volume": 0}, 2),
        ("sash repair\nsill repair\n", {"keyword": 0}, 1),
        ("sash repair\t170\t0.8\t2.4\tphrase\n",
         {"keyword": 0, "volume": 1, "cpc_low": 2, "cpc_high": 3, "match": 4}, 1),
        ("Keyword,Mean searches,CPC\na,10,1\n", {"keyword": 0, "volume": 1, "cpc_low": 2}, 2),
        ("Suchbegriff;Volumen;low price\na b;1.900;0,45\n",
         {"keyword": 0, "volume": 1, "cpc_low": 2}, 2),
        ("keyword,share\na,0.4\n", {"keyword": 0}, 2),
        ("\n\nkeyword,group\na,x\n", {"keyword": 0, "group": 1}, 4),
        ("Keyword,Mean searches,Bid at the top (low range),Bid at the top (high)\na,9,1,2\n",
         {"keyword": 0, "volume": 1, "cpc_low": 2, "cpc_high": 3}, 2),
        ("keyword,highest price a click,lowest price a click (EUR)\na,2,1\n",
         {"keyword": 0, "cpc_high": 1, "cpc_low": 2}, 2),
        # what was shown, clicked or found is never taken for what was searched
        ("Query,Clicks,Impressions,CTR,Position\na,12,2300,5 %,3.4\n",
         {"keyword": 0, "clicks": 1, "unpaid_rank": 4}, 2),
        ("keyword,number of results\na,1200000\n", {"keyword": 0}, 2),
        # headings of another language: words over figures
        ("Mot-clé;Volume mensuel;CPC bas;CPC haut\na b;1 300;0,80;2,40\nc d;10 – 90;;\n",
         {"keyword": 0, "volume": 1, "cpc_low": 2, "cpc_high": 3}, 2),
    ],
)  # fmt: skip
def test_columns_are_guessed_from_headings_or_from_cells(text, columns, first_row):
    guess = guess_columns(read_text_table(text))
    assert guess.columns == columns
    assert guess.first_row == first_row


@pytest.mark.parametrize(
    ("text", "currency"),
    [
        ("keyword,CPC (USD)\na,1\n", "USD"),
        ("keyword,low price,high price eur\na,1,2\n", "EUR"),
        ("keyword,Currency,CPC\na,gbp,1\nb,GBP,2\n", "GBP"),
        ("keyword,Currency,CPC\na,GBP,1\nb,EUR,2\n", ""),
        ("keyword,volume,CPC\na,1,1\n", ""),
    ],
)
def test_what_prices_are_in_is_read_where_a_heading_or_a_column_says_so(text, currency):
    assert guess_columns(read_text_table(text)).currency == currency


def test_prices_in_other_money_are_brought_to_the_plans_or_left_out():
    table = read_text_table("keyword,volume,cpc_low,cpc_high\na,9,1,2\nb,9,,\n")
    (row, none) = read_keyword_rows(table, columns_by_heading(table), price_rate=0.8).taken
    assert (row.cpc_low, row.cpc_high) == (0.8, 1.6)
    assert (none.cpc_low, none.cpc_high) == (None, None)
    (row, _) = read_keyword_rows(table, columns_by_heading(table), price_rate=0.0).taken
    assert (row.volume, row.cpc_low, row.cpc_high) == ((9, 9), None, None)


@pytest.mark.parametrize(
    ("said", "intent"),
    [("Informational", "learn"), ("Commercial, Transactional", "buy"), ("navigational", "firm"),
     ("commercial", "compare"), ("buy", "buy"), ("", "")],
)  # fmt: skip
def test_intents_in_the_trades_words_are_read_as_ours(said, intent):
    table = read_text_table(f'keyword,intent\na,"{said}"\n')
    (row,) = read_keyword_rows(table, columns_by_heading(table)).taken
    assert row.intent == intent


@given(st.text(max_size=300))
def test_no_text_breaks_the_way_into_the_tray(text):
    try:
        table = read_text_table(text)
    except (NothingUsableError, BadValueError):
        return
    guess = guess_columns(table)
    rows = read_keyword_rows(table, guess.columns, first_row=guess.first_row)
    assert len(rows.taken) + len(rows.refused) <= len(table.rows)
