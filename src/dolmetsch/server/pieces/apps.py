"""The pieces feature."""

from django.apps import AppConfig


class PiecesConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.pieces"
    label = "pieces"
