"""The exact finish of a fit whose greedy answer leaves a gap."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit._outlook import Group, Outlook, Outlooks
from milkwort.core.fit.options import Options
from milkwort.core.fit.tolerances import EXACT_ROUNDING

__all__ = ["Finish", "finish"]

_FIRST, _LEAST, _MOST = 25, 300, 1500
"""Partial answers kept after each keyword: in a first pass, and at least and at most in a second;
past this the answer is no longer called exact. A first pass of few finds an answer so near that
little is left to look through."""
_WORK = 75_000
"""Partial answers of a second pass, over all keywords."""


@dataclass(frozen=True)
class Finish:
    """The outcome of a finish.

    Attributes
    ----------
    short : float
        How far the answer lies below the bound, in the goal's unit.
    exact : bool
        Whether no better answer exists.
    """

    short: float
    exact: bool


_ShortOf = Callable[[Floats, Floats], Floats]
"""How far under the bound a partial answer of such spend and price must end, at least."""

_AS_RELAXED = -1
"""The trail of the relaxation's own choice, from which nothing departs."""


@dataclass
class _Answer:
    """The best answer so far, and how every partial answer came about.

    Attributes
    ----------
    short : float
        How far it lies below the bound.
    found : int or None
        Its trail; None where the answer that was given is still the best.
    whole : bool
        Whether no better one was passed over.
    log : list of (int, int, int)
        By trail: the trail it extends, the keyword's place, its option.
    """

    short: float
    found: int | None = None
    whole: bool = True
    log: list[tuple[int, int, int]] = field(default_factory=list)

    def departures(self) -> Iterator[tuple[int, int]]:
        """Yield the keyword's place and the option of each departure of the answer."""
        trail = _AS_RELAXED if self.found is None else self.found
        while trail != _AS_RELAXED:
            trail, owner, option = self.log[trail]
            yield owner, option


@dataclass
class _States:
    """Partial answers: how each departs from the relaxation's choice."""

    spend: Floats
    price: Floats
    trail: Ints

    def pick(self, which: NDArray[np.bool_] | Ints) -> _States:
        return _States(self.spend[which], self.price[which], self.trail[which])


