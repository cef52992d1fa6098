"""One keyword out of one row of cells, or the cell it is refused for."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, TypeVar

from milkwort.core.market.keyword_table import CALLS
from milkwort.core.words.intents import INTENTS
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.texts import MAX_TEXT, normalise
from milkwort.formats.match_words import read_match, unwrapped
from milkwort.formats.named_rows import RefusedCellError
from milkwort.formats.numbers import Decimal, is_blank, read_number, read_range, read_share

__all__ = ["MONTHS", "KeywordRow", "RefusedCellError", "RowReader"]

_Read = TypeVar("_Read")

MOST_FIGURE = 1e12
"""No count and no price of a keyword is above this."""
MAX_NAME = 120
"""Characters of a campaign's or group's name."""
_TRADE_INTENTS = {"transactional": "buy", "commercial": "compare", "navigational": "firm",
                  "informational": "learn"}  # fmt: skip
MONTHS = tuple(f"m{n:02d}" for n in range(1, 13))


@dataclass(frozen=True, slots=True)
class KeywordRow:
    """One keyword as read.

    Attributes
    ----------
    row : int
        Row of the file.
    text, normalised : str
        As written, trimmed; and as compared.
    match, basis : str
        A match type; `basis` is what the volume counted, empty where not said.
    volume : tuple of float or None
        Ends of the range, searches a month; None where absent.
    cpc_low, cpc_high, rate, competition : float or None
        Money a click; customers per click; a share.
    months : tuple of float or None
        Twelve figures, January first.
    intent, call, group, campaign, offer : str
        `intent` is empty where the words are to say it, the others for none named.
    unpaid_rank, paid_rank, popularity : float or None
        `popularity` is an index of its source's own making, never searches.
    shown_at_bid : float or None
        The bid at which the volume counts showings; None where it counts searches.
    as_written : str
        What stood there, where the text was cleaned; else empty.
    """

    row: int
    text: str
    normalised: str
    match: str = "exact"
    basis: str = ""
    volume: tuple[float, float] | None = None
    cpc_low: float | None = None
    cpc_high: float | None = None
    rate: float | None = None
    competition: float | None = None
    months: tuple[float, ...] | None = None
    intent: str = ""
    call: str = "none"
    group: str = ""
    campaign: str = ""
    offer: str = ""
    unpaid_rank: float | None = None
    paid_rank: float | None = None
    popularity: float | None = None
    shown_at_bid: float | None = None
    as_written: str = ""

    @property
    def identity(self) -> tuple[str, str]:
        """What makes the keyword itself: its normalised text and match type."""
        return (self.normalised, self.match)


class RowReader:
    """Reads one row after another by the same columns."""

    def __init__(
        self,
        columns: Mapping[str, int],
        decimal: Decimal,
        call_if_absent: str,
        offers: Sequence[str],
        price_is_sum: bool,
        price_rate: float,
        clean: Callable[[str], str],
    ) -> None:
        self._price_is_sum = price_is_sum
        self._price_rate = price_rate
        self._clean = clean
        self._columns = columns
        self._decimal = decimal
        self._call_if_absent = call_if_absent
        self._offers = {o.casefold(): o for o in offers}
        self._months = all(m in columns for m in MONTHS)

    def read(self, number: int, cells: Sequence[str]) -> KeywordRow:
        """Return the keyword of a row.

        Raises
        ------
        RefusedCellError
            Where a cell of it can't be read.
        """

        def cell(name: str) -> str:
            at = self._columns.get(name)
            return cells[at].strip() if at is not None and at < len(cells) else ""

        written, match = _text_and_match(cell("keyword"), cell("match"))
        text = self._clean(written)
        if not normalise(text):
            raise RefusedCellError("keyword", "a text with at least one word", written)
        cpc_low, cpc_high = self._prices(cell)
        return KeywordRow(
            row=number,
            text=text,
            normalised=normalise(text),
            match=match,
            basis=_word("basis", cell("basis"), MATCHES, ""),
            volume=self._volume(cell),
            cpc_low=cpc_low,
            cpc_high=cpc_high,
            rate=self._share("rate", cell("rate")),
            competition=self._competition(cell("competition")),
            months=self._twelve(cell) if self._months else None,
            intent=_intent(cell("intent")),
            call=_word("call", cell("call"), CALLS, "none")
            if "call" in self._columns
            else self._call_if_absent,
            group=_name("group", cell("group")),
            campaign=_name("campaign", cell("campaign")),
            offer=self._offer(cell("offer")),
            unpaid_rank=self._rank("unpaid_rank", cell("unpaid_rank")),
            paid_rank=self._rank("paid_rank", cell("paid_rank")),
            popularity=self._popularity(cell("popularity")),
            shown_at_bid=self._price("shown_at_bid", cell("shown_at_bid")),
            as_written=written if written != text else "",
        )

    def _volume(self, cell: Callable[[str], str]) -> tuple[float, float] | None:
        if not is_blank(cell("volume")):
            low, high = self._number("volume", cell("volume"), "a number or a range of searches",
                                     read_range)  # fmt: skip
            column, said = "volume", cell("volume")
        else:
            ends = [c for c in ("volume_low", "volume_high") if not is_blank(cell(c))]
            if not ends:
                return None
            read = [self._number(c, cell(c), "a number of searches", read_number) for c in ends]
            low, high = read[0], read[-1]
            column, said = ends[0], cell(ends[0])
        if low < 0:
            raise RefusedCellError(column, "searches of 0 or more", said)
        if low > high:
            raise RefusedCellError(column, "a low end not above the high end", said)
        return (low, high)

    def _prices(self, cell: Callable[[str], str]) -> tuple[float | None, float | None]:
        """Return the prices of a click, in the plan's money; none where that is not known."""
        low, high = self._prices_as_written(cell)
        rate = self._price_rate
        return (low and low * rate) or None, (high and high * rate) or None

    def _prices_as_written(self, cell: Callable[[str], str]) -> tuple[float | None, float | None]:
        low, high = cell("cpc_low"), cell("cpc_high")
        values = [self._price("cpc_low", low), self._price("cpc_high", high)]
        if values[0] is not None and values[1] is not None and values[0] > values[1]:
            raise RefusedCellError("cpc_low", f"a price not above the high price ({high})", low)
        if values == [None, None] and not is_blank(cell("cost")):
            return self._per_click(self._price("cost", cell("cost")), cell), None
        if self._price_is_sum:
            return self._per_click(values[0], cell), self._per_click(values[1], cell)
        return values[0], values[1]

    def _per_click(self, money: float | None, cell: Callable[[str], str]) -> float | None:
        """Return the price of a click, of money and clicks of one period."""
        if money is None:
            return None
        said = cell("clicks")
        clicks = None if is_blank(said) else self._number("clicks", said, "a number", read_number)
        if not clicks or clicks < 0:
            raise RefusedCellError(
                "clicks", "clicks of the same period, to divide the money by", said
            )
        return money / clicks

    def _price(self, column: str, text: str) -> float | None:
        if is_blank(text):
            return None
        price = self._number(column, text, "a price above 0", read_number)
        if price < 0:
            raise RefusedCellError(column, "a price above 0", text)
        return price or None

    def _share(self, column: str, text: str) -> float | None:
        if is_blank(text):
            return None
        share = self._number(column, text, "a share from 0 to 1, or a percentage", read_share)
        if not 0 <= share <= 1:
            raise RefusedCellError(column, "a share from 0 to 1 (100 %)", text)
        return share

    def _competition(self, text: str) -> float | None:
        words = {"low": 0.2, "medium": 0.5, "high": 0.8}
        if text.casefold() in words:
            return words[text.casefold()]
        if is_blank(text):
            return None
        value = self._number(
            "competition", text, "low, medium, high or a share from 0 to 1", read_share
        )
        value = value / 100 if 1 < value <= 100 else value
        if not 0 <= value <= 1:
            raise RefusedCellError("competition", "low, medium, high or a share from 0 to 1", text)
        return value

    def _rank(self, column: str, text: str) -> float | None:
        if is_blank(text):
            return None
        rank = self._number(column, text, "a rank of 1 or more", read_number)
        if rank < 1:
            raise RefusedCellError(column, "a rank of 1 or more", text)
        return rank

    def _popularity(self, text: str) -> float | None:
        if is_blank(text):
            return None
        index = self._number("popularity", text, "an index of 0 or more", read_number)
        if index < 0:
            raise RefusedCellError("popularity", "an index of 0 or more", text)
        return index

    def _twelve(self, cell: Callable[[str], str]) -> tuple[float, ...] | None:
        texts = [cell(m) for m in MONTHS]
        if any(is_blank(t) for t in texts):
            return None
        values = [
            self._number(m, t, "a number of searches", read_number)
            for m, t in zip(MONTHS, texts, strict=True)
        ]
        for month, text, value in zip(MONTHS, texts, values, strict=True):
            if value < 0:
                raise RefusedCellError(month, "searches of 0 or more", text)
        return tuple(values)

    def _offer(self, text: str) -> str:
        if text and text.casefold() not in self._offers:
            raise RefusedCellError("offer", "the name of an offer of the brief", text)
        return self._offers.get(text.casefold(), "")

    def _number(
        self, column: str, text: str, expected: str, read: Callable[[str, Decimal], _Read]
    ) -> _Read:
        try:
            value = read(text, self._decimal)
        except ValueError:
            raise RefusedCellError(column, expected, text) from None
        most: Any = max(value) if isinstance(value, tuple) else value
        if not abs(most) <= MOST_FIGURE:
            raise RefusedCellError(column, f"a figure of at most {MOST_FIGURE:g}", text)
        return value


