"""Sheets to take away: one page as PDF, the ledger as CSV and XLSX."""
