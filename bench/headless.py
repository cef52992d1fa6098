"""The command, as a whole process."""

from __future__ import annotations

import resource
import subprocess
import sys
import tempfile
from pathlib import Path
from statistics import median

from bench.core import Row
from bench.sheets import write_csv

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
    over, bare = (median(of) for of in zip(*((w - b, b) for b, w in pairs), strict=True))
    return [
        ("headless, 1,000 keywords, over the bare import", f"{over:.2f} s CPU", "< 1 s"),
        ("  and the bare import", f"{bare:.2f} s CPU", ""),
    ]


def _cpu(command: list[str]) -> float:
    """Return the CPU seconds of a process."""
    before = resource.getrusage(resource.RUSAGE_CHILDREN)
    subprocess.run(command, check=True, stdout=subprocess.DEVNULL)
    after = resource.getrusage(resource.RUSAGE_CHILDREN)
    return after.ru_utime + after.ru_stime - before.ru_utime - before.ru_stime
