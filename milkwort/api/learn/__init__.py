"""Learn: results in, what they teach, and what is decided by it."""
