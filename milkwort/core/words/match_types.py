"""The three ways a keyword may match what somebody typed, most specific first."""

from __future__ import annotations

from typing import Literal, get_args

__all__ = ["MATCHES", "Match"]

Match = Literal["exact", "phrase", "broad"]
MATCHES: tuple[str, ...] = get_args(Match)
