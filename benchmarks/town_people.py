"""People at work at once in a hundred kitchens: weighing, at a fire, planning, in the books."""

import http.client
import json
import random
import threading
import time
from collections import defaultdict
from typing import Any, Final

from acts import weigh, weigh_again
from connections import Pool
from timing import percentile, timed

KITCHENS: Final = 100
LEVELS: Final = (25, 50, 100, 200, 400)
SECONDS: Final = 45.0
#: Seconds between two acts of one, on average.
PAUSE: Final = 5.0
#: What those read who read, below the kitchen's address.
READ: Final = {
    "watches a fire": ("fires/{fire}", "fires", "alarms"),
    "plans": ("plan", "today", "cure-desk", "map"),
    "reads books": ("books/yields", "books/money", "books/prices", "verdicts", "larder"),
}
KINDS: Final = ("weighs", *READ)


class Person(threading.Thread):
    """Someone with a connection of their own, at work until ``stop``; the times of what they did, in ms."""

    def __init__(self, port: int, number: int, slug: str, cookies: dict[str, str], stop: threading.Event):
        super().__init__(daemon=True)
        self.pool, self.kitchen, self.stop = Pool(port, cookies), f"/api/kitchens/{slug}", stop
        self.fire = FIRES[slug]
        self.kind = "empty endpoint" if number < 0 else KINDS[number % len(KINDS)]
        self.dice, self.number = random.Random(number), number
        self.times: list[float] = []
        self.refused: list[str] = []

    def run(self) -> None:
        pause = 0.5 if self.number < 0 else PAUSE
        stream = self._listen() if self.kind == "weighs" else None
        self.stop.wait(self.dice.uniform(0, pause))
        while not self.stop.is_set():
            self.times.append(timed(self._act_or_note))
            self.stop.wait(self.dice.expovariate(1 / pause))
        self.pool.close()
        if stream is not None:
            stream.close()

    def _act_or_note(self) -> None:
        try:
            status = self._act()
        except (OSError, http.client.HTTPException) as error:
            self.pool.close()
            self.refused.append(type(error).__name__)
        else:
            if not 200 <= status < 300:
                self.refused.append(str(status))

    def _act(self) -> int:
        """Do one thing; the status that was answered."""
        if self.kind == "weighs":
            return self._weigh() if len(self.times) % 3 else self._note_price()
        path = "/api/session/alive"
        if self.kind in READ:
            path = f"{self.kitchen}/{self.dice.choice(READ[self.kind])}".replace("{fire}", str(self.fire))
        return int(self.pool.ask("GET", path)[0].status)

    def _weigh(self) -> int:
        path = f"{self.kitchen}/batches/X-{self.dice.randrange(200):04d}"
        response, answer = self.pool.ask("GET", path)
        if response.status == 200:
            sent = weigh(WEIGHTS, json.loads(answer)["seen"])
            response, _ = self.pool.ask("POST", f"{path}/entries", sent)
        return int(response.status)

    def _note_price(self) -> int:
        body = {"sort": "ingredient", "name": f"cup {self.number} {len(self.times)}", "source": "Quay"}
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
    from dolmetsch.server.fires.models import Fire
    from dolmetsch.server.kitchens.models import Kitchen, Membership, User

    WEIGHTS[:] = weigh_again(Batch.objects.get(kitchen__slug="salt-lantern", code="X-0001"))
    found = []
    most = max(LEVELS)
    for number in range(1, KITCHENS + 1):
        kitchen = Kitchen.objects.get(slug=f"many-{number}")
        fires = Fire.objects.filter(kitchen=kitchen).order_by("-pk")
        FIRES[kitchen.slug] = fires.values_list("pk", flat=True)[0]
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


def measure_people(port: int, people: list[tuple[str, dict[str, str]]], count: int) -> dict[str, Any]:
    """``count`` of them at work for a while: of each kind of act median, 95th percentile and how many."""
    stop = threading.Event()
    workers = [Person(port, number, *people[number], stop) for number in range(count)]
    workers.append(Person(port, -1, *people[0], stop))
    for one in workers:
        one.start()
    time.sleep(SECONDS)
    stop.set()
    for one in workers:
        one.join(timeout=90)
    times, refused = defaultdict(list), defaultdict(int)
    for one in workers:
        # of each the first is a first look
        times[one.kind] += one.times[1:]
        for word in one.refused:
            refused[word] += 1
    return {
        "people": count,
        "acts": sum(map(len, times.values())) / SECONDS,
        "refused": dict(refused),
        "times": {
            kind: (percentile(took, 50), percentile(took, 95), len(took))
            for kind, took in times.items()
            if took
        },
    }
