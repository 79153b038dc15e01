"""The trials feature."""

from django.apps import AppConfig


class TastingsConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.tastings"
    default_auto_field = "django.db.models.BigAutoField"
