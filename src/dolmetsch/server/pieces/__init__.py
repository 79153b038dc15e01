"""Pieces: how large they are, skin on or off, where they lie; looking meat over; the butcher's test."""
