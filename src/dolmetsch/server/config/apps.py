"""The program as a whole."""

from django.apps import AppConfig


class WholeConfig(AppConfig):
    """Connects the features once all of them are there; it has no tables of its own."""

    name = "dolmetsch.server.config"

    def ready(self) -> None:
        """Have features answer those below them."""
        # Django has the models only now
        from dolmetsch.server.config.answers import connect

        connect()
