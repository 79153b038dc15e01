"""A simulated drying chamber."""
