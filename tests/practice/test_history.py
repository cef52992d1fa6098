from datetime import date

from milkwort.practice.history import made_up_history
from tests.practice.test_loop import files, practice

__all__ = ["files", "practice"]


def test_a_history_ends_before_the_plan_begins_and_is_the_same_for_a_seed(practice):
    one, other = (made_up_history(practice.plan, practice.lexicon, date(2027, 4, 1), 2, 3)
                  for _ in range(2))  # fmt: skip
    assert (one.first, one.last) == (date(2027, 2, 1), date(2027, 3, 31))
    assert one.keywords == other.keywords
    assert one.terms == other.terms
    assert max(one.keywords["day"]) <= "2027-03-31"
    # the same clicks, by whatever they are summed
    assert sum(one.keywords["clicks"]) == sum(one.terms["clicks"])
    # some of the plan's keywords ran in phrase match too: that is where new terms come from
    assert {"phrase"} <= set(one.keywords["match"])
    assert len(set(one.terms["term"])) > len(set(one.keywords["keyword"]))
