"""The fires feature."""

from django.apps import AppConfig


class FiresConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.fires"
    label = "fires"

    def ready(self) -> None:
        """Let batches ask fires."""
        from dolmetsch.server.batches.models.fire_facts import use_fires
        from dolmetsch.server.fires.of_batch import KnownFires

        use_fires(KnownFires())
