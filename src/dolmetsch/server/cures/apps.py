"""The cures feature."""

from django.apps import AppConfig


class CuresConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.cures"
    label = "cures"

    def ready(self) -> None:
        """Let batches ask the desk."""
        from dolmetsch.server.batches.models.cure_facts import use_cures
        from dolmetsch.server.cures.queries import find_yield_methods

        use_cures(find_yield_methods)
