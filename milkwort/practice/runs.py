"""Many truths, on as many cores as there are; one after the other where there is one truth."""

from __future__ import annotations

import multiprocessing
import os
from collections.abc import Callable, Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from typing import Any

from milkwort.core.errors import BadValueError
from milkwort.practice.loop import Practice, practised

__all__ = ["practised_all", "seeds_of"]

_MOST_SEEDS = 10_000
_practice: Practice | None = None


def seeds_of(text: str) -> list[int]:
    """Return the seeds that a range such as ``1-200``, or one number, says.

    Raises
    ------
    BadValueError
    """
    first, _, last = text.partition("-")
    numbers = [part for part in (first, last or first) if part.isascii() and part.isdecimal()]
    if len(numbers) != 2 or not 0 <= int(numbers[1]) - int(numbers[0]) < _MOST_SEEDS:
        raise BadValueError(
            "seeds", f"a number, or a range of up to {_MOST_SEEDS:,} as 1-200", text
        )
    return list(range(int(numbers[0]), int(numbers[1]) + 1))


def practised_all(
    practice: Practice, seeds: Sequence[int], told: Callable[[int, int], None] = lambda *_: None
) -> list[dict[str, Any]]:
    """Run the loop in some truths.

    Parameters
    ----------
    practice : Practice
    seeds : sequence of int
    told : callable
        Told how many are done, and of how many.

    Returns
    -------
    list of dict
        In the order of the seeds, whatever ran where.
    """
    found = []
    for result in _results(practice, seeds):
        found.append(result)
        told(len(found), len(seeds))
    return found


def _results(practice: Practice, seeds: Sequence[int]) -> Iterator[dict[str, Any]]:
    workers = min(os.cpu_count() or 1, len(seeds))
    if workers < 2 or len(seeds) < 4:
        for seed in seeds:
            yield practised(practice, seed)
        return
    context = multiprocessing.get_context("spawn")
    with ProcessPoolExecutor(workers, context, _prepare, (practice,)) as pool:
        yield from pool.map(_one, seeds, chunksize=max(len(seeds) // (workers * 8), 1))


def _prepare(practice: Practice) -> None:
    global _practice  # noqa: PLW0603 # what a worker process works on, sent once
    _practice = practice


def _one(seed: int) -> dict[str, Any]:
    assert _practice is not None
    return practised(_practice, seed)
