"""Tables as files: read, matched, written piece by piece; and written to take away."""
