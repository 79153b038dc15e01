"""The API, put together from its features."""

from ninja import NinjaAPI
from ninja.security import django_auth

from dolmetsch.server.batches.api import router as batches
from dolmetsch.server.kitchens.api import router as kitchens
from dolmetsch.server.problems import install_handlers

api = NinjaAPI(title="Dolmetsch", version="1", urls_namespace="api", auth=django_auth, docs_url=None)
install_handlers(api)
api.add_router("", kitchens)
api.add_router("/kitchens/{kitchen_slug}", batches)
