"""Public holidays: of which country or part of one, and which days they are."""

from __future__ import annotations

from datetime import date
from functools import cache

from milkwort.core.errors import BadValueError

__all__ = ["check_holidays_of", "countries_with_holidays", "holiday_on"]

_SAID_IN = "en_US"
"""Names of days in English where the calendar has them, else in the country's own words."""


@cache
def countries_with_holidays() -> dict[str, dict[str, str]]:
    """Return the countries whose public holidays are known, each with its parts.

    Returns
    -------
    dict of str to dict of str to str
        By the country's code of two letters (ISO 3166-1): the code of each part that has days
        of its own, and what the part is called.
    """
    # a quarter of a second to import, and most plans name no country
    import holidays

    found: dict[str, dict[str, str]] = {}
    known = holidays.list_supported_countries(include_aliases=False)
    for country, parts in sorted(known.items()):
        names: dict[str, str] = {}
        for name, code in getattr(holidays, country).subdivisions_aliases.items():
            names.setdefault(code, name)
        found[country] = {part: names.get(part, part) for part in parts}
    return found


def check_holidays_of(where: str) -> None:
    """Refuse a place whose public holidays nobody knows.

    Parameters
    ----------
    where : str
        Empty for none, a country such as ``GB``, or a part of one such as ``GB-SCT``.

    Raises
    ------
    BadValueError
        Which field, what was expected, what came.
    """
    if where and not _is_known(where):
        raise BadValueError(
            "holidays_of", "a country whose holidays are known, or a part of one", where
        )


def holiday_on(where: str, day: date) -> str:
    """Return what a public holiday is called; empty on any other day.

    Parameters
    ----------
    where : str
        As in `check_holidays_of`; of a place that isn't known there are none.
    day : date
    """
    if not where or not _is_known(where):
        return ""
    import holidays

    country, _, part = where.partition("-")
    of_year = holidays.country_holidays(
        country, part or None, language=_SAID_IN, years=day.year, expand=False
    )
    return str(of_year.get(day, ""))


def _is_known(where: str) -> bool:
    country, dash, part = where.partition("-")
    parts = countries_with_holidays().get(country)
    return parts is not None and (part in parts if dash else True)
