"""What stands in an account while sheets are taken in: found by name, counted by group."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date
from typing import Any

from milkwort.core.words.texts import canonical, normalise
from milkwort.standins.market.limits import Limits

__all__ = ["KINDS", "Data", "Standing"]

Data = dict[str, Any]


KINDS = ("campaigns", "groups", "keywords", "negatives", "ads", "spots")
"""Kinds of sheets, in the order in which they can be taken: what is pointed at comes first."""


@dataclass
class Standing:
    """What stands in an account while sheets are taken in; data by kind and ref."""

    limits: Limits
    today: date
    things: dict[str, dict[str, Data]] = field(default_factory=lambda: {k: {} for k in KINDS})
    touched: dict[tuple[str, str], Data | None] = field(default_factory=dict)
    made: int = 0

    def __post_init__(self) -> None:
        self._by_name: dict[str, dict[Any, str]] = {k: {} for k in KINDS}
        for kind in KINDS:
            for ref, data in self.things[kind].items():
                self._by_name[kind][identity(kind, data)] = ref
        self.in_group: dict[tuple[str, str], int] = {}
        for kind in ("keywords", "ads"):
            for data in self.things[kind].values():
                self._count(kind, data, 1)

    def find(self, kind: str, identity: Any) -> str | None:
        """Return the ref of what has a name; None where nothing has."""
        return self._by_name[kind].get(identity)

    def set(self, kind: str, ref: str, data: Data) -> None:
        """Put a thing there, or in the place of what it was."""
        self._forget(kind, ref)
        self.things[kind][ref] = data
        self._by_name[kind][identity(kind, data)] = ref
        self._count(kind, data, 1)
        self.touched[kind, ref] = data

    def drop(self, kind: str, ref: str) -> None:
        """Take a thing away, and what hangs on it."""
        if ref not in self.things[kind]:
            return
        self._forget(kind, ref)
        self.touched[kind, ref] = None
        if kind in ("campaigns", "groups"):
            part = kind.removesuffix("s")
            for other in KINDS:
                for hanging in [r for r, d in self.things[other].items() if d.get(part) == ref]:
                    self.drop(other, hanging)

    def _forget(self, kind: str, ref: str) -> None:
        before = self.things[kind].pop(ref, None)
        if before is not None:
            self._count(kind, before, -1)
            if self._by_name[kind].get(identity(kind, before)) == ref:
                del self._by_name[kind][identity(kind, before)]

    def _count(self, kind: str, data: Data, by: int) -> None:
        if kind in ("keywords", "ads"):
            at = (kind, data["group"])
            self.in_group[at] = self.in_group.get(at, 0) + by


def identity(kind: str, data: Data) -> Any:
    """Return what makes a thing the same one in another sheet."""
    if kind == "campaigns":
        return data["name"]
    if kind == "groups":
        return data["campaign"], data["name"]
    if kind == "keywords":
        return data["group"], canonical(normalise(data["text"]), {}, True), data["match"]
    if kind == "negatives":
        return data["campaign"], data["group"], normalise(data["text"]), data["match"]
    if kind == "ads":
        return data["group"], tuple(data["fields"])
    return data["campaign"], data["name"]
