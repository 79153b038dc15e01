"""A kitchen as a whole: starting one, its settings, units and clock, and putting the demo away."""
