"""Settings, addresses and the API put together."""
