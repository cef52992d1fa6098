"""Make the sample sheet: Eastmere Sash & Casement, an invented workshop in an invented town.

Run ``python demo/make_sample.py``; the same seed writes the same file.
"""

from __future__ import annotations

import csv
import math
import random
from pathlib import Path

HERE = Path(__file__).parent
SEED = 20260901
PLACES = ["eastmere", "wrenfold", "calder stoke", "upper tansley", "marlshire"]
FAR = ["hollowbrook", "penscombe", "north arding", "lythe bay"]
RIVALS = ["pane and plane", "orchard joinery", "brightsash", "mullion brothers"]
MONTHS = [f"m{n:02d}" for n in range(1, 13)]
SEASON = [1.15, 0.95, 0.85, 0.8, 0.75, 0.7, 0.72, 0.8, 1.15, 1.4, 1.45, 1.28]

# service: (group, intent, searches at the root, middle price, words about it)
SERVICES = {
    "sash window repair": ("Repair", "buy", 1900, 1.75),
    "sash window restoration": ("Restore", "buy", 1100, 1.95),
    "sash window replacement": ("Replace", "buy", 1500, 3.4),
    "sash cord replacement": ("Repair", "buy", 420, 1.1),
    "sash window draught proofing": ("Draught proofing", "buy", 760, 1.45),
    "sash window refurbishment": ("Restore", "buy", 520, 1.9),
    "sash window painting": ("Paint", "buy", 320, 1.2),
    "sash window double glazing": ("Glazing", "compare", 1300, 2.9),
    "slimline double glazing": ("Glazing", "compare", 700, 2.6),
    "secondary glazing": ("Glazing", "compare", 1600, 3.1),
    "casement window repair": ("Repair", "buy", 640, 1.6),
    "casement window restoration": ("Restore", "buy", 210, 1.7),
    "timber window repair": ("Repair", "buy", 880, 1.55),
    "timber window restoration": ("Restore", "buy", 240, 1.65),
    "box sash repair": ("Repair", "buy", 190, 1.3),
    "rotten window frame repair": ("Repair", "buy", 480, 1.25),
    "window sill repair": ("Repair", "buy", 540, 1.15),
    "heritage window restoration": ("Restore", "buy", 170, 1.8),
    "listed building window repair": ("Restore", "buy", 160, 1.6),
    "window draught proofing": ("Draught proofing", "buy", 590, 1.3),
}
HELPERS = {
    "cost": ("compare", 0.3, 0.85), "price": ("compare", 0.2, 0.9), "quote": ("buy", 0.1, 1.45),
    "near me": ("buy", 0.45, 1.2), "specialist": ("buy", 0.12, 1.2),
    "company": ("compare", 0.14, 1.15), "best": ("compare", 0.08, 1.0),
    "local": ("buy", 0.07, 1.1), "emergency": ("buy", 0.05, 1.5),
    "reviews": ("compare", 0.05, 0.7),
}  # fmt: skip
LEARN = ["how to {}", "{} yourself", "{} guide", "{} video", "what is {}", "diy {}"]
JOBS = ["{} jobs", "{} apprenticeship", "{} training course", "{} salary"]
BROAD = {
    "windows": (60500, 14.0), "double glazing": (33100, 16.5), "new windows": (9900, 13.2),
    "window company": (5400, 12.4), "replacement windows": (8100, 15.1), "glazing": (6600, 9.8),
    "window fitters": (4400, 11.7), "upvc windows": (14800, 12.9), "window prices": (3600, 10.9),
    "double glazing quotes": (5400, 19.0), "window installers": (2900, 13.5),
    "home improvements": (12100, 8.8), "joinery": (9900, 6.2), "joiner": (8100, 7.5),
    "carpenter": (22200, 7.9), "windows and doors": (18100, 13.8), "bay windows": (9900, 8.9),
    "french windows": (8100, 8.2), "window replacement cost": (4400, 11.2),
    "glass replacement": (5400, 8.6), "window repair": (9900, 6.9),
    "double glazing repair": (4400, 9.4),
    "double glazed windows": (12100, 14.3), "composite windows": (1300, 8.5),
    "aluminium windows": (8100, 11.8), "window quote": (1000, 14.6),
    "triple glazing": (4400, 9.9), "double glazing cost": (6600, 12.2),
}  # fmt: skip
QUESTIONS = {
    "draughty windows": 2400, "rattling sash windows": 390, "sash window stuck": 480,
    "sash window parts": 880, "sash window locks": 1600, "sash window weights": 480,
    "condensation between sash windows": 210, "can you double glaze sash windows": 320,
    "are sash windows draughty": 170, "victorian sash windows": 1300, "georgian windows": 1600,
    "parts of a sash window": 590, "sash window dimensions": 260, "sash window knots": 140,
    "paint for sash windows": 390, "sash window insulation": 480,
    "draught excluder for sash windows": 720,
    "sash window seals": 590, "sash window restrictors": 390, "sash window opening fix": 140,
    "painted shut window": 320, "broken sash cord": 260, "sash window glass putty": 210,
    "sash window spring balance": 320, "wooden window rot": 480,
    "sash window planning permission": 260,
    "how long do sash windows last": 110, "wooden window filler": 720,
}  # fmt: skip


