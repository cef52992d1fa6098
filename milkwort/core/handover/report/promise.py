"""What a client is told first: the promise, and versions of it to choose from."""

from __future__ import annotations

from milkwort.core.handover.report.making import Making
from milkwort.core.handover.report.shape import Cell, Column, Other, Section, Table
from milkwort.core.handover.said import Kind

__all__ = ["promise", "versions"]


def promise(of: Making) -> Section:
    """Return the promise: the money, and the customers it brings in eight months of ten.

    Parameters
    ----------
    of : Making
    """
    words, totals, draws = of.words["promise"], of.result.totals, of.about.draws
    if totals.spend <= 0:
        return Section("promise", words["title"], (words["nobody"],))
    came, spent = draws.ranges["customers"], draws.ranges["spend"]
    lines = [words["money"].format(purse=of.money(of.result.brief.monthly_spend),
                                   spend=of.money(spent.middle))]  # fmt: skip
    if of.about.gross is not None:
        lines.append(words["gross"].format(gross=of.money(of.about.gross)))
    whole = of.options.style
    lines.append(words["customers"].format(
        low=whole.said(came.low, "whole"), high=whole.said(came.high, "whole"),
        middle=whole.said(came.middle, "whole"),
    ))  # fmt: skip
    lines.append(
        words["each"].format(
            each=of.money(totals.cost_per_customer),
            allowed=of.money(of.result.brief.worth.allowed),
        )
    )
    figures = _figures(of)
    return Section("promise", words["title"], tuple(lines), (figures,))


def versions(of: Making) -> Section:
    """Return the versions a client chooses among, side by side.

    Parameters
    ----------
    of : Making
    """
    words, heads, said = of.words["versions"], of.words["columns"], of.options.style.said
    own = Other(of.about.label or words["this"], of.result, of.about.draws)
    sides = [own, *of.about.others]
    columns = [Column("what", heads["what"], "text")]
    columns += [Column(str(at), side.label or words["this"], "text")
                for at, side in enumerate(sides)]  # fmt: skip
    rows: list[tuple[Cell, ...]] = [
        (heads["purse"], *(of.money(s.result.brief.monthly_spend) for s in sides)),
    ]
    kinds: dict[str, Kind] = {"spend": "money", "clicks": "whole", "customers": "count"}
    for name, kind in kinds.items():
        ranges = [side.draws.ranges[name] for side in sides]
        rows.append((heads[name], *(said(getattr(s.result.totals, name), kind) for s in sides)))
        rows.append(("8 / 10", *(f"{said(r.low, kind)} – {said(r.high, kind)}"
                                 for r in ranges)))  # fmt: skip
    rows.append((heads["profit"], *(of.money(s.result.totals.profit) for s in sides)))
    table = Table(tuple(columns), tuple(rows))
    return Section("versions", words["title"], (words["about"],), (table,))


def _figures(of: Making) -> Table:
    heads, ranges = of.words["columns"], of.about.draws.ranges
    columns = (Column("what", heads["what"], "text"), Column("figure", heads["figure"], "text"),
               Column("low", "8 / 10", "text"))  # fmt: skip
    said = of.options.style.said
    kinds: dict[str, Kind] = {"clicks": "whole", "customers": "count", "spend": "money"}
    rows = []
    for name, kind in kinds.items():
        found = ranges[name]
        rows.append((heads[name], said(getattr(of.result.totals, name), kind),
                     f"{said(found.low, kind)} – {said(found.high, kind)}"))  # fmt: skip
    return Table(columns, tuple(rows))
