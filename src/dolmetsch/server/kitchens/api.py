"""A kitchen's settings."""

from django.http import HttpRequest
from ninja import Router
from ninja.security import django_auth

from dolmetsch.server.kitchens.queries import kitchen_of
from dolmetsch.server.kitchens.schemas import SettingsIn
from dolmetsch.server.kitchens.settings import change_settings, show_settings
from dolmetsch.server.problems import Problem
from dolmetsch.server.responses import REFUSALS

router = Router(tags=["session"])


@router.get(
    "/kitchens/{kitchen_slug}/settings",
    response={200: SettingsIn, REFUSALS: Problem},
    operation_id="getSettings",
    auth=django_auth,
)
def get_settings(request: HttpRequest, kitchen_slug: str) -> SettingsIn:
    """What a kitchen counts by default, its scale, and how many slabs fit."""
    return show_settings(kitchen_of(request, kitchen_slug))


@router.put(
    "/kitchens/{kitchen_slug}/settings",
    response={200: SettingsIn, REFUSALS: Problem},
    operation_id="changeSettings",
    auth=django_auth,
)
def put_settings(request: HttpRequest, kitchen_slug: str, body: SettingsIn) -> SettingsIn:
    """Keep a kitchen's settings; batches already begun keep theirs."""
    return change_settings(kitchen_of(request, kitchen_slug), body)
