"""Commands of the books."""
