"""Practice: a cook-through on a simulated fire, apart from every book."""
