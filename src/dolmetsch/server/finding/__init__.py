"""Finding anything that was recorded by a word, a mark, a day or a code."""
