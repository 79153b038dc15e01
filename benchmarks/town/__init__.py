"""A town of kitchens on one machine: written to docs/scale.md."""
