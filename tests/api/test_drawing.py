"""Slow work behind everything else: whoever asked is let go of when the program ends."""

import threading
from concurrent.futures import ThreadPoolExecutor

import pytest

from milkwort.api.plan.drawing import Drawing
from milkwort.core.errors import StoppedError


@pytest.fixture
def drawing():
    made = Drawing(lambda plan_id: None, lambda plan_id: None, 200)
    yield made
    made.close()


def test_what_is_worked_out_comes_back_and_what_fails_says_so(drawing):
    assert drawing.aside(lambda: 7) == 7

    def fails():
        raise TimeoutError("its own")

    with pytest.raises(TimeoutError, match="its own"):
        drawing.aside(fails)


def test_it_is_done_one_at_a_time_in_order(drawing):
    found = []
    with ThreadPoolExecutor(4) as callers:
        for n in range(8):
            callers.submit(drawing.aside, lambda n=n: found.append(n))
    assert sorted(found) == list(range(8))


def test_nobody_waits_for_work_that_is_long_in_noticing_the_end(drawing):
    begun, may_end = threading.Event(), threading.Event()

    def slow():
        begun.set()
        assert may_end.wait(30)
        return "too late"

    with ThreadPoolExecutor(2) as callers:
        first = callers.submit(drawing.aside, slow)
        queued = callers.submit(drawing.aside, lambda: "never")
        assert begun.wait(30)
        drawing.end()
        for one in (first, queued):
            with pytest.raises(StoppedError):
                one.result(timeout=30)
        assert not may_end.is_set()
        may_end.set()
