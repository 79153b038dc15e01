"""A kitchen's people: invitations, roles, leaving, links for a password, the tablet, and who did what."""

import json
import threading
import uuid
from datetime import timedelta

import pytest
from django.contrib.auth.hashers import check_password
from django.core import mail
from django.db import IntegrityError, connection, transaction
from django.test import Client
from django.utils import timezone

from dolmetsch.server.access.models import PasswordLink, SignedInDevice
from dolmetsch.server.audit.models import AuditRow
from dolmetsch.server.batches.models import Entry
from dolmetsch.server.kitchens.models import Kitchen, Membership, Role, User
from dolmetsch.server.people.models import Invitation
from tests.server.conftest import TRIM, Api, sign_in, weigh

PASSWORD = "smoke and salt 9"
NEW = {"cook": "Odo", "username": "odo", "password": PASSWORD}


def send(client, method, path, body=None):
    answer = client.generic(method, path, data=json.dumps(body or {}), content_type="application/json")
    return answer.status_code, answer.json()


def invite(api, **more):
    status, body = api.call("POST", "/invitations", {"role": "cook", "called": "Odo", **more})
    assert status == 201, str(body)
    return body["code"]


def member(api, role, name="sela"):
    kitchen = Kitchen.objects.get(slug=api.slug)
    user = User.objects.create_user(name, password=PASSWORD, first_name=name.capitalize())
    place = Membership.objects.create(user=user, kitchen=kitchen, role=role, joined_at=timezone.now())
    return Api(client=sign_in(user), slug=api.slug), place


def test_an_invitation_lets_one_new_person_in_once(api):
    code = invite(api)
    phone = Client()
    shown = phone.get(f"/api/invitations/{code.lower().replace('-', ' ')}").json()
    assert (shown["kitchen"], shown["role"], shown["called"]) == ("Test-Kitchen", "cook", "Odo")
    status, joined = send(phone, "POST", f"/api/invitations/{code}", NEW)
    assert (status, joined["slug"], joined["session"]["name"]) == (201, api.slug, "Odo")
    assert joined["session"]["kitchens"][0]["role"] == "cook"
    assert phone.get(f"/api/kitchens/{api.slug}/today").status_code == 200
    # used: by anybody, however they come
    for again in (Client(), sign_in(User.objects.create(username="late"))):
        status, problem = send(again, "POST", f"/api/invitations/{code}", {**NEW, "username": "other"})
        assert (status, problem["code"]) == (409, "invitation_used")
    assert not User.objects.filter(username="other").exists()


def test_an_invitation_that_is_old_withdrawn_or_made_up_says_so(api):
    code = invite(api)
    Invitation.objects.update(ends_at=timezone.now())
    status, problem = send(Client(), "POST", f"/api/invitations/{code}", NEW)
    assert (status, problem["code"]) == (409, "invitation_old")
    code = invite(api)
    waiting = api.get("/people")[1]["invitations"]
    assert [one["called"] for one in waiting] == ["Odo"]
    assert api.call("DELETE", f"/invitations/{waiting[0]['id']}")[1]["invitations"] == []
    assert api.call("DELETE", f"/invitations/{waiting[0]['id']}")[0] == 404
    for wrong in (code, "AAAAA-AAAAA"):
        assert Client().get(f"/api/invitations/{wrong}").json()["code"] == "no_invitation"
    assert User.objects.count() == 1


def test_guessing_codes_is_slowed(api):
    phone = Client()
    codes = [phone.get(f"/api/invitations/GUESS-{number:05d}").json()["code"] for number in range(6)]
    assert codes == ["no_invitation"] * 5 + ["locked_out"]
    invited = invite(api)
    assert phone.get(f"/api/invitations/{invited}").json()["code"] == "locked_out"


