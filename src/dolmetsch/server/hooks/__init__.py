"""Hooks: pieces that hang to dry, what they have lost, and when they are dry."""
