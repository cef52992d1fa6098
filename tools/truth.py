"""Forecasts and advice held against hidden truths: ``python -m tools.truth [--few] [--out FILE]``.

Prints one table of ranges and one of advice, with standard errors and the numbers behind them.
Truths are cut where time is short, never policies: how many there were stands beside.
"""

from __future__ import annotations

import argparse
import multiprocessing
import os
import sys
import time
from collections.abc import Iterator, Sequence
from concurrent.futures import ProcessPoolExecutor
from dataclasses import replace
from datetime import date
from itertools import islice
from pathlib import Path
from typing import Any

import numpy as np

from milkwort.core.learn.our_word import PROMISED
from milkwort.core.plan.run import run_plan
from milkwort.formats.headless import headless_run
from milkwort.practice.loop import Practice
from milkwort.practice.truth import POLICIES_TRIED, SIZES, Trial, advice_in, ranges_in

DEMO = Path(__file__).parent.parent / "demo"
START = date(2027, 4, 1)
LEVELS = ("as-planned", "usual", "rough")
TRUTHS, ADVICE_TRUTHS = 150, 100
FEW, FEW_ADVICE = 3, 1
MINUTES = 25.0
FIRST_SEED, FIRST_ADVICE_SEED = 1001, 5001
_trials: list[Trial] = []


def plans() -> list[tuple[str, Practice]]:
    """Return the plans that are tried: both samples, one with little money, one with money left."""
    found = []
    for name, spend, said in (
        ("eastmere", None, "Eastmere"), ("brackish", None, "Brackish Jar"),
        ("eastmere", 150.0, "Eastmere, little money"),
        ("brackish", 3000.0, "Brackish Jar, money left"),
    ):  # fmt: skip
        run = headless_run(DEMO / f"{name}.toml", DEMO / f"{name}.csv")
        plan = run.result
        if spend is not None:
            plan = run_plan(replace(plan.brief, monthly_spend=spend), plan.table)
        found.append((said, Practice(plan, run.lexicon, tuple(run.texts), "usual", "unchanged", 1,
                                     START)))  # fmt: skip
    return found


def trials() -> list[Trial]:
    """Return every plan at every level."""
    return [Trial(name, replace(practice, level=level))
            for level in LEVELS for name, practice in plans()]  # fmt: skip


def main(few: bool, out: Path | None) -> int:
    """Run, print, and write the table where it is wanted."""
    began = time.monotonic()
    truths, advised = (FEW, FEW_ADVICE) if few else (TRUTHS, ADVICE_TRUTHS)
    cells = trials()
    ranges: dict[int, list[Any]] = {at: [] for at in range(len(cells))}
    advice: dict[int, list[Any]] = {at: [] for at in range(len(cells))}
    context = multiprocessing.get_context("spawn")
    with ProcessPoolExecutor(os.cpu_count() or 1, context, _prepare) as pool:
        work = [("ranges", at, FIRST_SEED + n) for n in range(truths) for at in range(len(cells))]
        _gather(pool, work, ranges, began)
        work = [("advice", at, FIRST_ADVICE_SEED + n)
                for n in range(advised) for at in range(len(cells))]  # fmt: skip
        _gather(pool, work, advice, began)
    lines = [*ranges_table(cells, ranges), "", *advice_table(cells, advice), "",
             f"{time.monotonic() - began:,.0f} s on {os.cpu_count()} cores."]  # fmt: skip
    print("\n".join(lines))
    if out is not None:
        out.write_text("\n".join(lines) + "\n", encoding="utf-8")
    return _impossible(ranges, advice)


def _gather(
    pool: ProcessPoolExecutor, work: Sequence[tuple[str, int, int]], into: dict[int, list[Any]],
    began: float,
) -> None:  # fmt: skip
    """Do the work in its order, a piece for each cell in turn, until time is short."""
    batch, pieces = 48, iter(work)
    done = 0
    while some := list(islice(pieces, batch)):
        for (_, at, _), found in zip(some, pool.map(_one, some, chunksize=2), strict=True):
            into[at].append(found)
        done += len(some)
        spent = (time.monotonic() - began) / 60
        print(f"\r{some[0][0]} {done:,} of {len(work):,}, {spent:.1f} min", end="",
              file=sys.stderr, flush=True)  # fmt: skip
        if spent > MINUTES - 1:
            break
    print(file=sys.stderr)


def _prepare() -> None:
    # the solver of the fit's last step prints to the terminal
    os.dup2(os.open(os.devnull, os.O_WRONLY), 1)
    _trials.extend(trials())


