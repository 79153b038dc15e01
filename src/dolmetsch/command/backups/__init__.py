"""Backups: written, sealed, kept by the day, brought back."""
