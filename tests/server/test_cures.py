"""The cure desk over the API: what it answers, what it asks, what is kept, and the days it plans."""

import uuid
from datetime import timedelta
from decimal import Decimal

import pytest

from dolmetsch.server.batches.models import Batch, Entry, StepYield
from dolmetsch.server.cures.models import OwnFigure, PieceCure
from dolmetsch.server.cures.schemas import DeskPieceOut
from dolmetsch.server.findings import FindingOut
from dolmetsch.server.plans.models import PlannedTask
from tests.server.conftest import TRIM, weigh

RECIPE = {
    "school": "measured",
    "salt": {"name": "coarse salt", "amount": "2.5 %", "spoon": "dense_flake"},
    "sugar": {"name": "brown sugar", "amount": "1 %"},
    "agent": "no_1",
    "target": "150",
}


@pytest.fixture
def code(api):
    started = api.started(happened_at="2026-03-01T09:00:00Z")
    api.recorded(started, TRIM)
    return started


def on_desk(mark="A", recipe=None, **more):
    return {
        "mark": mark,
        "recipe": {**RECIPE, **(recipe or {})},
        "thickness": "1.6 in",
        "skin": "off",
        **more,
    }


def ask(api, code, *pieces, **more):
    status, body = api.call("POST", f"/batches/{code}/cure-desk", {"pieces": list(pieces), **more})
    assert status == 200, body
    return body


def put_in(api, code, *pieces, key=None, **more):
    return api.call("POST", f"/batches/{code}/cures", {"pieces": list(pieces), **more}, key)


def faults(body):
    return {one["path"]: one["message"] for one in body["problems"]}


def test_the_desk_answers_in_grams_with_the_gauge_and_the_days(api, code):
    body = ask(api, code, on_desk(), scale="0.1 g")
    (piece,) = body["pieces"]
    # 5 lb = 2267.96 g: 150 ppm is 5.44 g of no. 1, printed down; 56.70 g of salt less its 5.10
    assert {line["role"]: line["grams"] for line in piece["lines"]} == {
        "salt": "51.6",
        "agent": "5.4",
        "sugar": "22.7",
    }
    gauge = piece["gauge"]
    assert (gauge["ppm"], gauge["limit"], gauge["is_over"], gauge["low"]) == ("150.0", "200", False, "149")
    assert (piece["time"]["first"], piece["time"]["last"]) == (12, 22)
    assert piece["salt_in_slice"].startswith("3.0 %")
    assert body["unpriced"] == ["coarse salt", "curing salt no. 1", "brown sugar"]
    assert piece["lines"][0]["spoons"] == "3 tbsp 1½ tsp"


def test_the_limit_goes_by_what_the_piece_is_known_to_be_cured_as(api, code):
    def limit(**more):
        (piece,) = ask(api, code, on_desk(**more))["pieces"]
        return piece["product"], piece["gauge"]["limit"]

    assert limit() == ("bacon", "200")
    api.call("POST", f"/batches/{code}/pieces/A/facts", {"product": "whole_muscle"})
    assert limit() == ("whole_muscle", "625")
    # what is chosen at the desk holds for this cure alone
    assert limit(product="comminuted") == ("comminuted", "156")
    assert limit() == ("whole_muscle", "625")


def test_one_recipe_for_all_is_scaled_by_each_pieces_own_weight(api, code):
    first, second = ask(api, code, on_desk(), on_desk("B"))["pieces"]
    salts = [float(piece["lines"][0]["grams"]) for piece in (first, second)]
    assert salts[0] / salts[1] == pytest.approx(5 / 3, rel=0.01)


