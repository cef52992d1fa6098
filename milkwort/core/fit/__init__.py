"""The bids that bring most for the money: fit, ladder, frontier, attention, bid methods."""
