"""A set of several machines: its nodes, its proxy, and what watches over it."""
