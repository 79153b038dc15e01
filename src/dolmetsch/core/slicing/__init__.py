"""What was made: slices, packs, how they keep, and where they went."""
