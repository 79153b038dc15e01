"""Signing in and out, and who may."""
