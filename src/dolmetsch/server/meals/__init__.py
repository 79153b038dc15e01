"""Meal plans: from what is to be served on a day back to what to buy and when to begin."""
