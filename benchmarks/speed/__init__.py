"""How quick it is: written to docs/speed.md."""
