"""What a caller of the market did wrong, with the code and the status it is told."""

from __future__ import annotations

__all__ = ["MarketError"]


class MarketError(Exception):
    """Something the caller can mend.

    Parameters
    ----------
    status : int
        Of HTTP.
    code, message, where : str
    """

    def __init__(self, status: int, code: str, message: str, where: str = "") -> None:
        self.status, self.code, self.message, self.where = status, code, message, where
        super().__init__(message)
