import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.formats.numbers import (
    guess_decimal,
    is_blank,
    read_number,
    read_range,
    read_share,
)


@pytest.mark.parametrize(
    ("text", "decimal", "value"),
    [
        ("1,200", ".", 1200),
        ("1.200", ",", 1200),
        ("1.200", ".", 1.2),
        ("1,200", ",", 1.2),
        ("1.234.567,89", ",", 1234567.89),
        ("1,234,567.89", ".", 1234567.89),
        ("£0.80", ".", 0.8),
        ("0,80 €", ",", 0.8),
        ("GBP 2.40", ".", 2.4),
        ("1.2K", ".", 1200),
        ("3m", ".", 3e6),
        ("1 200", ".", 1200),
        ("1'200", ".", 1200),
        ("1\u00a0200", ".", 1200),
        (".5", ".", 0.5),
        ("−3", ".", -3),
    ],
)
def test_figures_are_read_as_people_write_them(text, decimal, value):
    assert read_number(text, decimal) == pytest.approx(value)


@pytest.mark.parametrize("text", ["n/a", "about 40", "1,2,3", "12abc", "--", "nan", "inf", "1e5"])
def test_what_is_no_figure_is_refused(text):
    with pytest.raises(ValueError):
        read_number(text)


@pytest.mark.parametrize(
    ("text", "ends"),
    [
        ("170", (170, 170)),
        ("500 to 5,000", (500, 5000)),
        ("500-5000", (500, 5000)),
        ("10K – 100K", (10000, 100000)),
        ("between 10 and 100", (10, 100)),
        ("fewer than 10", (1, 9)),
        ("< 10", (1, 9)),
        ("<10", (1, 9)),
        ("under 1", (0, 0)),
    ],
)
def test_ranges_are_read_in_words(text, ends):
    assert read_range(text) == pytest.approx(ends)


def test_shares_come_with_or_without_their_sign():
    assert read_share("3 %") == pytest.approx(0.03)
    assert read_share("0.03") == 0.03


def test_a_lone_dash_is_nothing():
    assert is_blank(" – ") and is_blank("") and not is_blank("0")


@pytest.mark.parametrize(
    ("cells", "separator", "decimal"),
    [
        (["0,80", "2,40", "1.200"], ";", ","),
        (["0.80", "1,200"], ",", "."),
        (["1.200", "3.400"], ";", ","),
        (["words"], ",", "."),
        (["handle 1,5 mm", "1,200"], ",", "."),
        (["3,5 %", "x"], ",", ","),
    ],
)
def test_the_decimal_mark_is_guessed_from_the_cells(cells, separator, decimal):
    assert guess_decimal(cells, separator) == decimal


@given(st.floats(0, 1e9), st.sampled_from([".", ","]))
def test_grouped_figures_come_back(value, decimal):
    text = f"{value:,.2f}"
    if decimal == ",":
        text = text.translate(str.maketrans(",.", ".,"))
    assert read_number(text, decimal) == pytest.approx(round(value, 2))


@given(st.text(max_size=30))
def test_no_text_breaks_the_reader(text):
    try:
        low, high = read_range(text)
    except ValueError:
        return
    assert low == low and high == high
