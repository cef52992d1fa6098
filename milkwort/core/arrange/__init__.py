"""Rules of structure: themes, groups and their words, negatives and what to block, conflicts."""
