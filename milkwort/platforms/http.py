"""Speaking to an ad platform over HTTP: asked again where that is safe, and told in sentences."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import date
from typing import Any

import httpx
from tenacity import (
    RetryCallState,
    Retrying,
    retry_if_exception_type,
    stop_after_attempt,
)

from milkwort.platforms.platform import (
    ClockState,
    OpenAccount,
    PlatformError,
    ReplyRow,
    ResultTable,
    Uploaded,
)

__all__ = ["HttpPlatform"]

_ATTEMPTS = 6
_LONGEST_WAIT = 20.0
_SECONDS, _TO_CONNECT = 60.0, 5.0


class _TryAgainError(Exception):
    """What may go well the next time; waits as long as the platform asks."""

    def __init__(self, said: str, after: float | None = None) -> None:
        super().__init__(said)
        self.after = after


class HttpPlatform:
    """The practice market, or whatever speaks as it does.

    Every write carries a key by which the platform knows that it had it already: asking again
    after a lost answer never does a thing twice.

    Parameters
    ----------
    address : str
        Such as ``http://127.0.0.1:8790``.
    client : httpx.Client, optional
        For tests.
    """

    simulated = True

    def __init__(self, address: str, client: httpx.Client | None = None) -> None:
        self._address = address.rstrip("/")
        self._own = client is None
        # what is not spoken to in secret needs no certificates, and they take their time to read
        self._client = client or httpx.Client(
            timeout=httpx.Timeout(_SECONDS, connect=_TO_CONNECT), trust_env=False,
            verify=not self._address.startswith("http://"),
        )  # fmt: skip

    def __enter__(self) -> HttpPlatform:
        """Return itself; its connections are let go of at the end."""
        return self

    def __exit__(self, *_: object) -> None:
        """Let go of the connections, where they are its own."""
        if self._own:
            self._client.close()

    def open_account(self, opening: Mapping[str, Any], once: str) -> OpenAccount:
        """Open an account; errors as `AdPlatform`."""
        found = self._ask("POST", "/accounts", None, once=once, json=opening)
        return OpenAccount(found["account"]["id"], found["key"])

    def state(self, account: OpenAccount) -> Mapping[str, Any]:
        """Return how an account stands."""
        found: Mapping[str, Any] = self._ask("GET", self._at(account), account)
        return found

    def upload(self, account: OpenAccount, kind: str, sheet: bytes, once: str) -> int:
        """Send a sheet."""
        answer = self._ask("POST", f"{self._at(account)}/uploads", account, once=once,
                           params={"kind": kind}, content=sheet)  # fmt: skip
        return int(answer["number"])

    def uploaded(self, account: OpenAccount, number: int) -> Uploaded:
        """Return how far a sheet is taken in."""
        found = self._ask("GET", f"{self._at(account)}/uploads/{number}", account)
        names = Uploaded.__dataclass_fields__
        return Uploaded(**{name: found[name] for name in names})

    def reply(self, account: OpenAccount, number: int) -> list[ReplyRow]:
        """Return the answer to each row; asked for again while it is late."""
        path = f"{self._at(account)}/uploads/{number}/reply"
        found = self._ask("GET", path, account, late="reply_late")
        return [ReplyRow(**dict(zip(found["heads"], row, strict=True))) for row in found["rows"]]

    def live(self, account: OpenAccount, kind: str) -> list[dict[str, Any]]:
        """Return what is live, all pages of it."""
        rows: list[dict[str, Any]] = []
        cursor: str | None = ""
        while cursor is not None:
            page = self._ask("GET", f"{self._at(account)}/live", account,
                             params={"kind": kind, "cursor": cursor})  # fmt: skip
            rows.extend(page["rows"])
            cursor = page["next"]
        return rows

    def results(
        self, account: OpenAccount, level: str, since: date | None = None,
        until: date | None = None,
    ) -> ResultTable:  # fmt: skip
        """Return what came of it by day."""
        asked = {"level": level, "since": since, "until": until}
        params = {name: str(value) for name, value in asked.items() if value is not None}
        found = self._ask("GET", f"{self._at(account)}/results", account, params=params)
        return ResultTable(found["heads"], found["rows"])

    def pass_days(self, account: OpenAccount, days: int, once: str) -> ClockState:
        """Let days pass."""
        path = f"{self._at(account)}/clock"
        return _clock(self._ask("POST", path, account, once=once, json={"days": days}))

    def clock(self, account: OpenAccount) -> ClockState:
        """Return how far they are."""
        return _clock(self._ask("GET", f"{self._at(account)}/clock", account))

    def stop_clock(self, account: OpenAccount) -> ClockState:
        """Let no further day pass."""
        return _clock(self._ask("DELETE", f"{self._at(account)}/clock", account))

    def set_faults(self, account: OpenAccount, faults: Mapping[str, Any]) -> None:
        """Switch faults of a simulated platform on; what is left out is off."""
        self._ask("PUT", f"{self._at(account)}/faults", account, json=faults)

    def open_envelope(self, account: OpenAccount) -> Mapping[str, Any]:
        """Open the hidden truth of a simulated platform; it can't be closed again."""
        self._ask("POST", f"{self._at(account)}/envelope", account)
        return self.envelope(account)

    def envelope(self, account: OpenAccount) -> Mapping[str, Any]:
        """Return the hidden truth, once it was opened."""
        found: Mapping[str, Any] = self._ask("GET", f"{self._at(account)}/envelope", account)
        return found

    def options(
        self, account: OpenAccount, since: date, until: date, bids: list[float]
    ) -> Mapping[str, Any]:
        """Return what bids would have brought under the truth, once it was opened."""
        found: Mapping[str, Any] = self._ask(
            "GET", f"{self._at(account)}/envelope/options", account,
            params={"since": str(since), "until": str(until), "bid": bids},
        )  # fmt: skip
        return found

    def _at(self, account: OpenAccount) -> str:
        return f"/accounts/{account.id}"

    def _ask(
        self, method: str, path: str, account: OpenAccount | None, *, once: str = "",
        late: str = "", **more: Any,
    ) -> Any:  # fmt: skip
        headers = {}
        if account is not None:
            headers["Authorization"] = f"Bearer {account.key}"
        if once:
            headers["Idempotency-Key"] = once
        retrying = Retrying(
            stop=stop_after_attempt(_ATTEMPTS), wait=_waits, reraise=True,
            retry=retry_if_exception_type(_TryAgainError),
        )  # fmt: skip
        try:
            return retrying(self._once, method, path, late, headers=headers, **more)
        except _TryAgainError as error:
            message = f"The platform did not do it after {_ATTEMPTS} tries: {error}"
            raise PlatformError(message) from error

    def _once(self, method: str, path: str, late: str, **more: Any) -> Any:
        try:
            answer = self._client.request(method, f"{self._address}/v1{path}", **more)
        except httpx.ConnectError as error:
            raise _TryAgainError("nothing answers at its address.") from error
        except httpx.HTTPError as error:
            raise _TryAgainError(f"the connection was lost ({type(error).__name__}).") from error
        if answer.is_success:
            try:
                return answer.json()
            except ValueError as error:
                raise _TryAgainError("its answer was cut short.") from error
        code, said = _error_of(answer)
        if answer.status_code in (429, 502, 503, 504) or (late and code == late):
            raise _TryAgainError(said, _seconds(answer.headers.get("retry-after")))
        raise PlatformError(f"The platform would not do it: {said}", code)


def _waits(state: RetryCallState) -> float:
    """Wait as long as the platform asks, or ever longer."""
    error = state.outcome.exception() if state.outcome is not None else None
    asked = error.after if isinstance(error, _TryAgainError) else None
    own = 0.1 * 2.0 ** (state.attempt_number - 1)
    return min(own if asked is None else max(asked, 0.0), _LONGEST_WAIT)


def _seconds(text: str | None) -> float | None:
    return float(text) if text is not None and text.isascii() and text.isdecimal() else None


def _error_of(answer: httpx.Response) -> tuple[str, str]:
    try:
        error = answer.json()["error"]
        return str(error["code"]), str(error["message"])
    except (ValueError, KeyError, TypeError):
        return "", f"it answered {answer.status_code}."


def _clock(found: Mapping[str, Any]) -> ClockState:
    return ClockState(found["state"], found["wanted"], found["done"],
                      date.fromisoformat(found["today"]))  # fmt: skip
