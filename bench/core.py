"""The core: every speed and size of it, with a solver and plain loops beside it."""

from __future__ import annotations

import subprocess
import sys
import time
from collections.abc import Callable
from dataclasses import replace

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_array, vstack
from scipy.special import ndtr

from bench.plain import plan_plainly
from bench.sheets import brief_for, mixed_sheet, table_of_size
from milkwort.core.arrange.grouping import group_by_theme
from milkwort.core.assumptions import Assumed
from milkwort.core.brief.limits import Limits
from milkwort.core.fit.options import options_of
from milkwort.core.market.demand import demand_of
from milkwort.core.plan.draws import draw_month
from milkwort.core.plan.run import attention_of, frontier_of, run_plan

Row = tuple[str, str, str]


def median_ms(work: Callable[[], object], runs: int = 7) -> float:
    """Return the median wall time of some work, milliseconds, after one warm-up."""
    work()
    times = []
    for _ in range(runs):
        start = time.perf_counter()
        work()
        times.append(time.perf_counter() - start)
    return float(np.median(times)) * 1000


def rows() -> list[Row]:
    """Measure and return (what, figure, wanted)."""
    return [*_growth(), _least(), *_changes(), _serving(), _plain(), _against_milp(), *_limits(),
            _drawn(), _grouped()]  # fmt: skip


def _growth() -> list[Row]:
    found: list[Row] = []
    wanted = {10_000: "≤ 100 ms", 100_000: "≤ 1.2 s, ≤ 1 GiB"}
    for n in (100, 1_000, 10_000):
        brief, table = brief_for(n), table_of_size(n)
        spent = median_ms(lambda b=brief, t=table: frontier_of(run_plan(b, t)))  # type: ignore[misc]
        found.append((f"market + fit + frontier, {n:,} kept", f"{spent:.0f} ms",
                      wanted.get(n, "")))  # fmt: skip
    first, again, peak = alone(
        "from bench.sheets import *\nfrom milkwort.core.plan.run import *\n"
        "b,t=brief_for(100_000),table_of_size(100_000)",
        "frontier_of(run_plan(b,t))", times=2,
    )  # fmt: skip
    found.append((
        "market + fit + frontier, 100,000 kept",
        f"{again:.2f} s ({first:.2f} the first time, words read too), {peak:.2f} GiB at most",
        wanted[100_000],
    ))  # fmt: skip
    return found


def _least() -> Row:
    """What no fit can do without: Φ of every bid of 10,000 keywords, and one sort of them."""
    brief, table = brief_for(10_000), table_of_size(10_000)
    p = run_plan(brief, table).problem
    kept = np.flatnonzero(table.kept)
    found = options_of(kept, p.mu, p.sigma, p.click_weight, p.ceiling, p.pricing, p.assumed)
    mu, sigma = p.mu[found.owner], p.sigma[found.owner]
    price = found.steps * p.assumed["bid_step"]

    def alone_then() -> object:
        z = (np.log(price) - mu) / sigma
        return np.argsort(ndtr(z) / ndtr(z - sigma))

    spent = median_ms(alone_then)
    whole = median_ms(lambda: frontier_of(run_plan(brief, table)))
    return (f"Φ of its {len(found.owner):,} bids and one sort alone",
            f"{spent:.0f} ms; all of it {whole / spent:.1f} times that", "≤ 2 times")  # fmt: skip


def alone(before: str, work: str, times: int = 1) -> tuple[float, ...]:
    """Run some code in a process of its own; return each time's seconds, peak memory in GiB."""
    # VmHWM: what getrusage knows begins at what the process that started it had
    code = (
        f"import re,time\n{before}\nspent=[]\nfor _ in range({times}):\n"
        f"  s=time.perf_counter()\n  {work}\n  spent.append(time.perf_counter()-s)\n"
        "held=re.search(r'VmHWM:\\s+(\\d+)', open('/proc/self/status').read())[1]\n"
        "print('\\n', *spent, int(held)/2**20)\n"
    )
    done = subprocess.run([sys.executable, "-c", code], check=True, capture_output=True, text=True)
    return tuple(map(float, done.stdout.splitlines()[-1].split()))


