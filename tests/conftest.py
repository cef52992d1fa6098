import gc
import os

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
