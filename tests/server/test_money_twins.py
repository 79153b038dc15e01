"""Two kitchens alike but for money: a helper who is shown none finds no difference, whatever they ask."""

import json
import re
import uuid
from decimal import Decimal

import pytest

from dolmetsch.server.batches.models import Entry
from dolmetsch.server.kitchens.models import Kitchen, Membership, Role, User
from dolmetsch.server.meals.models import MealJob
from dolmetsch.server.plans.models import PlannedTask
from dolmetsch.server.practice.lessons import LESSONS
from tests.server.conftest import BOUGHT, TRIM, make_kitchen, sign_in, weigh
from tests.server.test_cures import on_desk, put_in
from tests.server.test_dishes import ROLL, part
from tests.server.test_fires import fire
from tests.server.test_kitchens_apart import ASKED, WORDS
from tests.server.test_larder import SLICE, close, pack, stores, take
from tests.server.test_meals import WAY, plan
from tests.server.test_rules import IN_KITCHEN

pytestmark = pytest.mark.django_db
MEAL = "Saturday's forty"
#: Never end, end the session, or are a ZIP for owners.
APART = {"listenToScale", "listenToCooker", "leaveKitchen", "makeTablet", "exportEverything"}
#: What is no money, and differs by kitchen or by the moment.
OWN = re.compile(
    r"[0-9a-f]{8}-[0-9a-f-]{27}|\d{4}-\d\d-\d\dT[\d:.]+(?:Z|\+00:00)?|\d{8}T\d{6}Z|(?i:kitchen-\d)"
    r'|"(?:id|\w+_id|entry|taken|fire|hook|item|piece|batch|lot)": ?\d+|"entries": ?\[[\d, ]*\]'
    r"|(?:fires|photos|hooks)/\d+"
)


def twin(number, times):
    """A kitchen with something in every room, each price ``times`` as high."""

    def price(text):
        return re.sub(r"\d+\.\d\d", lambda found: f"{Decimal(found[0]) * times:.2f}", text)

    def dear(content):
        """The same content at the kitchen's prices."""
        typed = json.dumps(content)
        names = "price|paid|cost|labour_rate|overhead|income"
        return json.loads(re.sub(rf'"(?:{names})": "[^"]*"', lambda found: price(found[0]), typed))

    api = make_kitchen(f"kitchen-{number}")
    Kitchen.objects.filter(slug=api.slug).update(helpers_see_money=False, time_zone="UTC")

    def sent(path, body):
        status, answer = api.call("POST", path, dear(body))
        assert status in (200, 201), (path, answer)
        return answer

    stores(api)
    line = {"sort": "ingredient", "source": "quay", "on": "2026-01-02"}
    for name in ("coarse salt", "brown sugar", "Rye flour"):
        sent("/prices", {**line, "name": name, "price": "1.20/kg"})
    sent("/prices", {**line, "sort": "meat", "name": "jowl, skin on", "price": "2.85/lb"})
    sent("/ways", WAY)
    extras = [{"what": "delivery", "cost": "2.10"}]
    api.code = api.started(bought=dear({**BOUGHT, "extras": extras}))

    def recorded(content):
        return api.recorded(api.code, dear(content))

    recorded({"act": "policy", "labour_rate": "17.25"})
    recorded(TRIM)
    used = [{"what": "salt", "group": "cure", "amount": "90 g", "price": "1.30/kg"}]
    recorded({**weigh("cure", A="5 lb"), "used": used, "minutes": "20", "overhead": "1.10"})
    assert put_in(api, api.code, on_desk("B"))[0] == 201
    recorded(
        {"act": "shop_pack", "name": "good shop bacon", "paid": "7.99", "weight": "12 oz", "slices": "10"}
    )
    recorded({"act": "portion", "slices": "3"})
    recorded({"act": "fry", "kept": "42"})
    burning = sent("/fires", fire(api, pieces=[{"code": api.code, "mark": "B", "probe": "1"}], cooker=""))
    fuel = {"kind": "fuel", "text": "pellets", "amount": "4 lb", "price": "0.60/lb"}
    sent(f"/fires/{burning['id']}/events", fuel)
    sent(f"/fires/{burning['id']}/events", {"kind": "instant", "piece": f"{api.code} B", "temp": "120"})
    recorded({**weigh("smoke", A="4.8 lb"), "used": [{"what": "pellets", "group": "fuel", "price": "2.40"}]})
    assert close(api, [pack(store="Freezer") for _ in range(3)], split=SLICE)[0] == 201
    take(api, "P1", "sold", slices="2", income=price("4.50"))
    sent("/dishes", {**ROLL, "parts": [*ROLL["parts"][:2], part("own", "leaves", "a handful", cost="0.52")]})
    sent(f"/dishes/{ROLL['name']}/plates", {"plates": "1"})
    sent("/meals", plan(price="3.00/lb"))
    sent(f"/meals/{MEAL}/listed", {})
    hook = sent("/hooks", {"code": api.code, "mark": "D", "target": "40"})
    entry = Entry.objects.filter(batch__kitchen__slug=api.slug, act="split").order_by("id")[0]
    api.ids = {"code": api.code, "entry_id": str(entry.pk)}
    api.ids |= {"fire_id": str(burning["id"]), "hook_id": str(hook["id"])}
    return api


