"""The client draws and asks: no rule and no bare figure of the job stands in its sources."""

import re
from pathlib import Path

SRC = Path(__file__).parent.parent / "web" / "src"

DRAWS = {
    "app/HowSure.tsx": "how faint a late figure is",
    "app/Purse.tsx": "how many digits a figure has, and what rounding hides",
    "app/Sums.tsx": "how many digits a share has",
    "parts/Choice.tsx": "how faint a mark is",
    "parts/Spark.tsx": "strokes",
    "parts/Whisker.tsx": "strokes",
    "parts/format.ts": "how many digits a count has",
    "parts/scale.ts": "margins of a scale",
    "stages/brief/Descent.tsx": "sizes of dots",
    "stages/brief/Season.tsx": "steps of the keys",
    "stages/fit/bids/BidsView.tsx": "the least gap that is written out",
    "stages/fit/bids/LadderOfPounds.tsx": "margins of a picture",
    "stages/gather/sources/rivals/MonthStrip.tsx": "strokes",
    "stages/sift/map/MapView.tsx": "steps of the zoom",
    "stages/sift/map/drawMap.ts": "strokes, and decades without a figure",
    "stages/sift/map/mapShapes.ts": "margins of a picture",
    "stages/sift/map/petals.ts": "strokes",
}
"""Where a decimal figure may stand, and what for."""

FIGURE = re.compile(r"(?<![\w.#-])\d*\.\d+(?![\w.])")
RULES = {
    "arithmetic of the market": re.compile(r"Math\.(exp|log|log10|pow|erf|random)\("),
    "days or months of a year": re.compile(r"[*/]\s*(12|30|31|52|365)\b|\b365\b"),
    "a plural rule": re.compile(r"replace\(/[^/]*s\)?\$/"),
    "a click price times a share": re.compile(r"(cpc_\w+|ceiling|bid)\[\w+\]\s*[*/]"),
    "worth of a sale": re.compile(r"sale_value\s*\*|gross_margin\s*\*"),
}
PARAGRAPH = re.compile(r"<p(?:\s[^>]*)?>.*?</p>", re.S)
STYLED_PARAGRAPH = re.compile(r"export const (\w+) = styled\.p`")
STYLES = re.compile(r'import \* as (\w+) from "(\.[^"]+\.styles)"')
MAY = {
    ("arithmetic of the market", "data/client.ts"): "a name for the window",
    ("arithmetic of the market", "stages/fit/bids/LadderOfPounds.tsx"): "digits of an axis",
    ("arithmetic of the market", "stages/sift/map/drawMap.ts"): "decades of a log scale",
    ("arithmetic of the market", "parts/scale.ts"): "decades of a log scale",
}


def _sources():
    for path in sorted(SRC.rglob("*.ts*")):
        name = path.relative_to(SRC).as_posix()
        drawn = ".styles." in name or name.startswith("look/") or "/testing" in f"/{name}"
        if drawn or ".test." in name or ".generated." in name:
            continue
        yield name, path.read_text(encoding="utf-8")


def _code(text):
    """Return a source without its comments, texts and styles."""
    text = re.sub(r"/\*.*?\*/", "", text, flags=re.S)
    text = re.sub(r"(?<!:)//[^\n]*", "", text)
    text = re.sub(r"styled(\.\w+|\([^)]*\))(<[^`]*>)?`[^`]*`", "", text)
    return re.sub(r'"[^"\n]*"', '""', text)


def test_no_bare_figure_of_the_job_stands_in_the_client():
    found = {name: FIGURE.findall(_code(text)) for name, text in _sources() if name not in DRAWS}
    assert {name: figures for name, figures in found.items() if figures} == {}


def test_no_rule_of_the_job_stands_in_the_client():
    found = [
        (rule, name)
        for name, text in _sources()
        for rule, pattern in RULES.items()
        if pattern.search(_code(text)) and (rule, name) not in MAY
    ]
    assert found == []


def test_every_exception_is_one():
    texts = dict(_sources())
    assert [n for n in DRAWS if not FIGURE.search(_code(texts.get(n, "")))] == []
    assert [k for k in MAY if not RULES[k[0]].search(_code(texts.get(k[1], "")))] == []


def test_no_paragraph_holds_a_choice():
    # it is made of blocks: a browser closes the paragraph before it, and takes the sentence apart
    found = [
        name for name, text in _sources() if any("<Choice" in p for p in _paragraphs(name, text))
    ]
    assert found == []


def _paragraphs(name: str, text: str) -> list[str]:
    """Return the bodies of all paragraphs of a source, plain ones and those its styles make."""
    found = PARAGRAPH.findall(text)
    for short, where in STYLES.findall(text):
        styles = (SRC / name).parent / f"{where}.ts"
        for styled in STYLED_PARAGRAPH.findall(styles.read_text(encoding="utf-8")):
            tag = re.escape(f"{short}.{styled}")
            found += re.findall(rf"<{tag}\b[^>]*>.*?</{tag}>", text, re.S)
    return found


def test_a_rule_would_be_found():
    assert "<Choice" in PARAGRAPH.findall("<p>\n  at <Choice label='x' />\n</p>")[0]
    dressed = 'import * as S from "./Sift.styles";\n<S.Tail>at <Choice />\n</S.Tail>'
    assert "<Choice" in _paragraphs("stages/sift/any.tsx", dressed)[0]
    assert FIGURE.findall(_code("const close = 0.5; // 0.7")) == ["0.5"]
    assert RULES["days or months of a year"].search("sum / 12")
