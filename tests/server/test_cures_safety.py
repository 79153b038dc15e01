"""What could hurt someone at the cure desk, over the API: mixes, spoons, second cures, days, tubs."""

import pytest

from dolmetsch.server.cures.models import PieceCure
from dolmetsch.server.plans.models import PlannedTask, TaskNews
from tests.server.conftest import BOUGHT, TRIM, weigh
from tests.server.test_cures import RECIPE, ask, faults, on_desk, put_in


@pytest.fixture
def code(api):
    started = api.started(happened_at="2026-03-01T09:00:00Z")
    api.recorded(started, TRIM)
    return started


def codes(piece):
    return [one["code"] for one in piece["cautions"]]


def mix_of(api, name="Strong", weight="2 kg", **recipe):
    assert api.call("POST", "/recipes", {"recipe": {**RECIPE, "name": name, **recipe}})[0] == 201
    return api.call("POST", "/mixes", {"recipe": name, "weight": weight})[1]["mixes"][0]


def test_a_mix_brings_what_was_weighed_into_it_whatever_the_recipe_on_the_desk_says(api, code):
    """Made at 500 ppm and used at a desk set to 150: 500 ppm go in, over the limit, and it is asked about."""
    mix = mix_of(api, target="500")
    assert mix["words"] == "500 ppm nitrite, 2.5 % salt, 1 % sugar"
    (piece,) = ask(api, code, on_desk(mix=mix["id"]))["pieces"]
    assert (piece["gauge"]["ppm"], piece["gauge"]["is_over"]) == ("500.0", True)
    assert "over_limit" in codes(piece)
    (question,) = piece["questions"]
    assert "was made with 500 ppm nitrite" in question["message"]
    assert "the recipe here has 150 ppm nitrite" in question["message"]
    assert put_in(api, code, on_desk(mix=mix["id"]))[1]["code"] == "ask"
    assert put_in(api, code, on_desk(mix=mix["id"]), sure=True)[0] == 201
    cure = PieceCure.objects.get()
    assert cure.answer["gauge"]["ppm"] == "500.0"
    # 5 lb: 18.1 g of no. 1, salt 39.7 g beside it, sugar 22.7 g
    assert float(cure.mix_grams) == pytest.approx(2267.96 * 0.035 + 18.14 * 0.0625, abs=0.1)
    same = ask(api, code, on_desk("B", {"target": "500"}, mix=mix["id"]))["pieces"][0]
    assert same["questions"] == []


def test_a_mix_without_nitrite_is_no_nitrite_under_a_cold_smoke(api, code):
    mix = mix_of(api, "Plain", school="plain", agent="", target="")
    (piece,) = ask(api, code, on_desk(mix=mix["id"], course="cold_smoked_raw"))["pieces"]
    assert codes(piece) == ["no_nitrite", "plain"]
    assert (piece["gauge"], piece["school"]) == (None, "without nitrite")
    assert "no nitrite" in piece["questions"][0]["message"]


def test_a_mix_weighed_on_a_coarse_scale_has_its_spread(api, code):
    mix = mix_of(api, target="150")
    (piece,) = ask(api, code, on_desk(mix=mix["id"]), scale="5 g")["pieces"]
    # half of 5 g on 79.7 g of mix is 3.1 % of whatever is in it
    assert (piece["gauge"]["low"], piece["gauge"]["high"]) == ("145", "155")


def test_a_second_stage_goes_on_over_a_mix(api, code):
    mix = mix_of(api)
    later = {"school": "two_stage", "extras": [{"name": "juniper", "amount": "0.3 %", "stage": 2}]}
    (piece,) = ask(api, code, on_desk(recipe=later, mix=mix["id"]))["pieces"]
    assert piece["stage_note"] == "Second stage, once out: juniper."
    assert [line["name"] for line in piece["lines"] if line["stage"] == 2] == ["juniper"]


