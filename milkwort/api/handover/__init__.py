"""Routes of Hand over."""
