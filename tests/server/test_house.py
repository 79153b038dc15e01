"""Starting a kitchen, its units and clock, the demo put away, and the commands of who keeps the machine."""

import json
from datetime import datetime
from decimal import Decimal
from io import StringIO
from zoneinfo import ZoneInfo

import pytest
from django.core.management import CommandError, call_command
from django.test import Client
from django.utils import timezone

from dolmetsch.core.errors import QuantityError
from dolmetsch.server.access.demo_sign_in import DEMO_PASSWORD, DEMO_USERNAME
from dolmetsch.server.access.throttle import FORGOTTEN, KITCHENS_A_DAY
from dolmetsch.server.audit.models import AuditRow
from dolmetsch.server.house.settings import read_scale
from dolmetsch.server.kitchens.models import Kitchen, Membership, SignInFailure, User
from tests.server.conftest import TRIM, Api, make_kitchen
from tests.server.test_guards import together

PASSWORD = "smoke and salt 9"
KITCHEN = {
    "name": "The Back Porch",
    "currency": "EUR",
    "weight_unit": "kg",
    "temperature_unit": "C",
    "decimal_sign": ",",
    "time_zone": "Europe/Lisbon",
}
OWNER = {"cook": "Ibba", "username": "ibba", "password": PASSWORD}


def send(client, method, path, body=None, **more):
    answer = client.generic(
        method, f"/api{path}", json.dumps(body or {}), content_type="application/json", **more
    )
    return answer.status_code, answer.json()


def manage(*words):
    said = StringIO()
    call_command(*words, stdout=said)
    return said.getvalue()


@pytest.mark.django_db
def test_a_kitchen_is_started_with_its_owner_and_what_it_has():
    client = Client()
    stores = [{"kind": "fridge", "name": "Fridge"}, {"kind": "chamber", "name": "Loft"}]
    body = {**KITCHEN, **OWNER, "scale": "5 g", "stores": stores}
    status, made = send(client, "POST", "/kitchens", body)
    assert (status, made["slug"], made["session"]["name"]) == (201, "the-back-porch", "Ibba")
    here = made["session"]["kitchens"][0]
    assert (here["role"], here["currency"], here["temperature_unit"]) == ("owner", "EUR", "C")
    api = Api(client=client, slug=made["slug"])
    assert [store["name"] for store in api.get("/map")[1]["stores"]] == ["Fridge", "Loft"]
    assert api.get("/settings")[1]["scale"] == "5 g"
    rows = api.get("/audit")[1]["rows"]
    assert {row["words"] for row in rows} == {
        "started the kitchen",
        "has a fridge: Fridge",
        "has a chamber: Loft",
    }
    assert api.started()


@pytest.mark.django_db
def test_all_faults_are_said_and_nothing_is_made():
    before = (Kitchen.objects.count(), User.objects.count())
    for more, path in (
        ({"name": "  "}, "name"),
        ({"time_zone": "Mars/Dune"}, "time_zone"),
        ({"scale": "3 kg"}, "scale"),
        ({"username": ""}, "username"),
        ({"password": "1234567890"}, "password"),
    ):
        status, problem = send(Client(), "POST", "/kitchens", {**KITCHEN, **OWNER, **more})
        assert (status, [one["path"] for one in problem["fields"]]) == (422, [path]), more
    assert send(Client(), "POST", "/kitchens", {**KITCHEN, **OWNER, "currency": "euro"})[0] == 422
    assert (Kitchen.objects.count(), User.objects.count()) == before


@pytest.mark.django_db
def test_kitchens_of_one_name_are_told_apart(api):
    made = [
        send(Client(), "POST", "/kitchens", {**KITCHEN, **OWNER, "username": name})[1]["slug"]
        for name in ("ibba", "odo")
    ]
    assert made == ["the-back-porch", "the-back-porch-2"]
    # one's own two are not to be mistaken for each other
    client = Client()
    client.force_login(User.objects.get(username="ibba"))
    problem = send(client, "POST", "/kitchens", {**KITCHEN, "name": "the back PORCH"})[1]
    assert problem["fields"][0]["code"] == "name_taken"
    assert send(client, "POST", "/kitchens", {**KITCHEN, "name": "Störche & Söhne"})[1]["slug"] == (
        "storche-sohne"
    )
    assert send(client, "POST", "/kitchens", {**KITCHEN, "name": "厨房"})[1]["slug"] == "kitchen"
    assert send(client, "POST", "/kitchens", {**KITCHEN, "name": "New"})[1]["slug"] == "new-2"


