"""The practice feature."""

from django.apps import AppConfig


class PracticeConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.practice"
    label = "practice"
