"""Write terms.csv and account.csv, ninety invented days: ``python -m demo.make_past``."""

from __future__ import annotations

import csv
from pathlib import Path

import numpy as np

HERE = Path(__file__).parent
RATE = 0.027
STRAY = (
    "sash window jobs eastmere", "how to free a stuck sash window", "upvc window handle",
    "sash window salary", "window cleaning eastmere", "free window advice",
    "orchard joinery opening hours", "sash window course marlshire", "car window repair",
)  # fmt: skip
FRESH = (
    "sash window stuck shut", "restore old windows eastmere", "window rope broken",
    "sash window man eastmere", "stop sash windows rattling", "victorian window mended",
    "sash window workshop near me", "listed cottage window repair", "replace broken window pane",
)  # fmt: skip
NEGATIVES = (("jobs", "phrase", ""), ("car", "broad", ""), ("free", "phrase", "Restore"))


def main() -> None:
    """Write both files beside this one."""
    rng = np.random.default_rng(11)
    with (HERE / "eastmere.csv").open(encoding="utf-8", newline="") as file:
        sheet = [row for row in csv.DictReader(file) if row["call"] == "keep"]
    live = [sheet[i] for i in rng.choice(len(sheet), 34, replace=False)]
    _write(HERE / "terms.csv", _terms(live, rng))
    _write(HERE / "account.csv", _account(live, rng))


def _terms(live: list[dict[str, str]], rng: np.random.Generator) -> list[list[object]]:
    rows: list[list[object]] = [
        ["search term", "impressions", "clicks", "cost", "customers", "revenue"]
    ]
    for text, rate in (
        *((row["keyword"], RATE) for row in live),
        *((text, 1.4 * RATE) for text in FRESH),
        *((text, 0.0) for text in STRAY),
    ):
        clicks = int(rng.integers(4, 70))
        customers = int(rng.binomial(clicks, rate))
        revenue = round(customers * rng.uniform(290, 400), 2) if customers else 0
        cost = clicks * rng.uniform(0.7, 1.8)
        rows.append([text, int(clicks * rng.uniform(12, 30)), clicks, f"{cost:.2f}", customers,
                     revenue])  # fmt: skip
    return rows


def _account(live: list[dict[str, str]], rng: np.random.Generator) -> list[list[object]]:
    rows: list[list[object]] = [
        ["campaign", "ad group", "keyword", "match type", "bid", "landing page", "clicks", "cost",
         "customers"]
    ]  # fmt: skip
    for row in live:
        clicks = int(rng.integers(6, 90))
        low, high = float(row["cpc_low"]), float(row["cpc_high"])
        bid = rng.uniform(low, 1.1 * high)
        rows.append([
            "Eastmere windows", row["group"], row["keyword"], row["match"], f"{bid:.2f}",
            f"/{row['group'].lower().replace(' ', '-')}", clicks,
            f"{clicks * bid * rng.uniform(0.7, 0.95):.2f}", int(rng.binomial(clicks, RATE)),
        ])  # fmt: skip
    rows += [
        ["Eastmere windows", group, text, f"negative {match}", "", "", "", "", ""]
        for text, match, group in NEGATIVES
    ]
    return rows


def _write(path: Path, rows: list[list[object]]) -> None:
    with path.open("w", newline="", encoding="utf-8") as file:
        csv.writer(file, lineterminator="\n").writerows(rows)


if __name__ == "__main__":
    main()
