"""The API, put together from its features."""

from typing import Literal

from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.security import django_auth

from dolmetsch.core.documents.answers import SCHEMAS
from dolmetsch.server.batches.api import router as batches
from dolmetsch.server.batches.outlook_api import router as outlooks
from dolmetsch.server.cures.api import router as cures
from dolmetsch.server.diary.api import router as diary
from dolmetsch.server.kitchens.api import router as kitchens
from dolmetsch.server.labels.api import router as labels
from dolmetsch.server.offers.api import router as offers
from dolmetsch.server.pieces.api import router as pieces
from dolmetsch.server.plans.api import router as plans
from dolmetsch.server.prices.api import router as prices
from dolmetsch.server.problems import install_handlers
from dolmetsch.server.scales.api import router as scales
from dolmetsch.server.ways.api import router as ways

SchemaName = Literal["batch", "sheet", "cure", "cure-answer"]
api = NinjaAPI(title="Dolmetsch", version="1", urls_namespace="api", auth=django_auth, docs_url=None)
install_handlers(api)
api.add_router("", kitchens)


@api.get("/schemas/{name}", auth=None, operation_id="getSchema")
def get_schema(request: HttpRequest, name: SchemaName) -> HttpResponse:
    """The JSON Schema of a document or of an answer: batch, sheet, cure, cure-answer."""
    told = (SCHEMAS / f"{name}.schema.json").read_bytes()
    return HttpResponse(told, content_type="application/schema+json")


for router in (batches, outlooks, prices, ways, offers, scales, pieces, plans, cures, labels, diary):
    api.add_router("/kitchens/{kitchen_slug}", router)
