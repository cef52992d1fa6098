"""A running account's own rows held against the plan: what is to change, and what took."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from milkwort.core.words.texts import normalise

__all__ = ["AccountChange", "AccountLine", "HeldAgainst", "Planned", "held_against"]

_SAME = 1e-9


@dataclass(frozen=True)
class AccountLine:
    """One keyword as the account has it.

    Attributes
    ----------
    row : int
        Its place among the file's rows.
    text, match : str
    bid : float or None
        Money a click; None where the file says none.
    runs : bool or None
        None where the file doesn't say.
    """

    row: int
    text: str
    match: str
    bid: float | None
    runs: bool | None


@dataclass(frozen=True)
class Planned:
    """What the plan wants of one keyword; no bid for one that is not to run."""

    text: str
    match: str
    bid: float | None


@dataclass(frozen=True)
class AccountChange:
    """One row that is not as planned.

    Attributes
    ----------
    row : int
    text, match : str
    bid : (float or None, float or None) or None
        As it is, and as planned; None where it is as planned.
    runs : (bool, bool) or None
        The same for whether it runs.
    """

    row: int
    text: str
    match: str
    bid: tuple[float | None, float | None] | None
    runs: tuple[bool, bool] | None


@dataclass(frozen=True)
class HeldAgainst:
    """An account held against a plan.

    Attributes
    ----------
    changes : tuple of AccountChange
        In the order of the file.
    same : int
        Rows that are as planned.
    strangers : tuple of AccountLine
        Rows the plan says nothing of; they stay as they are.
    missing : tuple of Planned
        Keywords that are to run and that no row has.
    """

    changes: tuple[AccountChange, ...]
    same: int
    strangers: tuple[AccountLine, ...]
    missing: tuple[Planned, ...]


def held_against(lines: Sequence[AccountLine], plan: Sequence[Planned]) -> HeldAgainst:
    """Hold an account against a plan, keyword by keyword, by text and match.

    Parameters
    ----------
    lines : sequence of AccountLine
    plan : sequence of Planned
        Every keyword that was called: kept ones with their bid, dropped ones without.
    """
    wanted: Mapping[tuple[str, str], Planned] = {
        (normalise(one.text), one.match): one for one in plan
    }
    changes, strangers, same = [], [], 0
    seen = set()
    for line in lines:
        key = (normalise(line.text), line.match)
        planned = wanted.get(key)
        if planned is None:
            strangers.append(line)
            continue
        seen.add(key)
        change = _change(line, planned)
        if change is None:
            same += 1
        else:
            changes.append(change)
    missing = [one for key, one in wanted.items() if key not in seen and one.bid is not None]
    return HeldAgainst(tuple(changes), same, tuple(strangers), tuple(missing))


def _change(line: AccountLine, planned: Planned) -> AccountChange | None:
    runs = planned.bid is not None
    bid = None
    # a keyword that is not to run keeps its bid: it may run again
    if planned.bid is not None and (line.bid is None or abs(line.bid - planned.bid) > _SAME):
        bid = (line.bid, planned.bid)
    turned = None if line.runs is None or line.runs == runs else (line.runs, runs)
    if bid is None and turned is None:
        return None
    return AccountChange(line.row, line.text, line.match, bid, turned)
