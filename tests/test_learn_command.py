"""`milkwort learn`: results in, what they teach out, to a published shape."""

import json
import subprocess
import sys
from pathlib import Path

import jsonschema
import pytest
from typer.testing import CliRunner

from milkwort.cli import app
from milkwort.formats.learn_json import SCHEMA_FILE, learn_schema_text
from tests.practice.test_loop import BRIEF

KEYWORDS = """keyword,volume,cpc_low,cpc_high,match,intent,group
sash window repair,3000,0.8,2.4,phrase,buy,Repair
sash cord replacement,900,0.6,1.5,exact,buy,Repair
"""
RESULTS = """Keyword,Match,Day,Impressions,Clicks,Cost,Customers,could_show,lost_to_money,credit
sash window repair,phrase,2027-04-01,100,9,12.5,1,160,10,0.5
Sash-Window Repair,phrase,2027-04-02,80,7,9.1,0,150,0,
sash cord replacement,,2027-04-02,50,4,3.0,0,90,0,0
sash cord replacment,exact,2027-04-02,5,1,0.9,0,9,0,0
sash window repair,phrase,soon,1,1,1,0,1,0,0
sash window repair,phrase,2027-04-03,-4,1,1,0,1,0,0
"""
TERMS = """term,keyword,match,day,impressions,clicks,cost,customers
sash window repair jobs,sash window repair,phrase,2027-04-01,40,4,5,0
sash window repair gold,sash window repair,phrase,2027-04-02,40,4,5,1
"""


def in_folder(folder: Path) -> None:
    for name, text in (("b.toml", BRIEF), ("k.csv", KEYWORDS), ("r.csv", RESULTS),
                       ("t.csv", TERMS)):  # fmt: skip
        (folder / name).write_text(text, encoding="utf-8")


@pytest.fixture
def learn(tmp_path: Path, monkeypatch: pytest.MonkeyPatch):
    """The command over files of a folder, within this process."""
    in_folder(tmp_path)
    monkeypatch.chdir(tmp_path)
    return lambda *given: CliRunner().invoke(app, ["learn", "b.toml", "k.csv", *given])


def test_results_are_learnt_from_row_by_row_and_keep_to_the_published_shape(tmp_path: Path):
    in_folder(tmp_path)
    command = [sys.executable, "-m", "milkwort", "learn", "b.toml", "k.csv", "r.csv",
               "--terms", "t.csv", "--out", "L.json"]  # fmt: skip
    done = subprocess.run(command, cwd=tmp_path, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
    found = json.loads((tmp_path / "L.json").read_text(encoding="utf-8"))
    jsonschema.validate(found, json.loads(SCHEMA_FILE.read_text(encoding="utf-8")))
    assert (found["since"], found["until"], found["as_of"]) == (
        "2027-04-01", "2027-04-02", "2027-04-02",
    )  # fmt: skip
    first = found["keywords"][0]
    assert (first["clicks"], first["customers"], first["spend"]) == (16, 1, pytest.approx(21.1))
    # 9 clicks of yesterday, 7 of today: 9 · 0.405396 + 7 · 0.159104
    assert first["exposure"] == pytest.approx(9 * 0.405396 + 7 * 0.159104, rel=1e-5)
    assert [(one["row"], one["nearest"]) for one in found["unmatched"]] == [
        (5, "sash cord replacement")
    ]
    refused = [(one["row"], one["column"]) for one in found["refused"]]
    assert refused == [(6, "day"), (7, "impressions")]
    assert [one["suggestion"] for one in found["terms"]] == ["block_family", "own_keyword"]
    for name, last in (("customers", "reported"), ("spend", "actual")):
        parts = dict(found["difference"][name])
        total = parts.pop(last)
        assert sum(parts.values()) == pytest.approx(total)
    assert found["difference"]["spend"]["unplanned"] == pytest.approx(0.9)


def test_as_of_a_later_day_more_is_exposed(learn):
    done = learn("r.csv", "--as-of", "2027-05-20")
    found = json.loads(done.stdout)
    assert found["as_of"] == "2027-05-20"
    assert found["keywords"][0]["exposure"] == pytest.approx(16, rel=1e-4)
    assert found["terms"] == []


def test_a_file_without_days_is_refused_in_one_line(learn, tmp_path: Path):
    (tmp_path / "none.csv").write_text("keyword,clicks,cost\nsash,1,2\n", encoding="utf-8")
    done = learn("none.csv")
    assert done.exit_code == 2
    assert done.stderr.count("\n") == 1
    assert "expected a column day, or since and until" in done.stderr


def test_the_published_schema_is_the_code_s():
    assert SCHEMA_FILE.read_text(encoding="utf-8") == learn_schema_text()
