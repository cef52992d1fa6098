"""A plan out of two files, without a server: a brief, and a sheet of keywords."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from milkwort.core.arrange.structures import lexicon_of
from milkwort.core.errors import Refusal
from milkwort.core.plan.run import PlanResult, run_plan
from milkwort.core.words.lexicon import Lexicon
from milkwort.formats.brief_lists import with_places
from milkwort.formats.brief_toml import read_brief
from milkwort.formats.keyword_rows import (
    TablePlaces,
    columns_by_heading,
    read_keyword_rows,
    table_of,
)
from milkwort.formats.refused_rows import no_usable_row
from milkwort.formats.text_table import read_text_table

__all__ = ["HeadlessRun", "headless_run"]


@dataclass(frozen=True)
class HeadlessRun:
    """A plan that was run, with what was read for it.

    Attributes
    ----------
    result : PlanResult
    texts : list of str
        Of the keywords, as written.
    refused : sequence of Refusal
    left_out : list of str
        What of the brief could not be taken, in sentences.
    places : TablePlaces
    lexicon : Lexicon
    """

    result: PlanResult
    texts: list[str]
    refused: Sequence[Refusal]
    left_out: list[str]
    places: TablePlaces
    lexicon: Lexicon

    @property
    def remarks(self) -> list[str]:
        """Everything that was not taken, in sentences."""
        return [*map(str, self.refused), *self.left_out]


def headless_run(brief_path: Path, keywords_path: Path) -> HeadlessRun:
    """Read a brief and keywords, and work the plan out.

    Parameters
    ----------
    brief_path, keywords_path : Path

    Raises
    ------
    NothingUsableError
        Where no row can be used.
    """
    read = read_brief(brief_path.read_bytes(), brief_path.name)
    cells = read_text_table(keywords_path.read_bytes(), keywords_path.name)
    offers = [offer.name for offer in read.brief.offers]
    rows = read_keyword_rows(cells, columns_by_heading(cells), offers=("", *offers))
    if not rows.taken:
        raise no_usable_row(keywords_path.name, rows.refused)
    lexicon = lexicon_of(read.brief)
    first = read.lists.first_names
    table, places = table_of(rows.taken, read.brief.volume_basis, offers, lexicon, first)
    brief, left_out = with_places(read.brief, read.lists, places)
    texts = [row.text for row in rows.taken]
    return HeadlessRun(run_plan(brief, table), texts, rows.refused, [*read.left_out, *left_out],
                       places, lexicon)  # fmt: skip
