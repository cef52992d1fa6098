"""What a command may be told: the words of each choice."""

from __future__ import annotations

from enum import StrEnum

__all__ = ["Format", "LearningPolicy", "Paper", "TruthLevel"]


class Format(StrEnum):
    """How a result is written."""

    JSON = "json"
    CSV = "csv"
    TABLE = "table"


class TruthLevel(StrEnum):
    """How far the practice market's truth lies from what is planned."""

    AS_PLANNED = "as-planned"
    USUAL = "usual"
    ROUGH = "rough"


class LearningPolicy(StrEnum):
    """What is done with a month that is over."""

    ADVICE = "advice"
    INFORMED = "informed"
    UNCHANGED = "unchanged"
    RULE = "rule"
    MIDDLE = "middle"


class Paper(StrEnum):
    """What a sheet is printed on."""

    A4 = "a4"
    US_LETTER = "us-letter"
