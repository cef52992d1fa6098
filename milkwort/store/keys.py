"""Keys: short names of keywords, groups, campaigns, ads and negatives that go where these go.

A row's id belongs to one plan in one database. Its key is kept by copies, versions, files
and what is handed over, and is what comes back from an ad platform.
"""

from __future__ import annotations

import base64
import secrets
from collections.abc import Mapping

from milkwort.store import models

__all__ = ["KEY_LENGTH", "PREFIXES", "new_keys"]

PREFIXES: Mapping[type[models.Base], str] = {
    models.Campaign: "c", models.AdGroup: "g", models.Keyword: "k", models.Negative: "n",
    models.Ad: "a", models.Spot: "s", models.NegativeList: "l",
}  # fmt: skip
"""What has a key, and the letter its keys begin with."""

_BYTES = 10
"""Ten bytes are sixteen characters of base 32."""
KEY_LENGTH = 11
"""A letter and fifty random bits: among 100,000 keywords two share one in a hundred
thousand plans, and the table refuses it."""


def new_keys(model: type[models.Base], count: int) -> list[str]:
    """Return keys for new rows of a table."""
    prefix = PREFIXES[model]
    text = base64.b32encode(secrets.token_bytes(_BYTES * count)).decode().lower()
    return [prefix + text[at : at + KEY_LENGTH - 1] for at in range(0, 16 * count, 16)]
