"""Books: what a kitchen knows after many batches, from what each of them keeps of itself."""