def finish(
    options: Options, goal: Floats, chosen: Ints, purse: float, next_return: float, bound: float,
    near: float,
) -> Finish:  # fmt: skip
    """Improve a multiple-choice knapsack's answer until it is best or near enough.

    At the return `next_return` every option has a *price* of being chosen: how much less it leaves
    than its keyword's best. An answer lies below the bound by the sum of its prices and by
    ``next_return`` times the money it leaves, so only departures priced under the present gap can
    improve on it. These are combined keyword by keyword, those of the coarsest steps first. Of
    two partial answers the one that spends more and brings less is dropped, and so is one that
    the keywords yet to come can't bring near enough to the money: what the cheapest parts of
    their departures would cost is a bound (`_outlook`).

    Parameters
    ----------
    options : Options
    goal : Floats, shape (n_options,)
    chosen : Ints, shape (n_keywords,)
        A feasible answer, −1 for not running; changed where a better one is found.
    purse : float
        Money a month, above what locked bids take.
    next_return : float
        Goal per unit of money at the relaxation's edge, above 0.
    bound : float
        Goal of the relaxation.
    near : float
        An answer that lies no further below the bound is good enough, in the goal's unit.

    Returns
    -------
    Finish
    """
    owners, first, place = np.unique(options.owner, return_index=True, return_inverse=True)
    net = goal - next_return * options.spend
    best = _best_option(net, owners, options.owner, first)
    price = np.maximum(np.where(best >= 0, net[best], 0.0), 0.0)[place] - net
    at = chosen[chosen >= 0]
    short = bound - float(goal[at].sum())
    rest = purse - float(options.spend[best[best >= 0]].sum())
    none_price = np.where(best >= 0, net[best], 0.0)

    answer = _Answer(short)
    # the relaxation's own choice may fit already
    if rest >= -EXACT_ROUNDING and next_return * rest < short:
        answer = _Answer(next_return * max(rest, 0.0), _AS_RELAXED)
    for again in (False, True):
        groups = _departures(options, price, best, none_price, place, first, answer.short)
        most = min(max(_WORK // max(len(groups), 1), _LEAST), _MOST) if again else _FIRST
        _combine(groups, answer, next_return, rest, near, most)
        if answer.whole or answer.short <= near:
            break
    if answer.found is not None:
        chosen[owners] = best
        for owner, option in answer.departures():
            chosen[owners[owner]] = option
    return Finish(short=max(answer.short, 0.0), exact=answer.whole)


def _combine(
    groups: list[Group], answer: _Answer, next_return: float, rest: float, near: float, most: int
) -> None:
    """Combine departures keyword by keyword, keeping the best answer that the money pays for."""
    answer.whole = True
    states = _States(np.zeros(1), np.zeros(1), np.full(1, _AS_RELAXED, dtype=np.int64))
    outlooks = Outlooks(groups, next_return)
    for number, group in enumerate(groups):
        room = answer.short * (1 + EXACT_ROUNDING)
        outlook = outlooks.after(number, room)

        def short_of(spend: Floats, price: Floats, outlook: Outlook = outlook) -> Floats:
            return price + outlook.least(rest - spend)

        states = _extended(states, group, short_of, room, answer.log)
        states, cut = _undominated(states, short_of, next_return, most)
        answer.whole &= not cut
        fits = np.flatnonzero(states.spend <= rest + EXACT_ROUNDING)
        missing = states.price[fits] + next_return * (rest - states.spend[fits])
        if len(fits) and missing.min() < answer.short:
            nearest = int(missing.argmin())
            answer.short, answer.found = float(missing[nearest]), int(states.trail[fits[nearest]])
            if answer.short <= near:
                answer.whole = False
                return


def _best_option(net: Floats, owners: Ints, owner: Ints, first: Ints) -> Ints:
    order = np.lexsort((net, owner))
    last = np.append(first[1:], len(owner)) - 1
    top = order[last]
    return np.where(net[top] > 0, top, -1)


def _departures(
    options: Options,
    price: Floats,
    best: Ints,
    none_price: Floats,
    place: Ints,
    first: Ints,
    short: float,
) -> list[Group]:
    """List, keyword by keyword, the choices other than the best that are cheap enough."""
    near = price <= short
    near[best[best >= 0]] = False
    ends = np.append(first[1:], len(place))
    may_stop = (best >= 0) & (none_price <= short)
    groups = []
    for owner in np.unique(np.concatenate((place[near], np.flatnonzero(may_stop)))):
        span = np.arange(first[owner], ends[owner])
        picks = span[near[span]]
        base = options.spend[best[owner]] if best[owner] >= 0 else 0.0
        d_spend, d_price = options.spend[picks] - base, price[picks]
        if may_stop[owner]:
            picks = np.append(picks, -1)
            d_spend = np.append(d_spend, -base)
            d_price = np.append(d_price, none_price[owner])
        groups.append(Group(int(owner), picks, d_spend, d_price))
    # fine steps come last: until then what they can still mend bounds well, and drops most
    return sorted(groups, key=lambda group: -float(np.abs(group.spend).min()))


def _extended(
    states: _States, group: Group, short_of: _ShortOf, room: float, log: list[tuple[int, int, int]]
) -> _States:
    """Let each partial answer take each departure of a keyword, or none."""
    # by price alone first: that leaves few to be looked at closely
    which, pick = np.nonzero(states.price[:, None] + group.price <= room)
    spend, price = states.spend[which] + group.spend[pick], states.price[which] + group.price[pick]
    good = short_of(spend, price) <= room
    spend, price, which, pick = spend[good], price[good], which[good], pick[good]
    trail = np.arange(len(log), len(log) + len(which))
    log.extend(
        zip(states.trail[which].tolist(), [group.owner] * len(which), group.picks[pick].tolist(),
            strict=True)
    )  # fmt: skip
    old = states.pick(short_of(states.spend, states.price) <= room)
    return _States(
        np.concatenate((old.spend, spend)),
        np.concatenate((old.price, price)),
        np.concatenate((old.trail, trail)),
    )


def _undominated(
    states: _States, short_of: _ShortOf, next_return: float, most: int
) -> tuple[_States, bool]:
    # goal of a partial answer, up to a constant: λ·spend − price
    goal = next_return * states.spend - states.price
    order = np.lexsort((-goal, states.spend))
    so_far = np.maximum.accumulate(goal[order])
    better = np.ones(len(order), dtype=bool)
    better[1:] = goal[order][1:] > so_far[:-1]
    states = states.pick(order[better])
    if len(states.spend) <= most:
        return states, False
    near = np.argsort(short_of(states.spend, states.price))[:most]
    return states.pick(near), True
