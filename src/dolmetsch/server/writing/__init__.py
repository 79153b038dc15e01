"""The one way to write: once, under the kitchen's lock."""
