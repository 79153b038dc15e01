"""The larder feature."""

from django.apps import AppConfig


class LarderConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.larder"
    label = "larder"
