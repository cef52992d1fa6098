"""What is odd about a brief that is still possible."""

from __future__ import annotations

from milkwort.core.brief.brief import Brief

__all__ = ["FEW_CLICKS", "strange"]

FEW_CLICKS = 10
"""A purse that buys fewer at the ceiling teaches nothing."""


def strange(brief: Brief) -> list[str]:
    """Return what is odd about a brief, in sentences.

    Parameters
    ----------
    brief : Brief
    """
    worth, said = brief.worth, []
    least = brief.assumed["min_bid"]
    if worth.ceiling < least:
        said.append(
            f"The ceiling of {worth.ceiling:.2f} is under the least bid of {least:.2f}: "
            "no click is cheap enough."
        )
    elif 0 < brief.monthly_spend < FEW_CLICKS * worth.ceiling:
        said.append(
            f"{brief.monthly_spend:g} a month buys fewer than ten clicks at the ceiling: "
            "too few to learn from."
        )
    if brief.monthly_spend == 0:
        said.append("The purse is empty: nothing will run.")
    if worth.rate.likely == 0:
        said.append("A conversion rate of 0: no click is worth anything.")
    if brief.ceiling.may_pay_to_learn and worth.allowed > worth.contribution:
        said.append("The allowed cost passes what a customer brings: this pays to learn.")
    return said
