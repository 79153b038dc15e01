"""Loading the demo: the canteen's entries go through the same actions as anyone's."""

import hashlib
import json
import uuid
from datetime import datetime, timedelta

from dolmetsch.server.access.demo_sign_in import DEMO_PASSWORD, DEMO_USERNAME
from dolmetsch.server.batches.entries.typed import EntryIn, StartIn
from dolmetsch.server.batches.forecast.derived import DERIVED_EDITION
from dolmetsch.server.batches.forecast.outlooks import choose_way
from dolmetsch.server.batches.forecast.schemas import ChooseWayIn
from dolmetsch.server.batches.models import Entry
from dolmetsch.server.batches.record.actions import record_entry, start_batch
from dolmetsch.server.demo.bench import BELLY
from dolmetsch.server.demo.bench_loading import load_bench
from dolmetsch.server.demo.books_loading import load_books
from dolmetsch.server.demo.canteen import BATCHES, Recorded
from dolmetsch.server.demo.keys import KEYS, write_demo
from dolmetsch.server.demo.larder_loading import load_larder
from dolmetsch.server.demo.past import BATCHES as PAST
from dolmetsch.server.demo.past import past_story
from dolmetsch.server.demo.pricelist import BRINE, DRY, FRYINGS, PRICES, WAYS
from dolmetsch.server.kitchens.models import Kitchen, Membership, Role, User
from dolmetsch.server.prices.actions import note_frying, note_price
from dolmetsch.server.prices.models import PriceItem
from dolmetsch.server.prices.schemas import FryTestIn, QuoteIn
from dolmetsch.server.ways.actions import save_way
from dolmetsch.server.ways.schemas import WayIn
from dolmetsch.server.writing.once import Write

#: The way each of the latest batches is made by; of the others nobody said.
BATCH_WAYS = {0: DRY, 1: BRINE}


def load_demo(now: datetime) -> Kitchen:
    """Make the Salt Lantern Canteen with its cooks and batches, dated back from ``now``."""
    kitchen = Kitchen.objects.create(
        derived_edition=DERIVED_EDITION,
        slug="salt-lantern",
        name="Salt Lantern Canteen",
        weight_unit="lb",
        labour_rate="18.00",
        scale_grams="5",
        fridge_slabs=6,
        smoker_slabs=4,
    )
    # as it is read from the record store, its money as numbers
    kitchen.refresh_from_db()
    cooks = {}
    for name in (DEMO_USERNAME, "odo"):
        cooks[name] = User.objects.create_user(name, password=DEMO_PASSWORD, first_name=name.capitalize())
        role = Role.OWNER if name == DEMO_USERNAME else Role.COOK
        Membership.objects.create(user=cooks[name], kitchen=kitchen, role=role, joined_at=now)
    _list_prices(kitchen, cooks[DEMO_USERNAME], now)
    for number in range(len(PAST)):
        _load_story(kitchen, cooks, story=past_story(number), number=100 + number, now=now, way=DRY)
    for number, story in enumerate((*BATCHES, BELLY)):
        _load_story(kitchen, cooks, story=story, number=number, now=now, way=BATCH_WAYS.get(number))
    load_bench(kitchen, cooks, now)
    load_larder(kitchen, cooks, now)
    load_books(kitchen, cooks["maren"], now)
    return kitchen


def _list_prices(kitchen: Kitchen, cook: User, now: datetime) -> None:
    def write(content: object, when: datetime) -> Write:
        return write_demo(kitchen, cook, content, when)

    for sort, name, kind, history in PRICES:
        for days, source, price, size, slices, solution in history:
            on = now - timedelta(days=days)
            quote = {"sort": sort, "name": name, "kind": kind, "source": source, "on": on.date().isoformat()}
            quote |= {"price": price, "size": size, "slices": slices, "solution": solution}
            note_price(write(quote, on), QuoteIn.model_validate(quote))
    for name, days, raw, cooked in FRYINGS:
        on = now - timedelta(days=days)
        tested = {"raw": raw, "cooked": cooked, "on": on.date().isoformat()}
        item = PriceItem.objects.get(kitchen=kitchen, name=name)
        note_frying(write({**tested, "name": name}, on), item.pk, FryTestIn.model_validate(tested))
    for way in WAYS:
        save_way(write(way, now - timedelta(days=320)), WayIn.model_validate(way))


def _load_story(
    kitchen: Kitchen,
    cooks: dict[str, User],
    *,
    story: list[Recorded],
    number: int,
    now: datetime,
    way: str | None,
) -> None:
    made: list[Entry] = []
    for position, (when, cook, content) in enumerate(story):
        write = Write(
            kitchen=kitchen,
            user=cooks[cook],
            now=_moment(now, when),
            key=uuid.uuid5(KEYS, f"{number}/{position}"),
            fingerprint=hashlib.sha256(json.dumps(content, sort_keys=True).encode()).hexdigest(),
        )
        if "start" in content:
            start = StartIn.model_validate({"name": content["start"], "bought": content["bought"]})
            entry = start_batch(write, start).entry
            if way is not None:
                choose_way(write, entry.batch.code, ChooseWayIn(way=way))
        else:
            body = {**content, "seen": len(made)}
            if "corrects" in content:
                body["corrects"] = made[content["corrects"] - 1].id
            entry = record_entry(write, made[0].batch.code, EntryIn.model_validate(body)).entry
        made.append(entry)


def _moment(now: datetime, when: tuple[int, int, int]) -> datetime:
    """The moment so many days before today at that hour; today's are minutes ago, never to come."""
    days, hour, minute = when
    if days == 0:
        return now - timedelta(minutes=hour * 60 + minute)
    return (now - timedelta(days=days)).replace(hour=hour, minute=minute, second=0, microsecond=0)
