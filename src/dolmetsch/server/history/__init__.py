"""Batches of before, brought in from a spreadsheet as finished batches of few weighings."""
