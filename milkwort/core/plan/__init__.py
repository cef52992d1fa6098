"""A whole plan worked out, and what follows from one: draws, year, budgets, notes."""
