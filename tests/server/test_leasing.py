"""Several collectors of one group of devices: one hears, the others stand by."""

from datetime import timedelta

import pytest
from django.db import OperationalError
from django.db.models import F

from dolmetsch.server.fires.models import CollectorLease
from dolmetsch.server.fires.readings import leasing
from dolmetsch.server.fires.readings.leasing import LEASE, RENEW_SECONDS, SURE_SECONDS, Lease
from tests.server.test_guards import together

pytestmark = pytest.mark.django_db


@pytest.fixture
def clock(monkeypatch):
    """Seconds of this process's own clock, moved on by hand."""
    now = [1000.0]
    monkeypatch.setattr(leasing.time, "monotonic", lambda: now[0])
    return now


def pass_by(seconds):
    """So long ago was everything, by the record store's clock."""
    CollectorLease.objects.update(until=F("until") - timedelta(seconds=seconds))


def test_one_has_it_and_another_only_once_it_is_not_renewed(clock):
    first, second = Lease("drums", "a"), Lease("drums", "b")
    assert (first.renew(), second.renew(), second.renew()) == (True, False, False)
    assert (first.is_held, second.is_held) == (True, False)
    pass_by(LEASE.total_seconds() - 3)
    assert second.renew() is False
    clock[0] += 3
    # renewed in time it is its own for the whole time again
    assert first.renew() is True
    pass_by(LEASE.total_seconds() - 3)
    assert second.renew() is False
    pass_by(4)
    assert second.renew() is True
    assert CollectorLease.objects.get().holder == "b"
    clock[0] += 3
    assert (first.renew(), first.is_held) == (False, False)


def test_what_is_not_renewed_is_not_sure_before_another_may_have_it(clock):
    lease = Lease("drums", "a")
    lease.renew()
    clock[0] += SURE_SECONDS + 0.1
    assert lease.is_held is False
    assert LEASE.total_seconds() > SURE_SECONDS


def test_what_was_just_renewed_is_not_asked_for_again(clock, django_assert_num_queries):
    lease = Lease("drums", "a")
    lease.renew()
    clock[0] += RENEW_SECONDS - 0.1
    with django_assert_num_queries(0):
        assert lease.renew() is True
    clock[0] += 0.2
    with django_assert_num_queries(1):
        assert lease.renew() is True


def test_groups_are_apart_and_the_same_one_has_its_own_at_once():
    assert Lease("drums", "a").renew()
    assert Lease("pits", "b").renew()
    assert Lease("drums", "a").renew()
    assert not Lease("pits", "a").renew()


def test_what_is_given_up_is_another_ones_at_once():
    first, second = Lease("drums", "a"), Lease("drums", "b")
    first.renew()
    second.give_up()
    assert not second.renew()
    first.give_up()
    assert first.is_held is False
    assert second.renew()


def test_while_the_record_store_is_away_it_is_held_for_as_long_as_it_surely_was(clock, monkeypatch):
    lease = Lease("drums", "a")
    lease.renew()

    def away(self):
        raise OperationalError(2013, "gone")

    monkeypatch.setattr(Lease, "_take", away)
    clock[0] += 3
    assert lease.renew() is True
    clock[0] += SURE_SECONDS
    assert lease.renew() is False


@pytest.mark.django_db(transaction=True)
def test_of_many_that_ask_at_once_one_gets_it():
    asks = [lambda at=at: Lease("drums", f"collector {at}").renew() for at in range(6)]
    assert sorted(together(*asks)) == [False] * 5 + [True]
    pass_by(20)
    assert sorted(together(*asks)) == [False] * 5 + [True]
