"""Signing in with a second factor, one's own page, devices, and sessions that end."""

import json
import time

import pytest
from django.test import Client
from django_otp.oath import TOTP
from django_otp.plugins.otp_totp.models import TOTPDevice

from dolmetsch.server.access.devices import name_device
from dolmetsch.server.access.models import SignedInDevice
from dolmetsch.server.audit.models import AuditRow
from dolmetsch.server.kitchens.models import User

PASSWORD = "smoke and salt 9"
SIGN_IN = {"username": "sela", "password": PASSWORD}
PHONE = "Mozilla/5.0 (Linux; Android 16; Mobile) Gecko/140 Firefox/140.0"


def send(client, method, path, body=None):
    answer = client.generic(method, f"/api{path}", json.dumps(body or {}), content_type="application/json")
    return answer.status_code, answer.json()


@pytest.fixture
def sela(db):
    return User.objects.create_user("sela", password=PASSWORD, first_name="Sela")


@pytest.fixture
def home(sela):
    client = Client()
    assert send(client, "POST", "/session", SIGN_IN)[0] == 200
    return client


def code_now(user):
    device = TOTPDevice.objects.get(user=user)
    totp = TOTP(device.bin_key)
    totp.time = time.time()
    return f"{totp.token():06d}"


def with_app(client, user):
    assert send(client, "POST", "/own/second-factor", {"password": PASSWORD})[0] == 200
    status, body = send(client, "PUT", "/own/second-factor", {"code": code_now(user)})
    assert status == 200
    return body["codes"]


def again(user):
    """The app's next code may be used: each opens once."""
    TOTPDevice.objects.filter(user=user).update(last_t=-1)


def test_a_second_factor_is_asked_for_once_it_was_confirmed(home, sela):
    assert send(home, "POST", "/own/second-factor", {"password": "wrong"})[0] == 422
    begun = send(home, "POST", "/own/second-factor", {"password": PASSWORD})[1]
    assert "<svg" in begun["qr"]
    assert len(begun["secret"]) == 32
    # not confirmed yet: the password alone still does
    assert send(Client(), "POST", "/session", SIGN_IN)[0] == 200
    assert send(home, "PUT", "/own/second-factor", {"code": "12345"})[0] == 422
    recovery = send(home, "PUT", "/own/second-factor", {"code": code_now(sela)})[1]["codes"]
    assert len(set(recovery)) == 8
    assert send(Client(), "POST", "/session", SIGN_IN)[1]["code"] == "code_needed"
    wrong = {**SIGN_IN, "code": "000000" if code_now(sela) != "000000" else "111111"}
    assert send(Client(), "POST", "/session", wrong)[1]["code"] == "wrong_code"
    TOTPDevice.objects.update(throttling_failure_count=0, last_t=-1)
    assert send(Client(), "POST", "/session", {**SIGN_IN, "code": code_now(sela)})[0] == 200


def test_one_code_opens_one_session_and_a_recovery_code_is_used_up(home, sela):
    recovery = with_app(home, sela)
    again(sela)
    body = {**SIGN_IN, "code": code_now(sela)}
    assert [send(Client(), "POST", "/session", body)[0] for _ in range(2)] == [200, 401]
    body["code"] = recovery[0].lower()
    assert [send(Client(), "POST", "/session", body)[0] for _ in range(2)] == [200, 401]
    assert send(home, "GET", "/own")[1]["recovery_left"] == 7


def test_the_second_factor_ends_by_the_password(home, sela):
    with_app(home, sela)
    assert send(home, "DELETE", "/own/second-factor", {"password": "wrong"})[0] == 422
    assert send(home, "GET", "/own")[1]["has_second_factor"]
    own = send(home, "DELETE", "/own/second-factor", {"password": PASSWORD})[1]
    assert (own["has_second_factor"], own["recovery_left"]) == (False, 0)
    assert send(Client(), "POST", "/session", SIGN_IN)[0] == 200


def test_confirming_what_was_not_begun_is_said(home):
    assert send(home, "PUT", "/own/second-factor", {"code": "123456"})[1]["code"] == "not_begun"


def test_devices_are_named_listed_and_signed_out(home, sela):
    phone = Client(headers={"user-agent": PHONE})
    send(phone, "POST", "/session", SIGN_IN)
    devices = {one["name"]: one for one in send(home, "GET", "/own")[1]["devices"]}
    assert devices["Android phone, Firefox"]["is_here"] is False
    assert devices["Unknown device"]["is_here"] is True
    there = devices["Android phone, Firefox"]["id"]
    assert len(send(home, "DELETE", f"/own/devices/{there}")[1]["devices"]) == 1
    assert send(phone, "GET", "/session/alive")[0] == 401
    assert send(home, "DELETE", f"/own/devices/{there}")[0] == 404
    # the one in hand is ended by signing out, and nobody ends another's
    here = devices["Unknown device"]["id"]
    assert send(home, "DELETE", f"/own/devices/{here}")[0] == 404
    User.objects.create_user("odo", password=PASSWORD)
    stranger = Client()
    send(stranger, "POST", "/session", {"username": "odo", "password": PASSWORD})
    assert send(stranger, "DELETE", f"/own/devices/{here}")[0] == 404
    assert send(home, "GET", "/session/alive")[0] == 200


