"""The languages a client's sheet can be written in."""

from __future__ import annotations

import tomllib
from datetime import date
from functools import lru_cache
from pathlib import Path
from typing import Any

__all__ = ["day_said", "spoken", "words_of"]


@lru_cache(maxsize=8)
def words_of(language: str) -> dict[str, Any]:
    """Return the headings and sentences of a language.

    Parameters
    ----------
    language : str
        Such as ``en``; one that there are no words of is read as English.
    """
    return tomllib.loads(_files()[spoken(language)].read_text(encoding="utf-8"))


def spoken(language: str) -> str:
    """Return the code of the language a sheet is written in where one is asked for.

    Parameters
    ----------
    language : str
        Any text; one that there are no words of is read as English.
    """
    return language if language in _files() else "en"


@lru_cache(maxsize=1)
def _files() -> dict[str, Path]:
    return {path.stem: path for path in Path(__file__).with_name("languages").glob("*.toml")}


def day_said(day: date) -> str:
    """Return a day as a client reads it.

    Parameters
    ----------
    day : date
    """
    return f"{day.day} {day:%B %Y}"
