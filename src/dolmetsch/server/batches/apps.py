"""The batches feature."""

from django.apps import AppConfig


class BatchesConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.batches"
    label = "batches"
