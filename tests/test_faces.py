"""What every module promises of itself."""

import ast
import importlib
import pkgutil
from pathlib import Path

import pytest

import milkwort

MODULES = [
    m.name
    for m in pkgutil.walk_packages(milkwort.__path__, "milkwort.")
    if ".migrations" not in m.name and not m.name.endswith("__main__")
]


@pytest.mark.parametrize("name", MODULES)
def test_a_public_face_is_sorted_and_really_there(name):
    module = importlib.import_module(name)
    face = getattr(module, "__all__", [])
    folded = sorted(face, key=lambda n: (not n.isupper(), not n[:1].isupper(), n))
    assert list(face) == folded
    assert all(hasattr(module, n) for n in face)


CORE = Path(milkwort.__file__).parent / "core"


def _public_functions(path):
    tree = ast.parse(path.read_text(encoding="utf-8"))
    assigned = [node for node in tree.body if isinstance(node, ast.Assign)]
    faces = [ast.literal_eval(node.value) for node in assigned
             if getattr(node.targets[0], "id", "") == "__all__"]  # fmt: skip
    public = set(faces[0]) if faces else set()
    return [n for n in tree.body if isinstance(n, ast.FunctionDef) and n.name in public]


def test_every_public_function_of_the_core_says_what_it_takes():
    silent = [
        f"{path.relative_to(CORE)}: {one.name}"
        for path in sorted(CORE.rglob("[!_]*.py"))
        for one in _public_functions(path)
        if (one.args.args or one.args.kwonlyargs)
        and "Parameters\n---" not in (ast.get_docstring(one) or "")
    ]
    assert silent == []