def main() -> None:
    rng = random.Random(SEED)
    rows = dict[str, dict[str, object]]()

    def add(
        text: str, searches: float, price: float | None, intent: str, group: str,
        call: str = "", match: str = "exact",
    ) -> None:  # fmt: skip
        if text not in rows and searches >= 2:
            rows[text] = row(rng, text, searches, price, intent, group, call, match)

    for service, (group, intent, searches, price) in SERVICES.items():
        add(service, searches * rng.uniform(0.8, 1.25), price, intent, group, "keep")
        for place in PLACES:
            size = {"eastmere": 0.09, "marlshire": 0.06}.get(place, 0.035)
            call = "keep" if place in ("eastmere", "wrenfold", "marlshire") else ""
            add(f"{service} {place}", searches * size, price * rng.uniform(0.75, 1.15), intent,
                group, call)  # fmt: skip
        for helper, (purpose, size, factor) in HELPERS.items():
            text = f"{helper} {service}" if helper in ("best", "local", "emergency") else (
                f"{service} {helper}"
            )  # fmt: skip
            call = "keep" if helper in ("quote", "near me", "specialist") else ""
            add(text, searches * size, price * factor * rng.uniform(0.85, 1.2), purpose, group,
                call)  # fmt: skip
        for far in rng.sample(FAR, 2):
            add(f"{service} {far}", searches * 0.05, price * rng.uniform(0.8, 1.1), "unknown", "",
                "drop" if rng.random() < 0.4 else "")  # fmt: skip
        for pattern in rng.sample(LEARN, 4):
            add(pattern.format(service), searches * rng.uniform(0.06, 0.3), price * 0.35, "learn",
                "", "drop" if rng.random() < 0.3 else "")  # fmt: skip
        for helper in ["quote", "specialist", "cost"]:
            place = rng.choice(PLACES[:2])
            add(f"{service} {helper} {place}", searches * 0.012, price * rng.uniform(0.7, 1.2),
                "buy", group, "keep" if helper == "quote" else "",
                "phrase" if rng.random() < 0.2 else "exact")  # fmt: skip
    for service in rng.sample(sorted(SERVICES), 12):
        for pattern in rng.sample(JOBS, 2):
            call = "block" if rng.random() < 0.5 else ""
            add(pattern.format(service), rng.uniform(15, 140), rng.uniform(0.4, 1.1), "job", "",
                call)  # fmt: skip
    for text, (searches, price) in BROAD.items():
        add(text, searches, price, "unknown", "", "drop" if rng.random() < 0.5 else "")
        if rng.random() < 0.3:
            add(f"{text} near me", searches * 0.12, price * 1.15, "compare", "")
    for text, searches in QUESTIONS.items():
        add(text, searches, rng.uniform(0.3, 0.9), "learn", "Questions")
    for rival in RIVALS:
        add(rival, rng.uniform(200, 900), rng.uniform(0.5, 1.4), "firm", "Rivals")
        for tail in ("reviews", "sash windows", "eastmere"):
            add(f"{rival} {tail}", rng.uniform(10, 120), rng.uniform(0.5, 1.6), "firm", "Rivals")
    add("eastmere sash and casement", 90, 0.25, "firm", "Our name", "keep")
    add("sash window repairs eastmere reviews", 20, None, "compare", "Repair")
    write(list(rows.values()))


def row(
    rng: random.Random, text: str, searches: float, price: float | None, intent: str, group: str,
    call: str, match: str,
) -> dict[str, object]:  # fmt: skip
    spread = rng.uniform(1.9, 3.4)
    noise = [s * rng.uniform(0.85, 1.15) for s in SEASON]
    flat = intent in ("job", "firm")
    months = [max(0, round(searches * (rng.uniform(0.9, 1.1) if flat else n))) for n in noise]
    low = None if price is None else max(0.05, price / math.sqrt(spread))
    return {
        "keyword": text,
        "match": match,
        "volume": volume(rng, searches),
        "cpc_low": "" if low is None else f"{low:.2f}",
        "cpc_high": "" if low is None else f"{low * spread:.2f}",
        "competition": f"{min(0.98, max(0.02, rng.gauss(0.35 + (price or 1) / 14, 0.12))):.2f}",
        "intent": intent,
        "call": call,
        "group": group,
        **dict(zip(MONTHS, months, strict=True)),
    }


def volume(rng: random.Random, searches: float) -> str:
    """Write a volume as sources do: often a figure, sometimes a range."""
    if searches < 10:
        return "fewer than 10"
    if rng.random() < 0.22:
        low = 10 ** math.floor(math.log10(searches))
        return f"{low:,} to {low * 10:,}"
    step = 10 if searches < 1000 else 100
    return f"{max(step, round(searches / step) * step):,}"


def write(rows: list[dict[str, object]]) -> None:
    with (HERE / "eastmere.csv").open("w", newline="", encoding="utf-8") as file:
        writer = csv.DictWriter(file, fieldnames=list(rows[0]), lineterminator="\n")
        writer.writeheader()
        writer.writerows(rows)


if __name__ == "__main__":
    main()
