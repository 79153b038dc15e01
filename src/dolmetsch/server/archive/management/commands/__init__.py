"""Commands of the archive: export and import of a whole kitchen."""