@pytest.mark.django_db
def test_from_elsewhere_only_who_owns_a_kitchen_starts_one(api, settings):
    far = {"REMOTE_ADDR": "192.168.1.44"}
    assert send(Client(), "POST", "/kitchens", {**KITCHEN, **OWNER}, **far)[1]["code"] == "not_allowed"
    assert Client().get("/api/session", **far).json()["may_start"] is False
    assert send(api.client, "POST", "/kitchens", KITCHEN, **far)[0] == 201
    Membership.objects.filter(user__username="cook-of-test-kitchen").update(role="cook")
    assert send(api.client, "POST", "/kitchens", {**KITCHEN, "name": "More"}, **far)[0] == 403
    settings.OPEN_TO_NEW = True
    assert send(Client(), "POST", "/kitchens", {**KITCHEN, **OWNER}, **far)[0] == 201


@pytest.mark.django_db
def test_a_stranger_starts_so_many_kitchens_a_day_and_no_more(settings):
    settings.OPEN_TO_NEW = True
    starts = lambda at, **more: send(  # noqa: E731
        Client(), "POST", "/kitchens", {**KITCHEN, **OWNER, "username": f"ibba-{at}"}, **more
    )
    far = {"REMOTE_ADDR": "192.168.1.44"}
    assert {starts(at, **far)[0] for at in range(KITCHENS_A_DAY)} == {201}
    assert starts("late", **far)[1]["code"] == "too_many_kitchens"
    assert not User.objects.filter(username="ibba-late").exists()
    # neither others nor who sits at the machine are held up by them
    assert starts("other", REMOTE_ADDR="192.168.1.45")[0] == 201
    assert {starts(f"here-{at}")[0] for at in range(KITCHENS_A_DAY + 1)} == {201}
    SignInFailure.objects.update(at=timezone.now() - FORGOTTEN)
    assert starts("tomorrow", **far)[0] == 201


@pytest.mark.django_db(transaction=True)
def test_kitchens_of_one_name_started_at_once_get_addresses_of_their_own():
    acts = [
        lambda at=at: send(Client(), "POST", "/kitchens", {**KITCHEN, **OWNER, "username": f"ibba-{at}"})[0]
        for at in range(6)
    ]
    assert together(*acts) == [201] * 6
    assert sorted(Kitchen.objects.values_list("slug", flat=True)) == [
        "the-back-porch",
        *(f"the-back-porch-{number}" for number in range(2, 7)),
    ]


@pytest.mark.django_db
def test_the_currency_changes_before_the_first_price_and_units_at_any_time(api):
    units = api.get("/units")[1]
    assert units.pop("is_currency_fixed") is False
    euros = {**units, "currency": "EUR", "name": "Porch", "weight_unit": "kg", "temperature_unit": "C"}
    assert api.call("PUT", "/units", euros)[1] == {**euros, "is_currency_fixed": False}
    code = api.started()
    api.recorded(code, TRIM)
    status, problem = api.call("PUT", "/units", {**euros, "currency": "USD"})
    assert (status, problem["fields"][0]["code"]) == (422, "currency_fixed")
    pounds = {**euros, "weight_unit": "lb", "decimal_sign": ",", "time_zone": "Pacific/Auckland"}
    assert api.call("PUT", "/units", pounds)[1] == {**pounds, "is_currency_fixed": True}
    row = AuditRow.objects.latest("id")
    assert (row.words, row.page) == ("changed units, currency or clock", "/kitchen")


@pytest.mark.parametrize(
    ("typed", "grams"),
    [("500 g", 500), ("2 lb", None), ("500.001 g", None), ("0.1 g", "0.1"), ("0.0001 g", None)],
)
def test_a_scale_shows_steps_of_a_kitchen_scale(typed, grams):
    if grams is None:
        with pytest.raises(QuantityError):
            read_scale(typed)
    else:
        assert read_scale(typed) == Decimal(grams)


@pytest.mark.django_db
def test_a_wage_is_a_price_too(api):
    settings = {**api.get("/settings")[1], "labour_rate": "18.00"}
    assert api.call("PUT", "/settings", settings)[0] == 200
    assert api.get("/units")[1]["is_currency_fixed"] is True


@pytest.mark.django_db
def test_days_go_by_the_kitchens_clock_whatever_the_device_says(api):
    Kitchen.objects.update(time_zone="Pacific/Auckland")
    api.client.cookies["zone"] = "America/Chicago"
    first = datetime.fromisoformat(api.get("/lanes")[1]["first"])
    there = first.astimezone(ZoneInfo("Pacific/Auckland"))
    assert (there.hour, there.minute) == (0, 0)
    assert timezone.get_current_timezone_name() == "UTC"


