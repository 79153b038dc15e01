"""Commands of fires: the collector."""
