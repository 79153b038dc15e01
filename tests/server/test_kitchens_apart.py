"""Another kitchen's ids at every address of the API: nothing is found, shown or written."""

import json
import re
import uuid
from pathlib import Path

import pytest
from django.db import connection

from dolmetsch.server.batches.models import Entry
from dolmetsch.server.prices.models import PriceItem
from tests.server.conftest import BOUGHT, TRIM

ROOT = Path(__file__).parents[2]
DOCUMENT = json.loads((ROOT / "docs/openapi.json").read_text())
OPERATIONS = [
    (method.upper(), path)
    for path, methods in DOCUMENT["paths"].items()
    for method in methods
    if "{kitchen_slug}" in path
]


#: Words that parts of an address take, in place of an id.
WORDS = {"form": "csv", "size": "large", "name": "batches"}
#: What addresses ask for besides.
ASKED = {"/owner-page": "?owner=Ibba"}


def count_rows():
    with connection.cursor() as cursor:
        tables = [name for name in connection.introspection.table_names(cursor) if "session" not in name]
        counts = {}
        for table in tables:
            cursor.execute(f"SELECT COUNT(*) FROM {table}")
            counts[table] = cursor.fetchone()[0]
        return counts


@pytest.fixture
def ids(api):
    """Ids of things in the first kitchen."""
    code = api.started()
    api.recorded(code, TRIM)
    price = {"sort": "meat", "name": "jowl", "source": "quay", "on": "2026-01-02", "price": "2.85"}
    assert api.call("POST", "/prices", price)[0] == 201
    return {
        "code": code,
        "mark": "A",
        "entry_id": str(Entry.objects.first().pk),
        "item_id": str(PriceItem.objects.get().pk),
    }


def fill(path, slug, ids):
    address = path.replace("{kitchen_slug}", slug)
    for part in re.findall(r"{(\w+)}", address):
        address = address.replace("{" + part + "}", ids.get(part) or WORDS.get(part, ids["item_id"]))
    return address + next((more for end, more in ASKED.items() if address.endswith(end)), "")


def test_every_address_of_another_kitchen_is_not_there(api, other, ids):
    before = count_rows()
    assert len(OPERATIONS) > 50
    for method, path in OPERATIONS:
        answer = other.client.generic(
            method,
            fill(path, api.slug, ids),
            data=json.dumps({"content": TRIM, "seen": 2, "name": "Jowl", "bought": BOUGHT}),
            content_type="application/json",
            headers={"Idempotency-Key": str(uuid.uuid4())},
        )
        # a body of another shape is refused before the kitchen is looked for
        expected = {404} if method == "GET" else {404, 422, 400}
        assert answer.status_code in expected, (method, path, answer.content[:200])
        assert b"jowl" not in answer.content.lower(), (method, path)
    assert count_rows() == before


def test_ids_of_another_kitchen_are_not_found_in_ones_own(api, other, ids):
    plain = ("files/{form}", "/stream", "/command", "/lay", "/{name}.{form}", "/audit.{form}")
    for method, path in OPERATIONS:
        if method != "GET" or "{" not in path.replace("{kitchen_slug}", "") or path.endswith(plain):
            continue
        answer = other.client.get(fill(path, other.slug, ids))
        assert answer.status_code in (404, 422), (path, answer.status_code)
