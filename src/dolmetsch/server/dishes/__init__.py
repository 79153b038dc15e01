"""Dishes: what a plate costs and leaves, and what it takes out of the larder."""
