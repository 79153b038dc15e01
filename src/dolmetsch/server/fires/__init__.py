"""Fires: what is in which cooker, what its probes read, and what follows from it."""
