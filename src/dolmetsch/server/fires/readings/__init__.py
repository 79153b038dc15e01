"""Readings of fires: heard, kept, thinned, taken in from a file; and what a cooker is asked to do."""
