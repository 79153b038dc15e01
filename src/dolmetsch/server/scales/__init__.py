"""Scales: one thread reads each; any number of listeners get a stream of events."""
