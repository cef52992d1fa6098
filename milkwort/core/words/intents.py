"""What a search is for, by name; a column of intents holds places in this list."""

from __future__ import annotations

__all__ = ["INTENTS"]

INTENTS: tuple[str, ...] = ("buy", "compare", "learn", "firm", "job", "unknown")
