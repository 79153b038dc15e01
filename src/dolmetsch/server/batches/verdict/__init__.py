"""House or shop: the verdict on a batch, trials, and the list of verdicts."""