def address_of(api, path):
    """The address of something that is there, where there is such a thing."""
    names = {
        "dishes": ROLL["name"],
        "meals": MEAL,
        "scales": "counter",
        "cookers": "drum",
        "archive": "batches",
    }
    words = {**WORDS, **api.ids, "kitchen_slug": api.slug, "mark": "P1" if "/packs/" in path else "S"}
    if "uid" in path:
        table = MealJob if "meal-jobs" in path else PlannedTask
        words["uid"] = str(table.objects.filter(kitchen__slug=api.slug).order_by("id")[0].uid)
    words["name"] = next((name for room, name in names.items() if f"/{room}/" in path), "none")
    filled = re.sub(r"{(\w+)}", lambda found: words.get(found[1], "999999"), path)
    return filled + next((more for end, more in ASKED.items() if path.endswith(end)), "")


def bodies(code):
    """What is sent, by operation; prices as a helper may type them are the same in both."""
    sliced = {"act": "weigh", "kind": "chill", "weights": [{"mark": "D", "weight": "0.7 lb"}]}
    return {
        "previewEntry": {"content": sliced, "seen": 99},
        "recordEntry": {"content": sliced, "seen": 99},
        "readOnScale": {"mark": "D", "kind": "chill", "weight": "0.7 lb"},
        "writeNote": {"text": "salty at the thin end"},
        "takeFromPack": {"fate": "sold", "slices": "1", "income": "3.00"},
        "movePack": {"sort": "opened"},
        "weighPack": {"weight": "0.19 lb"},
        "countShelves": {"expected": 1, "missing": [{"code": code, "mark": "P3"}]},
        "recordFireEvent": {"kind": "fuel", "text": "pellets", "amount": "1 lb", "price": "0.60/lb"},
        "noteOfHook": {"kind": "air", "temp": "55", "humidity": "75"},
        "beginPractice": {"lesson": next(iter(LESSONS))},
        "recordNews": {"sort": "done"},
        "recordJobNews": {"sort": "done"},
        "previewPacks": {"packs": [pack("S")], "seen": 99},
    }


def told(answer):
    """What an answer says, without what is of its kitchen or the moment."""
    if answer.streaming:
        return answer.status_code, b"".join(answer.streaming_content)
    return answer.status_code, OWN.sub("·", answer.content.decode(errors="replace"))


def helper_of(api):
    user = User.objects.create(username=f"helper-of-{api.slug}")
    kitchen = Kitchen.objects.get(slug=api.slug)
    Membership.objects.create(user=user, kitchen=kitchen, role=Role.HELPER)
    return sign_in(user)


#: What others recorded meanwhile is said in sentences.
BEHIND = ("behind", "POST", "/api/kitchens/{kitchen_slug}/batches/{code}/entries")


def walk(apis, clients):
    """For each operation in turn: its name, and what each kitchen answers its client."""
    for name, method, path in [BEHIND, *IN_KITCHEN]:
        if name in APART:
            continue
        answers = []
        for api, client in zip(apis, clients, strict=True):
            body = bodies(api.code).get(name, {"content": TRIM, "seen": 1})
            answer = client.generic(
                method,
                address_of(api, path),
                data=json.dumps(body) if method != "GET" else b"",
                content_type="application/json",
                headers={"Idempotency-Key": str(uuid.uuid4())},
            )
            answers.append(told(answer))
        yield name, answers


def test_a_helper_finds_no_difference_and_an_owner_does():
    apis = [twin(1, 1), twin(2, 3)]
    seen, done = [], set()
    for name, (one, other) in walk(apis, [helper_of(api) for api in apis]):
        if one[0] < 300:
            done.add(name)
        # drawings of labels are PDF, which is never the same twice
        if one != other and not str(one[1]).startswith("%PDF"):
            seen.append((name, *(differing(str(one), str(other)))))
    assert seen == [], "\n".join(map(str, seen))
    assert {
        "recordNews",
        "recordJobNews",
        "countShelves",
        "beginPractice",
        "recordEntry",
        "takeFromPack",
        "weighPack",
        "recordFireEvent",
        "noteOfHook",
        "writeNote",
    } <= done
    apart = {
        name
        for name, (one, other) in walk(apis, [api.client for api in apis])
        if one != other and one[0] < 300
    }
    assert {"getBatch", "getDiary", "getPack", "getFire", "getLarder"} <= apart


def differing(one, other):
    """Where two texts part, with what stands around it."""
    at = next(
        (at for at, (a, b) in enumerate(zip(one, other, strict=False)) if a != b), min(len(one), len(other))
    )
    return one[max(0, at - 160) : at + 60], other[max(0, at - 40) : at + 60]
