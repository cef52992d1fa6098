"""What the planner says: offers and their worth, platform, hours, limits. No keywords."""