@pytest.mark.parametrize(
    ("recipe", "path", "said"),
    [
        ({"salt": {"name": "salt", "amount": "48 g"}}, "salt.amount", "for how much meat"),
        ({"salt": {"name": "salt", "amount": "1 tbsp/lb"}}, "salt.amount", "which kind it is"),
        ({"salt": {"name": "", "amount": "2 %"}}, "salt.name", "Say what it is"),
        ({"salt": {"name": "salt", "amount": ""}}, "salt.amount", "how much salt"),
        ({"target": ""}, "target", "one of them"),
        ({"agent_amount": "0.25 %"}, "target", "one of them"),
        ({"agent": ""}, "agent", "which curing salt"),
        ({"agent": "packet"}, "target", "not known"),
        ({"school": "brine"}, "water", "how much water"),
        (
            {"school": "brine", "water": "20 %", "salt": {"name": "salt", "amount": "9 %"}},
            "salt.amount",
            "does not dissolve",
        ),
        ({"school": "injection"}, "pump", "gain"),
        ({"school": "salt_box"}, "box", "in the box"),
        ({"school": "ready_mixed"}, "agent", "complete cure or a packet"),
        ({"school": "brine", "water": "100 %", "hot_water": "400"}, "hot_water", "more than"),
        ({"school": "brine", "water": "100 %", "cold_water": "0 °C "}, "cold_water", None),
        ({"school": "brine", "water": "100 %", "cold_water": "-4 °C"}, "cold_water", "below zero"),
        ({"school": "brine", "water": "100 %", "cold_water": "20 °F"}, "cold_water", "between 32 and 212"),
        ({"school": "brine", "water": "100 %", "hot_part": "120 %"}, "hot_part", "more than"),
        ({"salt": {"name": "salt", "amount": "2 %", "spoon": "ladle"}}, "salt.spoon", "not a kind of spoon"),
        ({"agent": "weak", "agent_nitrite": "0.6"}, "agent_amount", "used as the salt"),
        ({"extras": [{"name": "", "amount": "1 %"}]}, "extras[0].name", "Say what it is"),
        ({"extras": [{"name": "pepper", "amount": "lots"}]}, "extras[0].amount", "lots"),
        ({"school": "injection", "pump": "0"}, "pump", "gain"),
    ],
)
def test_what_cannot_be_mixed_is_said_at_its_field(api, code, recipe, path, said):
    found = faults(ask(api, code, on_desk(recipe=recipe)))
    if said is None:
        assert found == {}
        return
    assert said in found[f"pieces[0].recipe.{path}"]
    status, body = put_in(api, code, on_desk(recipe=recipe))
    assert (status, body["code"], PieceCure.objects.count()) == (422, "bad_fields", 0)


@pytest.mark.parametrize(
    ("thickness", "said"),
    [("0", "not a size"), ("-1", "below zero"), ("9 ft", "not a length"), ("30 in", "under 16 inches")],
)
def test_a_thickness_of_no_meat_is_said(api, code, thickness, said):
    assert said in faults(ask(api, code, {**on_desk(), "thickness": thickness}))["pieces[0].thickness"]


def test_percent_where_grams_belong_is_asked_and_taken_with_a_yes(api, code):
    slip = on_desk(recipe={"salt": {"name": "salt", "amount": "0.025"}})
    (question,) = ask(api, code, slip)["pieces"][0]["questions"]
    assert "Did you mean 2.5 %?" in question["message"]
    status, body = put_in(api, code, slip)
    assert (status, body["code"], PieceCure.objects.count()) == (409, "ask", 0)
    assert put_in(api, code, slip, sure=True)[0] == 201


def test_a_cure_after_the_smoke_is_asked_and_one_over_the_limit_is_kept_and_marked(api, code):
    api.recorded(code, weigh("smoke", A="4.5 lb"))
    assert put_in(api, code, on_desk())[1]["fields"][0]["message"].startswith(
        "This piece has already been through: smoke."
    )
    status, body = put_in(api, code, on_desk("B", {"target": "240"}))
    assert status == 201
    (cure,) = body["cures"]
    assert cure["answer"]["cautions"][0]["code"] == "over_limit"
    assert cure["answer"]["gauge"]["is_over"] is True


def test_no_piece_went_into_the_cure_before_it_was_bought(api, code):
    bought = Entry.objects.get(batch__code=code, act="bought").happened_at
    for early, wanted in ((timedelta(minutes=2), 422), (timedelta(seconds=30), 201)):
        status, body = put_in(api, code, on_desk(), in_at=(bought - early).isoformat())
        assert status == wanted, body
        if wanted == 422:
            assert [(one["path"], one["code"]) for one in body["fields"]] == [("in_at", "before_purchase")]
            assert not PieceCure.objects.exists()