def test_spoons_round_down_and_show_their_grams(api, code):
    spoons = {"school": "spoon", "target": "", "agent_amount": "1 tsp for 5 lb"}
    (piece,) = ask(api, code, on_desk("B", spoons))["pieces"]
    agent = next(line for line in piece["lines"] if line["role"] == "agent")
    # 3 lb ask for 0.6 tsp, 3.6 g; half a teaspoon holds 3.0 g: 137.8 ppm
    assert (agent["spoons"], agent["spoons_grams"], agent["grams"], agent["is_spooned"]) == (
        "½ tsp",
        "3.0",
        "3.0",
        True,
    )
    assert (piece["gauge"]["ppm"], piece["gauge"]["low"], piece["gauge"]["high"]) == ("137.8", "124", "152")
    assert "spoon_short" in codes(piece)
    tiny = {**spoons, "agent_amount": "1/4 tsp for 5 lb"}
    (piece,) = ask(api, code, on_desk("B", tiny))["pieces"]
    agent = next(line for line in piece["lines"] if line["role"] == "agent")
    assert (agent["spoons"], agent["grams"], agent["is_spooned"]) == ("less than ¼ tsp", "0.90", False)
    assert "spoon_coarse" in codes(piece)


def test_nitrited_salt_by_the_spoon_is_its_own_agent_and_other_salt_by_the_spoon_is_not(api, code):
    """What goes by the spoon: nitrited salt is salt and agent in one."""
    by_spoon = {
        "school": "spoon",
        "salt": {"name": "salt", "amount": "3 tbsp for 5 lb", "spoon": "fine_salt"},
    }
    nitrited = {**by_spoon, "agent": "weak", "agent_nitrite": "0.6 %", "agent_amount": "", "target": ""}
    (piece,) = ask(api, code, on_desk("B", nitrited))["pieces"]
    (line,) = (line for line in piece["lines"] if line["role"] == "agent")
    assert line["is_spooned"]
    plain = {**by_spoon, "agent_amount": "0.25 %", "target": ""}
    (piece,) = ask(api, code, on_desk("B", plain))["pieces"]
    (line,) = (line for line in piece["lines"] if line["role"] == "agent")
    assert not line["is_spooned"]


@pytest.mark.parametrize(
    ("day", "state", "said"),
    [
        (1, "early", "11 days too early"),
        (11, "early", "1 day too early"),
        (15, "inside", "no harm"),
        (23, "over", "1 day past"),
        (60, "over", "38 days past"),
    ],
)
def test_each_side_of_the_window_has_its_own_words(api, code, day, state, said):
    (piece,) = ask(api, code, on_desk(out_day=day))["pieces"]
    assert piece["time"]["state"] == state
    assert said in piece["time"]["said"]


def test_it_comes_out_by_the_slowest_rule_and_an_uncured_center_is_said(api, code):
    (piece,) = ask(api, code, on_desk())["pieces"]
    # 1.6 inches: a week an inch 11.2 days, diffusion 14.3
    assert (piece["time"]["planned"], piece["time"]["out"], piece["time"]["center"]) == (15, 15, "82")
    assert "center" not in codes(piece)
    (early,) = ask(api, code, on_desk(out_day=12))["pieces"]
    assert "center" in codes(early)
    (blind,) = ask(api, code, {**on_desk("B"), "thickness": ""})["pieces"]
    assert (blind["time"]["planned"], blind["time"]["asks_thickness"]) == (7, True)
    assert "no_thickness" in codes(blind)


def test_a_piece_cured_before_is_asked_about_and_what_it_carries_is_added(api, code):
    put_in(api, code, on_desk())
    api.recorded(code, weigh("cure", A="4.9 lb"))
    (again,) = ask(api, code, on_desk())["pieces"]
    # 150 ppm of 5 lb are 153.06 of 4.9 lb
    assert (again["gauge"]["ppm"], again["gauge"]["carried_ppm"], again["gauge"]["is_over"]) == (
        "303.1",
        "153",
        True,
    )
    assert again["questions"][0]["message"].startswith("A has been cured before (153 ppm of nitrite).")
    api.call("POST", f"/batches/{code}/cures/{PieceCure.objects.get().pk}/take-back", {"reason": "was B"})
    (alone,) = ask(api, code, on_desk())["pieces"]
    assert (alone["gauge"]["ppm"], alone["gauge"]["carried_ppm"]) == ("150.0", None)