def test_so_many_invitations_wait_and_so_many_people_are_in_a_kitchen_and_no_more(api):
    kitchen, me = Kitchen.objects.get(slug=api.slug), User.objects.get(username="cook-of-test-kitchen")
    now = timezone.now()
    waiting = {"kitchen": kitchen, "role": "cook", "made_by": me, "made_at": now}
    Invitation.objects.bulk_create(
        Invitation(**waiting, code_hash=str(at), ends_at=now + timedelta(hours=1)) for at in range(99)
    )
    invite(api)
    for _ in range(2):
        status, problem = api.call("POST", "/invitations", {"role": "cook", "called": ""})
        assert (status, problem["code"]) == (409, "too_many")
    # those that ran out wait no more
    Invitation.objects.update(ends_at=now)
    User.objects.bulk_create(User(username=f"u{at}") for at in range(498))
    users = User.objects.filter(username__startswith="u")
    Membership.objects.bulk_create(Membership(user=one, kitchen=kitchen, role="helper") for one in users)
    invite(api)
    Membership.objects.create(user=User.objects.create(username="late"), kitchen=kitchen, role="helper")
    assert api.call("POST", "/invitations", {"role": "cook", "called": ""})[1]["code"] == "too_many"
    Membership.objects.filter(user__username="late").update(left_at=now)
    invite(api)


def test_who_is_signed_in_joins_as_themselves_and_whoever_is_in_already_is_told(api, other):
    code = invite(api)
    status, joined = send(other.client, "POST", f"/api/invitations/{code}", {})
    assert (status, len(joined["session"]["kitchens"])) == (201, 2)
    code = invite(api)
    assert send(other.client, "POST", f"/api/invitations/{code}", {})[1]["code"] == "member_already"
    # and it still works for someone else
    assert send(Client(), "POST", f"/api/invitations/{code}", NEW)[0] == 201


def test_a_name_that_is_taken_and_a_weak_password_are_said_and_leave_the_invitation(api):
    code = invite(api)
    User.objects.create(username="Odo")
    for more, path in (
        ({}, "username"),
        ({"username": "a b"}, "username"),
        ({"username": "odo2", "password": "password123"}, "password"),
        ({"username": "odo2", "password": "short"}, "password"),
        ({"username": "odo2", "password": "9876543210123"}, "password"),
    ):
        status, problem = send(Client(), "POST", f"/api/invitations/{code}", {**NEW, **more})
        assert (status, [one["path"] for one in problem["fields"]]) == (422, [path]), more
    assert send(Client(), "POST", f"/api/invitations/{code}", {**NEW, "username": "odo2"})[0] == 201


@pytest.mark.django_db(transaction=True)
def test_two_who_use_one_invitation_at_once_one_is_let_in(api):
    code = invite(api)
    answers = []

    def join(name):
        answers.append(send(Client(), "POST", f"/api/invitations/{code}", {**NEW, "username": name})[0])
        connection.close()

    threads = [threading.Thread(target=join, args=(f"odo{at}",)) for at in range(4)]
    for one in threads:
        one.start()
    for one in threads:
        one.join()
    assert sorted(answers) == [201, 409, 409, 409]
    assert Membership.objects.filter(kitchen__slug=api.slug).count() == 2


@pytest.mark.django_db(transaction=True)
def test_two_owners_who_take_each_others_role_at_once_leave_one(api):
    second, place = member(api, Role.OWNER)
    me = Membership.objects.get(user__username="cook-of-test-kitchen")
    answers = []

    def demote(who, whom):
        answers.append(who.call("PUT", f"/people/{whom.pk}/role", {"role": "cook"})[0])
        connection.close()

    threads = [threading.Thread(target=demote, args=pair) for pair in ((api, place), (second, me))]
    for one in threads:
        one.start()
    for one in threads:
        one.join()
    assert sorted(answers) in ([200, 403], [200, 409])
    assert Membership.objects.filter(kitchen__slug=api.slug, role="owner").count() == 1


