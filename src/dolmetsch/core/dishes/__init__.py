"""Dishes: what a plate costs, part by part, and what to charge for it."""
