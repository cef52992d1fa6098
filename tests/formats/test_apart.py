"""Large files are read in a process of their own, within a time and a memory."""

import threading
import time

import pytest

from milkwort.core.errors import BadValueError, TooLargeError
from milkwort.formats.apart import Reader
from milkwort.formats.tables import read_table
from tests.books import book

ROWS = "keyword,volume\n" + "".join(f"sash {n},{n}\n" for n in range(2000))


@pytest.fixture
def reader():
    made = Reader(small=1000)
    yield made
    made.close()


def test_what_is_read_apart_is_what_is_read_here(reader):
    assert reader.table(ROWS, "many.csv") == read_table(ROWS, "many.csv")
    data = book(all=[["keyword"], *([f"sash {n}"] for n in range(300))])
    assert reader.table(data, "b.xlsx") == read_table(data, "b.xlsx")
    assert reader.table("keyword\nsash\n").rows == (("keyword",), ("sash",))


def test_what_is_wrong_with_a_file_is_said_as_if_it_were_read_here(reader):
    data = b"[" + b"1," * 2000
    with pytest.raises(BadValueError) as apart:
        reader.table(data, "broken.json")
    with pytest.raises(BadValueError) as here:
        read_table(data, "broken.json")
    assert (str(apart.value), apart.value.where) == (str(here.value), here.value.where)
    assert apart.value.expected == here.value.expected


def test_a_file_that_takes_too_long_is_left_and_the_next_is_read():
    reader = Reader(seconds=0.05, small=10)
    with pytest.raises(TooLargeError, match=r"many\.csv: expected .* within 0\.05 s"):
        reader.table(ROWS * 40, "many.csv")
    reader._seconds = 60
    assert len(reader.table(ROWS, "many.csv").rows) == 2001
    reader.close()


def test_a_file_that_takes_too_much_memory_is_left_and_a_smaller_one_is_read():
    reader = Reader(memory=250 * 2**20, small=10)
    assert len(reader.table(ROWS, "many.csv").rows) == 2001
    wide = "keyword" + ",b" * 49 + "\n" + ("abcdefgh," * 50 + "\n") * 40_000
    with pytest.raises(TooLargeError, match="GiB of memory"):
        reader.table(wide, "wide.csv")
    assert len(reader.table(ROWS, "many.csv").rows) == 2001
    reader.close()


def test_closing_ends_a_file_that_is_being_read(reader):
    said = []

    def read():
        try:
            reader.table(ROWS * 40, "many.csv")
        except TooLargeError as no:
            said.append(no)

    thread = threading.Thread(target=read)
    thread.start()
    while reader._process is None:
        time.sleep(0.01)
    reader.close()
    thread.join(30)
    assert not thread.is_alive() and len(said) == 1
