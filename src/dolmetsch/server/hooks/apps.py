"""The hooks feature."""

from django.apps import AppConfig


class HooksConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.hooks"
    label = "hooks"
