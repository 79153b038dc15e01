"""The days on which something is due."""
