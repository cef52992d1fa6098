"""What the commands without a server make: bytes, and what there is to say of them.

A command that is given takes long enough to import; each takes what only it needs itself.
"""

from __future__ import annotations

from collections.abc import Callable
from datetime import date, datetime
from pathlib import Path
from typing import Any

from milkwort.choices import Format, LearningPolicy, TruthLevel
from milkwort.core.errors import NothingUsableError
from milkwort.formats import plan_result
from milkwort.formats.headless import headless_run

__all__ = ["compared", "learned", "planned", "practised"]


def planned(
    brief_path: Path, keywords_path: Path, format: Format, workings: str | None
) -> tuple[bytes, list[str]]:
    """Return a plan as it was asked for, or how a keyword's figures came about."""
    run = headless_run(brief_path, keywords_path)
    result, texts = run.result, run.texts
    if workings is not None:
        return _workings(result, texts, workings), run.remarks
    if format is Format.CSV:
        return plan_result.result_csv(result, texts).encode(), run.remarks
    if format is Format.TABLE:
        return plan_result.result_table(result, texts, run.refused).encode(), run.remarks
    document = plan_result.result_document(
        result, texts, run.refused, run.left_out, run.places, run.lexicon
    )
    return plan_result.result_json(document), run.remarks


def practised(
    brief: Path, keywords: Path, months: int, seed: int, seeds: str | None, level: TruthLevel,
    policy: LearningPolicy, start: datetime | None, progress: Callable[[int, int], None],
) -> tuple[bytes, list[str]]:  # fmt: skip
    """Return months lived in the practice market, as JSON; of many truths, every run."""
    import orjson

    from milkwort.practice import loop
    from milkwort.practice.runs import practised_all, seeds_of

    run = headless_run(brief, keywords)
    first = _next_month(date.today()) if start is None else start.date()
    practice = loop.Practice(run.result, run.lexicon, tuple(run.texts), level.value, policy.value,
                        months, first)  # fmt: skip
    if seeds is None:
        found: dict[str, Any] = loop.practised(practice, seed)
    else:
        found = {"runs": practised_all(practice, seeds_of(seeds), progress)}
    return orjson.dumps(found, option=orjson.OPT_INDENT_2), run.remarks


def learned(
    brief: Path, keywords: Path, results: Path, terms: Path | None, as_of: datetime | None
) -> tuple[bytes, list[str]]:
    """Return what results teach of a plan, as JSON."""
    from milkwort.formats.learn_headless import learned_document
    from milkwort.formats.learn_json import learn_json

    run = headless_run(brief, keywords)
    day = None if as_of is None else as_of.date()
    document, remarks = learned_document(
        run.result, run.lexicon, run.texts, run.places, results, terms, day
    )
    return learn_json(document), [*run.remarks, *remarks]


def _next_month(today: date) -> date:
    return date(today.year + today.month // 12, today.month % 12 + 1, 1)


def compared(first: tuple[Path, Path], other: tuple[Path, Path]) -> tuple[bytes, list[str]]:
    """Return two plans side by side, as a table; each a brief and its keywords."""
    from milkwort.core.plan.differences import Side, differences
    from milkwort.core.plan.draws import draw_month
    from milkwort.core.plan.versions import apart, standing
    from milkwort.formats.compare_table import compare_table

    runs = [headless_run(*first), headless_run(*other)]
    sides = [
        Side(run.result, tuple(name for _, name in run.places.groups), run.places.campaigns)
        for run in runs
    ]
    draws = [drawn for run in runs if (drawn := draw_month(run.result)) is not None]
    names = [run.result.brief.name for run in runs]
    if names[0] == names[1]:
        names = [first[0].stem, other[0].stem]
    table = compare_table(
        names, [standing(side) for side in sides], draws, differences(*sides), apart(*draws)
    )
    return table.encode(), [remark for run in runs for remark in run.remarks]


def _workings(result: Any, texts: list[str], wanted: str) -> bytes:
    from milkwort.core.words.texts import normalise

    places = [i for i, t in enumerate(result.table.texts) if t == normalise(wanted)]
    if not places:
        raise NothingUsableError(f'--workings: no keyword "{wanted}" in the file')
    return "\n".join(plan_result.workings_text(result, i, texts[i]) for i in places).encode()
