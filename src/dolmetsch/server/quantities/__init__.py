"""Quantities as they are typed, kept and printed: shared by every feature of the server."""
