"""The best answer of a limited fit found so far, and the ways to a better one."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from milkwort.core.arrays import Floats, Ints
from milkwort.core.fit._choices import Choices
from milkwort.core.fit._parts import Parts, take
from milkwort.core.fit._problem import Problem
from milkwort.core.fit._reduced import FEW_OPTIONS, Reduced, solve_reduced
from milkwort.core.fit._toll import Hulls, Relaxed
from milkwort.core.fit.tolerances import ROUNDING

__all__ = ["FEW", "Search"]

FEW = 20
"""With so few keywords the purse may not bind: then the ones that bring most are best."""
_MOVES = 40
_EXCHANGES = 12


class Search:
    """The best answer found so far."""

    def __init__(
        self, problem: Problem, choices: Choices, parts: Parts, goal: Floats, most: int | None
    ) -> None:
        self.problem, self.choices, self.parts = problem, choices, parts
        self.goal, self.most = goal, most
        self.chosen = np.full(len(problem.mu), -1, dtype=np.int64)
        self.value = -np.inf if (parts.least > 0).any() else 0.0
        self._part = parts.of_row[choices.options.owner]
        self._spot = np.arange(len(problem.mu)) >= problem.keywords
        self._counted = ~self._spot[choices.options.owner]

    def try_rows(self, hulls: Hulls, rows: NDArray[np.bool_]) -> None:
        """Fit bids for some keywords, exchange a few, and keep them if they bring more."""
        chosen = self._fitted(hulls, rows)
        self._keep(chosen)
        if self.most is not None and self.most <= FEW:
            self._exchange(chosen)
            self._keep(chosen)
            self._keep(self._fitted(hulls, (chosen >= 0) | self._spot))

    def _keep(self, chosen: Ints) -> None:
        at = chosen[chosen >= 0]
        spent = np.bincount(self._part[at], self.choices.options.spend[at],
                            minlength=len(self.parts.least))  # fmt: skip
        value = float(self.goal[at].sum())
        few_enough = self.most is None or self._counted[at].sum() <= self.most
        enough = (spent >= self.parts.least * (1 - ROUNDING)).all()
        if value > self.value and few_enough and enough:
            self.chosen, self.value = chosen.copy(), value

    def _fitted(self, hulls: Hulls, rows: NDArray[np.bool_]) -> Ints:
        """Return bids for some keywords, best steps first, the rest filled."""
        hull, order = self.choices.hull, self.choices.order
        mine = order[rows[hull.owner[order]]]
        returns = self.choices.returns[rows[hull.owner[order]]]
        parts = self._rounded_up(hulls.part[mine], hull.spend[mine])
        taken = take(parts, hulls.part[mine], hull.spend[mine], returns)
        whole = taken.spend >= hull.spend[mine] * (1 - ROUNDING)
        chosen = np.full(len(self.chosen), -1, dtype=np.int64)
        chosen[hull.owner[mine[whole]]] = hull.option[mine[whole]]
        self._drop_beyond(chosen)
        self._fill(chosen, rows)
        return chosen

    def _drop_beyond(self, chosen: Ints) -> None:
        """Let the least go of more keywords than may run; `chosen` is changed."""
        at = np.flatnonzero((chosen >= 0) & ~self._spot)
        if self.most is not None and len(at) > self.most:
            least_first = at[np.argsort(self.goal[chosen[at]], kind="stable")]
            chosen[least_first[: len(at) - self.most]] = -1

    def finish(self, relaxed: Relaxed, close: float, *, quick: bool = False) -> float:
        """Close the gap with a small exact problem, and return the bound it proves."""
        options = self.choices.options
        money = relaxed.taken.part_return[self._part]
        price = self.goal - money * options.spend - relaxed.toll * self._counted
        reduced = Reduced(
            owner=options.owner,
            spend=options.spend,
            goal=self.goal,
            net=price,
            part=self._part,
            parts=self.parts,
            most=self.most,
            counted=self._counted,
        )
        known = self.value if np.isfinite(self.value) else None
        sizes = FEW_OPTIONS[:1] if quick else FEW_OPTIONS
        solved = solve_reduced(reduced, relaxed.bound, known, close, sizes, last=not quick)
        if solved.chosen is not None:
            self.chosen = np.full(len(self.chosen), -1, dtype=np.int64)
            self.chosen[options.owner[solved.chosen]] = solved.chosen
            self.value = float(self.goal[solved.chosen].sum())
        return solved.bound

    def _rounded_up(self, part: Ints, spend: Floats) -> Parts:
        """Raise each least to the end of the step it falls in, so that whole steps meet it."""
        least = self.parts.least.copy()
        for number in np.flatnonzero(least > 0).tolist():
            so_far = np.cumsum(spend[part == number])
            at = int(np.searchsorted(so_far, least[number] * (1 - ROUNDING)))
            if at < len(so_far) and so_far[at] <= self.parts.most[number]:
                least[number] = so_far[at]
        return replace(self.parts, least=least)

    def _fill(self, chosen: Ints, rows: NDArray[np.bool_]) -> None:
        """Take the best single moves that the rest of the money allows; `chosen` is changed."""
        options, parts = self.choices.options, self.parts
        at = np.flatnonzero(chosen >= 0)
        spent, brings = np.zeros(len(chosen)), np.zeros(len(chosen))
        spent[at], brings[at] = options.spend[chosen[at]], self.goal[chosen[at]]
        in_part = np.bincount(parts.of_row, spent, minlength=len(parts.most)).astype(np.float64)
        room = self._room(in_part)
        # room only shrinks, so nothing that doesn't fit now ever will
        limit = np.where(rows, spent + room[parts.of_row], -1.0)
        mine = np.flatnonzero(options.spend <= limit[options.owner])
        mine = mine[self.goal[mine] > brings[options.owner[mine]]]
        owner, part = options.owner[mine], self._part[mine]
        d_spend, d_goal = options.spend[mine] - spent[owner], self.goal[mine] - brings[owner]
        starts = (chosen[owner] < 0) & ~self._spot[owner]
        running = int(((chosen >= 0) & ~self._spot).sum())
        left = np.inf if self.most is None else self.most - running
        for _ in range(_MOVES):
            fits = d_spend <= room[part] + ROUNDING * (d_spend < 0)
            gain = np.where(fits & (~starts | (left > 0)), d_goal, -np.inf)
            best = int(gain.argmax()) if len(gain) else -1
            if best < 0 or gain[best] <= 0:
                return
            left -= starts[best]
            took, more = float(d_spend[best]), float(d_goal[best])
            chosen[owner[best]] = mine[best]
            in_part[part[best]] += took
            room = self._room(in_part)
            same = owner == owner[best]
            starts[same] = False
            d_spend[same] -= took
            d_goal[same] -= more

    def _exchange(self, chosen: Ints) -> None:
        """Put another keyword in the place of one, as long as that brings more."""
        options = self.choices.options
        if len(self.parts.most) > 1 or not len(options.owner):
            return  # one keyword's money may then lie in another part than the other's
        by_spend = self.choices.by_spend
        spend_rising = options.spend[by_spend]
        for _ in range(_EXCHANGES):
            taken = chosen[chosen >= 0]
            rows = np.flatnonzero((chosen >= 0) & ~self._spot)
            spend, goal = options.spend[chosen[rows]], self.goal[chosen[rows]]
            rest = self.parts.purse - float(options.spend[taken].sum())
            # of all options that rise in spend, the best goal so far of those that don't run
            may = (chosen[options.owner[by_spend]] < 0) & self._counted[by_spend]
            open_to = np.where(may, self.goal[by_spend], -np.inf)
            so_far = np.maximum.accumulate(open_to)
            fits = np.searchsorted(spend_rising, rest + spend, side="right") - 1
            gain = np.where(fits >= 0, so_far[np.maximum(fits, 0)] - goal, -np.inf)
            at = int(gain.argmax()) if len(gain) else -1
            if at < 0 or gain[at] <= ROUNDING:
                return
            with_ = int(by_spend[int(open_to[: fits[at] + 1].argmax())])
            chosen[rows[at]] = -1
            chosen[options.owner[with_]] = with_
            self._fill(chosen, (chosen >= 0) | self._spot)

    def _room(self, in_part: Floats) -> Floats:
        """Return the money left for each part: its own, its side's and the purse's."""
        parts = self.parts
        in_side = np.bincount(parts.side, in_part, minlength=len(parts.side_most))
        side = (parts.side_most - in_side)[parts.side]
        rest = parts.purse - float(in_part.sum())
        return np.minimum(np.minimum(parts.most - in_part, side), rest).astype(np.float64)
