"""The meal plans feature."""

from django.apps import AppConfig


class MealsConfig(AppConfig):
    """Names the feature for Django."""

    name = "dolmetsch.server.meals"
    label = "meals"

    def ready(self) -> None:
        """Show what plans hold among what lies in fridges and smokers."""
        # Django has the models only now
        from dolmetsch.server.lanes.queries import also_show
        from dolmetsch.server.meals.holding import list_stays

        also_show(list_stays)
