"""What every module promises of itself."""

import importlib
import pkgutil

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
