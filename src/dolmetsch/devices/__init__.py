"""Simulated devices: each a process of its own that speaks a plain, open line protocol over TCP.

They rank with real ones: whoever speaks the same lines takes their place (docs/devices.md).
"""