def test_nitrite_follows_the_meat_through_cuts_into_another_batch(api, code):
    put_in(api, code, on_desk(), on_desk("B", {"agent": "packet", "target": "", "agent_amount": "1 %"}))
    api.recorded(code, weigh("cure", A="5 lb", B="3 lb"))
    cut = {
        "act": "split",
        "kind": "cut",
        "piece": "A",
        "pieces": [{"mark": "A1", "weight": "2.5 lb"}, {"mark": "A2", "weight": "2.5 lb"}],
    }
    api.recorded(code, cut)
    source = {"batch": code, "piece": "A1"}
    sausage = api.started(
        name="Sausage",
        bought={"act": "bought", "cut": "cured jowl", "price_basis": "pack", "price": "", "source": source},
    )
    api.recorded(sausage, {**BOUGHT, "cut": "shoulder", "own_weight": "2.5 lb", "label_weight": ""})
    mixed = {
        "act": "merge",
        "kind": "mix",
        "pieces": ["lot", "lot 2"],
        "into": {"mark": "M", "weight": "5 lb"},
    }
    api.recorded(sausage, mixed)
    piece = on_desk("M", {"target": "100"}, product="comminuted")
    (answer,) = ask(api, sausage, piece)["pieces"]
    # half of the mixed meat brings 150 ppm of itself, so 75 of the whole; with 100 more it is over 156
    gauge = answer["gauge"]
    assert (gauge["carried_ppm"], gauge["ppm"], gauge["is_over"]) == ("75", "175.0", True)
    assert "carried" in codes(answer)
    (unknown,) = ask(api, code, on_desk("B"))["pieces"]
    assert (unknown["gauge"]["ppm"], "carried" in codes(unknown)) == (None, True)


def test_pieces_in_one_tub_share_one_brine(api, code):
    brine = {"school": "brine", "target": "110", "water": "100 %"}
    alone = ask(api, code, on_desk(recipe=brine))["pieces"][0]
    shared = ask(api, code, on_desk(recipe=brine, tub="1"), on_desk("B", brine, tub="1"))["pieces"]
    grams = {line["role"]: float(line["grams"]) for line in shared[0]["lines"]}
    own = {line["role"]: float(line["own_grams"]) for line in shared[0]["lines"]}
    first = {line["role"]: float(line["grams"]) for line in alone["lines"]}
    # 8 lb lie in it, 5 of them A
    assert shared[0]["tub_weight"]["lb"] == "8.00"
    for role, amount in first.items():
        assert grams[role] == pytest.approx(amount * 8 / 5, rel=0.02)
        assert own[role] == pytest.approx(amount, rel=0.02)
    assert shared[0]["lines"][0]["grams"] == shared[1]["lines"][0]["grams"]
    other = ask(api, code, on_desk(recipe=brine, tub="1"), on_desk("B", {**brine, "target": "90"}, tub="1"))
    assert "holds one brine" in faults(other)["pieces[1].tub"]
    apart = ask(api, code, on_desk(recipe=brine, tub="1"), on_desk("B", {**brine, "target": "90"}, tub="2"))
    assert faults(apart) == {}


def test_a_brine_is_told_as_it_was_mixed(api, code):
    mixed = {
        "school": "brine",
        "target": "",
        "salt": {"name": "coarse salt", "amount": "", "spoon": "dense_flake"},
        "sugar": {"name": "brown sugar", "amount": "", "spoon": "brown_sugar"},
        "mixed_water": "3 qt",
        "mixed_salt": "½ cup",
        "mixed_sugar": "1/4 cup",
        "mixed_agent": "2 tsp",
    }
    (piece,) = ask(api, code, on_desk(recipe=mixed))["pieces"]
    lines = {line["role"]: line["grams"] for line in piece["lines"]}
    assert lines == {"water": "2839.1", "salt": "117.6", "agent": "12.0", "sugar": "55.2"}
    assert (piece["gauge"]["one_system"], piece["gauge"]["error"]) == (
        "141.8",
        "level spoons differ by 10 %",
    )
    assert faults(ask(api, code, on_desk(recipe={**mixed, "mixed_water": ""})))[
        "pieces[0].recipe.mixed_water"
    ]
    bare = {**mixed, "agent": "none", "mixed_agent": ""}
    (piece,) = ask(api, code, on_desk(recipe=bare, course="cold_smoked_raw"))["pieces"]
    assert codes(piece) == ["no_nitrite", "plain"]
    unknown = {**mixed, "salt": {"name": "salt", "amount": "", "spoon": ""}}
    assert "weigh it" in faults(ask(api, code, on_desk(recipe=unknown)))["pieces[0].recipe.mixed_salt"]


