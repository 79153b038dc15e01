"""The kitchens feature."""

from django.apps import AppConfig


class KitchensConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.kitchens"
    label = "kitchens"
