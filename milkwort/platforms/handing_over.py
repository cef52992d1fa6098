"""Handing a plan over to a platform: sheet by sheet, each answered row by row, then read back."""

from __future__ import annotations

import time
from collections.abc import Callable, Mapping, Sequence
from dataclasses import asdict, dataclass, field

from milkwort.core.handover.changed_rows import Cell, Row
from milkwort.core.handover.took import Difference, differences_of, rows_to_send
from milkwort.platforms.platform import SHEET_ORDER, AdPlatform, OpenAccount, ReplyRow, Told

__all__ = ["Outcome", "hand_over", "live_of", "parcels_of"]

Sheets = Mapping[str, Sequence[Row]]
Written = Callable[[Sequence[Row]], bytes]

_FIRST_WAIT, _LONGEST_WAIT = 0.03, 0.5
_REMOVED = "removed"
_GONE = " to be removed"


@dataclass
class Outcome:
    """What came back.

    Attributes
    ----------
    replies : dict of str to list of ReplyRow
        By sheet; those of what was to be removed apart.
    differs : list of Difference
        What stands otherwise than the plan says, when it was read back.
    """

    replies: dict[str, list[ReplyRow]] = field(default_factory=dict)
    differs: list[Difference] = field(default_factory=list)

    def counts(self) -> dict[str, int]:
        """Return how many rows were taken, warned of and refused."""
        states = [row.state for rows in self.replies.values() for row in rows]
        return {state: states.count(state) for state in ("taken", "warned", "refused")}

    def as_rows(self) -> dict[str, list[dict[str, object]]]:
        """Return the replies as plain values."""
        return {name: [asdict(row) for row in rows] for name, rows in self.replies.items()}


def live_of(platform: AdPlatform, account: OpenAccount) -> dict[str, list[Row]]:
    """Return everything that is live in an account, by sheet."""
    return {kind: list(platform.live(account, kind)) for kind in SHEET_ORDER}


def parcels_of(sheets: Sheets, live: Sheets, *, whole: bool) -> dict[str, list[Row]]:
    """Return what is to be sent, in the order in which it is.

    What must go comes first, what hangs on other things before these; then what is to stand.

    Parameters
    ----------
    sheets : mapping of str to sequence of Row
        The plan's.
    live : mapping
        What stands in the account.
    whole : bool
        Whether rows that stand as they should are sent all the same.
    """
    kept: dict[str, list[Row]] = {}
    gone: dict[str, list[Row]] = {}
    for kind in SHEET_ORDER:
        rows, leaving = rows_to_send(kind, sheets[kind], live[kind], whole=whole)
        kept[kind] = rows
        gone[kind + _GONE] = [{"change": _REMOVED, **_plain(row)} for row in leaving]
    ordered = {kind + _GONE: gone[kind + _GONE] for kind in reversed(SHEET_ORDER)} | kept
    return {name: rows for name, rows in ordered.items() if rows}


def hand_over(
    platform: AdPlatform,
    account: OpenAccount,
    parcels: Sheets,
    sheets: Sheets,
    once: str,
    written: Written,
    told: Told = lambda *_: None,
) -> Outcome:
    """Send what is to be sent, wait for each answer, and look whether it took.

    Whatever is cut short may be called again with the same `once`: nothing is taken in twice.

    Parameters
    ----------
    platform : AdPlatform
    account : OpenAccount
    parcels : mapping of str to sequence of Row
        From `parcels_of`.
    sheets : mapping
        The whole plan, to be held against what stands afterwards.
    once : str
        Names this sending.
    written : callable
        Writes rows as a sheet.
    told : callable
        Told which sheet is at work, and how far it is.

    Raises
    ------
    PlatformError
        Where the platform would not, or did not answer.
    """
    outcome = Outcome()
    total = sum(len(rows) for rows in parcels.values())
    done = 0
    for name, rows in parcels.items():
        told(name, done, total)
        number = platform.upload(account, name.removesuffix(_GONE), written(rows),
                                 f"{once}.{name}")  # fmt: skip
        wait = _FIRST_WAIT
        while (state := platform.uploaded(account, number)).state != "done":
            told(name, done + state.read, total)
            time.sleep(wait)
            wait = min(wait * 1.5, _LONGEST_WAIT)
        outcome.replies[name] = platform.reply(account, number)
        done += len(rows)
    told("read back", total, total)
    for kind in SHEET_ORDER:
        outcome.differs.extend(differences_of(kind, sheets[kind], platform.live(account, kind)))
    return outcome


def _plain(row: Row) -> dict[str, Cell]:
    return {name: value for name, value in row.items() if name != "fields"}
