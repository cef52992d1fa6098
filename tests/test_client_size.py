"""What a browser loads: each stage apart, and no part of it large."""

import gzip
import re
from pathlib import Path

import pytest

BUILT = Path(__file__).parent.parent / "milkwort" / "static"
MOST = 150_000
"""Bytes of one script as it travels, packed."""
STAGES = ("brief", "gather", "sift", "arrange", "fit", "handover", "learn")


@pytest.fixture(scope="module")
def packed():
    scripts = sorted((BUILT / "assets").glob("*.js"))
    assert scripts, "the web client isn't built: make web"
    return {script.name: len(gzip.compress(script.read_bytes())) for script in scripts}


def test_no_script_is_large(packed):
    assert {name: size for name, size in packed.items() if size > MOST} == {}


def test_each_stage_is_loaded_only_when_it_is_opened(packed):
    page = (BUILT / "index.html").read_text(encoding="utf-8")
    first = set(re.findall(r"assets/([\w-]+\.js)", page))
    assert first
    for stage in STAGES:
        own = [name for name in packed if name.startswith(f"{stage}-")]
        assert own and not first.intersection(own), stage
