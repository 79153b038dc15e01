"""Kitchens (the tenants), the people who cook in them, and signing in."""
