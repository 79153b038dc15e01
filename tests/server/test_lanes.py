"""Who lies where until when, from the map, cures, hooks, fires and the list of tasks."""

import pytest

from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.lanes.queries import list_tasks
from tests.server.conftest import TRIM, weigh
from tests.server.test_cures import on_desk, put_in
from tests.server.test_fires import fire, happens

pytestmark = pytest.mark.django_db


@pytest.fixture
def lain(api, settings):
    """A jowl in A and B: A in the fridge, B nowhere."""
    settings.COOKERS = f"{api.slug}/drum=line:127.0.0.1:1"
    for name, sort in (("Fridge", "fridge"), ("Cabinet", "smoker"), ("Loft", "chamber")):
        api.call("POST", "/stores", {"name": name, "sort": sort, "levels": 2, "slots": 2})
    api.code = api.started()
    api.recorded(api.code, TRIM)
    lay(api, "A", "Fridge")
    return api


def lay(api, mark, store):
    place = {"store": store, "level": 1, "slot": 1}
    assert api.call("POST", f"/batches/{api.code}/pieces/{mark}/facts", {"place": place})[0] == 201


def lanes(api):
    answer = api.get("/lanes?days=60")[1]["lanes"]
    return {
        lane["name"]: [
            (bar["kind"], "".join(bar["marks"]), bar["words"], bar["is_planned"]) for bar in lane["bars"]
        ]
        for lane in answer
        if lane["bars"]
    }


def test_a_piece_lies_where_the_map_says_until_somebody_says_more(lain):
    assert lanes(lain) == {"Fridge": [("wait", "A", "waits", False)], "": [("wait", "B", "waits", False)]}
    lane = lain.get("/lanes")[1]["lanes"][0]
    assert (lane["slots"], lane["bars"][0]["ends"]) == (4, None)


def test_a_cure_ends_with_its_window_and_what_follows_is_planned(lain):
    assert put_in(lain, lain.code, on_desk("A"))[0] == 201
    found = lanes(lain)
    assert found["Fridge"] == [("cure", "A", "cure", False), ("dry", "A", "dry", True)]
    assert found["Cabinet"] == [("smoke", "A", "smoke", True)]
    cure = lain.get("/lanes?days=60")[1]["lanes"][0]["bars"][0]
    assert cure["begins"] < cure["ends"] < cure["latest"]
    assert [point["words"] for point in cure["points"]][-1] == "Into the smoke"


def test_pieces_in_the_smoke_and_on_the_hook_say_so(lain):
    assert lain.call("POST", "/fires", fire(lain, store="Cabinet"))[0] == 201
    hook = {"code": lain.code, "mark": "B", "target": "40", "chamber": "Loft"}
    assert lain.call("POST", "/hooks", hook)[0] == 201
    found = lanes(lain)
    assert found["Cabinet"] == [("smoke", "A", "in the smoke", False)]
    assert found["Loft"][0][:2] == ("hang", "B")
    fire_id = lain.get("/fires")[1]["burning"][0]["id"]
    assert happens(lain, fire_id, "rest")[0] == 201
    assert lanes(lain)[""] == [("wait", "A", "waits", False)]


def test_what_a_weighing_shows_to_be_over_is_over(lain):
    assert put_in(lain, lain.code, on_desk("A"))[0] == 201
    lain.recorded(lain.code, weigh("smoke", A="4 lb"))
    assert lanes(lain)["Fridge"] == [("wait", "A", "waits", False)]


def test_another_kitchen_sees_none_of_it(lain, other):
    assert other.get("/lanes")[1]["lanes"] == []
    assert other.client.get(f"/api/kitchens/{lain.slug}/lanes").status_code == 404


def test_tasks_and_days_are_of_ones_own_kitchen_and_of_no_more_days_than_can_be_drawn(lain, other):
    assert put_in(lain, lain.code, on_desk("A"))[0] == 201
    kitchens = {row.slug: row for row in Kitchen.objects.all()}
    assert list_tasks(kitchens[lain.slug])
    assert list_tasks(kitchens[other.slug]) == []
    assert [lain.get(f"/lanes?days={days}")[0] for days in (0, 1, 60, 61)] == [422, 200, 200, 422]
