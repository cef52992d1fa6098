"""What Fit and Hand over answer: bids moved, limits, versions, the year, the client's sheet."""

from __future__ import annotations

from dataclasses import replace
from datetime import date

import numpy as np

from bench.core import Row, median_ms
from bench.sheets import brief_for, table_of_size
from milkwort.core.brief.limits import Limits
from milkwort.core.handover.report.shape import ForReport
from milkwort.core.handover.report.sheet import report_of
from milkwort.core.plan.bid_changes import BidMove, moved_bids
from milkwort.core.plan.calendar import months_from
from milkwort.core.plan.differences import Side, differences
from milkwort.core.plan.draws import draw_month
from milkwort.core.plan.inverse import least_money
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.core.plan.versions import standing
from milkwort.core.plan.year import YearAhead, year_ahead
from milkwort.formats.report_files import report_file

MANY, FEW = 10_000, 5_000


def rows() -> list[Row]:
    """Measure and return (what, figure, wanted)."""
    brief, table = brief_for(MANY), table_of_size(MANY)
    result = run_plan(brief, table)
    return [*_fit(result), *_versions(result), *_report()]


def _fit(result: PlanResult) -> list[Row]:
    brief, table = result.brief, result.table
    rows = np.flatnonzero(table.kept)[: MANY // 4]
    few = replace(brief, limits=Limits(max_keywords=40))
    limited = run_plan(few, table, result)

    def moved() -> None:
        found = moved_bids(result, rows, BidMove("times", 0.9))
        locked = table.locked_bid.copy()
        locked[found.rows] = found.bid
        run_plan(brief, replace(table, locked_bid=locked), result)

    refitted = YearAhead(result, months_from(date(2027, 9, 1)), refit=True)
    return [
        (f"a bulk step of bids previewed, {MANY:,} kept", f"{median_ms(moved, 5):.0f} ms",
         "≤ 250 ms"),
        ("a limit of keywords to the purse",
         f"{median_ms(lambda: run_plan(few, table, result), 3):.0f} ms", "≤ 400 ms"),
        ("the least money for a goal; under that limit",
         f"{median_ms(lambda: least_money(result, result.value * 0.7), 3):.0f} ms; "
         f"{median_ms(lambda: least_money(limited, limited.value * 0.7), 1):.0f}", "≤ 1 s"),
        ("the year refitted", f"{median_ms(refitted.sums, 1) / 1000:.2f} s", "≤ 2 s"),
    ]  # fmt: skip


def _versions(result: PlanResult) -> list[Row]:
    names = tuple(str(number) for number in range(MANY))
    richer = replace(result.brief, monthly_spend=result.brief.monthly_spend * 1.3)
    sides = [Side(one, names, names) for one in (result, run_plan(richer, result.table))]

    def compared() -> None:
        for _ in range(2):
            for side in sides:
                standing(side)
                differences(sides[0], side)

    spent = f"{median_ms(compared, 3):.0f} ms"
    return [("four versions compared, without draws", spent, "≤ 1.5 s")]


def _report() -> list[Row]:
    result = run_plan(brief_for(FEW), table_of_size(FEW))
    draws = draw_month(result, 40)
    assert draws is not None, "nobody stops them"
    about = ForReport(
        result, "Plan", list(result.table.texts), [], draws,
        year_ahead(result, 9), date(2027, 9, 1), date(2027, 8, 20),
    )  # fmt: skip
    report = report_of(about)
    spent = {kind: median_ms(lambda k=kind: report_file(k, report), 1) / 1000  # type: ignore[misc]
             for kind in ("pdf", "xlsx", "html")}  # fmt: skip
    said = ", ".join(f"{kind.upper()} {seconds:.2f} s" for kind, seconds in spent.items())
    return [(f"the client's sheet of {FEW:,} keywords", said, "≤ 3 s each")]