def test_an_invitation_is_mailed_where_an_address_is_given(api, settings):
    settings.EMAIL_BACKEND = "django.core.mail.backends.locmem.EmailBackend"
    settings.ADDRESS = "https://kitchen.example"
    body = {"role": "helper", "called": "Odo", "mail": "odo@example.com"}
    made = api.call("POST", "/invitations", body)[1]
    assert (made["mailed"], made["link"]) == (True, f"https://kitchen.example/join/{made['code']}")
    assert made["link"] in mail.outbox[0].body
    status, problem = api.call("POST", "/invitations", {**body, "mail": "odo at home"})
    assert (status, problem["fields"][0]["path"]) == (422, "mail")
    settings.EMAIL_BACKEND = "django.core.mail.backends.smtp.EmailBackend"
    settings.EMAIL_HOST, settings.EMAIL_PORT = "127.0.0.1", 9
    assert api.call("POST", "/invitations", body)[1]["mailed"] is False


def test_the_code_is_kept_nowhere(api):
    code = invite(api)
    with connection.cursor() as cursor:
        cursor.execute("SELECT * FROM people_invitation")
        assert code.replace("-", "") not in str(cursor.fetchall())


def test_roles_change_at_once_and_the_last_owner_stays(api):
    cook, place = member(api, Role.COOK)
    code = cook.started()
    me = Membership.objects.get(user__username="cook-of-test-kitchen")
    for ask in (
        ("PUT", f"/people/{me.pk}/role", {"role": "cook"}),
        ("DELETE", f"/people/{me.pk}", None),
        ("DELETE", "/people", None),
    ):
        assert api.call(*ask)[1]["code"] == "last_owner"
    assert api.call("PUT", f"/people/{place.pk}/role", {"role": "reader"})[0] == 200
    assert cook.record(code, TRIM, seen=1)[1]["code"] == "not_allowed"
    assert cook.get(f"/batches/{code}")[0] == 200
    assert api.call("PUT", f"/people/{place.pk}/role", {"role": "owner"})[0] == 200
    assert api.call("PUT", f"/people/{me.pk}/role", {"role": "cook"})[0] == 200
    assert api.call("PUT", f"/people/{me.pk}/role", {"role": "owner"})[1]["code"] == "not_allowed"


def test_a_locked_owner_is_no_owner_to_rely_on(api):
    _, place = member(api, Role.OWNER)
    User.objects.filter(pk=place.user_id).update(is_active=False)
    assert api.call("DELETE", "/people")[1]["code"] == "last_owner"


def test_a_role_taken_away_while_a_write_waits_refuses_it(api, monkeypatch):
    """The guard let it in as a cook; by the time it holds the kitchen it is a reader's."""
    from dolmetsch.server.writing import once

    cook, place = member(api, Role.COOK)
    code = cook.started()
    lock = once.lock_kitchen

    def lock_later(kitchen):
        lock(kitchen)
        Membership.objects.filter(pk=place.pk).update(role="reader")

    monkeypatch.setattr(once, "lock_kitchen", lock_later)
    assert cook.record(code, TRIM, seen=1)[1]["code"] == "not_allowed"
    Membership.objects.filter(pk=place.pk).update(role="cook")

    def leave_later(kitchen):
        lock(kitchen)
        Membership.objects.filter(pk=place.pk).update(left_at=timezone.now())

    monkeypatch.setattr(once, "lock_kitchen", leave_later)
    assert cook.record(code, TRIM, seen=1)[0] == 404
    assert Entry.objects.count() == 1


def test_who_leaves_keeps_their_name_on_what_they_recorded(api):
    cook, place = member(api, Role.COOK)
    code = cook.started()
    assert cook.call("DELETE", "/people")[1]["kitchens"] == []
    assert cook.get(f"/batches/{code}")[0] in (401, 404)
    people = api.get("/people")[1]
    assert ([one["name"] for one in people["former"]], len(people["people"])) == (["Sela"], 1)
    assert "Sela" in json.dumps(api.get(f"/batches/{code}")[1])
    assert api.call("DELETE", f"/people/{place.pk}")[0] == 404
    # invited again, they are back under the same name
    assert send(sign_in(place.user), "POST", f"/api/invitations/{invite(api)}", {})[0] == 201
    assert api.get("/people")[1]["former"] == []


