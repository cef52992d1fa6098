"""Write the parts of docs/model.md that come from the code: the assumptions and the example.

``python -m tools.model_doc`` writes them anew.
"""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import numpy as np

from milkwort.core.assumptions import TABLE
from milkwort.core.brief.brief import Brief
from milkwort.core.brief.worth import CeilingRule, Conversion, Offer
from milkwort.core.market.keyword_table import KeywordTable, blank_table
from milkwort.core.plan.run import run_plan
from milkwort.core.workings.keyword import keyword_workings

DOC = Path(__file__).parent.parent / "docs" / "model.md"


def written(text: str) -> str:
    """Return the page with its generated parts as they should be."""
    return _between(_between(text, "assumptions", _assumptions()), "example", _example())


def _between(text: str, name: str, content: str) -> str:
    start, end = f"<!-- {name} -->\n", f"<!-- end of {name} -->"
    before, _, rest = text.partition(start)
    _, _, after = rest.partition(end)
    return f"{before}{start}{content}{end}{after}"


def _assumptions() -> str:
    lines = ["| assumption | default | unit | why |", "|---|---|---|---|"]
    lines += [f"| {r.label} (`{r.name}`) | {r.value:.6g} | {r.unit} | {r.why} |"
              for r in TABLE.values()]  # fmt: skip
    return "\n".join(lines) + "\n"


def _example() -> str:
    result = run_plan(*_plan())
    lines = ["```"]
    for section in keyword_workings(result, 0):
        lines.append(section.title)
        for line in section.lines:
            value = line.text or ("" if line.value is None else f"{line.value:,.6g}")
            mark = "=" if line.result else " "
            lines.append(f"{mark} {line.label:<38}{value:>16}   {line.formula}".rstrip())
        lines.append("")
    return "\n".join([*lines[:-1], "```", ""])


def _plan() -> tuple[Brief, KeywordTable]:
    offer = Offer(340.0, 0.55, Conversion(0.02, 0.03, 0.045), 1.2)
    brief = Brief("Example", "GBP", 20.0, offer, CeilingRule("profit_share", 0.3))
    one = blank_table(["sash window repair"])
    return brief, replace(
        one,
        intent=np.zeros(1, dtype=np.int64),
        volume_low=np.array([320.0]),
        volume_high=np.array([320.0]),
        cpc_low=np.array([0.8]),
        cpc_high=np.array([2.4]),
        locked_bid=np.array([1.5]),
    )


if __name__ == "__main__":
    DOC.write_text(written(DOC.read_text(encoding="utf-8")), encoding="utf-8")
