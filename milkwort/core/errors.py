"""What can go wrong, as a tree.

::

    MilkwortError
    ├── PlannerError            the person at the screen can mend it
    │   ├── BadValueError       one value is out of its range        (where, expected, got)
    │   ├── NothingUsableError  a file or sheet holds nothing to plan with
    │   ├── NotFoundError       a plan, keyword or hand-over is not there
    │   ├── ReplayError         a change can't be undone or done again (label, why)
    │   ├── UnreadableError     what is stored makes no plan
    │   ├── ClosedError         a month that is closed stands as it was
    │   ├── StoppedError        the planner stopped it; nothing of it was kept
    │   └── TooLargeError       an upload passes its bound
    └── ProgramError            a programmer called something wrongly

A `Refusal` is not raised: it is one bad row, reported while the good ones go on.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

__all__ = [
    "BadValueError",
    "ClosedError",
    "MilkwortError",
    "NotFoundError",
    "NothingUsableError",
    "PlannerError",
    "ProgramError",
    "Refusal",
    "ReplayError",
    "StoppedError",
    "TooLargeError",
    "UnreadableError",
]


class MilkwortError(Exception):
    """The root of every error the program raises itself."""


class PlannerError(MilkwortError):
    """Something the planner can mend.

    Parameters
    ----------
    message : str
        One sentence for the planner.
    where : str
        The field, row or file concerned; empty where none applies.
    """

    code = "cannot_do"

    def __init__(self, message: str, where: str = "") -> None:
        super().__init__(message)
        self.message = message
        self.where = where

    def __reduce__(self) -> tuple[Any, ...]:
        return _again, (type(self), self.args, self.__dict__)


class BadValueError(PlannerError):
    """A value outside what its field takes."""

    code = "bad_value"

    def __init__(self, where: str, expected: str, got: object) -> None:
        super().__init__(f"{where}: expected {expected}, got {_said(got)}", where)
        self.expected = expected
        self.got = got


class NothingUsableError(PlannerError):
    """Nothing in the input can be planned with."""

    code = "nothing_usable"


class NotFoundError(PlannerError):
    """The thing asked for is not there."""

    code = "not_found"


class ReplayError(PlannerError):
    """A change that can't be undone, or done again.

    Parameters
    ----------
    label : str
        What the change was called.
    verb : str
        ``undone`` or ``done again``.
    why : str
    """

    code = "cannot_replay"

    def __init__(self, label: str, verb: str, why: str) -> None:
        super().__init__(f'"{label}" can\'t be {verb}: {why}. The plan is as it was.', "journal")


class ClosedError(PlannerError):
    """A month that is closed: it stands as it was until it is opened again."""

    code = "closed"


class StoppedError(PlannerError):
    """Long work that the planner stopped."""

    code = "stopped"


class UnreadableError(PlannerError):
    """What is stored makes no plan: it can still be listed, saved as it is and deleted."""

    code = "unreadable"


class TooLargeError(PlannerError):
    """The input passes a bound on size."""

    code = "too_large"


class ProgramError(MilkwortError):
    """A call that the program itself got wrong."""


@dataclass(frozen=True)
class Refusal:
    """One row that was left out, and why.

    Attributes
    ----------
    row : int
        Row of the file, the heading being row 1.
    column : str
        Heading of the column at fault.
    value : str
        What stood there.
    why : str
        ``expected …, got …`` in words.
    """

    row: int
    column: str
    value: str
    why: str

    def __str__(self) -> str:
        return f"row {self.row}, {self.column}: {self.why}"

    def as_dict(self) -> dict[str, Any]:
        """Return the refusal with plain keys, for JSON."""
        return {"row": self.row, "column": self.column, "value": self.value, "why": self.why}


def _again(kind: type[PlannerError], args: tuple[Any, ...], state: dict[str, Any]) -> PlannerError:
    """Return an error that comes from another process as it was raised there."""
    error = kind.__new__(kind, *args)
    error.args = args
    error.__dict__.update(state)
    return error


def _said(got: object) -> str:
    text = got if isinstance(got, str) else repr(got)
    short = text if len(text) <= 60 else text[:57] + "…"
    return f'"{short}"' if isinstance(got, str) else short