def test_a_weighing_ends_the_acts_that_lie_behind_it(api, code):
    put_in(api, code, on_desk(), on_desk("B"), in_at="2026-03-02T09:00:00Z")
    due = api.get("/plan?days=400")[1]["tasks"]
    assert {one["kind"] for one in due} >= {"turn", "out", "rinse", "smoke"}
    api.recorded(code, weigh("cure", A="4.9 lb"))
    # B is in the cure still, so its turns stand; nothing of both is over
    assert {one["kind"] for one in api.get("/plan?days=400")[1]["tasks"]} >= {"turn", "out"}
    api.recorded(code, weigh("cure", B="2.9 lb"))
    whole = api.get("/plan?days=400")[1]["tasks"]
    left = {one["kind"] for one in whole}
    soon = api.get("/plan?days=0")[1]
    assert soon["more"] == len([one for one in whole if one["due_at"] > soon["now"]])
    assert left == {"rinse", "taste", "dry", "smoke"}
    entry = api.recorded(code, weigh("smoke", A="4.5 lb", B="2.7 lb"))["entry"]
    assert api.get("/plan?days=400")[1]["tasks"] == []
    mine = api.get(f"/plan?days=400&code={code}")[1]["tasks"]
    assert {one["state"] for one in mine} == {"done"}
    assert {one["text"] for one in mine if one["kind"] == "smoke"} == {"shown by the weighing"}
    assert not any(one["is_late"] for one in mine)
    # what is taken back shows nothing any more
    seen = api.get(f"/batches/{code}")[1]["seen"]
    api.record(code, {"act": "withdraw"}, seen=seen, corrects=entry, reason="wrong day")
    assert {one["kind"] for one in api.get("/plan?days=400")[1]["tasks"]} == left
    assert PlannedTask.objects.filter(state="done").count() == 0


def test_a_piece_cut_in_the_cure_keeps_its_days_until_what_came_of_it_is_out(api, code):
    put_in(api, code, on_desk(), in_at="2026-03-02T09:00:00Z")
    halves = [{"mark": "A1", "weight": "2.5 lb"}, {"mark": "A2", "weight": "2.4 lb"}]
    api.recorded(code, {"act": "split", "kind": "trim", "piece": "A", "pieces": halves})
    assert "turn" in {one["kind"] for one in api.get("/plan?days=400")[1]["tasks"]}
    api.recorded(code, weigh("cure", A1="2.4 lb"))
    assert "turn" in {one["kind"] for one in api.get("/plan?days=400")[1]["tasks"]}
    api.recorded(
        code, {"act": "discard", "kind": "discard", "pieces": ["A2"], "charge": "loss", "why": "fell"}
    )
    assert "turn" not in {one["kind"] for one in api.get("/plan?days=400")[1]["tasks"]}


def tasted(api, code, taste, place=0):
    tasks = [one for one in api.get(f"/plan?days=400&code={code}")[1]["tasks"] if one["kind"] == "taste"]
    return api.call("POST", f"/tasks/{tasks[place]['uid']}/news", {"sort": "done", "taste": taste})


def test_a_soak_that_is_planned_is_not_planned_twice(api, code):
    put_in(api, code, on_desk(), wishes={"soak_minutes": 30})
    tasted(api, code, "salty")
    open_tasks = PlannedTask.objects.filter(state="open", kind__in=["soak", "taste"])
    assert sorted(open_tasks.values_list("kind", flat=True)) == ["soak", "taste"]


def test_what_tastes_right_needs_no_soak_and_the_plan_says_so(api, code):
    put_in(api, code, on_desk(), wishes={"soak_minutes": 30})
    tasted(api, code, "right")
    assert not PlannedTask.objects.filter(state="open", kind__in=["soak", "taste"]).exists()
    assert set(TaskNews.objects.filter(sort="dropped").values_list("note", flat=True)) == {
        "tasted: no soak needed"
    }


