import gc
import os

import pytest
from hypothesis import settings

from tests.depth import DEEP, cases

# a run of every day tries the same each time, so that it says the same of the same code; a long
# one looks elsewhere each time
settings.register_profile(
    "this run", max_examples=cases(15, 200), deadline=None, derandomize=not DEEP
)
settings.load_profile("this run")
# programs that tests start begin in half the time where their bytecode was kept
os.environ.pop("PYTHONDONTWRITEBYTECODE", None)
# as the program itself is run: next to nothing of what it makes lies in cycles
gc.set_threshold(50_000, 20, 1000)


def pytest_collection_modifyitems(items: list[pytest.Item]) -> None:
    """Let each of two workers begin with half of what takes long, and end with what doesn't.

    Each is given half of all tests, one behind the other, and takes from the other's end when it
    is through: where a browser's tests stood there, one worker would wait for the other's last.
    """
    long = [item for item in items if "browser" in item.path.parts]
    quick = [item for item in items if "browser" not in item.path.parts]
    half, room = len(long) // 2, len(items) // 2
    items[:] = [*long[:half], *quick[: room - half], *long[half:], *quick[room - half :]]
