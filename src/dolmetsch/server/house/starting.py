"""Starting a kitchen: with its owner, its units, and what it has."""

import re
import unicodedata
import uuid
from collections.abc import Collection
from contextlib import suppress
from dataclasses import replace
from datetime import datetime
from decimal import Decimal
from zoneinfo import available_timezones

from django.db import IntegrityError, transaction

from dolmetsch.core.errors import QuantityError
from dolmetsch.server.access.passwords import find_weakness
from dolmetsch.server.audit.noting import Origin, note_done
from dolmetsch.server.batches.forecast.derived import DERIVED_EDITION
from dolmetsch.server.house.schemas import StartKitchenIn, StoreWanted, UnitsIn
from dolmetsch.server.house.settings import read_scale
from dolmetsch.server.kitchens.models import Kitchen, Membership, Role, User
from dolmetsch.server.pieces.actions import save_store
from dolmetsch.server.pieces.schemas import StoreIn
from dolmetsch.server.problems import FieldProblem, refuse_fields
from dolmetsch.server.quantities.countries import COUNTRIES
from dolmetsch.server.writing.once import Write

SLUG_LENGTH = 40
_SLUG_TRIES = 20
#: What the audit shows of a kitchen's first stores is on the map.
_STORES = "/api/kitchens/new/stores"
#: Words that no kitchen has as its name in addresses.
_TAKEN = frozenset({"new", "join"})


def start_kitchen(data: StartKitchenIn, *, user: User | None, origin: Origin, now: datetime) -> Membership:
    """Make a kitchen and, where ``user`` is None, its owner: all of it or nothing.

    Raises:
        DomainError: bad_fields.
    """
    problems = check_units(data)
    scale = None
    try:
        scale = read_scale(data.scale) if data.scale.strip() else None
    except QuantityError as error:
        problems.append(FieldProblem(path="scale", code=error.reason, message=str(error)))
    if user is not None and _has_kitchen(user, data.name):
        said = f"You have a kitchen called “{data.name.strip()}” already. Give this one another name."
        problems.append(FieldProblem(path="name", code="name_taken", message=said))
    if problems:
        raise refuse_fields(problems)
    with transaction.atomic():
        owner = user or make_user(data.username, data.password, data.cook)
        kitchen = _make_kitchen(data, scale)
        membership = Membership.objects.create(user=owner, kitchen=kitchen, role=Role.OWNER, joined_at=now)
        note_done(origin, kitchen=kitchen, user=owner, now=now, words="started the kitchen")
        for at, store in enumerate(data.stores):
            _make_store(kitchen, owner, store, now=now, at=at, origin=origin)
    return membership


def _make_kitchen(data: StartKitchenIn, scale: Decimal | None) -> Kitchen:
    kitchen = Kitchen(
        name=data.name.strip(),
        currency=data.currency,
        weight_unit=data.weight_unit,
        temperature_unit=data.temperature_unit,
        decimal_sign=data.decimal_sign,
        time_zone=data.time_zone,
        country=data.country,
        scale_grams=scale,
        derived_edition=DERIVED_EDITION,
    )
    # of several started under one name at once, each later one takes the next number
    lost: set[str] = set()
    while len(lost) < _SLUG_TRIES:
        kitchen.slug = make_slug(data.name, without=lost)
        with suppress(IntegrityError), transaction.atomic():
            kitchen.save(force_insert=True)
            return kitchen
        lost.add(kitchen.slug)
    said = "Too many kitchens of this name are being started. Try again, or choose another name."
    raise refuse_fields([FieldProblem(path="name", code="name_taken", message=said)])


def make_user(username: str, password: str, called: str) -> User:
    """A new person who signs in.

    Raises:
        DomainError: bad_fields (no name, a name that is taken, a weak password).
    """
    name = username.strip()
    problems = _check_username(name)
    if not problems and User.objects.filter(username__iexact=name).exists():
        said = f"“{name}” is taken. Choose another name to sign in with."
        problems.append(FieldProblem(path="username", code="name_taken", message=said))
    user = User(username=name, first_name=called.strip() or name)
    problems += find_weakness(password, user)
    if problems:
        raise refuse_fields(problems)
    user.set_password(password)
    try:
        with transaction.atomic():
            user.save()
    except IntegrityError as error:
        said = f"“{name}” has just been taken. Choose another name to sign in with."
        raise refuse_fields([FieldProblem(path="username", code="name_taken", message=said)]) from error
    return user


def make_person(username: str) -> tuple[User, bool]:
    """Who signs in as ``username``, made without a password where nobody does; and whether they are new.

    Raises:
        DomainError: bad_fields.
    """
    known = User.objects.filter(username__iexact=username.strip()).first()
    if known is not None:
        return known, False
    if problems := _check_username(username.strip()):
        raise refuse_fields(problems)
    user = User(username=username.strip(), first_name=username.strip().capitalize())
    user.set_unusable_password()
    user.save()
    return user, True


def _check_username(name: str) -> list[FieldProblem]:
    if re.fullmatch(r"[\w.@+-]{2,60}", name):
        return []
    said = "Choose a name to sign in with: 2 to 60 letters, digits or . @ + - _, without spaces."
    return [FieldProblem(path="username", code="unreadable", message=said)]


def check_units(data: UnitsIn) -> list[FieldProblem]:
    """What is wrong with a kitchen's name, clock and country."""
    problems = []
    if not data.name.strip():
        problems.append(FieldProblem(path="name", code="empty", message="Give the kitchen a name."))
    if data.time_zone and data.time_zone not in available_timezones():
        said = f"“{data.time_zone}” is no time zone. Write it like America/Chicago."
        problems.append(FieldProblem(path="time_zone", code="unknown", message=said))
    if data.country and data.country not in COUNTRIES:
        said = f"How “{data.country}” writes days and money is not known here. Leave the country out."
        problems.append(FieldProblem(path="country", code="unknown", message=said))
    return problems


def make_slug(name: str, *, without: Collection[str] = ()) -> str:
    """The kitchen's name in addresses: of its letters, with a number where another kitchen has it; none of
    those ``without``.
    """
    plain = unicodedata.normalize("NFKD", name).encode("ascii", "ignore").decode().lower()
    base = re.sub(r"[^a-z0-9]+", "-", plain).strip("-")[: SLUG_LENGTH - 6] or "kitchen"
    taken = (
        set(Kitchen.objects.filter(slug__startswith=base).values_list("slug", flat=True))
        | _TAKEN
        | set(without)
    )
    slug, count = base, 1
    while slug in taken:
        count += 1
        slug = f"{base}-{count}"
    return slug


def _has_kitchen(user: User, name: str) -> bool:
    mine = Membership.objects.filter(user=user, left_at=None, kitchen__name__iexact=name.strip())
    return mine.exists()


def _make_store(
    kitchen: Kitchen, owner: User, store: StoreWanted, *, now: datetime, at: int, origin: Origin
) -> None:
    text = f"{kitchen.pk} {at} {store.kind} {store.name}"
    write = Write(
        kitchen=kitchen,
        user=owner,
        now=now,
        key=uuid.uuid5(uuid.NAMESPACE_OID, text),
        fingerprint="start",
        origin=replace(origin, words=f"has a {store.kind}: {store.name.strip()}", path=_STORES),
    )
    save_store(write, StoreIn(name=store.name.strip(), sort=store.kind))
