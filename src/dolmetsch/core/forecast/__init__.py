"""How a kitchen makes something, what its steps keep, and what a batch will come to."""
