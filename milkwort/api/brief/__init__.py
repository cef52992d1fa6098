"""Routes of the brief."""
