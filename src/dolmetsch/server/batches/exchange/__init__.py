"""Batches in and out: documents, pages, tables."""
