"""Ad platforms: what one must be able to do, and the client that speaks to it over HTTP."""
