"""The market as whoever speaks to it has it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient

from milkwort.platforms.http import HttpPlatform
from milkwort.platforms.platform import OpenAccount
from milkwort.standins.market.app import make_market
from milkwort.standins.market.storage import Database

OPENING: dict[str, Any] = {
    "name": "Eastmere", "currency": "GBP", "level": "usual", "seed": 7, "start": "2027-04-01",
    "offers": [{"low": 0.02, "likely": 0.03, "high": 0.045, "close": 0.375}],
    "keywords": [
        {"text": "sash window repair", "searches": 3000, "price_low": 0.8, "price_high": 2.4,
         "intent": "buy"},
        {"text": "sash cord replacement", "searches": 900, "price_low": 0.6, "price_high": 1.5,
         "intent": "buy", "months": [float(i) for i in range(1, 13)]},
    ],
}  # fmt: skip

SHEETS: dict[str, str] = {
    "campaigns": "campaign,daily budget,ref\nSearch,20,c1\n",
    "groups": "campaign,ad group,page,ref\nSearch,Repair,/sash-window-repair,g1\n",
    "keywords": "campaign,ad group,keyword,match,bid,run,ref\n"
    "Search,Repair,sash window repair,phrase,1.5,yes,k1\n"
    "Search,Repair,sash cord replacement,exact,0.9,yes,k2\n",
    "negatives": "campaign,ad group,negative,match,ref\n,,jobs,phrase,n1\n",
    "ads": "campaign,ad group,headline 1,description 1,ref\n"
    "Search,Repair,Sash window repair,Cords too,a1\n",
}


class Market:
    """A market, and a client that speaks to it."""

    def __init__(self, folder: Path) -> None:
        self.folder = folder
        self.app = make_market(Database(folder / "market.db"), inline=True)
        self.http = TestClient(self.app, raise_server_exceptions=False)
        self.platform = HttpPlatform("http://testserver", self.http)  # type: ignore[arg-type] # httpx in all but name

    def open(self, once: str = "o", **more: Any) -> OpenAccount:
        return self.platform.open_account(OPENING | more, once)

    def send(self, account: OpenAccount, **sheets: str) -> dict[str, list[tuple[str, str, str]]]:
        """Send sheets; return state, code and ref of each row."""
        found = {}
        for kind, text in (sheets or SHEETS).items():
            number = self.platform.upload(account, kind, text.encode(), f"{kind}{len(text)}{text}"
                                          [:190])  # fmt: skip
            rows = self.platform.reply(account, number)
            found[kind] = [(row.state, row.code, row.ref) for row in rows]
        return found

    def close(self) -> None:
        self.app.state.database.close()


@pytest.fixture
def make_a_market(tmp_path: Path) -> Iterator[Callable[[], Market]]:
    made: list[Market] = []

    def make() -> Market:
        made.append(Market(tmp_path))
        return made[-1]

    yield make
    for one in made:
        one.close()


@pytest.fixture
def market(make_a_market: Callable[[], Market]) -> Market:
    return make_a_market()
