"""A kitchen as a whole."""

from django.apps import AppConfig


class HouseConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.house"
    label = "house"
