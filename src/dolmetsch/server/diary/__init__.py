"""The diary of a batch: everything in time order, with notes and photos."""