def _changes() -> list[Row]:
    n = 10_000
    brief, table = brief_for(n), table_of_size(n)
    before = run_plan(brief, table)
    rate = replace(brief, assumed=Assumed({"click_rate_top": 0.05}))
    call = median_ms(lambda: run_plan(brief, table.with_calls(np.array([17]), "drop"), before))
    assumption = median_ms(lambda: run_plan(rate, table, before))
    anew = median_ms(lambda: run_plan(brief, table))
    return [
        ("one changed call, 10,000 kept", f"{call:.0f} ms ({anew:.0f} worked out anew)",
         "≤ 100 ms"),
        ("one changed assumption, 10,000 kept", f"{assumption:.0f} ms", "≤ 100 ms"),
    ]  # fmt: skip


def _serving() -> Row:
    brief, table = mixed_sheet(20_000, 500)
    start = time.perf_counter()
    demand_of(brief, table)
    cold = time.perf_counter() - start
    warm = median_ms(lambda: demand_of(brief, table.with_calls(np.array([5]), "drop")), 3)
    return ("who serves which search, 20,000 mixed, 500 negatives",
            f"{cold:.2f} s, {warm:.0f} ms after a call", "≤ 1 s")  # fmt: skip


def _plain() -> Row:
    n = 60
    brief, table = brief_for(n), table_of_size(n)
    ours = median_ms(lambda: run_plan(brief, table))
    start = time.perf_counter()
    value = plan_plainly(brief, table)
    theirs = (time.perf_counter() - start) * 1000
    off = run_plan(brief, table).value / value - 1
    return ("plain loops over every bid of 60 keywords",
            f"{theirs:.0f} ms against {ours:.0f}: {theirs / ours:.0f} times; goal {off:+.4%}",
            "")  # fmt: skip


def _drawn() -> Row:
    seconds, peak = alone(
        "from bench.sheets import *\nfrom milkwort.core.plan.run import *\n"
        "from milkwort.core.plan.draws import *\nr=run_plan(brief_for(1000),table_of_size(1000))",
        "draw_month(r, 2000)",
    )
    result = run_plan(brief_for(1_000), table_of_size(1_000))
    warm = median_ms(lambda: draw_month(result, 2000), runs=3)
    return ("1,000 keywords drawn 2,000 times",
            f"{seconds:.2f} s ({warm / 1000:.2f} warm), {peak * 1024:.0f} MiB at most",
            "≤ 1.5 s, ≤ 500 MiB")  # fmt: skip


def _grouped() -> Row:
    texts = mixed_sheet(5_000, 0)[1].texts
    spent = median_ms(lambda: group_by_theme(texts), runs=3)
    return ("themes of 5,000 keywords", f"{spent / 1000:.2f} s", "≤ 2 s")


def _limits() -> list[Row]:
    n = 1_000
    brief, table = brief_for(n), table_of_size(n)
    result = run_plan(brief, table)
    most = replace(brief, limits=Limits(max_keywords=40))
    limited = run_plan(most, table).fit
    spent = median_ms(lambda: run_plan(most, table), runs=3)
    curve = median_ms(lambda: attention_of(result), runs=3)
    return [
        ("at most 40 of 1,000 keywords", f"{spent:.0f} ms, {limited.gap:.4%} from its bound", ""),
        ("the attention curve of 1,000 keywords", f"{curve:.0f} ms", ""),
    ]


def _against_milp() -> Row:
    n = 1_000
    brief, table = brief_for(n), table_of_size(n)
    result = run_plan(brief, table)
    ours = median_ms(lambda: run_plan(brief, table))
    p = result.problem
    options = options_of(
        np.arange(n), p.mu, p.sigma, p.click_weight, p.ceiling, p.pricing, p.assumed
    )
    goal = p.value(options.owner, options.clicks, options.spend)
    each = csr_array(
        (np.ones(len(goal)), (options.owner, np.arange(len(goal)))), shape=(n, len(goal))
    )
    start = time.perf_counter()
    solved = milp(
        -goal,
        integrality=np.ones(len(goal)),
        bounds=Bounds(0, 1),
        constraints=LinearConstraint(
            vstack([csr_array(options.spend[None, :]), each]),
            -np.inf,
            np.r_[brief.monthly_spend, np.ones(n)],
        ),
        options={"mip_rel_gap": 1e-6},
    )
    theirs = (time.perf_counter() - start) * 1000
    off = (-solved.fun - result.value) / -solved.fun
    return (
        "exact MILP (HiGHS) on the same 1,000 keywords",
        f"{theirs:,.0f} ms against {ours:.0f} ms: {theirs / ours:.0f} times; goal off by {off:.5%}",
        "≥ 50 times, ≤ 0.01 %",
    )
