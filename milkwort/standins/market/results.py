"""What a day brought, as columns that are kept as bytes."""

from __future__ import annotations

import io
from dataclasses import dataclass, fields

import numpy as np
from numpy.typing import NDArray

__all__ = ["DayResult", "Sold", "day_from_bytes", "day_to_bytes"]

Ints = NDArray[np.int64]


@dataclass(frozen=True)
class Sold:
    """Customers of a day's clicks; arrays of shape (n_sold,).

    Attributes
    ----------
    keyword, text : Ints
    reported : Ints
        Day on which it is reported.
    customers, enquiries : Ints
    """

    keyword: Ints
    text: Ints
    reported: Ints
    customers: Ints
    enquiries: Ints


@dataclass(frozen=True)
class DayResult:
    """What a day brought; arrays of shape (n_rows,), a row a keyword and text.

    Attributes
    ----------
    keyword, text : Ints
        Places among the live keywords and the world's texts; a text of −1 is a spot, and
        then the keyword is its place among the spots.
    could_show, lost_to_money, impressions, clicks, invalid : Ints
        `could_show` counts every search that could be served while live, also with the money
        gone; of those, `lost_to_money`.
    cost, over : Ints
        Millionths; `over` is credited at once, being past the day's money.
    invalid_cost : Ints
        Credited later, millionths.
    sold : Sold
    """

    keyword: Ints
    text: Ints
    could_show: Ints
    lost_to_money: Ints
    impressions: Ints
    clicks: Ints
    invalid: Ints
    cost: Ints
    over: Ints
    invalid_cost: Ints
    sold: Sold


def day_to_bytes(day: DayResult) -> bytes:
    """Return a day as bytes, to be kept."""
    arrays = {f.name: getattr(day, f.name) for f in fields(DayResult) if f.name != "sold"}
    arrays |= {f"sold_{f.name}": getattr(day.sold, f.name) for f in fields(Sold)}
    out = io.BytesIO()
    np.savez_compressed(out, **arrays)
    return out.getvalue()


def day_from_bytes(content: bytes) -> DayResult:
    """Return the day that `day_to_bytes` wrote."""
    with np.load(io.BytesIO(content), allow_pickle=False) as held:
        values = {name: held[name] for name in held.files}
    sold = {name.removeprefix("sold_"): values.pop(name) for name in list(values)
            if name.startswith("sold_")}  # fmt: skip
    return DayResult(**values, sold=Sold(**sold))