def demo():
    kitchen = make_kitchen("salt-lantern").slug
    user = User.objects.create_user(DEMO_USERNAME, password=DEMO_PASSWORD, first_name="Maren")
    Membership.objects.create(user=user, kitchen=Kitchen.objects.get(slug=kitchen))


@pytest.mark.django_db
def test_the_demo_is_put_away_and_brought_back(api, settings):
    settings.DEMO = True
    demo()
    body = {"username": DEMO_USERNAME, "password": DEMO_PASSWORD}
    maren = Client()
    assert send(maren, "POST", "/session", body)[0] == 200
    path = f"/kitchens/{api.slug}/demo"
    assert send(api.client, "PUT", path, {"is_away": True})[1] == {"is_there": True, "is_away": True}
    assert Client().get("/api/session").json()["demo"] is None
    assert send(maren, "GET", "/kitchens/salt-lantern/today")[0] == 404
    assert send(Client(), "POST", "/session", body)[0] == 401
    assert api.call("PUT", "/demo", {"is_away": False})[1]["is_away"] is False
    assert send(maren, "GET", "/kitchens/salt-lantern/today")[0] == 200
    # not by the demo itself, nor from elsewhere
    assert send(maren, "PUT", "/kitchens/salt-lantern/demo", {"is_away": True})[1]["code"] == "not_allowed"
    far = send(api.client, "PUT", path, {"is_away": True}, REMOTE_ADDR="192.168.1.44")
    assert (far[0], far[1]["code"]) == (403, "not_allowed")
    assert "put away" in manage("kitchen", "demo", "away")
    assert "salt-lantern: Salt-Lantern, 2 people, USD, put away" in manage("kitchen", "list")


@pytest.mark.django_db
def test_whoever_looked_around_in_the_demo_starts_as_themselves(settings):
    settings.DEMO = True
    demo()
    client = Client()
    send(client, "POST", "/session", {"username": DEMO_USERNAME, "password": DEMO_PASSWORD})
    status, made = send(client, "POST", "/kitchens", {**KITCHEN, **OWNER})
    assert (status, made["session"]["username"]) == (201, "ibba")


@pytest.mark.django_db
def test_kitchens_and_people_are_made_on_the_command_line(client):
    said = manage("kitchen", "new", "Smoke House", "--owner", "wenna", "--unit", "kg", "--currency", "EUR")
    assert "smoke-house: started, owned by wenna." in said
    code = said.split("/password/")[1].strip()
    assert send(client, "POST", f"/password-links/{code}", {"new": PASSWORD})[0] == 200
    status, session = send(client, "POST", "/session", {"username": "wenna", "password": PASSWORD})
    assert (status, session["kitchens"][0]["role"]) == (200, "owner")
    assert "odo is helper of smoke-house." in manage(
        "user", "new", "odo", "--kitchen", "smoke-house", "--role", "helper"
    )
    assert "odo: Odo, helper of smoke-house" in manage("user", "list")
    assert "wenna is locked; signed out on 1 devices." in manage("user", "lock", "wenna")
    assert client.get("/api/session/alive").status_code == 401
    assert send(Client(), "POST", "/session", {"username": "wenna", "password": PASSWORD})[0] == 401
    manage("user", "unlock", "wenna")
    assert send(Client(), "POST", "/session", {"username": "wenna", "password": PASSWORD})[0] == 200
    words = set(AuditRow.objects.filter(device="command line").values_list("words", flat=True))
    assert {"locked {about}", "unlocked {about}", "started the kitchen"} <= words


@pytest.mark.django_db
@pytest.mark.parametrize(
    ("words", "said"),
    [
        (("kitchen", "new", "Smoke House"), "Say its name and its owner"),
        (("kitchen", "new", "Smoke House", "--owner", "a b"), "without spaces"),
        (("kitchen", "new", "Smoke House", "--owner", "wenna", "--time-zone", "Mars"), "no time zone"),
        (("kitchen", "demo", "back"), "not loaded"),
        (("kitchen", "demo", "gone"), "demo away"),
        (("user", "new", "odo", "--kitchen", "nowhere"), "no kitchen “nowhere”"),
        (("user", "password", "nobody"), "Nobody signs in as “nobody”"),
        (("user", "lock"), "Say who"),
    ],
)
def test_what_is_wrong_on_the_command_line_is_said(words, said):
    before = (Kitchen.objects.count(), User.objects.count())
    with pytest.raises(CommandError, match=said):
        manage(*words)
    assert Kitchen.objects.count() == before[0]
