"""The hooks feature."""

from django.apps import AppConfig


class HooksConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.hooks"
    label = "hooks"

    def ready(self) -> None:
        """Count what hangs in chambers with what is in fires."""
        # Django has the models only now
        from dolmetsch.server.fires.alarms import count_also
        from dolmetsch.server.hooks.queries import count_hanging

        count_also(count_hanging)
