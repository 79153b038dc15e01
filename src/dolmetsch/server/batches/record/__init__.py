"""Writing: starting a batch, recording and correcting entries, and what follows for linked batches."""
