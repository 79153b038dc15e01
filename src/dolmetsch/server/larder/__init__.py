"""The larder: packs of finished batches, where they lie, and where they went."""
