"""People at work at once in a hundred kitchens: weighing, at a fire, planning, in the books."""

import http.client
import json
import random
import threading
import time
import uuid
from collections import defaultdict
from typing import Any, Final

from town_pages import percentile, weigh_again

KITCHENS: Final = 100
LEVELS: Final = (25, 50, 100, 200, 400)
SECONDS: Final = 45.0
#: Seconds between two acts of one, on average.
PAUSE: Final = 5.0
KINDS: Final = ("weighs", "watches a fire", "plans", "reads books")
BOOKS: Final = ("books/yields", "books/money", "books/prices", "verdicts", "larder")


class Person(threading.Thread):
    """Someone with a connection of their own, at work until ``stop``; the times of what they did, in ms."""

    def __init__(self, port: int, number: int, slug: str, cookies: dict[str, str], stop: threading.Event):
        super().__init__(daemon=True)
        self.port, self.slug, self.stop = port, slug, stop
        self.cookies = "; ".join(f"{name}={value}" for name, value in cookies.items())
        self.token = cookies["csrftoken"]
        self.kind = "empty endpoint" if number < 0 else KINDS[number % len(KINDS)]
        self.dice, self.number = random.Random(number), number
        self.times: list[float] = []
        self.refused: list[str] = []
        self.connection: http.client.HTTPConnection | None = None
        self.stream: http.client.HTTPConnection | None = None

    def run(self) -> None:
        pause = 0.5 if self.number < 0 else PAUSE
        if self.kind == "weighs":
            self._listen()
        self.stop.wait(self.dice.uniform(0, pause))
        while not self.stop.is_set():
            begun = time.perf_counter()
            try:
                status = self._act()
            except (OSError, http.client.HTTPException) as error:
                self.connection = None
                status, said = 0, type(error).__name__
            else:
                said = str(status)
            self.times.append((time.perf_counter() - begun) * 1000)
            if not 200 <= status < 300:
                self.refused.append(said)
            self.stop.wait(self.dice.expovariate(1 / pause))
        for one in (self.connection, self.stream):
            if one is not None:
                one.close()

    def _act(self) -> int:
        kitchen = f"/api/kitchens/{self.slug}"
        if self.kind == "weighs":
            body = {"sort": "ingredient", "name": f"cup {self.number} {len(self.times)}", "source": "Quay"}
            body |= {"price": "1.00", "size": "1 kg", "on": time.strftime("%Y-%m-%d")}
            if len(self.times) % 3:
                code = f"X-{self.dice.randrange(200):04d}"
                status, page = self._ask("GET", f"{kitchen}/batches/{code}")
                if status != 200:
                    return status
                content = {"act": "weigh", "kind": "pack", "weights": WEIGHTS}
                path, body = f"{kitchen}/batches/{code}/entries", {"content": content, "seen": page["seen"]}
                return self._ask("POST", path, body)[0]
            return self._ask("POST", f"{kitchen}/prices", body)[0]
        paths = {
            "watches a fire": ["fires/{fire}", "fires", "alarms"],
            "plans": ["plan", "today", "cure-desk", "map"],
            "reads books": list(BOOKS),
        }.get(self.kind)
        if paths is None:
            return self._ask("GET", "/api/session/alive")[0]
        path = self.dice.choice(paths).replace("{fire}", str(FIRES.get(self.slug, 1)))
        return self._ask("GET", f"{kitchen}/{path}")[0]

    def _listen(self) -> None:
        """A stream of the bench scale stays open, as the weigh view has it."""
        self.stream = http.client.HTTPConnection("127.0.0.1", self.port, timeout=20)
        try:
            path = f"/api/kitchens/{self.slug}/scales/bench/stream"
            self.stream.request("GET", path, headers={"Cookie": self.cookies})
            status = self.stream.getresponse().status
        except (OSError, http.client.HTTPException) as error:
            status = type(error).__name__
        if status != 200:
            self.refused.append(f"stream {status}")

    def _ask(self, method: str, path: str, body: Any = None) -> tuple[int, Any]:
        headers = {"Cookie": self.cookies, "X-CSRFToken": self.token, "Content-Type": "application/json"}
        headers |= {"Idempotency-Key": str(uuid.uuid4())}
        if method == "POST":
            headers["Prefer"] = "return=minimal"
        sent = None if body is None else json.dumps(body)
        try:
            response, answer = self._send(method, path, sent, headers)
        except ConnectionError:
            # it was idle for too long: sent again on a new one, as a browser does
            self.connection = None
            response, answer = self._send(method, path, sent, headers)
        is_page = "json" in (response.getheader("Content-Type") or "") and method == "GET"
        return response.status, json.loads(answer) if is_page else {}

    def _send(self, method: str, path: str, sent: str | None, headers: dict[str, str]) -> tuple[Any, bytes]:
        if self.connection is None:
            self.connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=60)
        self.connection.request(method, path, sent, headers)
        response = self.connection.getresponse()
        return response, response.read()


#: The fire that is watched, by kitchen; what each batch weighs.
FIRES: dict[str, int] = {}
WEIGHTS: list[dict[str, str]] = []


def sign_in_people() -> list[tuple[str, dict[str, str]]]:
    """Owners of the first kitchens of the town, two each, their kitchens and cookies."""
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
            user = User.objects.create(username=f"cook-{number}-{place}")
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
