"""The larder feature."""

from django.apps import AppConfig


class LarderConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.larder"
    label = "larder"

    def ready(self) -> None:
        """Let batches ask the larder."""
        from dolmetsch.server.batches.models.pack_facts import use_packs
        from dolmetsch.server.larder.of_batch import KnownPacks

        use_packs(KnownPacks())
