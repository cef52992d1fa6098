"""Texts as compared: normalised words, lexicons, who matches what, negatives. No figures."""
