"""Briefs to start from: sensible figures for a kind of business, all still to be entered."""

from __future__ import annotations

from typing import Any

__all__ = ["TEMPLATES"]

TEMPLATES: dict[str, dict[str, Any]] = {
    "service": {
        "offer_name": "a job", "sale_value": 250.0, "gross_margin": 0.5,
        "sales_per_customer": 1.2, "rate_low": 0.05, "rate_likely": 0.08, "rate_high": 0.12,
        "close_low": 0.3, "close_likely": 0.4, "close_high": 0.5, "monthly_spend": 500.0,
        "ceiling_rule": "profit_share", "ceiling_value": 0.3,
    },
    "shop": {
        "offer_name": "an order", "sale_value": 60.0, "gross_margin": 0.4,
        "sales_per_customer": 1.4, "rate_low": 0.015, "rate_likely": 0.025, "rate_high": 0.04,
        "monthly_spend": 400.0, "ceiling_rule": "cost_of_sale", "ceiling_value": 0.2,
        "goal": "profit",
    },
    "subscription": {
        "offer_name": "a month’s subscription", "sale_value": 12.0, "gross_margin": 0.8,
        "sales_per_customer": 9.0, "rate_low": 0.04, "rate_likely": 0.07, "rate_high": 0.11,
        "close_low": 0.15, "close_likely": 0.25, "close_high": 0.35, "monthly_spend": 600.0,
        "ceiling_rule": "profit_share", "ceiling_value": 0.4,
    },
}  # fmt: skip
"""By kind: a service sold by enquiry, a web shop, an app or subscription (trial, then paid)."""
