"""Write brackish.csv: ``python -m demo.make_brackish``.

Semicolons, decimal commas, made-up figures.
"""

from __future__ import annotations

import csv
from pathlib import Path

from milkwort.core.words.lexicon import shipped_lexicon
from milkwort.standins.almanac import TOWNS, Almanac

ROOTS = {
    "fermentation crocks": [
        "fermentation crock", "sauerkraut crock", "kimchi jar", "stoneware crock",
        "pickling crock", "water seal crock",
    ],
    "fermenting kits": [
        "fermenting kit", "kombucha kit", "airlock lid", "pickling weights",
        "sourdough starter kit",
    ],
}  # fmt: skip
_NOT_SOLD = ("emergency", "installation", "repair", "replacement", "service", "same day", "company")
GROUPS = {"crock": "Crocks", "jar": "Jars", "kit": "Kits", "lid": "Lids", "weights": "Weights"}


def main() -> None:
    """Write the file beside this one."""
    almanac, lexicon = Almanac(seed=21), shipped_lexicon()
    rows, seen = [], set()
    for offer, roots in ROOTS.items():
        for root in roots:
            for idea in almanac.ideas([root]).ideas[:42]:
                if idea.text in seen or any(w in idea.text for w in _NOT_SOLD):
                    continue
                seen.add(idea.text)
                intent = lexicon.intent(idea.text).intent
                rows.append([
                    idea.text, _volume(idea.volume), _comma(idea.cpc_low * 0.34),
                    _comma(idea.cpc_high * 0.34), _comma(idea.competition), _call(idea, intent),
                    offer, next(g for w, g in GROUPS.items() if w in root),
                    *(f"{m:.0f}" for m in idea.months),
                ])  # fmt: skip
    heading = ["keyword", "volume", "cpc_low", "cpc_high", "competition", "call", "offer", "group",
               *(f"m{n:02d}" for n in range(1, 13))]  # fmt: skip
    path = Path(__file__).with_name("brackish.csv")
    with path.open("w", newline="", encoding="utf-8") as file:
        csv.writer(file, delimiter=";").writerows([heading, *rows])


def _volume(volume: tuple[float, float]) -> str:
    low, high = volume
    if low == high:
        return f"{high:,.0f}".replace(",", ".")
    return "fewer than 10" if high == 9 else f"{low:.0f} to {high:.0f}"


def _comma(value: float) -> str:
    return f"{max(value, 0.02):.2f}".replace(".", ",")


def _call(idea, intent: str) -> str:  # type: ignore[no-untyped-def]
    if intent in ("job", "firm"):
        return "drop"
    local = shipped_lexicon().place_runs(idea.text) or any(t in idea.text for t in TOWNS)
    wanted = idea.near and intent in ("buy", "unknown") and idea.volume[1] > 30
    return "keep" if wanted and not local else ""


if __name__ == "__main__":
    main()
