"""Trials: pieces or batches side by side, and blind tastings of them."""
