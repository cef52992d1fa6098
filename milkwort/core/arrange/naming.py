"""Names of groups by a rule made of parts."""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

__all__ = ["LONGEST_NAME", "NAME_PARTS", "NamePart", "NamedGroup", "names_by_rule"]

NamePart = Literal["name", "theme", "offer", "match", "place", "month", "note"]
NAME_PARTS: tuple[str, ...] = get_args(NamePart)
"""What a name may be made of: today's name, its main words, and so on."""

LONGEST_NAME = 120


@dataclass(frozen=True)
class NamedGroup:
    """One group under a rule.

    Attributes
    ----------
    before, after : str
    clash : bool
        Whether another group of its campaign would be called so too.
    too_long : bool
    empty : bool
        Whether no part of the rule says anything of it.
    """

    before: str
    after: str
    clash: bool
    too_long: bool
    empty: bool

    @property
    def fits(self) -> bool:
        """Whether it can be called so."""
        return not (self.clash or self.too_long or self.empty)


def names_by_rule(
    groups: Sequence[tuple[int, str, Mapping[str, str]]],
    parts: Sequence[NamePart],
    separator: str,
    chosen: Sequence[bool] | None = None,
) -> list[NamedGroup]:
    """Return what each group would be called.

    Parameters
    ----------
    groups : sequence of (int, str, mapping)
        Campaign, present name, and what each part says of it; parts that say nothing are
        left out of the name.
    parts : sequence of NamePart
        In the order they stand.
    separator : str
        Between them.
    chosen : sequence of bool, optional
        Which groups are named; the others keep their names. All where left out.
    """
    wanted = []
    for at, (campaign, name, says) in enumerate(groups):
        if chosen is not None and not chosen[at]:
            wanted.append((campaign, name))
            continue
        said = [says.get(part, "").strip() for part in parts]
        wanted.append((campaign, " ".join(separator.join(s for s in said if s).split())))
    often = Counter(wanted)
    return [
        NamedGroup(
            before=name, after=after, clash=often[campaign, after] > 1,
            too_long=len(after) > LONGEST_NAME, empty=not after,
        )
        for (_, name, _), (campaign, after) in zip(groups, wanted, strict=True)
    ]  # fmt: skip
