"""Milkwort: a planner for small paid-search budgets."""

__version__ = "0.1.0"
__all__ = ["__version__"]