def test_what_went_in_is_kept_with_its_window_and_planned(api, code):
    key = uuid.uuid4()
    answer = {"in_at": "2026-03-02T09:00:00Z", "wishes": {"turn_days": 2, "dry_hours": 6}}
    status, body = put_in(api, code, on_desk(out_day=13), on_desk("B", out_day=13), key=key, **answer)
    assert status == 201
    assert {(one["mark"], one["first_at"][:10], one["last_at"][:10]) for one in body["cures"]} == {
        ("A", "2026-03-14", "2026-03-24"),
        ("B", "2026-03-14", "2026-03-24"),
    }
    tasks = list(PlannedTask.objects.order_by("due_at").values_list("kind", "marks"))
    assert [kind for kind, _ in tasks].count("turn") == 6
    assert tasks[-1] == ("smoke", ["A", "B"])
    # the same once more changes nothing; the same key for something else is refused
    assert put_in(api, code, on_desk(out_day=13), on_desk("B", out_day=13), key=key, **answer)[0] == 201
    assert (PieceCure.objects.count(), PlannedTask.objects.count()) == (2, len(tasks))
    assert put_in(api, code, on_desk(out_day=12), key=key)[1]["code"] == "key_reused"
    # a piece that is in a cure is asked about, and taken with a yes
    status, again = put_in(api, code, on_desk())
    said = "A has been in a cure since Mar 2 (150 ppm of nitrite). Cure it again? The gauge counts both."
    assert (status, again["detail"]) == (409, said)
    assert put_in(api, code, on_desk(), sure=True)[0] == 201
    # and the thickness is known of the piece from now on
    pieces = api.get(f"/batches/{code}/pieces")[1]["pieces"]
    assert pieces[0]["thickness"] == {"inch": "1.60", "cm": "4.1"}


def test_a_cure_put_down_by_mistake_stays_readable_and_its_days_are_dropped(api, code):
    body = put_in(api, code, on_desk(), on_desk("B"))[1]
    wrong = next(one for one in body["cures"] if one["mark"] == "A")["id"]
    path = f"/batches/{code}/cures/{wrong}/take-back"
    assert api.call("POST", path, {"reason": ""})[0] == 422
    status, body = api.call("POST", path, {"reason": "it was B alone"})
    assert status == 201
    assert [(one["mark"], one["is_under_way"]) for one in body["cures"]] == [("B", True), ("A", False)]
    assert {tuple(task.marks) for task in PlannedTask.objects.filter(state="open")} == {("B",)}
    assert api.call("POST", path, {"reason": "again"})[1]["code"] == "already"


def test_an_injections_brine_has_some_to_spare_and_one_that_covers_a_tub(api, code):
    brines = {}
    for school, more in (("injection", {}), ("inject_cover", {"water": "80 %"})):
        salt = {"name": "coarse salt", "amount": "1.8 %"}
        recipe = {"school": school, "salt": salt, "target": "110", "pump": "10 %", **more}
        (piece,) = ask(api, code, on_desk(recipe=recipe), scale="0.1 g")["pieces"]
        brines[school] = piece["brine"]
    # a tenth of 5 lb goes in, and a tenth of that is left in hoses and needles
    injected = brines["injection"]
    answer = [injected[f"{part}grams"] for part in ("injector_", "tub_", "spare_", "")]
    assert answer == ["227", "0", "23", "249"]
    covered = brines["inject_cover"]
    assert (covered["injector_grams"], covered["spare_grams"]) == ("227", "0")
    assert int(covered["tub_grams"]) == pytest.approx(int(covered["grams"]) - 227, abs=1)


def test_what_an_older_desk_answered_is_still_shown(api, code):
    put_in(api, code, on_desk(recipe={"school": "brine", "target": "110", "water": "100 %"}))
    answer = PieceCure.objects.get().answer
    del answer["brine"]["spare_grams"]
    assert DeskPieceOut.model_validate(answer).brine.spare_grams == "0"


def test_a_cure_is_charged_to_its_piece_at_the_price_list(api, code):
    for name, price, size in (("coarse salt", "1.20/kg", ""), ("curing salt no. 1", "5.00", "8 oz")):
        quote = {
            "sort": "ingredient",
            "name": name,
            "source": "market",
            "on": "2026-01-02",
            "price": price,
            "size": size,
        }
        assert api.call("POST", "/prices", quote)[0] == 201
    put_in(api, code, on_desk())
    shown = api.get(f"/batches/{code}/cures")[1]
    charges = shown["charges"]
    # what is on no bill is named
    assert shown["unpriced"] == ["brown sugar"]
    assert [(one["what"], one["amount"], one["price"]) for one in charges] == [
        ("coarse salt", "51.6 g", "1.20/kg"),
        ("curing salt no. 1", "5.4 g", "5.00 for 8 oz"),
    ]
    body = api.recorded(code, {**weigh("cure", A="4.8 lb"), "used": charges})
    groups = {one["group"]: one["money"] for one in body["batch"]["house"]["groups"]}
    assert groups["cure"] == "0.18"
    shown = api.get(f"/batches/{code}/cures")[1]
    assert (shown["charges"], shown["unpriced"]) == ([], [])


