"""Routes of Gather: sources, trays, rivals, what ran before."""
