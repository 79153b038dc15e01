"""Exact numbers, and reading and spelling the quantities cooks type."""
