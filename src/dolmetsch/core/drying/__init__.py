"""A piece on the hook: what it has lost, when it is dry, how it ferments, whether a hard rim is closing it.

Weights are exact grams, temperatures exact °F, times exact seconds since 1970 (``numbers.moment``).
"""
