"""Routes of Arrange: groups, structures, negatives, conflicts."""
