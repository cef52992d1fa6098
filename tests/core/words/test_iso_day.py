"""Days that are taken: written as one, and nothing that could be made into one."""

from datetime import date

import pytest

from milkwort.core.words.iso_day import only_iso_day


@pytest.mark.parametrize("good", ["2026-04-30", date(2026, 4, 30), None])
def test_a_day_goes_on_as_it_is(good):
    assert only_iso_day(good) is good


@pytest.mark.parametrize(
    "bad", ["0", "-2.69e-78", "1700000000", "2026-4-30", "30.04.2026", "2026-04-30T00:00", 0, 1.5]
)
def test_what_is_no_day_is_refused(bad):
    with pytest.raises(ValueError, match="2026-04-30"):
        only_iso_day(bad)
