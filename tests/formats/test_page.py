import pytest

from milkwort.core.errors import NothingUsableError, TooLargeError
from milkwort.formats.guess_columns import guess_columns
from milkwort.formats.keyword_rows import read_keyword_rows
from milkwort.formats.page import page_words
from milkwort.formats.refused_rows import refused_csv
from milkwort.formats.text_table import read_text_table

PAGE = """<html><head><title>Sash window repairs in Eastmere</title>
<meta name="description" content="We mend timber windows"><style>.sash{}</style></head>
<body><h1>Sash window repairs</h1><p>We repair cords and sills. <a href="/x">Box sash</a>
<p>cords, cords</p><script>var hidden = "secret words"</script></body>"""


def test_title_and_headings_outweigh_the_text_and_scripts_say_nothing():
    words = page_words(PAGE)
    assert words[0].text == "sash window repairs" and words[0].count == 2
    texts = [w.text for w in words]
    assert "cords" in texts and not any("secret" in t or "hidden" in t for t in texts)
    assert texts.index("sash window repairs") < texts.index("cords")


def test_plain_text_is_weighed_too_and_runs_do_not_end_in_helper_words():
    words = page_words("We sell stoneware crocks for kimchi. Stoneware crocks last.")
    assert "stoneware crocks" in [w.text for w in words]
    assert not any(w.text.endswith(" for") for w in words)


def test_unclosed_and_nested_tags_are_only_markup():
    assert page_words("<div><h1>Oak doors<p><b>Oak doors</div></span>")[0].text == "oak doors"


def test_a_page_without_words_or_without_end_is_refused():
    with pytest.raises(NothingUsableError):
        page_words("<html><script>x</script></html>")
    with pytest.raises(TooLargeError):
        page_words("a" * (6 * 2**20))


def test_refused_rows_come_back_as_they_stood_with_why_and_can_be_read_again():
    table = read_text_table("keyword;volume;cpc_low\nsash;ten;0,5\nsill;10;0,7\n=evil;x;1,0\n")
    guess = guess_columns(table)
    rows = read_keyword_rows(table, guess.columns, first_row=guess.first_row)
    again = refused_csv(table, rows.refused)
    lines = again.splitlines()
    assert lines[0] == "keyword;volume;cpc_low;why it was refused"
    assert lines[1].startswith("sash;ten;0,5;") and "expected a number" in lines[1]
    assert lines[2].startswith("'=evil;x")
    mended = read_text_table(again.replace("ten", "10"))
    guess = guess_columns(mended)
    taken = read_keyword_rows(mended, guess.columns, first_row=guess.first_row).taken
    assert [r.text for r in taken] == ["sash"]
