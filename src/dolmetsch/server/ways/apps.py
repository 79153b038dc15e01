"""The ways feature."""

from django.apps import AppConfig


class WaysConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.ways"
    label = "ways"
