"""Every label, message and heading of the program in one list: ``python -m tools.words``.

What the web client writes between its tags and into labels, what the server says in sentences,
and what the client's sheet says; each once, with where it stands first.
"""

from __future__ import annotations

import ast
import re
import tomllib
from collections.abc import Iterator
from pathlib import Path

ROOT = Path(__file__).parent.parent
_BETWEEN_TAGS = re.compile(r">([^<>{}=;()&|]*[A-Za-z]{2}[^<>{}=;()&|]*)<")
_ATTRIBUTES = re.compile(
    r'\b(?:label|title|placeholder|name|head|about|aria-label|empty)[=:]\s*"([^"]+)"'
)
_CODE = re.compile(r"[\\^$|]|\?:|=>|/\*|\[A-Z|^[a-z_]+( [a-z_]+)* \.\.\.|\.\.\.")
_SENTENCE = re.compile(r"[A-Za-z]{2}.* .*[A-Za-z]{2}")


def main() -> None:
    """Print the list in the order of its words."""
    found: dict[str, str] = {}
    for text, where in [*_of_client(), *_of_server(), *_of_sheet()]:
        if not _CODE.search(text):
            found.setdefault(" ".join(text.split()), where)
    for text in sorted(found, key=str.casefold):
        print(f"{text}\t{found[text]}")


def _of_client() -> Iterator[tuple[str, str]]:
    for path in sorted((ROOT / "web" / "src").rglob("*.ts*")):
        if ".test." in path.name or path.name.startswith("testing") or "generated" in path.name:
            continue
        source = path.read_text(encoding="utf-8")
        where = str(path.relative_to(ROOT))
        for pattern in (_BETWEEN_TAGS, _ATTRIBUTES):
            yield from ((text, where) for text in pattern.findall(source) if text.strip())


def _of_server() -> Iterator[tuple[str, str]]:
    """Yield the texts that are raised, or that notes, checks and workings are made of."""
    for path in sorted((ROOT / "milkwort").rglob("*.py")):
        if "migrations" in path.parts:
            continue
        where = str(path.relative_to(ROOT))
        tree = ast.parse(path.read_text(encoding="utf-8"))
        told = {id(node.value) for node in ast.walk(tree) if isinstance(node, ast.Expr)}
        joined = [node for node in ast.walk(tree) if isinstance(node, ast.JoinedStr)]
        told |= {id(part) for whole in joined for part in whole.values}
        for node in ast.walk(tree):
            if id(node) in told:
                continue  # what is said to whoever reads the code
            text = _said(node)
            if text and _SENTENCE.search(text):
                yield text, where


def _said(node: ast.AST) -> str:
    if isinstance(node, ast.Constant) and isinstance(node.value, str):
        return node.value
    if isinstance(node, ast.JoinedStr):
        parts = [p.value if isinstance(p, ast.Constant) else "…" for p in node.values]
        return "".join(map(str, parts))
    return ""


def _of_sheet() -> Iterator[tuple[str, str]]:
    for path in sorted((ROOT / "milkwort" / "core" / "handover" / "words").glob("*.toml")):
        yield from _leaves(tomllib.loads(path.read_text(encoding="utf-8")), path.name)


def _leaves(tree: dict[str, object], where: str) -> Iterator[tuple[str, str]]:
    for value in tree.values():
        if isinstance(value, dict):
            yield from _leaves(value, where)
        else:
            yield str(value), where


if __name__ == "__main__":
    main()