def test_a_name_is_removed_once_its_bearer_has_left(api, other):
    cook, place = member(api, Role.COOK)
    code = cook.started()
    status, problem = api.call("DELETE", f"/people/{place.pk}/name")
    assert (status, problem["code"]) == (409, "still_in")
    assert api.call("DELETE", f"/people/{place.pk}")[0] == 200
    kitchen = Kitchen.objects.get(slug=other.slug)
    elsewhere = Membership.objects.create(user=place.user, kitchen=kitchen, role="reader")
    assert api.call("DELETE", f"/people/{place.pk}/name")[1]["code"] == "elsewhere_too"
    elsewhere.delete()
    assert other.call("DELETE", f"/people/{place.pk}/name")[0] == 404
    assert api.call("DELETE", f"/people/{place.pk}/name")[0] == 200
    shown = json.dumps([api.get(f"/batches/{code}")[1], api.get("/audit")[1]["rows"][1:]])
    assert "Sela" not in shown
    assert f"Former cook {place.user_id}" in shown
    assert not Client().login(username="sela", password=PASSWORD)


def test_an_owner_opens_the_door_for_who_forgot_their_password(api, other):
    cook, place = member(api, Role.COOK)
    made = api.call("POST", f"/people/{place.pk}/password-link")[1]
    path = f"/api/password-links/{made['code']}"
    assert Client().get(path).json() == {"name": "Sela", "username": "sela"}
    assert send(Client(), "POST", path, {"new": "short"})[0] == 422
    assert send(Client(), "POST", path, {"new": "hams and hooks 7"})[0] == 200
    assert send(Client(), "POST", path, {"new": "hams and hooks 8"})[1]["code"] == "no_link"
    # signed out where they were, and in by the new one
    assert cook.get("/today")[0] == 401
    body = {"username": "sela", "password": "hams and hooks 7"}
    assert send(Client(), "POST", "/api/session", body)[0] == 200
    made = api.call("POST", f"/people/{place.pk}/password-link")[1]
    PasswordLink.objects.update(ends_at=timezone.now())
    assert Client().get(f"/api/password-links/{made['code']}").status_code == 404
    # nobody's account is opened who is in another kitchen too, or is not in this one
    Membership.objects.create(user=place.user, kitchen=Kitchen.objects.get(slug=other.slug), role="cook")
    assert api.call("POST", f"/people/{place.pk}/password-link")[1]["code"] == "elsewhere_too"
    theirs = Membership.objects.get(user__username="cook-of-other-kitchen")
    assert api.call("POST", f"/people/{theirs.pk}/password-link")[0] == 404


def test_the_tablet_asks_who_one_is_and_lets_only_work_be_done(api, other):
    cook, place = member(api, Role.COOK)
    theirs = Kitchen.objects.get(slug=other.slug)
    elsewhere = Membership.objects.create(user=place.user, kitchen=theirs)
    assert cook.call("PUT", "/tablet-code", {"code": "12"})[0] == 422
    assert cook.call("PUT", "/tablet-code", {"code": "4711"})[0] == 200
    place.refresh_from_db()
    assert check_password("4711", place.tablet_code)
    elsewhere.refresh_from_db()
    assert elsewhere.tablet_code == ""
    tablet = api.client
    assert api.call("POST", "/tablet")[1]["tablet"] == "Test-Kitchen"
    assert tablet.get("/api/session").json()["signed_in"] is False
    assert api.get("/today")[0] == 401
    names = {one["name"]: one for one in tablet.get("/api/tablet").json()["people"]}
    assert names["Sela"]["has_code"]
    wrong = {"person": names["Sela"]["id"], "code": "4712"}
    status, problem = send(tablet, "POST", "/api/tablet", wrong)
    assert (status, problem["code"]) == (401, "wrong_code")
    status, session = send(tablet, "POST", "/api/tablet", {**wrong, "code": "4711"})
    assert (status, session["name"], session["tablet"]) == (200, "Sela", "Test-Kitchen")
    assert api.started()
    assert tablet.get("/api/own").json()["code"] == "on_tablet"
    assert api.call("DELETE", "/people")[1]["code"] == "on_tablet"
    assert api.call("PUT", "/tablet-code", {"code": ""})[1]["code"] == "on_tablet"
    Membership.objects.filter(pk=place.pk).update(role="owner")
    assert api.get("/people")[1]["code"] == "on_tablet"
    assert tablet.get(f"/api/kitchens/{other.slug}/today").json()["code"] == "on_tablet"
    assert len(tablet.get("/api/session").json()["kitchens"]) == 1
    # handed over: the device stays the kitchen's
    out = tablet.delete("/api/session")
    assert (out.json()["signed_in"], out.json()["tablet"]) == (False, "Test-Kitchen")
    assert out["Clear-Site-Data"] == '"cache"'
    assert SignedInDevice.objects.filter(kitchen__isnull=False).count() == 1


