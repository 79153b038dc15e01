"""The diary feature."""

from django.apps import AppConfig


class DiaryConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.diary"
    label = "diary"
