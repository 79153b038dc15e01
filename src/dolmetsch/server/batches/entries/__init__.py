"""Entries: what was typed, the rows it is kept in, and the core's records made of them."""
