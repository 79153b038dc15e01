"""What a cut is, and what is learned by looking over and trimming it."""
