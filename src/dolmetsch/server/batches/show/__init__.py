"""A batch as it is shown: its page, its summary, the lists it stands in."""
