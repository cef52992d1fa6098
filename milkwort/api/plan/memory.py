"""What was worked out of plans and is kept until what it rests on has changed."""

from __future__ import annotations

from typing import Any

from milkwort.api.plan.kept import Kept

__all__ = ["PLANS", "Memory"]

PLANS = 8
"""Plans that are kept worked out."""
_CLIENTS = 4
_GLANCES = 1000
_MONTHS = 200


class Memory:
    """Answers by what they are of; whoever keeps one says what it was worked out from."""

    def __init__(self) -> None:
        self.learnt: Kept[Any] = Kept(PLANS)
        """What results say of a plan, by its id, with what that was worked out from."""
        self.result_rows: Kept[Any] = Kept(_CLIENTS)
        """Rows of results that count, by client."""
        self.words_given: Kept[Any] = Kept(PLANS)
        """What was promised of each month and whether it held, by plan."""
        self.months_held: Kept[Any] = Kept(_MONTHS)
        """What was promised of one month, by what ran in it and the results that count."""
        self.sent_plans: Kept[Any] = Kept(PLANS)
        """Plans as they were handed over, by hand-over: what is sent never changes."""
        self.glances: Kept[Any] = Kept(_GLANCES)
        """Plans at a glance, with what they were worked out from."""
