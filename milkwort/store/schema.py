"""The revision of the tables: that of the newest migration."""

__all__ = ["SCHEMA"]

SCHEMA = "0017"
"""A file made anew is made as it, and changes are written under it."""
