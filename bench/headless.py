"""The command, as a whole process."""

from __future__ import annotations

import resource
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from statistics import median

import httpx

from bench.core import Row
from bench.sheets import write_csv
from tools.program import served

_RUNS = 7
"""Pairs, one after another: such a machine's speed drifts."""
DEMO = Path(__file__).parent.parent / "demo"


def rows() -> list[Row]:
    """Measure and return (what, figure, wanted)."""
    with tempfile.TemporaryDirectory() as folder:
        keywords = Path(folder) / "k.csv"
        write_csv(keywords, 1000)
        imports = (
            "import milkwort.cli, milkwort.core.plan.run, milkwort.formats.plan_result, "
            "milkwort.formats.brief_toml, milkwort.formats.keyword_rows, typer._adapters"
        )
        plan = [sys.executable, "-m", "milkwort", "plan", str(DEMO / "eastmere.toml"),
                str(keywords), "--out", str(Path(folder) / "r.json")]  # fmt: skip
        pairs = [(_cpu([sys.executable, "-c", imports]), _cpu(plan)) for _ in range(_RUNS)]
        whole = median(_seconds(plan) for _ in range(_RUNS))
    over, bare = (median(of) for of in zip(*((w - b, b) for b, w in pairs), strict=True))
    said = median(_seconds([sys.executable, "-m", "milkwort", "--version"]) for _ in range(_RUNS))
    page, answer = (median(_answering(at) for _ in range(3)) for at in ("/", "/api/plans"))
    return [
        ("milkwort --version", f"{said:.2f} s", "≤ 0.3 s"),
        ("the server's page, from its start", f"{page:.2f} s", "≤ 1.5 s"),
        ("  and its first answer", f"{answer:.2f} s", ""),
        ("headless, 1,000 keywords, in all", f"{whole:.2f} s", "≤ 2 s"),
        ("headless, 1,000 keywords, over the bare import", f"{over:.2f} s CPU", "< 1 s"),
        ("  and the bare import", f"{bare:.2f} s CPU", ""),
    ]  # fmt: skip


def _seconds(command: list[str]) -> float:
    """Return how long a process takes, as one who waits for it sees it."""
    began = time.perf_counter()
    subprocess.run(command, check=True, stdout=subprocess.DEVNULL)
    return time.perf_counter() - began


def _answering(path: str) -> float:
    """Return how long a server takes from its start in an empty folder to an answer."""
    began = time.perf_counter()
    with tempfile.TemporaryDirectory() as folder, served(Path(folder), verb="serve") as url:
        httpx.get(url + path).raise_for_status()
        return time.perf_counter() - began


def _cpu(command: list[str]) -> float:
    """Return the CPU seconds of a process."""
    before = resource.getrusage(resource.RUSAGE_CHILDREN)
    subprocess.run(command, check=True, stdout=subprocess.DEVNULL)
    after = resource.getrusage(resource.RUSAGE_CHILDREN)
    return after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime
