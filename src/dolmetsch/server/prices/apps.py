"""The prices feature."""

from django.apps import AppConfig


class PricesConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.prices"
    label = "prices"
