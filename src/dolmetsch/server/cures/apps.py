"""The cures feature."""

from django.apps import AppConfig


class CuresConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.cures"
    label = "cures"