def test_recipes_are_kept_version_by_version(api, code):
    named = {**RECIPE, "name": "House dry"}
    for amount in ("2.5 %", "2.2 %"):
        answer = {"recipe": {**named, "salt": {"name": "coarse salt", "amount": amount}}}
        status, body = api.call("POST", "/recipes", answer)
        assert status == 201
    (recipe,) = body["recipes"]
    assert (recipe["version"], recipe["input"]["salt"]["amount"]) == (2, "2.2 %")
    assert api.call("POST", "/recipes", {"recipe": RECIPE})[1]["fields"][0]["path"] == "recipe.name"
    put_in(api, code, {**on_desk(), "recipe": recipe["input"]})
    assert api.get(f"/batches/{code}/cures")[1]["cures"][0]["recipe"] == "House dry, version 2"
    assert api.call("POST", "/recipes", {"recipe": recipe["input"], "put_away": True})[1]["recipes"] == []


def test_a_mix_made_once_is_used_up_by_weight(api, code):
    named = {**RECIPE, "name": "House dry"}
    api.call("POST", "/recipes", {"recipe": named})
    status, body = api.call("POST", "/mixes", {"recipe": "House dry", "weight": "100 g"})
    assert (status, body["mixes"][0]["left_grams"]) == (201, "100")
    mix = body["mixes"][0]["id"]
    assert api.call("POST", "/mixes", {"recipe": "none", "weight": "1 kg"})[0] == 404
    piece = ask(api, code, on_desk(mix=mix))["pieces"][0]
    # salt 51.6, agent 5.4 and sugar 22.7 of 2268 g
    assert (piece["lines"][0]["role"], piece["lines"][0]["grams"]) == ("mix", "79.7")
    assert "coarse" not in [one["code"] for one in piece["cautions"]]
    put_in(api, code, on_desk(mix=mix))
    (left,) = api.get("/cure-desk")[1]["mixes"]
    assert left["left_grams"] == "20"
    short = ask(api, code, on_desk("B", mix=mix))["pieces"][0]
    assert "mix_short" in [one["code"] for one in short["cautions"]]
    assert "That mix" in faults(ask(api, code, on_desk(mix=mix + 99)))["pieces[0].mix"]
    wet = on_desk("B", {"school": "brine", "target": "110", "water": "100 %"}, mix=mix)
    assert "measured cures" in faults(ask(api, code, wet))["pieces[0].mix"]


def test_only_what_is_weighed_dry_is_mixed_ahead(api):
    brine = {**RECIPE, "name": "Quay brine", "school": "brine", "target": "110", "water": "100 %"}
    assert api.call("POST", "/recipes", {"recipe": brine})[0] == 201
    status, body = api.call("POST", "/mixes", {"recipe": "Quay brine", "weight": "1 kg"})
    assert (status, body["fields"][0]["path"]) == (422, "recipe")
    assert "measured dry cure" in body["fields"][0]["message"]
    for weight, path in (("0", "weight"), ("a tin", "weight")):
        status, body = api.call("POST", "/mixes", {"recipe": "Quay brine", "weight": weight})
        assert (status, path in [one["path"] for one in body["fields"]]) == (422, True)
    assert api.get("/cure-desk")[1]["mixes"] == []


def test_the_diary_tells_a_cure_with_what_was_said_of_it(api, code):
    put_in(api, code, on_desk(recipe={"target": "240"}), on_desk("B", {"agent": "", "school": "plain"}))
    cures = [leaf for leaf in api.get(f"/batches/{code}/diary")[1]["leaves"] if leaf["sort"] == "cure"]
    strong, plain = sorted(cures, key=lambda leaf: leaf["marks"])
    assert any("240.0 ppm of nitrite, limit 200 (bacon, dry rub)" in line for line in strong["lines"])
    assert any("over the limit" in line for line in strong["lines"])
    assert any("grayer" in line for line in plain["lines"])
    wrong = api.get(f"/batches/{code}/cures")[1]["cures"][0]
    api.call("POST", f"/batches/{code}/cures/{wrong['id']}/take-back", {"reason": "it was salted twice"})
    cures = [leaf for leaf in api.get(f"/batches/{code}/diary")[1]["leaves"] if leaf["sort"] == "cure"]
    taken = [leaf["marks"] for leaf in cures if "canceled: it was salted twice" in leaf["lines"]]
    assert taken == [[wrong["mark"]]]


