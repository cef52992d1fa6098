"""How much is tried: little on every run, much when asked (``make test DEEP=1``)."""

import os

__all__ = ["DEEP", "cases"]

DEEP = bool(os.environ.get("DEEP"))


def cases(quick: int, deep: int) -> int:
    """Return how many cases a test tries in this run."""
    return deep if DEEP else quick