def _one(piece: tuple[str, int, int]) -> Any:
    what, at, seed = piece
    return (ranges_in if what == "ranges" else advice_in)(_trials[at], seed)


def ranges_table(cells: Sequence[Trial], found: dict[int, list[Any]]) -> Iterator[str]:
    """Yield the share of truths in which each 80 % range held."""
    names = [*PROMISED, *SIZES]
    yield "Share of truths in which the 80 % range held, per cent (standard error)"
    yield ""
    yield "| level | plan | truths | " + " | ".join(n.replace("_", " ") for n in names) + " |"
    yield "|---" * (len(names) + 3) + "|"
    for at, cell in enumerate(cells):
        places = found[at]
        row = [cell.practice.level, cell.name, str(len(places))]
        for name in names:
            known = np.array([p[name] for p in places if name in p])
            held = ((known >= 0.1) & (known <= 0.9)).astype(float)
            row.append(_share(held))
        yield "| " + " | ".join(row) + " |"


def advice_table(cells: Sequence[Trial], found: dict[int, list[Any]]) -> Iterator[str]:
    """Yield what each policy's third month brings under the truth, over hindsight's."""
    yield ("Profit of the third month under the truth over hindsight's: mean (standard error), "
           "10th percentile; advice")  # fmt: skip
    yield ""
    heads = [
        "level", "plan", "truths", *POLICIES_TRIED, "worse than unchanged", "of informed",
        "wrong stops", "wrong raises", "wrong blocks", "spill, advice / unchanged",
    ]  # fmt: skip
    yield "| " + " | ".join(heads) + " |"
    yield "|---" * len(heads) + "|"
    for at, cell in enumerate(cells):
        runs = [one for one in found[at] if one["unchanged"]["profit"] is not None]
        row = [cell.practice.level, cell.name, str(len(runs))]
        profit = {p: np.array([one[p]["profit"] for one in runs]) for p in POLICIES_TRIED}
        row += [_mean(profit[policy]) for policy in POLICIES_TRIED]
        if not runs:
            continue
        worse = (profit["advice"] < profit["unchanged"] - 1e-9).astype(float)
        informed = profit["informed"].mean()
        row += [_share(worse), f"{profit['advice'].mean() / informed:.3f}" if informed else "–"]
        row += [_wrong(runs, "wrong_stops", "stops"), _wrong(runs, "wrong_raises", "raises"),
                _wrong(runs, "wrong_terms", "terms")]  # fmt: skip
        spill = [np.mean([one[p]["spill"] for one in runs]) for p in ("advice", "unchanged")]
        row.append(f"{100 * spill[0]:.1f} / {100 * spill[1]:.1f} %")
        yield "| " + " | ".join(row) + " |"


def _share(held: Any) -> str:
    if not len(held):
        return "–"
    error = np.sqrt(max(held.mean() * (1 - held.mean()), 1 / len(held)) / len(held))
    return f"{100 * held.mean():.1f} ({100 * error:.1f})"


def _mean(values: Any) -> str:
    if not len(values):
        return "–"
    error = values.std(ddof=1) / np.sqrt(len(values)) if len(values) > 1 else np.nan
    return f"{values.mean():.3f} ({error:.3f}), {np.quantile(values, 0.1):.2f}"


def _wrong(runs: Sequence[Any], wrong: str, given: str) -> str:
    many = sum(one["advice"][given] for one in runs)
    bad = sum(one["advice"][wrong] for one in runs)
    return f"{100 * bad / many:.1f} % of {many:,}" if many else "none given"


def _impossible(ranges: dict[int, list[Any]], advice: dict[int, list[Any]]) -> int:
    """Return 1 where something is so that luck can't make it so."""
    places = [value for cell in ranges.values() for one in cell for value in one.values()]
    shares = [one[p]["spill"] for cell in advice.values() for one in cell for p in POLICIES_TRIED]
    fine = (
        len(places) > 0 and len(shares) > 0
        and all(0 <= place <= 1 for place in places) and all(0 <= s <= 1 for s in shares)
        and len(set(places)) > 1
    )  # fmt: skip
    print("Every place lies among the draws." if fine else "IMPOSSIBLE: a place beyond its draws.")
    return 0 if fine else 1


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--few", action="store_true", help="a handful of truths, to see it run")
    parser.add_argument("--out", type=Path, help="also write the tables here")
    asked = parser.parse_args()
    sys.exit(main(asked.few, asked.out))
