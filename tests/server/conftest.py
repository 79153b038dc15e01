"""A kitchen, its cook, and a client that speaks the API as the web client does."""

import base64
import json
import time
import uuid
from dataclasses import dataclass

import pytest
from django.test import Client, override_settings

from dolmetsch.server.batches.models import Entry
from dolmetsch.server.kitchens.models import Kitchen, Membership, User

BOUGHT = {
    "act": "bought",
    "cut": "jowl, skin on",
    "label_weight": "10.2 lb",
    "own_weight": "10 lb",
    "price_basis": "pack",
    "price": "20.00",
}
TRIM = {
    "act": "split",
    "kind": "trim",
    "piece": "lot",
    "pieces": [{"mark": "A", "weight": "5 lb"}, {"mark": "B", "weight": "3 lb"}],
    "cut_off": [{"name": "lean", "material": "lean", "weight": "1 lb", "worth": "price", "price": "2.50/lb"}],
}


def weigh(kind, **weights):
    lines = [{"mark": mark, "weight": weight} for mark, weight in weights.items()]
    return {"act": "weigh", "kind": kind, "weights": lines}


@dataclass
class Api:
    """Calls below one kitchen; answers are (status, body)."""

    client: Client
    slug: str

    def call(self, method, path, body=None, key=None):
        answer = self.client.generic(
            method,
            f"/api/kitchens/{self.slug}{path}",
            data=b"" if body is None else json.dumps(body),
            content_type="application/json",
            headers={"Idempotency-Key": str(key or uuid.uuid4())},
        )
        return answer.status_code, answer.json()

    def get(self, path):
        return self.call("GET", path)

    def start(self, name="Test jowl", bought=BOUGHT, key=None, **more):
        return self.call("POST", "/batches", {"name": name, "bought": bought, **more}, key)

    def started(self, **more):
        status, body = self.start(**more)
        assert status == 201, str(body)
        return body["batch"]["code"]

    def record(self, code, content, *, seen=None, key=None, **more):
        if seen is None:
            entries = Entry.objects.filter(batch__code=code, batch__kitchen__slug=self.slug)
            seen = entries.order_by("-sequence").values_list("sequence", flat=True)[0]
        return self.call("POST", f"/batches/{code}/entries", {"content": content, "seen": seen, **more}, key)

    def recorded(self, code, content, **more):
        status, body = self.record(code, content, **more)
        assert status == 201, str(body)
        return body

    def preview(self, code, content, **more):
        return self.call(
            "POST", f"/previews/batches/{code}/entries", {"content": content, "seen": 99, **more}
        )


def as_file(content, name="list"):
    """A file as it is sent."""
    content = content.encode() if isinstance(content, str) else content
    return {"name": name, "content": base64.b64encode(content).decode()}


def make_kitchen(slug, **more):
    if more.get("weight_unit") == "kg":
        more.setdefault("temperature_unit", "C")
    kitchen = Kitchen.objects.create(slug=slug, name=slug.title(), **more)
    user = User.objects.create(username=f"cook-of-{slug}")
    Membership.objects.create(user=user, kitchen=kitchen)
    return Api(client=sign_in(user), slug=slug)


def sign_in(user):
    """A client where ``user`` has just signed in."""
    client = Client()
    client.force_login(user)
    session = client.session
    session["since"] = session["seen"] = time.time()
    session.save()
    return client


@pytest.fixture(scope="session", autouse=True)
def files_when_asked_for():
    """Else each client lists all files of the web client anew, which takes longer than a request."""
    with override_settings(WHITENOISE_AUTOREFRESH=True):
        yield


@pytest.fixture
def api(db):
    return make_kitchen("test-kitchen")


@pytest.fixture
def other(db):
    return make_kitchen("other-kitchen")
