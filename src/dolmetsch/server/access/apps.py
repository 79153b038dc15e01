"""Signing in."""

from django.apps import AppConfig


class AccessConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.access"
    label = "access"