def test_a_new_password_signs_the_others_out_and_not_this_one(home, sela):
    phone = Client()
    send(phone, "POST", "/session", SIGN_IN)
    before = home.session.session_key
    assert send(home, "PUT", "/own/password", {"password": "wrong", "new": "hams and hooks 7"})[0] == 422
    weak = send(home, "PUT", "/own/password", {"password": PASSWORD, "new": "sela"})[1]
    assert weak["fields"][0]["path"] == "new"
    own = send(home, "PUT", "/own/password", {"password": PASSWORD, "new": "hams and hooks 7"})[1]
    assert [one["is_here"] for one in own["devices"]] == [True]
    assert home.session.session_key != before
    assert send(home, "GET", "/session/alive")[0] == 200
    assert send(phone, "GET", "/session/alive")[0] == 401
    assert send(Client(), "POST", "/session", SIGN_IN)[0] == 401


def test_wrong_passwords_on_ones_own_page_are_slowed_too(home):
    body = {"password": "wrong", "new": "hams and hooks 7"}
    codes = [send(home, "PUT", "/own/password", body)[1]["code"] for _ in range(6)]
    assert codes == ["bad_fields"] * 5 + ["locked_out"]


def test_a_name_is_changed_wherever_it_is_shown(api):
    code = api.started()
    api.get(f"/batches/{code}")
    assert send(api.client, "PUT", "/own/name", {"name": "  Wenna "})[1]["name"] == "Wenna"
    assert "Wenna" in json.dumps(api.get(f"/batches/{code}")[1])
    assert send(api.client, "PUT", "/own/name", {"name": ""})[0] == 422
    assert send(api.client, "PUT", "/own/name", {"name": "  "})[1]["name"] == "Wenna"


def test_signing_in_changes_the_sessions_key(sela):
    client = Client()
    client.get("/api/session")
    session = client.session
    session["kept"] = 1
    session.save()
    before = session.session_key
    send(client, "POST", "/session", SIGN_IN)
    assert client.session.session_key != before


@pytest.mark.parametrize(("days", "status"), [(6.9, 200), (7.1, 401)])
def test_a_session_ends_after_a_week_without_use(home, days, status):
    session = home.session
    session["seen"] -= days * 86400
    session.save()
    assert send(home, "GET", "/session/alive")[0] == status
    assert SignedInDevice.objects.count() == (status == 200)


@pytest.mark.parametrize(("days", "status"), [(29.9, 200), (30.1, 401)])
def test_a_session_ends_after_a_month_in_any_case(home, days, status):
    session = home.session
    session["since"] -= days * 86400
    session.save()
    assert send(home, "GET", "/session/alive")[0] == status


def test_a_clock_set_back_a_year_ends_no_session_and_notes_the_use_anew(home):
    session = home.session
    session["seen"] += 365 * 86400
    session.save()
    assert send(home, "GET", "/session/alive")[0] == 200
    assert home.session["seen"] <= time.time()


def test_the_last_use_is_noted_every_few_minutes(home):
    device = SignedInDevice.objects.get()
    send(home, "GET", "/session/alive")
    assert SignedInDevice.objects.get().last_at == device.last_at
    session = home.session
    session["seen"] -= 150
    session.save()
    send(home, "GET", "/session/alive")
    assert SignedInDevice.objects.get().last_at > device.last_at


def test_a_colleague_at_the_same_address_locks_nobody_out_on_a_device_they_know(home, sela):
    wrong = {**SIGN_IN, "password": "wrong"}
    stranger = Client()
    for _ in range(6):
        last = send(stranger, "POST", "/session", wrong)[1]["code"]
    assert last == "locked_out"
    send(home, "DELETE", "/session")
    assert send(home, "POST", "/session", SIGN_IN)[0] == 200
    assert send(Client(), "POST", "/session", SIGN_IN)[1]["code"] == "locked_out"
    # that device has its own count
    send(home, "DELETE", "/session")
    codes = [send(home, "POST", "/session", wrong)[1]["code"] for _ in range(6)]
    assert codes == ["wrong_sign_in"] * 5 + ["locked_out"]
    # and knows one person, not everybody
    User.objects.create_user("odo", password=PASSWORD)
    other = {"username": "odo", "password": "wrong"}
    for _ in range(5):
        send(stranger, "POST", "/session", other)
    assert send(home, "POST", "/session", other)[1]["code"] == "locked_out"


def test_signing_in_and_out_and_what_was_refused_is_in_the_audit(home, sela):
    send(Client(), "POST", "/session", {**SIGN_IN, "password": "wrong"})
    send(home, "DELETE", "/session")
    rows = AuditRow.objects.filter(user=sela).order_by("id").values_list("words", "outcome")
    assert list(rows) == [
        ("signed in", "done"),
        ("was not signed in: wrong password", "refused"),
        ("signed out", "done"),
    ]


@pytest.mark.parametrize(
    ("agent", "name"),
    [
        ("Mozilla/5.0 (iPhone; CPU iPhone OS 19_0 like Mac OS X) Version/19 Safari/604.1", "iPhone, Safari"),
        ("Mozilla/5.0 (Windows NT 10.0; Win64) Chrome/140 Safari/537 Edg/140", "Windows computer, Edge"),
        ("Mozilla/5.0 (Linux; Android 15) Chrome/140.0 Safari/537.36", "Android tablet, Chrome"),
        ("", "Unknown device"),
    ],
)
def test_devices_are_called_by_what_they_say_of_themselves(agent, name):
    assert name_device(agent) == name
