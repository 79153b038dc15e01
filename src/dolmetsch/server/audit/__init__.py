"""Who did what: a row for every write, every sign-in and every refusal."""
