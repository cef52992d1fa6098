"""The luck of a draw: the same for the same keyword in every plan, version and month.

Numbers are drawn by what they are for, not in a row: each keyword has a key made of seed,
text and match, and number *k* of draw *d* is a hash of the key, *d* and *k*. So a version in
which a keyword bids more meets the very month that the other met, and what differs between
the two is never luck.
"""

from __future__ import annotations

from collections.abc import Iterable
from hashlib import blake2b

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtri

from milkwort.core.arrays import Floats

__all__ = ["USES", "Luck"]

USES: tuple[str, ...] = (
    "searches", "click rate", "clicks", "served", "rate", "customers",
)  # fmt: skip
"""What a keyword's own numbers of one draw are for."""

_Keys = NDArray[np.uint64]
_STEP = np.uint64(0x9E3779B97F4A7C15)
_MIX = (
    (np.uint64(30), np.uint64(0xBF58476D1CE4E5B9)),
    (np.uint64(27), np.uint64(0x94D049BB133111EB)),
)
"""The finish of SplitMix64 (Steele, Lea & Flood 2014): counters in, independent bits out."""
_LAST = np.uint64(31)
_BITS = np.uint64(11)


class Luck:
    """Uniform and normal numbers for each of some rows, by draw and by use.

    Parameters
    ----------
    seed : int
    names : iterable of str
        One a row; the same name meets the same numbers.
    """

    def __init__(self, seed: int, names: Iterable[str]) -> None:
        digests = b"".join(
            blake2b(f"{seed} {name}".encode(), digest_size=8).digest() for name in names
        )
        self._keys: _Keys = np.frombuffer(digests, dtype="<u8").astype(np.uint64)

    def uniform(self, use: str, draws: range) -> Floats:
        """Return numbers between 0 and 1, both left out.

        Parameters
        ----------
        use : str
            One of `USES`.
        draws : range
            Numbers of the draws.

        Returns
        -------
        Floats, shape (n_draws, n_rows)
        """
        counter = np.arange(draws.start, draws.stop, dtype=np.uint64) * np.uint64(len(USES))
        counter += np.uint64(USES.index(use) + 1)
        bits = self._keys[None, :] + counter[:, None] * _STEP
        for shift, times in _MIX:
            bits ^= bits >> shift
            bits *= times
        bits ^= bits >> _LAST
        return ((bits >> _BITS).astype(np.float64) + 0.5) * 2.0**-53

    def normal(self, use: str, draws: range) -> Floats:
        """Return standard normal numbers, as `uniform` does."""
        return np.asarray(ndtri(self.uniform(use, draws)))
