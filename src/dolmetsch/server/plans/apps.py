"""The plans feature."""

from django.apps import AppConfig


class PlansConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.plans"
    label = "plans"
