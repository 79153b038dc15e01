"""Management of fires."""
