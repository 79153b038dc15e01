"""The rules and the arithmetic: no interface, no clock, no I/O.

``quantity`` reads what a cook types, ``batch`` holds the records, ``ledger`` runs cost along
the chain of weighings, ``sheet`` answers what it came to, ``strip`` lays it out in columns.
"""
