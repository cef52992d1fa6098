"""When a running plan is looked at: often enough, and never at bids in the first week."""

from datetime import UTC, date, datetime, timedelta
from itertools import pairwise

from icalendar import Calendar

from milkwort.core.handover.rhythm import reviews_of
from milkwort.formats.rhythm_ics import rhythm_ics

FIRST = date(2027, 9, 1)


def test_terms_weekly_bids_fortnightly_and_none_in_the_first_week():
    found = reviews_of(FIRST)
    assert found[0].key == "first" and found[0].at.date() == FIRST
    terms = [one.at for one in found if one.key.startswith("terms")]
    assert {b - a for a, b in pairwise(terms)} == {timedelta(weeks=1)}
    bids = [one.at.date() for one in found if one.key.startswith("bids")]
    assert min(bids) >= FIRST + timedelta(weeks=2)
    ends = [one.at.date() for one in found if one.key.startswith("month")]
    assert ends == [date(2027, 9, 30), date(2027, 10, 31), date(2027, 11, 30)]
    assert [one.at for one in found] == sorted(one.at for one in found)


def test_nothing_is_looked_at_after_the_last_day():
    assert max(one.at.date() for one in reviews_of(FIRST, date(2027, 9, 20))) <= date(2027, 9, 20)


def test_a_calendar_reads_back_and_is_known_again():
    content = rhythm_ics("Sash, & co; \\", "plan-1", reviews_of(FIRST), datetime.now(UTC))
    events = Calendar.from_ical(content).walk("VEVENT")
    assert len(events) == len(reviews_of(FIRST))
    assert str(events[0]["summary"]) == "Sash, & co; \\: First look: is it shown?"
    assert len({str(event["uid"]) for event in events}) == len(events)
    again = rhythm_ics("Renamed", "plan-1", reviews_of(FIRST), datetime.now(UTC))
    assert [e["uid"] for e in Calendar.from_ical(again).walk("VEVENT")] == [
        e["uid"] for e in events
    ]
