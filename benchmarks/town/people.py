"""People at work at once in a hundred kitchens: weighing, at a fire, planning, in the books."""

import http.client
import json
import random
import threading
import time
import uuid
from collections import defaultdict
from datetime import timedelta
from typing import Any, Final

from benchmarks.acts import weigh, weigh_again
from benchmarks.connections import Pool
from benchmarks.sizes import of
from benchmarks.speed.fires import fill_fire
from benchmarks.timing import percentile, timed

KITCHENS: Final = of(100, 2)
LEVELS: Final = of((25, 50, 100, 200), (2,))
#: Seconds that are measured, after others in which each screen has its first look.
SECONDS, WARMING = of((60.0, 20.0), (2.0, 0.5))
#: Seconds between two acts of one: a screen at a fire renews itself, the others do something now and then.
PAUSES: Final = {"weighs": 20.0, "watches a fire": 4.0, "plans": 15.0, "reads books": 15.0}
#: Every screen, whatever it shows, asks so often whether anything is wrong at a fire.
ALARMS, ALARMS_EVERY = "any screen: alarms", 10.0
EMPTY, EMPTY_EVERY = "empty endpoint", 0.5
#: What those read who read, below the kitchen's address.
READ: Final = {
    "plans": ("plan", "today", "cure-desk", "map"),
    "reads books": ("books/yields", "books/money", "books/prices", "verdicts", "larder"),
}
#: The fire that burns in each kitchen: hours since it was begun, and its probes.
HOURS, PROBES, HEARD_EVERY = 4, 3, 10


class Person(threading.Thread):
    """Someone with a connection of their own, at work until ``stop``; the times of what they did, in ms."""

    def __init__(self, port: int, number: int, slug: str, cookies: dict[str, str], stop: threading.Event):
        super().__init__(daemon=True)
        self.pool, self.kitchen, self.stop = Pool(port, cookies), f"/api/kitchens/{slug}", stop
        self.fire = FIRES[slug]
        self.kind = EMPTY if number < 0 else list(PAUSES)[number % len(PAUSES)]
        self.dice, self.number, self.acts = random.Random(number), number, 0
        self.begun = time.monotonic()
        self.times: list[tuple[str, float]] = []
        self.refused: list[str] = []

    def run(self) -> None:
        pauses = {EMPTY: EMPTY_EVERY}
        if self.number >= 0:
            pauses = {self.kind: PAUSES[self.kind], ALARMS: ALARMS_EVERY}
        due = {act: self.dice.uniform(0, pause) for act, pause in pauses.items()}
        stream = self._listen() if self.kind == "weighs" else None
        while not self.stop.is_set():
            act = min(due, key=due.__getitem__)
            if self.stop.wait(max(0.0, due[act] - (time.monotonic() - self.begun))):
                break
            took = timed(lambda act=act: self._act_or_note(act))
            passed = time.monotonic() - self.begun
            if passed > WARMING:
                self.times.append((act, took))
            # a screen asks again some time after its answer; people do so now sooner, now later
            pause = (
                pauses[act] if act in (ALARMS, "watches a fire") else self.dice.expovariate(1 / pauses[act])
            )
            due[act] = passed + pause
        self.pool.close()
        if stream is not None:
            stream.close()

    def _act_or_note(self, act: str) -> None:
        try:
            status = self._act(act)
        except (OSError, http.client.HTTPException) as error:
            self.pool.close()
            self.refused.append(type(error).__name__)
        else:
            if not 200 <= status < 300:
                self.refused.append(str(status))

    def _act(self, act: str) -> int:
        """Do one thing; the status that was answered."""
        self.acts += 1
        if act == "weighs":
            return self._weigh() if self.acts % 3 else self._note_price()
        path = {
            EMPTY: "/api/session/alive",
            ALARMS: f"{self.kitchen}/alarms",
            "watches a fire": f"{self.kitchen}/fires/{self.fire}",
        }.get(act)
        path = path or f"{self.kitchen}/{self.dice.choice(READ[act])}"
        return int(self.pool.ask("GET", path)[0].status)

    def _weigh(self) -> int:
        path = f"{self.kitchen}/batches/X-{self.dice.randrange(200):04d}"
        response, answer = self.pool.ask("GET", path)
        if response.status == 200:
            sent = weigh(WEIGHTS, json.loads(answer)["seen"])
            response, _ = self.pool.ask("POST", f"{path}/entries", sent)
        return int(response.status)

    def _note_price(self) -> int:
        body = {"sort": "ingredient", "name": f"cup {self.number} {self.acts}", "source": "Quay"}
        body |= {"price": "1.00", "size": "1 kg", "on": time.strftime("%Y-%m-%d")}
        return int(self.pool.ask("POST", f"{self.kitchen}/prices", body)[0].status)

    def _listen(self) -> http.client.HTTPConnection:
        """A stream of the bench scale that stays open, as the weigh view has it."""
        stream = http.client.HTTPConnection("127.0.0.1", self.pool.port, timeout=20)
        try:
            path = f"{self.kitchen}/scales/bench/stream"
            stream.request("GET", path, headers={"Cookie": self.pool.cookies})
            status = stream.getresponse().status
        except (OSError, http.client.HTTPException) as error:
            status = type(error).__name__
        if status != 200:
            self.refused.append(f"stream {status}")
        return stream


