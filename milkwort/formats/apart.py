"""Large files read in a process of their own: they hold nobody up, and may be left.

Run as a program it is the other side: questions come on its input, answers leave by its
output, both pickled, until the input ends.
"""

from __future__ import annotations

import contextlib
import pickle
import subprocess
import sys
import threading
from typing import Any, BinaryIO

from milkwort.core.errors import PlannerError, ProgramError, TooLargeError
from milkwort.formats.tables import read_table
from milkwort.formats.text_table import TextTable
from milkwort.formats.workbook import is_workbook, unpacked_size

__all__ = ["Reader"]

_SMALL = 1_000_000
"""Bytes, unpacked, that are read at once where they came in: a process costs more."""
_MOST_SECONDS = 90.0
_MOST_MEMORY = 3 * 2**30


class Reader:
    """Reads files of rows; the large ones one after another in a process that is kept.

    Parameters
    ----------
    seconds : float
        How long one file may take.
    memory : int
        Bytes the process may hold.
    small : int
        Bytes up to which a file is read where it came in.
    """

    def __init__(
        self,
        seconds: float = _MOST_SECONDS,
        memory: int = _MOST_MEMORY,
        small: int = _SMALL,
    ) -> None:
        self._seconds, self._memory, self._small = seconds, memory, small
        self._process: subprocess.Popen[bytes] | None = None
        self._turn = threading.Lock()

    def table(self, data: bytes | str, name: str = "file", sheet: str | None = None) -> TextTable:
        """Read the rows of a file, as `read_table` does.

        Raises
        ------
        PlannerError
            As there, and where the file takes more time or memory than it may have.
        """
        if _unpacked(data) <= self._small:
            return read_table(data, name, sheet)
        with self._turn:
            answer = self._ask((data, name, sheet), name)
        if isinstance(answer, PlannerError):
            raise answer
        if not isinstance(answer, TextTable):
            raise ProgramError(str(answer))
        return answer

    def close(self) -> None:
        """End the process, if there is one; also while it reads."""
        process, self._process = self._process, None
        if process is not None:
            process.kill()
            process.wait()
            for end in (process.stdin, process.stdout):
                if end is not None:
                    with contextlib.suppress(OSError):
                        end.close()

    def _ask(self, question: tuple[Any, ...], name: str) -> Any:
        process = self._started()
        assert process.stdin is not None
        assert process.stdout is not None
        out_of_time = threading.Event()

        def end() -> None:
            out_of_time.set()  # before the process ends, so that its end is told apart
            process.kill()

        late = threading.Timer(self._seconds, end)
        late.start()
        try:
            pickle.dump(question, process.stdin)
            process.stdin.flush()
            return pickle.load(process.stdout)
        except (EOFError, OSError, ValueError, pickle.UnpicklingError):
            self.close()
            passed = f"{self._seconds:g} s" if out_of_time.is_set() else _gib(self._memory)
            raise TooLargeError(
                f"{name}: expected a file that can be read within {passed}, got one that takes "
                "more. Nothing of it was taken; save it as CSV, or split it.", name,
            ) from None  # fmt: skip
        finally:
            late.cancel()

    def _started(self) -> subprocess.Popen[bytes]:
        if self._process is None or self._process.poll() is not None:
            self._process = subprocess.Popen(
                [sys.executable, "-m", __name__, str(self._memory)],
                stdin=subprocess.PIPE,
                stdout=subprocess.PIPE,
                stderr=subprocess.DEVNULL,
            )
        return self._process


def _unpacked(data: bytes | str) -> int:
    return unpacked_size(data) if isinstance(data, bytes) and is_workbook(data) else len(data)


def _gib(size: int) -> str:
    return f"{size / 2**30:g} GiB of memory"


def _answer(question: tuple[Any, ...]) -> Any:
    try:
        return read_table(*question)
    except PlannerError as no:
        return no
    except MemoryError:
        raise
    except Exception as error:  # said on the other side, as if it were raised there
        return f"{type(error).__name__}: {error}"


def _serve(incoming: BinaryIO, outgoing: BinaryIO, memory: int) -> None:
    with contextlib.suppress(ImportError):  # a system without it reads without this bound
        import resource

        resource.setrlimit(resource.RLIMIT_AS, (memory, memory))
    while True:
        try:
            question = pickle.load(incoming)
        except EOFError:
            return
        try:
            pickle.dump(_answer(question), outgoing)
        except MemoryError:
            return  # the other side sees the output end
        outgoing.flush()


if __name__ == "__main__":
    _serve(sys.stdin.buffer, sys.stdout.buffer, int(sys.argv[1]))
