"""What the kitchen's past says, and what a batch will come to."""
