"""Versions side by side as a table for the terminal."""

from __future__ import annotations

from collections.abc import Sequence

from milkwort.core.counted import counted
from milkwort.core.plan.differences import Difference, Said
from milkwort.core.plan.draws import Draws
from milkwort.core.plan.versions import Apart, Standing

__all__ = ["compare_table"]

_ROWS: tuple[tuple[str, str, int], ...] = (
    ("purse", "purse a month", 2),
    ("spend", "spend a month", 2),
    ("clicks", "clicks a month", 1),
    ("customers", "customers a month", 2),
    ("cost_per_customer", "cost per customer", 2),
    ("revenue", "revenue a month", 2),
    ("profit", "profit a month", 2),
    ("kept", "keywords kept", 0),
    ("running", "keywords run", 0),
    ("year_spend", "spend, twelve months", 2),
    ("year_customers", "customers, twelve months", 1),
    ("year_profit", "profit, twelve months", 2),
)
_SHOWN = 12


def compare_table(
    names: Sequence[str],
    standings: Sequence[Standing],
    draws: Sequence[Draws],
    differences: Sequence[Difference],
    apart: Apart,
) -> str:
    """Return two versions side by side.

    Parameters
    ----------
    names : sequence of str
        Of both.
    standings : sequence of Standing
    draws : sequence of Draws
    differences : sequence of Difference
        From the first to the second.
    apart : Apart
        The second against the first.
    """
    lines = [f"{'':<28}{names[0][:22]:>24}{names[1][:22]:>24}{'difference':>16}"]
    for key, label, digits in _ROWS:
        was, now = (getattr(one, key) for one in standings)
        figures = _figure(was, digits) + _figure(now, digits)
        lines.append(f"{label:<28}{figures}{_by(was, now, digits)}")
        if key in draws[0].ranges:
            both = (one.ranges[key] for one in draws)
            said = (f"{r.low:,.{digits}f} to {r.high:,.{digits}f}" for r in both)
            lines.append(f"{'  8 months in 10':<28}" + "".join(f"{one:>24}" for one in said))
    lines += [
        "",
        f"In the same {draws[0].count:,} months {names[1]} brings more customers in "
        f"{apart.more:.1%}, as many in {apart.same:.1%}, fewer in {apart.fewer:.1%}; "
        f"more profit in {apart.more_profit:.1%}.",
        "",
        counted(len(differences), "difference") if differences else "No difference.",
    ]
    kinds = list(dict.fromkeys(one.kind for one in differences))
    for kind in kinds:
        mine = [one for one in differences if one.kind == kind]
        lines.append(f"  {kind}: {len(mine):,}")
        lines += [f"    {one.what}: {_said(one.was)} → {_said(one.now)}" for one in mine[:_SHOWN]]
        lines += [f"    … and {len(mine) - _SHOWN:,} more"] if len(mine) > _SHOWN else []
    return "\n".join(lines) + "\n"


def _figure(value: float | None, digits: int) -> str:
    return f"{'none expected' if value is None else f'{value:,.{digits}f}':>24}"


def _by(was: float | None, now: float | None, digits: int) -> str:
    if was is None or now is None:
        return ""
    return f"{now - was:>+16,.{digits}f}"


def _said(value: Said) -> str:
    if value is None:
        return "none"
    return f"{value:,.4g}" if isinstance(value, float) else str(value)
