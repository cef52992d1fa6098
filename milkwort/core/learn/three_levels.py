"""What results teach of a factor, shared out among the plan, a group and the keyword itself."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.errors import BadValueError

__all__ = ["Learnt", "learnt_of_counts", "learnt_of_shifts"]

_ROUNDS = 4
_LEAP = 2.0
"""Log units past what was seen itself, from which a round has leapt."""
_FAR = 30.0
Sight = tuple[Floats, Floats]
"""y and v: what each row says of its own shift, and the variance of that."""


@dataclass(frozen=True)
class Learnt:
    """Shifts in log units; the factor is e to their power.

    Attributes
    ----------
    shift : Floats, shape (n_rows,)
        η, of each row; a row of which nothing can be seen has its plan's and its group's.
    plan : float
        m.
    group : Floats, shape (n_rows,)
        g of each row's group; 0 without one.
    variance : Floats, shape (n_rows,)
        v, infinite where nothing can be seen.
    """

    shift: Floats
    plan: float
    group: Floats
    variance: Floats

    @property
    def factor(self) -> Floats:
        """e^η."""
        return np.exp(self.shift)


def learnt_of_counts(
    expected: Floats, came: Floats, group: Ints, plan_spread: float, group_spread: float,
    own_spread: Floats | float,
) -> Learnt:  # fmt: skip
    """Learn from counts: how often something happened, and was expected to.

    Parameters
    ----------
    expected, came : Floats, shape (n_rows,)
        e and a; rows with an e of 0 are left out.
    group : Ints, shape (n_rows,)
        −1 for none.
    plan_spread, group_spread : float
        s_p and s_g, log units, above 0.
    own_spread : Floats or float
        s_o of each row.

    Raises
    ------
    BadValueError
        For a count below 0, or a spread of 0.
    """
    if not ((expected >= 0).all() and (came >= 0).all()):
        raise BadValueError("expected and came", "counts of 0 or more", float(min(
            expected.min(initial=0.0), came.min(initial=0.0))))  # fmt: skip
    known = expected > 0

    def sight(eta: Floats) -> Sight:
        # y = η + a/(e·e^η) − 1,  v = 1/(e·e^η)
        # far past anything seen a first round may leap: it is held where e^η is a number
        due = np.where(known, expected * np.exp(np.clip(eta, -_FAR, _FAR)), 1.0)
        y = np.where(known, eta + came / due - 1.0, 0.0)
        return y, np.where(known, 1.0 / due, np.inf)

    with np.errstate(divide="ignore", invalid="ignore"):
        seen = np.where(known & (came > 0), np.log(came / expected), np.inf)
    return _learnt(sight, known, group, plan_spread, group_spread, own_spread, seen)


def learnt_of_shifts(
    seen: Floats, variance: Floats, group: Ints, plan_spread: float, group_spread: float,
    own_spread: Floats | float,
) -> Learnt:  # fmt: skip
    """Learn from shifts that were measured, each with its variance.

    Parameters
    ----------
    seen, variance : Floats, shape (n_rows,)
        y and v; rows with an infinite v are left out.
    group, plan_spread, group_spread, own_spread
        As for `learnt_of_counts`.
    """
    known = np.isfinite(variance)
    y = np.where(known, seen, 0.0)
    return _learnt(lambda _: (y, variance), known, group, plan_spread, group_spread, own_spread)


def _learnt(
    sight: Callable[[Floats], Sight], known: np.ndarray[tuple[int], np.dtype[np.bool_]],
    group: Ints, plan_spread: float, group_spread: float, own_spread: Floats | float,
    most: Floats | float = np.inf,
) -> Learnt:  # fmt: skip
    """Learn; a round that leaps far past `most`, what was seen itself, goes on from there."""
    if not (plan_spread > 0 and group_spread > 0):
        raise BadValueError("spread", "above 0", min(plan_spread, group_spread))
    own = np.broadcast_to(np.asarray(own_spread, dtype=np.float64) ** 2, known.shape)
    held = np.flatnonzero(group >= 0)
    many = int(group.max(initial=-1)) + 1
    eta, of_group, m = np.zeros(len(known)), np.zeros(len(known)), 0.0
    v = np.full(len(known), np.inf)
    for _ in range(_ROUNDS):
        y, v = sight(eta)
        # m = Σ y/(v+s_g²+s_o²) / (1/s_p² + Σ 1/(v+s_g²+s_o²))
        weight = np.where(known, 1.0 / (v + group_spread**2 + own), 0.0)
        m = float((weight * y).sum() / (1 / plan_spread**2 + weight.sum()))
        # g = Σ_G (y−m)/(v+s_o²) / (1/s_g² + Σ_G 1/(v+s_o²))
        inner = np.where(known, 1.0 / (v + own), 0.0)
        above = np.bincount(group[held], (inner * (y - m))[held], minlength=many)
        below = np.bincount(group[held], inner[held], minlength=many)
        of_group[held] = (above / (1 / group_spread**2 + below))[group[held]]
        # o = (y−m−g)·s_o²/(s_o²+v)
        part = np.where(known, own / np.where(known, own + v, 1.0), 0.0)
        eta = m + of_group + (y - m - of_group) * part
        # where little was expected and much came, y is far beyond ln(a/e): four rounds
        # from there would not come back, and no evidence says more than what was seen
        eta = np.where(eta > most + _LEAP, most, eta)
    return Learnt(eta, m, of_group, v)
