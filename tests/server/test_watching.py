"""For who watches over it: health, metrics, request ids, and logs without secrets."""

import json
import logging
import shutil
from collections import namedtuple

import pytest
from django.conf import settings as configured
from django.db import DatabaseError, connection
from django.test import Client
from django.utils.module_loading import import_string

from dolmetsch.server.config.logs import Who, without_secrets

Usage = namedtuple("Usage", "total used free")


def test_health_says_whether_the_record_store_answers(db, client, monkeypatch):
    answer = client.get("/healthz")
    assert (answer.status_code, answer.json()["record_store"]) == (200, "up")

    def away():
        raise DatabaseError("gone")

    monkeypatch.setattr(connection, "cursor", away)
    answer = client.get("/healthz")
    assert (answer.status_code, answer.json()["record_store"]) == (503, "away")


@pytest.mark.parametrize(("free", "said"), [(1.4e9, "1.4 GB"), (2.1e9, None), (0.2e9, "0.2 GB")])
def test_a_disk_that_is_nearly_full_is_said_to_owners_before_it_is(api, monkeypatch, free, said):
    monkeypatch.setattr(shutil, "disk_usage", lambda _path: Usage(100e9, 100e9 - free, free))
    assert api.client.get("/api/session").json()["disk_low"] == said
    assert Client().get("/healthz").json()["disk"] == ("low" if said else "enough")
    # a small disk that is not nearly full says nothing
    monkeypatch.setattr(shutil, "disk_usage", lambda _path: Usage(4e9, 4e9 - free, free))
    assert (api.client.get("/api/session").json()["disk_low"] is None) == (free > 0.4e9)


def test_metrics_count_answers_by_operation(api, settings, tmp_path):
    settings.BACKUPS = str(tmp_path)
    api.get("/today")
    text = api.client.get("/metrics").content.decode()
    assert 'dolmetsch_requests_total{method="GET",operation="getToday",status="200"}' in text
    assert 'dolmetsch_request_seconds_count{operation="getToday"}' in text
    assert "dolmetsch_kitchens 1.0" in text
    assert "dolmetsch_backup_age_seconds +Inf" in text
    (tmp_path / "now.tar").touch()
    age = next(
        line
        for line in api.client.get("/metrics").content.decode().splitlines()
        if line.startswith("dolmetsch_backup_age_seconds ")
    )
    assert float(age.split()[1]) < 60


def test_metrics_are_for_the_machine_itself_or_by_the_token(db, client, settings):
    far = {"REMOTE_ADDR": "10.0.0.7"}
    assert client.get("/metrics", **far).status_code == 404
    settings.METRICS_TOKEN = "long enough a token"
    for given, status in (("", 404), ("Bearer other", 404), ("Bearer long enough a token", 200)):
        assert client.get("/metrics", headers={"authorization": given}, **far).status_code == status
    assert client.get("/metrics", headers={"x-forwarded-for": "10.0.0.7"}).status_code == 404


def test_each_request_has_an_id_that_comes_back(db, client):
    given = client.get("/api/session", headers={"x-request-id": "abcdef-0123"})
    assert given["X-Request-Id"] == "abcdef-0123"
    for odd in ("", "short", "with space 123", "x" * 65):
        made = client.get("/api/session", headers={"x-request-id": odd})["X-Request-Id"]
        assert len(made) == 32


def test_log_lines_are_json_with_who_and_without_secrets(db, client):
    client.get("/api/invitations/AAAAA-BBBBB", headers={"x-request-id": "abcdef-0123"})
    facts = configured.LOGGING["formatters"]["json"]
    formatter = import_string(facts["()"])(facts["fmt"], rename_fields=facts["rename_fields"])
    record = logging.LogRecord("x", logging.WARNING, "", 0, "Not Found: %s", ("/join/AAAAA-BBBBB",), None)
    assert Who().filter(record)
    line = json.loads(formatter.format(record))
    assert (line["request_id"], line["user"], line["level"]) == ("abcdef-0123", "nobody", "WARNING")
    assert (line["asked"], line["message"]) == ("GET /api/invitations/…", "Not Found: /join/…")


@pytest.mark.parametrize(
    ("words", "shown"),
    [
        ("GET /api/tastings/tok_en-1/sheets", "GET /api/tastings/…/sheets"),
        ("/api/password-links/AAAAA-BBBBB", "/api/password-links/…"),
        ("/api/kitchens/x/invitations/12", "/api/kitchens/x/invitations/…"),
        ("/api/kitchens/x/batches/B-02", "/api/kitchens/x/batches/B-02"),
    ],
)
def test_codes_of_links_are_taken_out_of_words(words, shown):
    assert without_secrets(words) == shown


def test_the_authority_is_handed_out_only_where_it_was_made(db, client, settings, tmp_path):
    assert client.get("/certificate.crt").status_code == 404
    (tmp_path / "a.crt").write_text("the authority")
    settings.OWN_CERTIFICATE = str(tmp_path / "a.crt")
    assert client.get("/certificate.crt").content == b"the authority"
