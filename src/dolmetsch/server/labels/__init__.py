"""Labels for pieces and tubs: sheets of them as PDF, and one by one from a label printer."""
