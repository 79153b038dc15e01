"""Cures: recipes, the cure desk, what went into the cure, mixes made, and the limits that count here."""
