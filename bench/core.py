"""The core and the command."""

from __future__ import annotations

import resource
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import csr_array, vstack

from bench.sheets import brief_for, table_of_size, write_csv
from milkwort.core._options import options_of
from milkwort.core.draws import draw_month
from milkwort.core.plan import frontier_of, run_plan

Row = tuple[str, str, str]
DEMO = Path(__file__).parent.parent / "demo"


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
    return [*_headless(), *_sizes(), _drawn(), _against_milp(), _hundred_thousand()]


def _headless() -> list[Row]:
    with tempfile.TemporaryDirectory() as folder:
        keywords = Path(folder) / "k.csv"
        write_csv(keywords, 1000)
        imports = "import milkwort.cli, milkwort.core.plan, milkwort.formats.plan_result"
        bare = _cpu([sys.executable, "-c", imports])
        plan = [sys.executable, "-m", "milkwort", "plan", str(DEMO / "eastmere.toml"),
                str(keywords), "--out", str(Path(folder) / "r.json")]  # fmt: skip
        whole = _cpu(plan)
    return [
        ("headless, 1,000 keywords, over the bare import", f"{whole - bare:.2f} s CPU", "< 1 s"),
        ("  and the bare import", f"{bare:.2f} s CPU", ""),
    ]


def _cpu(command: list[str]) -> float:
    """Return the median CPU seconds of a process."""
    spent = []
    for _ in range(3):
        before = resource.getrusage(resource.RUSAGE_CHILDREN)
        subprocess.run(command, check=True, stdout=subprocess.DEVNULL)
        after = resource.getrusage(resource.RUSAGE_CHILDREN)
        spent.append(after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime)
    return sorted(spent)[1]


def _sizes() -> list[Row]:
    found: list[Row] = []
    for n, wanted in ((100, ""), (1_000, ""), (10_000, "≤ 150 ms")):
        brief, table = brief_for(n), table_of_size(n)

        def whole(brief=brief, table=table):
            frontier_of(run_plan(brief, table))

        found.append((f"market + fit + frontier, {n:,} kept", f"{median_ms(whole):.0f} ms", wanted))
    brief, table = brief_for(10_000), table_of_size(10_000)
    row = np.array([17])

    def call():
        run_plan(brief, table.with_calls(row, "drop"))

    found.append(("one changed call, 10,000 kept, core", f"{median_ms(call):.0f} ms", "≤ 100 ms"))
    return found


def _drawn() -> Row:
    result = run_plan(brief_for(1_000), table_of_size(1_000))
    spent = median_ms(lambda: draw_month(result, 2000), runs=3)
    return ("1,000 keywords drawn 2,000 times", f"{spent / 1000:.2f} s", "≤ 1.5 s")


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


def _hundred_thousand() -> Row:
    code = (
        "import time,resource\n"
        "from bench.sheets import *\nfrom milkwort.core.plan import *\n"
        "b,t=brief_for(100_000),table_of_size(100_000)\n"
        "before=resource.getrusage(resource.RUSAGE_SELF).ru_maxrss\n"
        "s=time.perf_counter(); frontier_of(run_plan(b,t)); e=time.perf_counter()-s\n"
        "print(e, resource.getrusage(resource.RUSAGE_SELF).ru_maxrss/2**20, before/2**20)\n"
    )
    done = subprocess.run([sys.executable, "-c", code], check=True, capture_output=True, text=True)
    seconds, peak, _ = map(float, done.stdout.split())
    return (
        "market + fit + frontier, 100,000 kept",
        f"{seconds:.2f} s, {peak:.2f} GiB at most",
        "≤ 2 s, ≤ 1 GiB",
    )
