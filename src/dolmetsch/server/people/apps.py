"""The people feature."""

from django.apps import AppConfig


class PeopleConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.people"
    label = "people"
