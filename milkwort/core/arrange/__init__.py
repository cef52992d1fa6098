"""Rules of structure: themes, groups and their figures, conflicts."""