def test_what_is_air_dried_is_hung_and_sausage_meat_is_not_turned(api, code):
    put_in(api, code, on_desk(course="air_dried"), on_desk("B", product="comminuted"))
    kinds = {mark: set() for mark in "AB"}
    for task in PlannedTask.objects.all():
        for mark in task.marks:
            kinds[mark].add(task.kind)
    assert kinds["A"] >= {"turn", "out", "hang"}
    assert "smoke" not in kinds["A"]
    assert "turn" not in kinds["B"]


def test_acts_fall_into_the_working_day_of_whoever_put_it_in(api, code):
    api.client.cookies["zone"] = "America/Los_Angeles"
    put_in(api, code, on_desk(), in_at="2026-03-02T06:10:00Z")
    # 22:10 on 1 March there; 18:00 there the next day is 02:00 in UTC
    first = PlannedTask.objects.filter(kind="turn").order_by("due_at").first()
    assert f"{first.due_at:%Y-%m-%d %H:%M}" == "2026-03-03 02:00"


def test_a_label_names_the_day_it_comes_out(api, code):
    put_in(api, code, on_desk(out_day=13), in_at="2026-03-02T09:00:00Z")
    from dolmetsch.server.batches.models import Batch
    from dolmetsch.server.labels.facts import gather_labels

    (label,) = gather_labels(Batch.objects.get(), ["A"], root="")
    assert "out 15 Mar" in label.lines
    out = PlannedTask.objects.get(kind="out")
    moved = {"sort": "moved", "due_at": "2026-03-18T09:00:00Z"}
    assert api.call("POST", f"/tasks/{out.uid}/news", moved)[0] == 201
    (label,) = gather_labels(Batch.objects.get(), ["A"], root="")
    assert label.lines[1:3] == ("out 18 Mar", "window 14 Mar to 24 Mar")


def test_the_second_stage_of_a_brines_spices_has_its_day(api, code):
    pepper = {"name": "crushed pepper", "amount": "0.5 %", "stage": 2}
    brine = {"school": "brine", "water": "100 %", "target": "110"}
    for mark, extras, planned in (("A", [], 0), ("B", [pepper], 1)):
        laid = on_desk(mark, {**brine, "extras": extras}, thickness="2 in")
        (piece,) = ask(api, code, laid)["pieces"]
        assert ("crushed pepper" in piece["stage_note"]) is bool(extras)
        assert put_in(api, code, laid, sure=True)[0] == 201
        assert PlannedTask.objects.filter(kind="spice").count() == planned


def test_a_sausage_is_judged_as_comminuted_whatever_it_was_cut_from(api):
    code = api.started(bought={**BOUGHT, "cut": "belly, skinless"})
    api.recorded(code, TRIM)
    sausage = {"school": "sausage", "target": "", "agent_amount": "0.25 %"}
    (piece,) = ask(api, code, on_desk("A", sausage))["pieces"]
    assert (piece["gauge"]["limit_name"], piece["gauge"]["limit"]) == ("comminuted meat, dry", "156")


def test_a_sausage_says_what_meats_it_is_mixed_of(api):
    code = api.started(bought={**BOUGHT, "own_weight": "3 lb", "label_weight": "", "cut": "shoulder"})
    more = {**BOUGHT, "own_weight": "1 lb", "label_weight": "", "cut": "back fat"}
    mark = api.recorded(code, {"act": "bought", **more})["batch"]["pieces"][-1]["mark"]
    marks = sorted({"lot", mark} | {one["mark"] for one in api.get(f"/batches/{code}")[1]["pieces"]})
    api.recorded(
        code, {"act": "merge", "kind": "mix", "pieces": marks, "into": {"mark": "M", "weight": "4 lb"}}
    )
    (piece,) = ask(api, code, on_desk("M", {"school": "sausage"}))["pieces"]
    said = {one["code"]: one["message"] for one in piece["cautions"]}
    assert said["meats"] == "Mixed of shoulder 3.00 lb (75 %), back fat 1.00 lb (25 %), as they came in."
    (plain,) = ask(api, code, on_desk("M"))["pieces"]
    assert "meats" not in codes(plain)
