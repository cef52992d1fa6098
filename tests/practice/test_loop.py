"""The loop without a screen: its figures come from the market, and hang on nothing but the seed."""

import json
import subprocess
import sys
from dataclasses import replace
from datetime import date
from pathlib import Path

import pytest

from milkwort.core.errors import BadValueError
from milkwort.formats.headless import headless_run
from milkwort.practice.loop import Practice, practised
from milkwort.practice.runs import practised_all, seeds_of

BRIEF = """[plan]
name = "Try"
currency = "GBP"
monthly_spend = 120.0
[offer]
sale_value = 340.0
gross_margin = 0.55
conversion = { low = 0.02, likely = 0.03, high = 0.045 }
[ceiling]
rule = "profit_share"
value = 0.3
"""
WORDS = ("repair", "replacement", "painting", "restoration", "glazing", "cords")


@pytest.fixture(scope="module")
def files(tmp_path_factory: pytest.TempPathFactory) -> tuple[Path, Path]:
    folder = tmp_path_factory.mktemp("practice")
    rows = [f"sash window {word},{300 + at * 40},0.6,1.9,{'phrase' if at % 2 else 'exact'},buy"
            for at, word in enumerate(WORDS)]  # fmt: skip
    (folder / "brief.toml").write_text(BRIEF, encoding="utf-8")
    text = "keyword,volume,cpc_low,cpc_high,match,intent\n" + "\n".join(rows)
    (folder / "keywords.csv").write_text(text + "\n", encoding="utf-8")
    return folder / "brief.toml", folder / "keywords.csv"


@pytest.fixture(scope="module")
def practice(files: tuple[Path, Path]) -> Practice:
    run = headless_run(*files)
    return Practice(run.result, run.lexicon, tuple(run.texts), "usual", "unchanged", 2,
                    date(2027, 4, 1))  # fmt: skip


@pytest.mark.parametrize("level", ["as-planned", "usual", "rough"])
@pytest.mark.parametrize("policy", ["unchanged", "rule", "middle"])
def test_a_month_is_forecast_lived_and_held_against_hindsight(practice, level, policy):
    found = practised(replace(practice, level=level, policy=policy), 5)
    assert [month["month"] for month in found["months"]] == ["2027-04", "2027-05"]
    for month in found["months"]:
        actual, truth, best = month["actual"], month["under_truth"], month["hindsight"]
        assert actual["spend"] <= 120.0 + 1e-6
        assert truth["spend"] <= 120.0 + 1e-6
        assert best["profit"] >= truth["profit"] * (1 - 5e-3) - 1e-6
        assert 0 <= month["spill_spend"] <= actual["spend"] + 1e-6
        for name in ("clicks", "spend", "customers", "profit"):
            ranges, scored = month["forecast"][name], month["scores"][name]
            assert ranges["p10"] <= ranges["p50"] <= ranges["p90"]
            assert 0 <= scored["below"] <= scored["below"] + scored["at"] <= 1 + 1e-9


def test_the_same_seed_is_the_same_whoever_runs_it(practice):
    alone = [practised(practice, seed) for seed in (3, 4, 5, 6)]
    assert practised_all(practice, [3, 4, 5, 6]) == alone
    assert alone[0]["months"][0]["actual"] != alone[1]["months"][0]["actual"]


def test_policies_meet_the_same_days(practice):
    # whoever bids nothing otherwise in the first month lives the very same month
    one, other = (practised(replace(practice, policy=p), 9)["months"][0] for p in
                  ("unchanged", "rule"))  # fmt: skip
    assert one["actual"] == other["actual"]


def test_the_command_writes_what_the_docs_say(files, tmp_path):
    out = tmp_path / "P.json"
    command = [sys.executable, "-m", "milkwort", "practice", *map(str, files), "--out", str(out)]
    command += ["--months", "1", "--seed", "7", "--level", "rough", "--policy", "rule"]
    subprocess.run(command, check=True)
    found = json.loads(out.read_text(encoding="utf-8"))
    assert (found["seed"], found["level"], found["policy"]) == (7, "rough", "rule")
    (month,) = found["months"]
    assert {"forecast", "actual", "scores", "under_truth", "hindsight", "verdicts", "terms",
            "spill_spend"} <= set(month)  # fmt: skip


def test_seeds_are_a_number_or_a_range():
    assert seeds_of("4") == [4]
    assert seeds_of("2-5") == [2, 3, 4, 5]
    for wrong in ("", "x", "5-2", "1-99999", "-3"):
        with pytest.raises(BadValueError):
            seeds_of(wrong)
