"""Scales: heard by one thread each, told to any number of listeners as a stream of events."""
