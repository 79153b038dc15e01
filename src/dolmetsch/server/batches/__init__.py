"""Batches: their append-only entries, and what is read from them."""
