"""Signing in and out, the CSRF token, and what a stranger gets."""

import pytest
from django.test import Client

from dolmetsch.server.kitchens.models import User

SIGN_IN = {"username": "ida", "password": "long enough"}


@pytest.fixture
def ida(db):
    return User.objects.create_user(**SIGN_IN, first_name="Ida")


def test_sign_in_and_out(ida, client):
    assert client.get("/api/session").json()["signed_in"] is False
    result = client.post("/api/session", SIGN_IN, content_type="application/json").json()
    assert (result["signed_in"], result["name"], result["kitchens"]) == (True, "Ida", [])
    assert client.get("/api/session/alive").json() == {"alive": True}
    assert client.delete("/api/session").json()["signed_in"] is False
    answer = client.get("/api/session/alive")
    assert (answer.status_code, answer.json()["code"]) == (401, "signed_out")


def test_passwords_are_kept_by_argon2(ida):
    assert ida.password.startswith("argon2$argon2id$")


def test_the_demo_sign_in_is_told_only_in_a_demo(db, client, settings):
    settings.DEMO = False
    assert client.get("/api/session").json()["demo"] is None
    settings.DEMO = True
    assert client.get("/api/session").json()["demo"]["username"] == "maren"


def test_ten_wrong_passwords_make_a_pause(ida, client):
    wrong = {**SIGN_IN, "password": "wrong"}
    answers = [client.post("/api/session", wrong, content_type="application/json") for _ in range(11)]
    assert [answers[0].status_code, answers[-1].status_code] == [401, 429]
    assert [answers[0].json()["code"], answers[-1].json()["code"]] == ["wrong_sign_in", "locked_out"]
    assert client.post("/api/session", SIGN_IN, content_type="application/json").status_code == 429


def test_every_write_needs_the_pages_token(ida):
    client = Client(enforce_csrf_checks=True)
    refused = client.post("/api/session", SIGN_IN, content_type="application/json")
    assert (refused.status_code, refused.json()["code"]) == (403, "stale_page")
    client.get("/api/session")
    headers = {"X-CSRFToken": client.cookies["csrftoken"].value}
    assert (
        client.post("/api/session", SIGN_IN, content_type="application/json", headers=headers).status_code
        == 200
    )
    for path in ("/api/kitchens/x/batches", "/api/kitchens/x/batches/J-01/entries"):
        answer = client.post(path, {}, content_type="application/json")
        assert (answer.status_code, answer.json()["code"]) == (403, "stale_page")


@pytest.mark.parametrize("path", ["/today", "/batches/J-01"])
def test_a_stranger_gets_nothing(db, client, path):
    answer = client.get(f"/api/kitchens/salt-lantern{path}")
    assert (answer.status_code, answer["Content-Type"]) == (401, "application/problem+json")


def test_addresses_that_are_not_there_and_bodies_that_are_not_json(ida, client):
    assert client.get("/api/nothing").json()["code"] == "not_found"
    answer = client.post("/api/session", "{", content_type="application/json")
    assert (answer.status_code, answer.json()["code"]) == (400, "bad_request")


def test_too_much_and_the_wrong_method_are_problems_too(ida, client):
    client.force_login(ida)
    much = client.post("/api/session", b"x" * 3_000_000, content_type="application/json")
    assert (much.status_code, much.json()["code"]) == (413, "too_much")
    wrong = client.put("/api/kitchens/x/batches")
    assert (wrong.status_code, wrong.json()["code"]) == (405, "wrong_method")
    assert set(wrong["Allow"].split(", ")) == {"GET", "POST"}


def test_the_page_carries_its_policy(client):
    answer = client.get("/")
    assert "script-src 'self'" in answer["Content-Security-Policy"]
