"""The case check: offers at the meat case, ranked by what a sliced pound will come to."""
