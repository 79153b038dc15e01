"""A cook followed by its probes: how hot inside, how safe, how fast it cools, when ready, what is wrong.

Temperatures are exact °F, times exact seconds since 1970 (``numbers.moment``).
"""
