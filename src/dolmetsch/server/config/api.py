"""The API, put together from its features."""

import json
from functools import lru_cache
from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.openapi.schema import OpenAPISchema
from ninja.security import django_auth

from dolmetsch.core.documents.answers import SCHEMAS
from dolmetsch.server.access.api import router as access
from dolmetsch.server.access.guard import guard_operations
from dolmetsch.server.access.own_api import router as own
from dolmetsch.server.archive.api import router as archive
from dolmetsch.server.batches.api import router as batches
from dolmetsch.server.batches.forecast.api import router as outlooks
from dolmetsch.server.books.api import router as books
from dolmetsch.server.cures.api import router as cures
from dolmetsch.server.diary.api import router as diary
from dolmetsch.server.dishes.api import router as dishes
from dolmetsch.server.finding.api import router as finding
from dolmetsch.server.fires.api import router as fires
from dolmetsch.server.history.api import router as history
from dolmetsch.server.hooks.api import router as hooks
from dolmetsch.server.house.api import router as house
from dolmetsch.server.labels.api import router as labels
from dolmetsch.server.lanes.api import router as lanes
from dolmetsch.server.larder.api import router as larder
from dolmetsch.server.meals.api import router as meals
from dolmetsch.server.offers.api import router as offers
from dolmetsch.server.people.api import door
from dolmetsch.server.people.api import router as people
from dolmetsch.server.pieces.api import router as pieces
from dolmetsch.server.plans.api import router as plans
from dolmetsch.server.practice.api import router as practice
from dolmetsch.server.prices.api import router as prices
from dolmetsch.server.problems import Problem, install_handlers
from dolmetsch.server.responses import answer_with
from dolmetsch.server.scales.api import router as scales
from dolmetsch.server.tastings.api import router as trials
from dolmetsch.server.tastings.api import table
from dolmetsch.server.ways.api import router as ways

SchemaName = Literal[
    "batch", "sheet", "cure", "cure-answer", "cook", "cook-answer", "drying", "drying-answer"
]


class DocumentedAPI(NinjaAPI):
    """The API with a document that says of every operation how it refuses: by a problem document."""

    def get_openapi_schema(self, *args: Any, **kwargs: Any) -> OpenAPISchema:
        """As Ninja writes it, with the refusals."""
        document = super().get_openapi_schema(*args, **kwargs)
        problem = Problem.model_json_schema(ref_template="#/components/schemas/{model}")
        content = {"application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}}
        components = document["components"]
        components["schemas"] |= {**problem.pop("$defs"), "Problem": problem}
        components["responses"] = {"Refusal": {"description": "Why it was refused", "content": content}}
        for path in document["paths"].values():
            for operation in path.values():
                operation["responses"]["default"] = {"$ref": "#/components/responses/Refusal"}
        return document


api = DocumentedAPI(
    title="Dolmetsch", version="1", urls_namespace="api", auth=django_auth, docs_url=None, openapi_url=None
)
install_handlers(api)
for router in (access, own, house, door, table):
    api.add_router("", router)


@lru_cache(maxsize=1)
def _document() -> bytes:
    """Written once a process: it takes seconds, and never differs."""
    return json.dumps(api.get_openapi_schema(), ensure_ascii=False).encode()


@api.get("/openapi.json", auth=None, operation_id="getOpenApi", include_in_schema=False)
def get_openapi(request: HttpRequest) -> HttpResponse:
    """This API's document."""
    return HttpResponse(
        _document(), content_type="application/json", headers={"Cache-Control": "max-age=3600"}
    )


@api.get(
    "/schemas/{name}",
    auth=None,
    operation_id="getSchema",
    openapi_extra=answer_with("application/schema+json"),
)
def get_schema(request: HttpRequest, name: SchemaName) -> HttpResponse:
    """The JSON Schema of a document or of an answer."""
    schema = (SCHEMAS / f"{name}.schema.json").read_bytes()
    return HttpResponse(schema, content_type="application/schema+json")


for router in (
    batches,
    outlooks,
    prices,
    ways,
    offers,
    scales,
    pieces,
    plans,
    cures,
    labels,
    diary,
    fires,
    hooks,
    practice,
    larder,
    dishes,
    lanes,
    meals,
    finding,
    books,
    trials,
    archive,
    history,
    people,
):
    api.add_router("/kitchens/{kitchen_slug}", router)
guard_operations(api)
