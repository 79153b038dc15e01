"""Cures: recipes, ingoing nitrite, curing methods, time and cautions."""
