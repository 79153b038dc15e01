"""The rules and the arithmetic: no interface, no clock, no I/O. A folder a subject, each above those it uses.

``numbers`` reads what a cook types, ``ledger`` holds the records and runs cost along the chain of
weighings, ``costing`` answers what it came to; ``curing``, ``meat``, ``forecast``, ``buying`` and
``planning`` are the rest of the work, ``reference`` its figures, ``documents`` the open formats.
"""
