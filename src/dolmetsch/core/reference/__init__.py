"""Reference figures, each with its source. A kitchen may put its own, stricter or local, in their place.

Figures marked *practice* are common practice, not a rule; a *start value* is a first guess that the
kitchen's own records replace.
"""
