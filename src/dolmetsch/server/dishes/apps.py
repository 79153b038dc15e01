"""The dishes feature."""

from django.apps import AppConfig


class DishesConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.dishes"
    label = "dishes"
