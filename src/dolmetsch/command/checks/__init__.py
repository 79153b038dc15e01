"""What developers run: every check, and what checks are run on."""