#: The fire that is watched, by kitchen; what each batch weighs.
FIRES: dict[str, int] = {}
WEIGHTS: list[dict[str, str]] = []


def sign_in_people() -> list[tuple[str, dict[str, str]]]:
    """Owners of the first kitchens of the town, as many of each; their kitchens and cookies."""
    from django.conf import settings
    from django.test import Client
    from django.utils import timezone

    from dolmetsch.server.batches.models import Batch
    from dolmetsch.server.kitchens.models import Kitchen, Membership, User

    WEIGHTS[:] = weigh_again(Batch.objects.get(kitchen__slug="salt-lantern", code="X-0001"))
    found = []
    most = max(LEVELS)
    for number in range(1, KITCHENS + 1):
        kitchen = Kitchen.objects.get(slug=f"many-{number}")
        FIRES[kitchen.slug] = _light_fire(kitchen)
        for place in range(most // KITCHENS):
            user, is_new = User.objects.get_or_create(username=f"cook-{number}-{place}")
            if is_new:
                Membership.objects.create(user=user, kitchen=kitchen, joined_at=timezone.now())
            client = Client()
            client.force_login(user)
            session = client.session
            session["since"] = session["seen"] = time.time()
            session.save()
            token = client.get("/api/session").cookies["csrftoken"].value
            cookies = {
                "csrftoken": token,
                settings.SESSION_COOKIE_NAME: client.cookies[settings.SESSION_COOKIE_NAME].value,
            }
            found.append((kitchen.slug, cookies))
    random.Random(6).shuffle(found)
    return found


def _light_fire(kitchen: Any) -> int:
    """Tonight's fire, in place of any that burned before; its number."""
    from django.utils import timezone

    from dolmetsch.server.batches.models import Batch
    from dolmetsch.server.fires.models import Fire, FireEvent, ProbeReading

    now, cook = timezone.now(), {"recorded_by_id": 1, "fingerprint": "bench"}
    for fire in Fire.objects.filter(kitchen=kitchen).exclude(events__kind="done"):
        FireEvent.objects.create(
            fire=fire,
            at=now,
            kind="done",
            data={},
            kitchen=kitchen,
            recorded_at=now,
            key=uuid.uuid4(),
            **cook,
        )
    # what another run had it hear
    evening = now - timedelta(hours=HOURS + 1)
    ProbeReading.objects.filter(kitchen=kitchen, cooker="drum", at__gte=evening).delete()
    batch = Batch.objects.filter(kitchen=kitchen, is_finished=False).order_by("-pk")[0]
    return fill_fire(kitchen.slug, batch.code, hours=HOURS, probes=PROBES)


def look_around(port: int, people: list[tuple[str, dict[str, str]]]) -> None:
    """Each kitchen has looked at every page once: its rows are in memory as those of one that is at work."""
    for slug, cookies in dict(people).items():
        pool, kitchen = Pool(port, cookies), f"/api/kitchens/{slug}"
        for path in (*READ["plans"], *READ["reads books"], "alarms", f"fires/{FIRES[slug]}"):
            pool.get(f"{kitchen}/{path}")
        pool.close()


def _hear(stop: threading.Event) -> None:
    """Every fire is heard every ``HEARD_EVERY`` seconds, as a collector keeps it, until ``stop``."""
    from django.db import connection
    from django.utils import timezone

    from dolmetsch.server.fires.models import Fire, ProbeReading

    fires = list(Fire.objects.filter(pk__in=FIRES.values()))
    turn, dice = 0, random.Random(7)
    while not stop.wait(1):
        turn, now = turn + 1, timezone.now()
        ProbeReading.objects.bulk_create(
            ProbeReading(
                kitchen_id=fire.kitchen_id,
                cooker=fire.cooker,
                at=now,
                values={**{str(at + 1): "187.2" for at in range(PROBES)}, "air": f"{dice.gauss(225, 4):.1f}"},
                heard_at=now,
            )
            for fire in fires[turn % HEARD_EVERY :: HEARD_EVERY]
        )
    connection.close()


def measure_people(port: int, people: list[tuple[str, dict[str, str]]], count: int) -> dict[str, Any]:
    """``count`` of them at work for a while: of each kind of act median, 95th percentile and how many."""
    stop = threading.Event()
    workers: list[Any] = [Person(port, number, *people[number], stop) for number in range(count)]
    workers.append(Person(port, -1, *people[0], stop))
    hearing = threading.Thread(target=_hear, args=(stop,))
    for one in (*workers, hearing):
        one.start()
    time.sleep(WARMING + SECONDS)
    stop.set()
    for one in (*workers, hearing):
        one.join(timeout=90)
    times, refused = defaultdict(list), defaultdict(int)
    for one in workers:
        for act, took in one.times:
            times[act].append(took)
        for word in one.refused:
            refused[word] += 1
    return {
        "people": count,
        "acts": sum(map(len, times.values())) / SECONDS,
        "refused": dict(refused),
        "times": {
            act: (percentile(took, 50), percentile(took, 95), len(took))
            for act, took in sorted(times.items())
        },
    }
