"""Days however a file writes them, and which of day and month comes first."""

from contextlib import suppress
from datetime import date

import pytest
from hypothesis import given
from hypothesis import strategies as st

from milkwort.formats.days import WrittenDays, written_days

DAY = date(2027, 5, 31)


@pytest.mark.parametrize(
    "text",
    [
        "2027-05-31", "2027/5/31", "2027.05.31", "20270531", "31.05.2027", "31.5.27", "31/05/2027",
        "31-5-2027", "31 May 2027", "31-May-27", "31. Mai 2027", "31st May 2027", "31 mai 2027",
        "May 31, 2027", "May 31st 2027", "Mon, May 31, 2027", "Monday 31 May 2027",
        "2027-05-31T00:00:00Z", "2027-05-31 00:00:00", "2027-05-31 10:15:00.000+02:00",
        "31/05/2027 12:00 AM", "31.05.2027, 00:00",
    ],
)  # fmt: skip
def test_a_day_is_read(text):
    assert WrittenDays().read(text) == DAY


@pytest.mark.parametrize("text", ["5/31/2027", "05/31/27", "5-31-2027"])
def test_a_month_that_comes_first_is_read_so(text):
    assert WrittenDays(day_first=False).read(text) == DAY
    with pytest.raises(ValueError):
        WrittenDays().read(text)
    # between dots the day comes first all the same
    assert WrittenDays(day_first=False).read("31.5.2027") == DAY


@pytest.mark.parametrize(
    "text",
    ["", "yesterday", "May 2027", "31 May", "2027-02-30", "2027-13-01", "31/05", "5", "31 Foo 2027",
     "2027-05-31 and more", "31/5-2027", "99999999", "1/2/3/4", "٣١/٠٥", "31.05.2027" * 20],
)  # fmt: skip
def test_what_is_no_day_is_refused(text):
    with pytest.raises(ValueError):
        WrittenDays().read(text)


def test_a_part_above_twelve_tells_which_is_the_day():
    assert written_days(["01/05/2027", "13/05/2027"]) == WrittenDays(day_first=True)
    assert written_days(["05/01/2027", "05/13/2027"]) == WrittenDays(day_first=False)
    # one odd cell does not turn all the others
    assert written_days(["13/05/2027", "14/05/2027", "05/15/2027"]).day_first


def test_where_nothing_tells_the_days_of_a_report_lie_close_together():
    assert written_days(["05/01/2027", "05/02/2027", "05/03/2027"]) == WrittenDays(
        False, "05/01/2027"
    )
    assert written_days(["01/05/2027", "02/05/2027"]) == WrittenDays(True, "01/05/2027")
    assert written_days(["04/05/2027"]) == WrittenDays(True, "04/05/2027")


def test_what_reads_the_same_either_way_or_says_it_itself_leaves_nothing_open():
    for texts in ([], ["05/05/2027"], ["2027-05-04"], ["04.05.2027"], ["4 May 2027", ""]):
        assert written_days(texts) == WrittenDays()


@given(st.lists(st.dates(date(2020, 1, 1), date(2030, 12, 31)), min_size=1, max_size=40),
       st.booleans())  # fmt: skip
def test_days_of_which_any_tells_are_read_as_they_were_written(days, day_first):
    pattern = "%d/%m/%Y" if day_first else "%m/%d/%Y"
    texts = [day.strftime(pattern) for day in days]
    found = written_days(texts)
    if any(day.day > 12 for day in days):
        assert found == WrittenDays(day_first)
        assert [found.read(text) for text in texts] == days


@given(st.text(max_size=80))
def test_any_text_is_a_day_or_refused(text):
    with suppress(ValueError):
        assert isinstance(WrittenDays().read(text), date)
