"""What the record store undid is tried again; where it was away, what reads or carries a key."""

import io
from itertools import count
from types import SimpleNamespace

import pytest
from django.core.files.uploadedfile import InMemoryUploadedFile
from django.db import InterfaceError, OperationalError, transaction
from django.test import RequestFactory

from dolmetsch.server import again
from dolmetsch.server.again import PATIENCE, tried_again
from dolmetsch.server.batches.models import Entry
from dolmetsch.server.prices.models import PriceItem
from dolmetsch.server.writing import once
from tests.server.conftest import TRIM, make_kitchen

ask = RequestFactory()
KEY = {"headers": {"Idempotency-Key": "0a5cbb4e-9d1c-4d7c-8a54-3c2f1f2d7e11"}}


@pytest.fixture
def clock(monkeypatch):
    """Seconds slept, which pass by that clock alone."""
    slept = []
    monkeypatch.setattr(again, "time", SimpleNamespace(monotonic=lambda: sum(slept), sleep=slept.append))
    return slept


def fails(*errors):
    """A view that fails so, one after another, and then answers how often it was asked."""
    left, asked = list(errors), count(1)

    def view(request):
        number = next(asked)
        if left:
            raise left.pop(0)
        return number

    return tried_again(view)


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize("number", [1205, 1213])
def test_what_was_undone_is_tried_again_whoever_asks(clock, number):
    error = OperationalError(number, "undone")
    assert fails(error, error)(ask.post("/")) == 3
    # two that met wait for different times, the second longer
    assert 0 < clock[0] < 0.03 < clock[0] + 2 * clock[1] < 0.2


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize(
    "error",
    [
        *(
            OperationalError(number, "")
            for number in (1047, 1053, 1180, 1927, 2002, 2003, 2006, 2013, 2026, 2055)
        ),
        InterfaceError(0, ""),
    ],
)
def test_after_a_broken_connection_only_what_reads_or_has_a_key_is_tried_again(clock, error):
    assert fails(error)(ask.get("/")) == 2
    assert fails(error)(ask.post("/", **KEY)) == 2
    with pytest.raises(type(error)):
        fails(error)(ask.post("/"))


@pytest.mark.django_db(transaction=True)
def test_other_faults_are_not_tried_again_and_no_fault_for_ever(clock):
    for error in (OperationalError(1364, "no default"), OperationalError(), ValueError("else")):
        with pytest.raises(type(error)):
            fails(error)(ask.get("/"))
    assert clock == []
    with pytest.raises(OperationalError):
        fails(*[OperationalError(1213, "")] * 1000)(ask.get("/"))
    assert PATIENCE - again.LONGEST_PAUSE <= sum(clock) <= PATIENCE
    assert max(clock) <= again.LONGEST_PAUSE


@pytest.mark.django_db
def test_within_a_transaction_nothing_is_tried_again(clock):
    with transaction.atomic(), pytest.raises(OperationalError):
        fails(OperationalError(1213, ""))(ask.get("/"))


@pytest.mark.django_db(transaction=True)
def test_what_was_uploaded_is_read_from_its_beginning_again(clock):
    request = ask.post("/")
    request.FILES["list"] = InMemoryUploadedFile(io.BytesIO(b"rows"), "list", "list.csv", "text/csv", 4, None)
    read = []

    def view(asked):
        read.append(asked.FILES["list"].read())
        if len(read) < 3:
            raise OperationalError(1213, "")
        return read

    assert tried_again(view)(request) == [b"rows"] * 3


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize("number", [1213, 2013])
def test_a_record_that_met_another_is_there_once(monkeypatch, number):
    """Undone at its end twice, after all of it was written: the third try records it, and once."""
    api = make_kitchen("busy-kitchen")
    code = api.started()
    met, noted = [], once.note_done

    def meet(*args, **kwargs):
        noted(*args, **kwargs)
        if len(met) < 2:
            met.append(1)
            raise OperationalError(number, "met")

    monkeypatch.setattr(once, "note_done", meet)
    status, body = api.record(code, TRIM, seen=1)
    assert (status, len(met)) == (201, 2)
    assert list(Entry.objects.values_list("sequence", flat=True)) == [1, 2]
    met.clear()
    price = {
        "sort": "ingredient",
        "name": "Salt",
        "source": "Quay",
        "price": "1.00",
        "size": "1 kg",
        "on": "2026-01-02",
    }
    assert api.call("POST", "/prices", price)[0] == 201
    assert PriceItem.objects.count() == 1
    assert body["batch"]["seen"] == 2