def _text_and_match(text: str, match: str) -> tuple[str, str]:
    """Return the keyword and its match type; marks round a pasted text say the latter."""
    bare, marked = unwrapped(text)
    text = " ".join(bare.split())
    if not normalise(text):
        raise RefusedCellError("keyword", "a text with at least one word", text)
    if len(text) > MAX_TEXT:
        raise RefusedCellError("keyword", f"at most {MAX_TEXT} characters", text)
    said = read_match(match) if match else marked or "exact"
    if said is None:
        raise RefusedCellError("match", "one of " + ", ".join(MATCHES), match)
    return text, said


def _intent(text: str) -> str:
    """Return an intent by its name here, or by the trade's words; of several the nearest to buy."""
    said = set(normalise(text).split())
    known = [ours for theirs, ours in _TRADE_INTENTS.items() if theirs in said]
    return known[0] if known else _word("intent", text, INTENTS, "")


def _name(column: str, text: str) -> str:
    name = " ".join(text.split())
    if len(name) > MAX_NAME:
        raise RefusedCellError(column, f"a name of at most {MAX_NAME} characters", text)
    return name


def _word(column: str, text: str, known: Sequence[str], if_blank: str) -> str:
    if not text:
        return if_blank
    word = text.casefold()
    if word not in known:
        raise RefusedCellError(column, "one of " + ", ".join(known), text)
    return word
