"""Speeds and sizes as figures: ``python -m bench [--no-browser]``. Nothing here passes or fails."""
