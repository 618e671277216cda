"""Store, cache, workers and journal; no interface code."""
