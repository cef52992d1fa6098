"""One server a data folder: a second one says where the first is."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from filelock import FileLock, Timeout

from milkwort.core.errors import PlannerError

__all__ = ["Hold", "held_alone"]


class Hold:
    """A data folder that is held.

    Parameters
    ----------
    folder : Path
    """

    def __init__(self, folder: Path) -> None:
        self._address = folder / "milkwort.address"

    def tell(self, address: str) -> None:
        """Write down where the server is, for a second one that is started."""
        self._address.write_text(address, encoding="utf-8")

    @property
    def told(self) -> str:
        """Where the server that holds the folder is; empty where it hasn't said."""
        return self._address.read_text(encoding="utf-8") if self._address.exists() else ""


@contextmanager
def held_alone(folder: Path) -> Iterator[Hold]:
    """Hold a data folder; the system lets go of it however the program ends.

    Raises
    ------
    PlannerError
        Where another server holds it, saying where that is, or the folder can't be used.
    """
    hold = Hold(folder)
    try:
        folder.mkdir(mode=0o700, parents=True, exist_ok=True)
        lock = FileLock(folder / "milkwort.lock", timeout=0, mode=0o600)
        with lock:
            yield hold
    except Timeout:
        where = f" at {hold.told}" if hold.told else ""
        raise PlannerError(f"{folder} is served already{where}.", "data") from None
    except PermissionError as error:
        raise PlannerError(f"{folder} can’t be used: {error.strerror}.", "data") from error
