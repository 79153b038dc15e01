"""Every operation of the API by every role, and from another kitchen: generated from the API document."""

import json
import re
import uuid
from pathlib import Path

import pytest
from django.test import Client

from dolmetsch.server.access.rules import RULES
from dolmetsch.server.audit.models import AuditRow
from dolmetsch.server.kitchens.models import Kitchen, Membership, Role, User
from tests.server.conftest import TRIM, sign_in
from tests.server.test_kitchens_apart import count_rows, fill, ids  # noqa: F401 (a fixture)

DOCUMENT = json.loads((Path(__file__).parents[2] / "docs/openapi.json").read_text())
OPERATIONS = [
    (facts["operationId"], method.upper(), path)
    for path, methods in DOCUMENT["paths"].items()
    for method, facts in methods.items()
]
IN_KITCHEN = [one for one in OPERATIONS if "{kitchen_slug}" in one[2]]
#: Reads that take their question in a body.
ASKING = re.compile(r"^(preview|check|try|read|get|ask)[A-Z]")
#: What would end the session, or never ends itself.
APART = {"makeTablet", "leaveKitchen", "listenToScale", "listenToCooker", "exportEverything"}


def people(slug):
    """A client for each role."""
    kitchen = Kitchen.objects.get(slug=slug)
    clients = {}
    for role in Role:
        user = User.objects.create(username=f"the-{role}")
        Membership.objects.create(user=user, kitchen=kitchen, role=role)
        clients[role] = sign_in(user)
    return clients


def ask(client, method, address):
    return client.generic(
        method,
        address,
        data=json.dumps({"content": TRIM, "seen": 2}),
        content_type="application/json",
        headers={"Idempotency-Key": str(uuid.uuid4())},
    )


def test_every_operation_has_a_rule_and_every_rule_an_operation():
    known = {name for name, _, _ in OPERATIONS}
    # served, and left out of the document
    assert set(RULES) - known == {"getOpenApi", "recordNewsAsBefore"}
    assert known - set(RULES) == set()


def test_whatever_writes_says_what_and_asks_for_a_helper_at_least():
    for name, method, path in IN_KITCHEN:
        rule = RULES[name]
        assert not rule.is_open, name
        assert rule.least is not None, name
        if method == "GET" or ASKING.match(name):
            continue
        least = Role.READER if name in ("leaveKitchen", "setTabletCode") else Role.HELPER
        assert rule.least.covers(least), name
        silent = {"commandScale", "layOnScale", "printLabels", "commandCooker"}
        assert bool(rule.words) == (name not in silent), (name, path)


@pytest.mark.django_db
def test_each_role_may_do_what_its_rule_says_and_no_more(api, ids):
    clients = people(api.slug)
    assert len(IN_KITCHEN) > 130
    before = count_rows()
    refused = 0
    for name, method, path in IN_KITCHEN:
        for role, client in clients.items():
            if role.covers(RULES[name].least):
                continue
            answer = ask(client, method, fill(path, api.slug, ids))
            refused += 1
            assert answer.status_code == 403, (name, role, answer.content[:200])
            assert answer.json()["code"] == "not_allowed", (name, role)
    after = count_rows()
    # nothing was written but that it was refused
    assert after.pop("audit_auditrow") - before.pop("audit_auditrow") == refused > 170
    assert after == before
    assert AuditRow.objects.filter(outcome="refused").count() == refused


@pytest.mark.django_db
@pytest.mark.parametrize("role", list(Role))
def test_each_role_is_let_in_where_its_rule_says(api, ids, role):
    client = people(api.slug)[role]
    for name, method, path in IN_KITCHEN:
        if name in APART or not role.covers(RULES[name].least):
            continue
        answer = ask(client, method, fill(path, api.slug, ids))
        assert answer.status_code not in (401, 403, 500), (name, role, answer.content[:200])


@pytest.mark.django_db
def test_a_stranger_is_asked_to_sign_in_everywhere_but_at_what_is_open(api, ids):
    for name, method, path in OPERATIONS:
        answer = ask(Client(), method, fill(path, api.slug, ids))
        if RULES[name].is_open:
            assert b"signed_out" not in answer.content, name
        else:
            assert answer.status_code == 401, (name, answer.content[:200])


@pytest.mark.django_db
def test_every_open_write_needs_the_pages_token_but_a_tasters():
    stranger = Client(enforce_csrf_checks=True)
    opened = [one for one in OPERATIONS if RULES[one[0]].is_open and one[1] != "GET"]
    assert len(opened) > 4
    for name, method, path in opened:
        answer = ask(stranger, method, re.sub(r"{\w+}", "x", path))
        assert (answer.json()["code"] == "stale_page") == (name != "handIn"), (name, answer.content[:200])


@pytest.mark.django_db
def test_who_left_or_sits_in_another_kitchen_finds_none_of_it(api, other, ids):
    former = User.objects.create(username="former")
    kitchen = Kitchen.objects.get(slug=api.slug)
    Membership.objects.create(user=former, kitchen=kitchen, left_at="2026-01-02T03:04:05Z")
    for client in (sign_in(former), other.client):
        for name, method, path in IN_KITCHEN:
            answer = ask(client, method, fill(path, api.slug, ids))
            assert answer.status_code == 404, (name, answer.content[:200])
