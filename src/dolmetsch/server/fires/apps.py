"""The fires feature."""

from django.apps import AppConfig


class FiresConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.fires"
    label = "fires"