def test_the_tablet_forgets_who_worked_after_a_while(api):
    cook, place = member(api, Role.COOK)
    cook.call("PUT", "/tablet-code", {"code": "4711"})
    api.call("POST", "/tablet")
    send(api.client, "POST", "/api/tablet", {"person": place.pk, "code": "4711"})
    session = api.client.session
    session["seen"] -= 9 * 60
    session.save()
    assert api.get("/today")[0] == 200
    session = api.client.session
    session["seen"] -= 11 * 60
    session.save()
    assert api.get("/today")[0] == 401
    assert api.client.get("/api/session").json()["tablet"] == "Test-Kitchen"


def test_a_device_that_is_no_tablet_opens_to_no_code(api):
    cook, place = member(api, Role.COOK)
    cook.call("PUT", "/tablet-code", {"code": "4711"})
    assert send(Client(), "POST", "/api/tablet", {"person": place.pk, "code": "4711"})[0] == 404


def test_codes_at_the_tablet_are_slowed_for_that_person_alone(api):
    cook, place = member(api, Role.COOK)
    second, other_place = member(api, Role.COOK, name="ode")
    for one in (cook, second):
        one.call("PUT", "/tablet-code", {"code": "4711"})
    api.call("POST", "/tablet")
    wrong = {"person": place.pk, "code": "1"}
    codes = [send(api.client, "POST", "/api/tablet", wrong)[1]["code"] for _ in range(6)]
    assert codes == ["wrong_code"] * 5 + ["locked_out"]
    assert send(api.client, "POST", "/api/tablet", {"person": other_place.pk, "code": "4711"})[0] == 200


def test_every_write_leaves_a_row_in_the_same_transaction(api):
    code = api.started()
    key = uuid.uuid4()
    made = api.recorded(code, TRIM, key=key)["entry"]
    row = AuditRow.objects.latest("id")
    assert (row.operation, row.words, row.page) == ("recordEntry", "recorded an entry", f"/bench/{code}")
    assert (row.made, row.before, row.address) == (f"entry {made}", "", "127.0.0.1")
    count = AuditRow.objects.count()
    # sent again, and refused: nothing was done
    assert api.record(code, TRIM, key=key, seen=1)[0] == 200
    assert api.record(code, weigh("cure", Z="1 lb"))[0] == 422
    assert AuditRow.objects.count() == count
    # a correction names what it took the place of
    corrected = api.recorded(code, TRIM, corrects=made, reason="typed wrong")["entry"]
    row = AuditRow.objects.latest("id")
    assert (row.made, row.before) == (f"entry {corrected}", f"entry {made}")
    # the book says what they were
    latest = api.call("GET", "/audit")[1]["rows"][0]
    assert latest["made"] == latest["before"] == "Trimmed: whole → A 5 lb · B 3 lb"


