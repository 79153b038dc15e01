"""The archive feature."""

from django.apps import AppConfig


class ArchiveConfig(AppConfig):
    """Names the feature for Django; it has commands and no tables of its own."""

    name = "dolmetsch.server.archive"
