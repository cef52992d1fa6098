"""A number as a sentence says it: with what it counts, or in per cent."""

from __future__ import annotations

__all__ = ["counted", "in_percent"]


def counted(number: int, one: str, many: str = "") -> str:
    """Return ``1 keyword`` or ``1,200 keywords``.

    Parameters
    ----------
    number : int
    one : str
        What is counted, if it is one; a word of its own where the plural is no added s.
    many : str
        The plural, where that is not `one` with an s.
    """
    return f"{number:,} {one if number == 1 else many or one + 's'}"


def in_percent(share: float) -> str:
    """Return ``20 %`` for a fifth, with a space at which no line ends.

    Parameters
    ----------
    share : float
    """
    return f"{share * 100:.0f}\u00a0%"
