"""What a keyword misses at its bid, and what the next bid down and up would bring."""

from __future__ import annotations

from milkwort.core.plan.beside import AtBid, missed, next_bids
from milkwort.core.plan.run import PlanResult
from milkwort.core.workings._sums import Line, Section

__all__ = ["beside_section"]


def beside_section(result: PlanResult, row: int) -> Section | None:
    """Return the bids beside a keyword's own; None where it doesn't run."""
    lower, now, higher = next_bids(result, row)
    if now is None:
        return None
    lost = missed(result)
    lines = [
        Line("first for its search", float(result.expected.reach[row]), "share", "reach"),
        Line(
            "searches not won at this bid", float(lost.for_bid[row]), formula="searches · (1 − F)"
        ),
    ]
    if lost.for_money[row] > 0:
        lines.append(Line("unshown for want of money", float(lost.for_money[row]),
                          formula="searches · F · (1 − φ)"))  # fmt: skip
    lines += [*_step("next bid down", lower, now), *_step("next bid up", higher, now)]
    if higher is None:
        lines.append(Line("next bid up", text="none under its ceiling"))
    return Section("The bids beside it", lines)


def _step(name: str, to: AtBid | None, now: AtBid) -> list[Line]:
    if to is None:
        return []
    return [
        Line(name, to.bid, "money"),
        Line("… clicks", to.clicks - now.clicks, formula="more or less, unpaced"),
        Line("… spend", to.spend - now.spend, "money"),
        Line("… customers", to.customers - now.customers, result=True),
    ]
