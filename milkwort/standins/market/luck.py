"""Luck that does not depend on who asks: numbers drawn from a seed and the names of things.

Every number is a hash of what it is about, made with whole numbers only. Two accounts, thirty
days at once or one by one, and every processor meet the same luck.
"""

from __future__ import annotations

import hashlib
from collections.abc import Sequence

import numpy as np
from numpy.typing import NDArray
from scipy.special import gammaincinv, ndtri, pdtrik

__all__ = ["Keys", "counts", "key_of", "keys_of", "mixed", "normal", "uniform"]

Keys = NDArray[np.uint64]

_STEP = 0x9E3779B97F4A7C15
_FIRST, _SECOND = np.uint64(0xBF58476D1CE4E5B9), np.uint64(0x94D049BB133111EB)
_MOST = (1 << 64) - 1
_TINY = 1e-12


def key_of(*names: str) -> int:
    """Return the key of a thing by its names."""
    joined = "\x1f".join(names).encode("utf-8", "surrogatepass")
    return int.from_bytes(hashlib.blake2b(joined, digest_size=8).digest(), "little")


def keys_of(texts: Sequence[str]) -> Keys:
    """Return the keys of some texts, shape (n_texts,)."""
    return np.array([key_of(text) for text in texts], dtype=np.uint64)


def mixed(start: int | Keys, *parts: int | str | Keys | NDArray[np.int64]) -> Keys:
    """Mix keys into one, broadcast against each other.

    Parameters
    ----------
    start : int or Keys
        A seed, or what was mixed before.
    *parts : int, str or array of whole numbers
        What the luck is about.

    Returns
    -------
    Keys
        At least one-dimensional.
    """
    held = _words(start)
    for part in parts:
        held = _stirred(held ^ _stirred(_words(part)))
    return held


def uniform(keys: Keys) -> NDArray[np.float64]:
    """Return a number between 0 and 1, both left out, of each key."""
    return np.asarray(((keys >> np.uint64(11)).astype(np.float64) + 0.5) * 2.0**-53)


def normal(keys: Keys) -> NDArray[np.float64]:
    """Return a standard normal number of each key."""
    return np.asarray(ndtri(uniform(keys)))


def counts(mean: NDArray[np.float64], keys: Keys, shape: float | None) -> NDArray[np.int64]:
    """Return how often something happens.

    Parameters
    ----------
    mean : ndarray of shape (n,)
    keys : Keys, shape (n,)
    shape : float or None
        Of the gamma distribution the mean itself follows; None for plain Poisson.
    """
    if shape is not None:
        mean = mean * gammaincinv(shape, uniform(mixed(keys, 1))) / shape
    chance = uniform(keys)
    # the smallest k with P(N ≤ k) ≥ u; nothing where even none at all is as likely as that
    some = chance > np.exp(-mean)
    found = np.zeros(len(mean), dtype=np.int64)
    found[some] = np.ceil(pdtrik(chance[some], np.maximum(mean[some], _TINY))).astype(np.int64)
    return np.maximum(found, 0)


def _words(part: int | str | Keys | NDArray[np.int64]) -> Keys:
    if isinstance(part, str):
        part = key_of(part)
    if isinstance(part, int):
        return np.array([part & _MOST], dtype=np.uint64)
    return np.atleast_1d(part).astype(np.uint64)


def _stirred(words: Keys) -> Keys:
    held = words + np.uint64(_STEP)
    held = (held ^ (held >> np.uint64(30))) * _FIRST
    held = (held ^ (held >> np.uint64(27))) * _SECOND
    return np.asarray(held ^ (held >> np.uint64(31)))
