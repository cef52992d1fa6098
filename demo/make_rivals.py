"""Write rivals.csv: ``python -m demo.make_rivals``. Three invented firms, a row a month each."""

from __future__ import annotations

import csv
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


PAGES = {"repair": "repairs", "restoration": "restoration", "glass": "glass", "glazing": "warmth"}
MONTHS = [f"2026-{month:02d}" for month in range(1, 9)]


def main() -> None:
    """Write the file beside this one."""
    rng = np.random.default_rng(5)
    rows = []
    for rival in RIVALS:
        texts = [f"{s} {h}".strip() for s in SERVICES for h in HELPERS]
        for text in rng.permutation(texts)[: int(rng.integers(26, 40))].tolist():
            rows += _months_of(rival, text, rng)
    path = Path(__file__).with_name("rivals.csv")
    heading = ["rival", "keyword", "month", "cpc", "clicks", "position", "share", "ad", "page"]
    with path.open("w", newline="", encoding="utf-8") as file:
        csv.writer(file, lineterminator="\n").writerows([heading, *rows])


def _months_of(rival: str, text: str, rng: np.random.Generator) -> list[list[str]]:
    """Return one keyword's rows: from a first month on, most months, till it is given up."""
    first = int(rng.integers(0, 6))
    months = MONTHS[first : first + 1 + int(rng.integers(1, 8))]
    seen = [month for month in months if rng.random() < 0.85] or months[:1]
    ad = next((ad for word, ad in ADS.items() if word in text), "Joinery made to fit")
    page = next((page for word, page in PAGES.items() if word in text), "joinery")
    site = rival.casefold().replace(" ", "")
    price, clicks = rng.uniform(0.7, 3.4), rng.integers(3, 60)
    place, share = rng.uniform(1, 4), rng.uniform(0.05, 0.6)
    return [
        [rival, text, month, f"{price * rng.uniform(0.9, 1.1):.2f}",
         f"{max(1, round(clicks * rng.uniform(0.7, 1.3)))}",
         f"{max(1.0, place * rng.uniform(0.9, 1.1)):.1f}", f"{share:.0%}",
         f"{ad}: {rival}", f"https://{site}.example/{page}"]
        for month in seen
    ]  # fmt: skip


if __name__ == "__main__":
    main()
