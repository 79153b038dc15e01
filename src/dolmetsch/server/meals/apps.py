"""The meal plans feature."""

from django.apps import AppConfig


class MealsConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.meals"
    label = "meals"
