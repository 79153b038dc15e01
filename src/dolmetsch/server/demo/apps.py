"""The demo feature."""

from django.apps import AppConfig


class DemoConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.demo"
    label = "demo"
