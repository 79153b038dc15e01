"""Ways: how a kitchen makes something, saved under a name."""
