"""Results files held against a plan: rows matched to keywords, terms summed, all of it learnt."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date
from pathlib import Path
from typing import Any

import numpy as np

from milkwort.core.arrays import Floats, Ints
from milkwort.core.assumptions import Assumed
from milkwort.core.gather.likeness import nearest_text
from milkwort.core.learn.learned import learned_of
from milkwort.core.learn.results import exposure_of_spans
from milkwort.core.learn.seen import ResultRows
from milkwort.core.learn.terms import TermRows
from milkwort.core.plan.run import PlanResult
from milkwort.core.words.lexicon import Lexicon
from milkwort.core.words.match_types import MATCHES
from milkwort.core.words.texts import normalise
from milkwort.formats.keyword_rows import TablePlaces
from milkwort.formats.learn_json import learn_document
from milkwort.formats.result_remarks import said_of_sums
from milkwort.formats.result_rows import ResultFile, places_of, read_result_rows
from milkwort.formats.text_table import read_text_table

__all__ = ["learned_document", "result_rows_of", "term_rows_of"]


def learned_document(
    result: PlanResult,
    lexicon: Lexicon,
    texts: Sequence[str],
    places: TablePlaces,
    results: Path,
    terms: Path | None,
    as_of: date | None,
) -> tuple[dict[str, Any], list[str]]:
    """Read results, hold them against a plan, and return LEARN.json as plain values.

    Parameters
    ----------
    result : PlanResult
    lexicon : Lexicon
    texts : sequence of str
        Keywords as typed.
    places : TablePlaces
    results, terms : Path
        Files; terms may be left out.
    as_of : date or None
        Up to which is reported; the last day in the file for None.

    Returns
    -------
    document : dict
    remarks : list of str
        Rows that were refused.
    """
    currency = result.brief.currency
    file = _read(results, currency)
    known = {
        (text, MATCHES[match]): row
        for row, (text, match) in enumerate(
            zip(result.table.texts, result.table.match.tolist(), strict=True)
        )
    }
    keyword = places_of(file, {}, known)
    rows = result_rows_of(file, keyword)
    day = as_of or date.fromordinal(int(file.last.max()))
    term_file = None if terms is None else _read(terms, currency)
    typed = None
    if term_file is not None:
        served = places_of(term_file, {}, known)
        typed = term_rows_of(term_file, served, day.toordinal(), result.brief.assumed)
    learned = learned_of(result, lexicon, rows, day, typed)
    refused = [*file.refused, *(term_file.refused if term_file is not None else ())]
    document = learn_document(
        result, learned, texts, [name for _, name in places.groups], typed,
        _unmatched(file, keyword, texts), refused,
    )  # fmt: skip
    remarks = [*_said(file), *(_said(term_file) if term_file is not None else ())]
    return document, [*remarks, *(str(one) for one in refused)]


def _said(file: ResultFile) -> list[str]:
    return [*said_of_sums([f"{row:,}" for row in file.sums]), *file.remarks]


def result_rows_of(file: ResultFile, keyword: Ints) -> ResultRows:
    """Return rows of a file, each with the row of the plan's table it is about."""
    f = file.figures
    return ResultRows(
        keyword=keyword, first=file.first, last=file.last, impressions=file.as_said("impressions"),
        clicks=f["clicks"], cost=file.cost, customers=f["customers"], could_show=f["could_show"],
        lost_to_money=f["lost_to_money"], enquiries=f["enquiries"],
        invalid_clicks=f["invalid_clicks"], sold_told=~file.untold["customers"],
    )  # fmt: skip


def term_rows_of(file: ResultFile, keyword: Ints, as_of: int, assumed: Assumed) -> TermRows:
    """Return the terms of a file summed, each once by the keyword that served it."""
    place: dict[tuple[str, int], int] = {}
    bare = {text: normalise(text) for text in set(file.term)}
    keys = [(bare[text], row) for text, row in zip(file.term, keyword.tolist(), strict=True)]
    at = np.array([place.setdefault(key, len(place)) for key in keys], dtype=np.int64)
    first: dict[int, str] = {}
    for number, text in zip(at.tolist(), file.term, strict=True):
        first.setdefault(number, text)
    exposed = file.figures["clicks"] * exposure_of_spans(file.first, file.last, as_of, assumed)
    exposed *= ~file.untold["customers"]

    def sums(values: Floats) -> Floats:
        return np.bincount(at, values, minlength=len(place)).astype(np.float64)

    return TermRows(
        texts=tuple(first[number] for number in range(len(place))),
        keyword=np.array([row for _, row in place], dtype=np.int64),
        impressions=sums(file.figures["impressions"]), clicks=sums(file.figures["clicks"]),
        exposure=sums(exposed), cost=sums(file.cost), customers=sums(file.figures["customers"]),
    )  # fmt: skip


def _read(path: Path, currency: str) -> ResultFile:
    table = read_text_table(path.read_bytes(), path.name)
    return read_result_rows(table, path.name, currency=currency)


def _unmatched(file: ResultFile, keyword: Ints, texts: Sequence[str]) -> list[dict[str, Any]]:
    """Return the rows of no keyword, each text once, with the nearest keyword."""
    found: dict[tuple[str, str], dict[str, Any]] = {}
    for at in np.flatnonzero(keyword < 0).tolist():
        key = (file.keyword[at], file.match[at])
        if key not in found:
            found[key] = {"row": int(file.row[at]), "keyword": key[0], "match": key[1],
                          "clicks": 0.0, "customers": 0.0, "cost": 0.0,
                          "nearest": nearest_text(key[0], texts)}  # fmt: skip
        found[key]["clicks"] += float(file.figures["clicks"][at])
        found[key]["customers"] += float(file.figures["customers"][at])
        found[key]["cost"] += float(file.cost[at])
    return list(found.values())