def test_the_audit_says_nothing_of_another_kitchens_entries(api, other):
    foreign = other.recorded(other.started(), TRIM)["entry"]
    kitchen = Kitchen.objects.get(slug=api.slug)
    AuditRow.objects.create(kitchen=kitchen, at=timezone.now(), words="recorded", made=f"entry {foreign}")
    assert api.call("GET", "/audit")[1]["rows"][0]["made"] == ""


def test_the_audit_names_the_version_that_a_new_one_took_the_place_of(api):
    dressing = {"sort": "own", "name": "dressing", "amount": "", "cost": "0.20"}
    dish = {"name": "Salad", "parts": [dressing], "price": "4.00"}
    for before in ("", "version 1", "version 2"):
        assert api.call("POST", "/dishes", dish)[0] == 201
        assert AuditRow.objects.latest("id").before == before


def test_the_audit_is_searched_exported_and_told_to_owners_of_that_kitchen_alone(api, other):
    code = api.started()
    send(Client(), "POST", "/api/session", {"username": "cook-of-test-kitchen", "password": "wrong"})
    rows = api.get("/audit")[1]["rows"]
    assert [row["words"] for row in rows] == ["was not signed in: wrong password", "started a batch"]
    assert rows[0]["outcome"] == "refused"
    assert rows[1]["page"] == f"/bench/{code}"
    assert [row["words"] for row in api.get("/audit?words=started")[1]["rows"]] == ["started a batch"]
    assert api.get("/audit?words=started%20refused")[1]["rows"] == []
    assert other.get("/audit")[1]["rows"] == []
    sheet = api.client.get(f"/api/kitchens/{api.slug}/audit.csv?words={code}").content.decode("utf-8-sig")
    assert "started a batch" in sheet
    assert "wrong password" not in sheet
    assert api.client.get(f"/api/kitchens/{api.slug}/audit.xlsx").content[:2] == b"PK"


def test_the_audit_comes_in_pages(api):
    kitchen = Kitchen.objects.get(slug=api.slug)
    for number in range(51):
        AuditRow.objects.create(
            kitchen=kitchen, at=timezone.now(), operation="x", words=f"did {number}", device="command line"
        )
    first, second = api.get("/audit")[1], api.get("/audit?page=2")[1]
    assert (len(first["rows"]), first["has_more"]) == (50, True)
    assert ([row["words"] for row in second["rows"]], second["has_more"]) == (["did 0"], False)
    assert second["rows"][0]["who"] == "command line"


@pytest.mark.parametrize("change", ["UPDATE audit_auditrow SET words = 'x'", "DELETE FROM audit_auditrow"])
def test_the_record_store_itself_refuses_to_change_the_audit(api, change):
    api.started()
    with pytest.raises((IntegrityError, Exception), match="never"), transaction.atomic():
        connection.cursor().execute(change)


def test_who_asks_gets_what_is_kept_about_them_and_an_owner_that_of_this_kitchen(api, other):
    cook, place = member(api, Role.COOK)
    code = cook.started()
    Membership.objects.create(user=place.user, kitchen=Kitchen.objects.get(slug=other.slug), role="cook")
    mine = cook.client.get("/api/own/data").json()
    assert (mine["username"], len(mine["kitchens"])) == ("sela", 2)
    assert [row["what"] for row in mine["audit"]] == ["started a batch"]
    data = api.client.get(f"/api/kitchens/{api.slug}/people/{place.pk}/data").json()
    assert [one["name"] for one in data["kitchens"]] == ["Test-Kitchen"]
    assert "devices" not in data
    assert code


def test_two_hundred_people_are_shown_by_few_questions(api, django_assert_max_num_queries):
    kitchen = Kitchen.objects.get(slug=api.slug)
    users = [User(username=f"u{at}", first_name=f"Cook {at:03d}") for at in range(200)]
    User.objects.bulk_create(users)
    made = User.objects.filter(username__startswith="u")
    Membership.objects.bulk_create(Membership(user=one, kitchen=kitchen, role="helper") for one in made)
    with django_assert_max_num_queries(10):
        assert len(api.get("/people")[1]["people"]) == 201
