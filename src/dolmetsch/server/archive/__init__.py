"""A whole kitchen as one ZIP of open files, and an empty kitchen filled from it."""
