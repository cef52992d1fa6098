"""The arithmetic behind every figure, line by line. Nothing is computed here anew."""
