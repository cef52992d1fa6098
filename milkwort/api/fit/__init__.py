"""Routes of Fit."""
