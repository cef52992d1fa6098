"""What the client shows of keywords, written out for it when its types are made.

``python -m milkwort.api.plan.shown`` prints the file.
"""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

import orjson

from milkwort.api.plan.columns import STORED
from milkwort.core.plan.figures import FIGURES

__all__ = ["client_columns"]

_HEAD = """\
/** Made by `make types` from the program's tables of what is said of keywords. */

import type { Figures, Texts } from "./client";

export type ShownColumn = {
  id: string;
  from: { texts: keyof Texts } | { figures: keyof Figures };
  heading: string;
  written: "money" | "count" | "number" | "percent" | "text";
  digits: number;
  /** Whether the list can show it as a plain column. */
  listed: boolean;
  /** What a filter by least and most calls it, a filter by values, and a comparison. */
  ranged: string;
  picked: string;
  compared: string;
};

export const shownColumns: readonly ShownColumn[] = """


def client_columns() -> str:
    """Return the client's table of columns as a TypeScript module."""
    rows: list[dict[str, Any]] = []
    for part, table in (("texts", STORED), ("figures", FIGURES)):
        for column in table:
            if column.shown is not None:
                shown = asdict(column.shown)
                rows.append({"id": shown.pop("id"), "from": {part: column.name}, **shown})
    return _HEAD + orjson.dumps(rows, option=orjson.OPT_INDENT_2).decode() + ";\n"


if __name__ == "__main__":
    print(client_columns(), end="")
