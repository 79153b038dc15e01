"""Plans: what is to be done with pieces and when, ticked off or moved, and as a calendar."""
