"""What an offer would come to, and what was paid before."""
