"""The command, run as a person runs it."""

import json
import subprocess
import sys
from pathlib import Path

import pytest
from typer.testing import CliRunner

from milkwort import __version__
from milkwort.api.http.app import opened
from milkwort.api.plan.samples import add_sample
from milkwort.api.plan.to_file import plan_file as written
from milkwort.cli import app
from milkwort.settings import Settings

DEMO = Path(__file__).parent.parent / "demo"
SAMPLE = [str(DEMO / "eastmere.toml"), str(DEMO / "eastmere.csv")]


def started(*arguments):
    """What the command says as a program of its own, which takes two seconds to begin."""
    return subprocess.run(  # the exit code is what is tested
        [sys.executable, "-m", "milkwort", *arguments],
        check=False,
        capture_output=True,
        text=True,
        timeout=60,
    )


def milkwort(*arguments):
    """What the command says within this process."""
    return CliRunner().invoke(app, arguments)


def test_the_sample_plans_to_json(tmp_path):
    out = tmp_path / "result.json"
    done = started("plan", *SAMPLE, "--out", str(out))
    assert done.returncode == 0 and done.stderr == ""
    result = json.loads(out.read_text())
    assert len(result["keywords"]) >= 600
    assert 0 < result["totals"]["spend"] <= 600.000001
    beyond = sum(k["standing"] == "beyond" for k in result["keywords"])
    assert 0.07 <= beyond / len(result["keywords"]) <= 0.14


def test_the_other_formats_go_to_the_terminal():
    assert milkwort("plan", *SAMPLE, "--format", "table").stdout.startswith("Eastmere")
    assert milkwort("plan", *SAMPLE, "--format", "csv").stdout.startswith("keyword,match")
    workings = milkwort("plan", *SAMPLE, "--workings", "Sash  Window REPAIR").stdout
    assert "ceiling per click" in workings


def test_bad_rows_are_said_and_the_rest_goes_on(tmp_path):
    keywords = tmp_path / "k.csv"
    keywords.write_text("keyword,cpc_low,cpc_high\ngood,1,2\nbad,n/a,2\n")
    done = milkwort("plan", SAMPLE[0], str(keywords))
    assert done.exit_code == 0
    assert 'row 3, cpc_low: expected a price above 0, got "n/a"' in done.stderr
    assert json.loads(done.stdout)["refused"][0]["row"] == 3


@pytest.mark.parametrize("content", ["", "term\nx\n", "keyword,cpc_low\nx,n/a\n"])
def test_nothing_usable_is_one_clear_line_and_exit_2(tmp_path, content):
    keywords = tmp_path / "k.csv"
    keywords.write_text(content)
    done = milkwort("plan", SAMPLE[0], str(keywords))
    assert done.exit_code == 2
    assert done.stderr.startswith("milkwort: ") and done.stderr.count("\n") == 1


def test_a_missing_file_is_one_clear_line():
    done = started("plan", "nowhere.toml", SAMPLE[1])
    assert done.returncode == 2 and done.stderr.count("\n") == 1 and "nowhere" in done.stderr


def test_the_version_is_said():
    assert started("--version").stdout.strip() == f"milkwort {__version__}"


def test_the_sample_is_what_its_script_makes(tmp_path):
    script = tmp_path / "make_sample.py"
    script.write_text((DEMO / "make_sample.py").read_text())
    subprocess.run([sys.executable, str(script)], check=True, timeout=60)
    assert (tmp_path / "eastmere.csv").read_bytes() == (DEMO / "eastmere.csv").read_bytes()


def test_two_plans_are_set_side_by_side(tmp_path):
    richer = tmp_path / "richer.toml"
    richer.write_text((DEMO / "eastmere.toml").read_text().replace("= 600.0", "= 800.0"))
    said = milkwort("compare", *SAMPLE, str(richer), SAMPLE[1]).stdout
    assert "the purse: 600 → 800" in said
    assert "brings more customers in" in said
    assert "No difference." in milkwort("compare", *SAMPLE, *SAMPLE).stdout


@pytest.fixture(scope="module")
def plan_file(tmp_path_factory):
    """A plan's own file as the program sends it."""
    folder = tmp_path_factory.mktemp("plan")
    work = opened(Settings(data=folder / "data"))
    with work.database.begin() as session:
        content = written(session, add_sample(session, "Eastmere", "eastmere"))
    work.close()
    path = folder / "plan.json"
    path.write_bytes(content)
    return str(path)


def test_a_plans_file_is_checked_and_ends_with_1_where_something_must_be_mended(
    plan_file, tmp_path
):
    done = milkwort("check", plan_file)
    assert done.exit_code == 1
    assert "must be mended: " in done.stdout and "to look at: " in done.stdout
    missing = milkwort("check", str(tmp_path / "none.json"))
    assert missing.exit_code == 2 and missing.stderr.count("\n") == 1


def test_the_clients_sheet_is_written_without_a_screen(plan_file, tmp_path):
    out = tmp_path / "client.pdf"
    done = milkwort("report", plan_file, "--out", str(out))
    assert done.exit_code == 0, done.stderr
    assert out.read_bytes().startswith(b"%PDF")
    bad = milkwort("report", plan_file, "--out", str(tmp_path / "client.docx"))
    assert bad.exit_code == 2 and "one of html, pdf" in bad.stderr
