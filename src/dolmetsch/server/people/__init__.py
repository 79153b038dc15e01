"""Who is in a kitchen: invitations, roles, leaving, the tablet's codes, and who did what."""
