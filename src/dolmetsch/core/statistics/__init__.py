"""Statistics of a kitchen's books: spreads, differences, slopes, and blind tastings. In floating point."""
