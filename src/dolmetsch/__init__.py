"""Dolmetsch: what house-cured meat really costs, from the price tag to the slice."""
