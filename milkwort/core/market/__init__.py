"""Keywords as columns, and what the market makes of them: searches, prices, standing, forecasts."""