def test_a_second_stage_is_named_for_after_the_first(api, code):
    extras = [{"name": "juniper", "amount": "0.3 %", "stage": 2}, {"name": "bay", "amount": "0.1 %"}]
    (piece,) = ask(api, code, on_desk(recipe={"school": "two_stage", "extras": extras}))["pieces"]
    assert piece["stage_note"] == "Second stage, once out: juniper."
    stages = {line["name"]: line["stage"] for line in piece["lines"]}
    assert (stages["juniper"], stages["bay"], stages["coarse salt"]) == (2, 1, 1)


def test_a_kitchens_own_limit_and_spoon_stand_in_for_the_reference(api, code, other):
    own = {"sort": "limit", "name": "bacon/dry/off", "value": "120", "source": "Harrow Quay food office"}
    assert api.call("POST", "/cure-figures", own)[0] == 201
    gauge = ask(api, code, on_desk())["pieces"][0]["gauge"]
    assert (gauge["limit"], gauge["reference"], gauge["source"], gauge["is_over"]) == (
        "120",
        "200",
        "Harrow Quay food office",
        True,
    )
    spoon = {"sort": "spoon", "name": "dense_flake", "value": "5.5", "source": "ten of ours weighed"}
    assert api.call("POST", "/cure-figures", spoon)[0] == 201
    answer = {"salt": {"name": "salt", "amount": "1 tsp/lb", "spoon": "dense_flake"}, "school": "spoon"}
    assert ask(api, code, on_desk(recipe=answer))["pieces"][0]["lines"][0]["grams"] == "27.5"
    for wrong in (
        {**own, "name": "bread"},
        {**own, "source": ""},
        {**own, "value": "lots"},
        {**spoon, "value": "0"},
    ):
        assert api.call("POST", "/cure-figures", wrong)[0] == 422
    assert api.call("POST", "/cure-figures", {**own, "value": "", "source": ""})[0] == 201
    assert ask(api, code, on_desk())["pieces"][0]["gauge"]["limit"] == "200"
    # each kitchen its own
    assert other.get("/cure-desk")[1]["limits"][0]["is_own"] is False
    assert OwnFigure.objects.count() == 3


def test_another_kitchens_batch_is_not_here(api, code, other):
    assert other.call("POST", f"/batches/{code}/cure-desk", {"pieces": [on_desk()]})[0] == 404
    assert put_in(other, code, on_desk())[0] == 404
    assert other.get(f"/batches/{code}/cures")[0] == 404
    assert ask(api, code, on_desk(), on_desk())["problems"][0]["code"] == "twice"
    assert api.call("POST", f"/batches/{code}/cure-desk", {"pieces": [on_desk("Z")]})[0] == 404


def test_cautions_of_cures_put_down_by_an_earlier_program_are_read():
    older = {"code": "over_limit", "text": "250 ppm of nitrite is over.", "source": "9 CFR 424.21(c)"}
    found = FindingOut.model_validate(older)
    assert (found.message, found.severity, found.source) == (older["text"], "care", older["source"])


def test_what_is_weighed_out_for_all_is_what_is_weighed_out_for_each(api, code):
    """Curing salt is rounded down for each piece: its total is of that, not of what was computed."""
    desk = ask(api, code, on_desk("A"), on_desk("B"))
    assert len(desk["pieces"]) == 2
    for total in desk["totals"]:
        lines = [line for piece in desk["pieces"] for line in piece["lines"] if line["name"] == total["name"]]
        assert Decimal(total["grams"]) == sum(Decimal(line["grams"]) for line in lines), total
    assert any("curing salt" in total["name"] for total in desk["totals"])


def test_what_a_finished_batch_kept_in_its_cure_goes_by_the_cure_that_counts(api, code):
    """Put into a brine at the desk: counted as one, until that is taken back, finished as it is by then."""
    brine = {"school": "brine", "target": "110", "water": "100 %"}
    status, made = put_in(api, code, on_desk("A", brine), on_desk("B", brine), sure=True)
    assert status == 201, made
    api.recorded(code, weigh("cure", A="4.9 lb", B="2.95 lb"))
    for piece in ("A", "B"):
        pieces = [{"mark": f"S{piece}", "weight": "2.9 lb"}]
        api.recorded(code, {"act": "split", "kind": "slice", "piece": piece, "pieces": pieces, "cut_off": []})
    assert Batch.objects.get(code=code).is_finished

    def methods():
        return set(StepYield.objects.values_list("method", flat=True))

    assert "immersion" in methods()
    for cure in PieceCure.objects.all():
        taken = api.call("POST", f"/batches/{code}/cures/{cure.pk}/take-back", {"reason": "the wrong tub"})
        assert taken[0] == 201
    assert "immersion" not in methods()
