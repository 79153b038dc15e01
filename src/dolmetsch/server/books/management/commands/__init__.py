"""Commands of the books: the recount."""
