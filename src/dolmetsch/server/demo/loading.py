"""Loading the demo: the canteen's entries go through the same actions as anyone's."""

import hashlib
import json
import uuid
from datetime import datetime, timedelta

from dolmetsch.server.batches.actions import record_entry, start_batch
from dolmetsch.server.batches.models import Entry
from dolmetsch.server.batches.typed import EntryIn, StartIn
from dolmetsch.server.demo.canteen import BATCHES, Told
from dolmetsch.server.kitchens.demo_sign_in import DEMO_PASSWORD, DEMO_USERNAME
from dolmetsch.server.kitchens.models import Kitchen, Membership, User
from dolmetsch.server.kitchens.writing import Write

KEYS = uuid.UUID("5a17ab1e-0000-4000-8000-000000000000")


def load_demo(now: datetime) -> Kitchen:
    """Make the Salt Lantern Canteen with its cooks and batches, dated back from ``now``."""
    kitchen = Kitchen.objects.create(
        slug="salt-lantern",
        name="Salt Lantern Canteen",
        weight_unit="lb",
        labour_rate="18.00",
        scale_grams="5",
        fridge_slabs=6,
        smoker_slabs=4,
    )
    cooks = {}
    for name in (DEMO_USERNAME, "odo"):
        cooks[name] = User.objects.create_user(name, password=DEMO_PASSWORD, first_name=name.capitalize())
        Membership.objects.create(user=cooks[name], kitchen=kitchen)
    for number, story in enumerate(BATCHES):
        _tell(kitchen, cooks, story=story, number=number, now=now)
    return kitchen


def _tell(kitchen: Kitchen, cooks: dict[str, User], *, story: list[Told], number: int, now: datetime) -> None:
    made: list[Entry] = []
    for position, (when, cook, told) in enumerate(story):
        write = Write(
            kitchen=kitchen,
            user=cooks[cook],
            now=_moment(now, when),
            key=uuid.uuid5(KEYS, f"{number}/{position}"),
            fingerprint=hashlib.sha256(json.dumps(told, sort_keys=True).encode()).hexdigest(),
        )
        if "start" in told:
            start = StartIn.model_validate({"name": told["start"], "bought": told["bought"]})
            entry = start_batch(write, start).entry
        else:
            body = {**told, "seen": len(made)}
            if "corrects" in told:
                body["corrects"] = made[told["corrects"] - 1].id
            entry = record_entry(write, made[0].batch.code, EntryIn.model_validate(body)).entry
        made.append(entry)


def _moment(now: datetime, when: tuple[int, int, int]) -> datetime:
    """The moment so many days before today at that hour; today's are minutes ago, never to come."""
    days, hour, minute = when
    if days == 0:
        return now - timedelta(minutes=hour * 60 + minute)
    return (now - timedelta(days=days)).replace(hour=hour, minute=minute, second=0, microsecond=0)
