"""Write rivals.csv: ``python -m demo.make_rivals``. Three invented firms and what they pay for."""

from __future__ import annotations

import csv
from datetime import date, timedelta
from pathlib import Path

import numpy as np

RIVALS = ("Brightsash", "Mullion Brothers", "Pane and Plane")
SERVICES = (
    "sash window repair", "sash window restoration", "sash cord replacement", "window sill repair",
    "draught proofing sash windows", "box sash repair", "casement window repair",
    "secondary glazing", "stained glass repair", "conservation windows", "window putty repair",
    "bay window repair", "shutter restoration", "window locks fitted", "oak window frames",
)  # fmt: skip
ADS = {
    "repair": "Old windows put right",
    "restoration": "Restored by hand, made to last",
    "proofing": "No more draughts this winter",
    "glazing": "Warm glass in the old frame",
    "glass": "Leaded and stained glass, mended",
    "replacement": "New cords in a morning",
}
HELPERS = ("", "eastmere", "near me", "cost", "specialist", "wrenfold")


def main() -> None:
    """Write the file beside this one."""
    rng = np.random.default_rng(5)
    start = date(2026, 1, 5)
    rows = []
    for rival in RIVALS:
        texts = [f"{s} {h}".strip() for s in SERVICES for h in HELPERS]
        for text in rng.permutation(texts)[: int(rng.integers(26, 40))].tolist():
            first = start + timedelta(days=int(rng.integers(0, 220)))
            last = min(first + timedelta(days=int(rng.integers(7, 260))), date(2026, 8, 31))
            ad = next((ad for word, ad in ADS.items() if word in text), "Joinery made to fit")
            rows.append([
                rival, text, f"{rng.uniform(0.7, 3.4):.2f}", f"{rng.integers(3, 60)}",
                f"{rng.uniform(1, 4):.1f}", f"{rng.uniform(0.05, 0.6):.0%}", first, last,
                f"{ad}: {rival}",
            ])  # fmt: skip
    path = Path(__file__).with_name("rivals.csv")
    heading = ["rival", "keyword", "cpc", "clicks", "position", "share", "first seen",
               "last seen", "ad"]  # fmt: skip
    with path.open("w", newline="", encoding="utf-8") as file:
        csv.writer(file, lineterminator="\n").writerows([heading, *rows])


if __name__ == "__main__":
    main()
