"""The history feature."""

from django.apps import AppConfig


class HistoryConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.history"
    default_auto_field = "django.db.models.BigAutoField"
