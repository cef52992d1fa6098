"""The client's sheet of a plan."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from milkwort.core.handover.report.ahead import steps, year
from milkwort.core.handover.report.listed import ads, blocked, buy_now, next_in_line, too_dear
from milkwort.core.handover.report.making import Making
from milkwort.core.handover.report.promise import promise, versions
from milkwort.core.handover.report.proof import assumed, worked
from milkwort.core.handover.report.shape import (
    SECTIONS,
    ForReport,
    Options,
    Report,
    Section,
    SectionName,
)
from milkwort.core.handover.report.words import day_said
from milkwort.core.handover.said import NumberStyle

__all__ = ["report_of"]


_PARTS: Mapping[SectionName, Callable[[Making], Section]] = {
    "promise": promise, "versions": versions, "buy_now": buy_now, "next_in_line": next_in_line,
    "too_dear": too_dear, "blocked": blocked, "year": year, "ads": ads, "assumed": assumed,
    "worked": worked, "steps": steps,
}  # fmt: skip
_SHORT = ("promise", "versions", "buy_now", "next_in_line", "too_dear", "steps")


def report_of(about: ForReport, options: Options | None = None) -> Report:
    """Return the client's sheet of a plan.

    Parameters
    ----------
    about : ForReport
    options : Options, optional
    """
    chosen = options or Options(style=NumberStyle(currency=about.result.brief.currency))
    making = Making(about, chosen)
    wanted = [key for key in SECTIONS if key in chosen.sections]
    if chosen.short:
        wanted = [key for key in wanted if key in _SHORT]
    if not about.others:
        wanted = [key for key in wanted if key != "versions"]
    made = [_PARTS[key](making) for key in wanted]
    return Report(
        title=making.words["title"].format(name=about.name),
        made=making.words["made"].format(day=day_said(about.today)),
        letterhead=chosen.letterhead,
        note=chosen.note,
        style=chosen.style,
        sections=tuple(made),
    )
