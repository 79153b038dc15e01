"""A simulated cooker: a fire, the meat in it, and the probes that read both."""
