"""Whole documents and their answers, as the command line and the application give them."""

import json

import pytest

from dolmetsch.core.documents.answers import answer_cook, answer_cost, answer_cure, answer_drying
from dolmetsch.core.errors import DolmetschError
from tests.core.jowl import EXAMPLES


def cost(**document):
    return answer_cost(json.dumps({"format": "dolmetsch-batch/1", **document}))


def lot(mark="L", weight="10 lb", paid="20.00", **more):
    return {"id": mark, "weight": weight, "paid": paid, **more}


def off(mark, weight, worth=None, **more):
    return {"id": mark, "weight": weight, "role": "by_product", "worth": worth, **more}


@pytest.mark.parametrize(
    ("name", "answer"),
    [("batch", answer_cost), ("cure", answer_cure), ("cook", answer_cook), ("drying", answer_drying)],
)
def test_the_examples_to_the_last_printed_digit(name, answer):
    expected = json.loads((EXAMPLES / f"{name}.answer.json").read_text())
    assert answer((EXAMPLES / f"{name}.json").read_bytes()) == expected


def test_a_merge_adds_costs_and_drops_slices_unless_told():
    """6 lb at 12 and 4 lb at 8 make 9 lb at 20 + 1 of its own."""
    split = {
        "split": "L",
        "into": [{"id": "A", "weight": "6 lb", "slices": 9}, {"id": "B", "weight": "4 lb"}],
    }
    merge = {"kind": "mix", "merge": ["A", "B"], "into": {"id": "M", "weight": "9 lb"}, "overhead": "1.00"}
    answer = cost(lots=[lot()], steps=[split, merge])
    assert answer["pieces"] == {
        "M": {"weight_g": "4082.33", "cost": "21.0000", "cost_per_lb": "2.3333", "slices": None}
    }
    assert answer["stages"][1]["yield_of_step"] == "0.900000"
    merge["into"]["slices"] = 30
    assert cost(lots=[lot()], steps=[split, merge])["final"]["slices"] == 30


def test_a_merge_may_take_a_by_product_in_and_gain_with_a_warning():
    split = {"split": "L", "into": [{"id": "A", "weight": "6 lb"}, off("lean", "1 lb", "2.00/lb")]}
    merge = {"merge": ["A", "lean"], "into": {"id": "M", "weight": "9 lb"}}
    answer = cost(lots=[lot()], steps=[split, merge])
    assert (answer["final"]["cost"], answer["by_products"]) == ("20.0000", {})
    assert answer["final"]["groups"] == {"meat": "20.0000"}
    assert ["29 %" in said for said in answer["warnings"]] == [True]


THREE = {"split": "L", "into": [{"id": mark, "weight": "2 lb"} for mark in ("A", "B", "C")]}


@pytest.mark.parametrize(
    ("pieces", "charge", "costs", "loss"),
    [
        (["A"], "batch", {"X": "5.0000", "B": "10.5000", "C": "10.5000"}, "0.0000"),
        (["A"], "loss", {"X": "5.0000", "B": "7.0000", "C": "7.0000"}, "7.0000"),
        (["A", "B"], "batch", {"X": "5.0000", "C": "21.0000"}, "0.0000"),
        (["A", "B", "C"], "batch", {"X": "5.0000"}, "21.0000"),
    ],
)
def test_a_discard_is_borne_by_the_others_or_booked_as_loss(pieces, charge, costs, loss):
    """21 in three: 7 each. An unopened lot bears nothing, and where nobody is left it is loss."""
    throw = {"pieces": pieces, "charge": charge, "why": "spoiled"}
    answer = cost(lots=[lot("X", "5 lb", "5.00"), lot(paid="21.00")], steps=[THREE, throw])
    assert {mark: piece["cost"] for mark, piece in answer["pieces"].items()} == costs
    assert answer["loss_account"] == loss
    assert answer["stages"][1]["yield_of_step"] is None


def test_nothing_left_costs_nothing_and_earns_less_than_nothing():
    throw = {"pieces": ["L"], "charge": "batch", "minutes": 30, "overhead": "1.00"}
    pack = {"paid": "8.00", "weight": "1 lb"}
    answer = cost(lots=[lot()], steps=[throw], store=[pack], policy={"labour_rate": "10"})
    assert (answer["final"]["weight_g"], answer["final"]["cost_per_lb"]) == ("0.00", None)
    assert answer["loss_account"] == "26.0000"
    assert answer["store"][0]["earned_per_hour"] == "-42.0000"
    assert answer["store"][0]["break_even_paid_per_lb"] is None


def test_a_by_product_may_go_on():
    """Weighed it stays a by-product; split its parts follow their own roles; discarded its cost moves."""
    split = {"split": "L", "into": [{"id": "A", "weight": "8 lb"}, off("fat", "2 lb", "1.00/lb")]}
    weigh = {"weigh": {"fat": "1.5 lb"}}
    assert cost(lots=[lot()], steps=[split, weigh])["by_products"]["fat"]["carried"] == "2.0000"
    render = {"split": "fat", "into": [{"id": "lard", "weight": "1 lb"}, off("crackling", "0.5 lb")]}
    after = cost(lots=[lot()], steps=[split, weigh, render])
    assert (after["pieces"]["lard"]["cost"], list(after["by_products"])) == ("2.0000", ["crackling"])
    throw = {"pieces": ["fat"], "charge": "batch"}
    assert cost(lots=[lot()], steps=[split, throw])["pieces"]["A"]["cost"] == "20.0000"


def test_break_even_and_an_hour_by_hand():
    """10 lb for 20 become 5 lb; 4 of salt. At 8.00/lb the shop asks 40: meat may cost 36, 3.60 a pound."""
    salt = {"what": "salt", "count": 4, "price": "1.00/each"}
    step = {"weigh": {"L": "5 lb"}, "used": [salt], "minutes": 120}
    pack = {"paid": "8.00", "weight": "16 oz", "slices": 16, "fry_yield": "0.5"}
    answer = cost(
        lots=[lot()], steps=[step], store=[pack], portion={"cooked_weight": "8 oz"}, fry_yield="0.4"
    )
    shop = answer["store"][0]
    assert (shop["break_even_paid_per_lb"], shop["earned_per_hour"]) == ("3.6000", "8.0000")
    assert (answer["final"]["cost_per_cooked_lb"], answer["final"]["portion"]) == ("12.0000", "6.0000")
    assert (shop["cost_per_cooked_lb"], shop["portion"], shop["saved_per_portion"]) == (
        "16.0000",
        "8.0000",
        "2.0000",
    )


def test_break_even_is_not_told_where_credits_were_cut():
    split = {"split": "L", "into": [{"id": "A", "weight": "8 lb"}, off("lean", "1 lb", "99.00/lb")]}
    answer = cost(lots=[lot()], steps=[split], store=[{"paid": "8.00", "weight": "1 lb"}])
    assert answer["store"][0]["break_even_paid_per_lb"] is None


UPSTREAM = {
    "id": "ham",
    "lots": [lot("leg", "10 lb", "30.00")],
    "steps": [{"weigh": {"leg": "6 lb"}, "used": [{"count": 1, "price": "3.00/each", "group": "cure"}]}],
}


def test_a_linked_lot_brings_its_cost_by_group_and_its_lineage():
    """A third of 6 lb at 33 comes over: 2 lb, 10 of meat and 1 of cure."""
    source = {"batch": "ham", "piece": "leg", "weight": "2 lb"}
    own = lot("fresh", "2 lb", "4.00")
    mix = {"merge": ["h", "fresh"], "into": {"id": "M", "weight": "4 lb"}}
    pack = {"paid": "5.00", "weight": "1 lb"}
    answer = cost(batches=[UPSTREAM], lots=[{"id": "h", "from": source}, own], steps=[mix], store=[pack])
    assert answer["final"]["groups"] == {"meat": "14.0000", "cure": "1.0000"}
    assert answer["bought"]["cost"] == "15.0000"
    assert answer["lineage"] == [
        {"lot": "h", "batch": "ham", "piece": "leg", "weight_g": "907.18", "carried": "11.0000"}
    ]
    # only the fresh meat is paid for here: 20 − 11 may be paid for its 2 lb
    assert answer["store"][0]["break_even_paid_per_lb"] == "4.5000"
    everything = cost(batches=[UPSTREAM], lots=[{"id": "h", "from": source}], store=[pack])
    assert everything["store"][0]["break_even_paid_per_lb"] is None


def test_a_linked_piece_is_taken_once():
    """All of 6 lb in one lot leaves none for another; two halves are all of it, and 1 % is another scale."""
    whole = {"batch": "ham", "piece": "leg"}
    half, more = ({**whole, "weight": weight} for weight in ("3 lb", "3.05 lb"))
    lots = [{"id": "a", "from": whole}, {"id": "b", "from": whole}]
    with pytest.raises(DolmetschError, match=r"lots\[1\].from.piece: is more than is left of that piece"):
        cost(batches=[UPSTREAM], lots=lots)
    answer = cost(batches=[UPSTREAM], lots=[{"id": "a", "from": half}, {"id": "b", "from": more}])
    assert answer["bought"]["cost"] == "33.2750"
    with pytest.raises(DolmetschError, match=r"lots\[1\].from.weight"):
        cost(
            batches=[UPSTREAM],
            lots=[{"id": "a", "from": half}, {"id": "b", "from": {**half, "weight": "3.1 lb"}}],
        )


def test_a_lot_with_a_label_alone_was_on_no_scale():
    from dolmetsch.core.documents.batch_reading import read_batch

    label = {"id": "L", "label_weight": "10 lb", "paid": "20.00"}
    for more, expected in (({}, None), ({"weight": "9.9 lb"}, 5)):
        document = {"format": "dolmetsch-batch/1", "lots": [{**label, "scale": "5 g", **more}]}
        assert read_batch(document).batch.lots[0].resolution_grams == expected
        document = {"format": "dolmetsch-batch/1", "scale": "5 g", "lots": [{**label, **more}]}
        assert read_batch(document).batch.lots[0].resolution_grams == expected


def test_a_corrected_upstream_flows_down():
    dearer = {**UPSTREAM, "lots": [lot("leg", "10 lb", "60.00")]}
    linked = {"id": "h", "from": {"batch": "ham", "piece": "leg"}}
    prices = [cost(batches=[up], lots=[linked])["final"]["cost_per_lb"] for up in (UPSTREAM, dearer)]
    assert prices == ["5.5000", "10.5000"]


@pytest.mark.parametrize(
    ("change", "message"),
    [
        ({"lots": []}, "lots: a batch begins"),
        ({"lots": [lot(weight="4,250 g")]}, "lots[0].weight: “4,250 g” is not a weight"),
        ({"lots": [lot(weight="1e3 g")]}, "lots[0].weight: “1e3 g”"),
        ({"lots": [lot(weight="+2 lb")]}, "lots[0].weight: “+2 lb”"),
        ({"lots": [lot(weight="2 stone")]}, "lots[0].weight: “2 stone”"),
        ({"lots": [lot(weight=4.2)]}, "lots[0].weight: the number 4.2 is not text"),
        ({"lots": [lot(weight="0 lb")]}, "lots[0].weight: “0 lb” weighs nothing"),
        ({"lots": [lot(paid="-1")]}, "lots[0].paid: “-1”"),
        ({"lots": [lot(paid="$3")]}, "lots[0].paid"),
        ({"lots": [lot(paid="3 lb")]}, "lots[0].paid"),
        ({"lots": [lot(paid=None)]}, "lots[0].paid: is missing"),
        ({"lots": [{"id": "L", "paid": "1"}]}, "lots[0].weight: is missing"),
        ({"lots": [lot(solution="1.2")]}, "lots[0].solution: “1.2” is more than 1"),
        ({"lots": [lot(), lot()]}, "lots[1].id: “L” is there already"),
        ({"lots": [lot(extras=[{"what": "x", "cost": "-2"}])]}, "lots[0].extras[0].cost"),
        ({"steps": [{}]}, "step 1: none of split"),
        ({"steps": [{"weigh": {"L": "1 lb"}, "split": "L"}]}, "step 1: split and weigh at once"),
        ({"steps": [{"weigh": {}}]}, "step 1, weigh: no piece"),
        ({"steps": [{"weigh": {"Q": "1 lb"}}]}, "step 1, weigh.Q: there is no piece “Q”"),
        ({"steps": [{"pieces": ["L"]}]}, "step 1, charge: is missing"),
        ({"steps": [{"pieces": [], "charge": "loss"}]}, "step 1, pieces: is an empty list"),
        ({"steps": [{"pieces": ["L", "L"], "charge": "loss"}]}, "step 1, pieces: a piece is named twice"),
        ({"steps": [THREE, {"weigh": {"L": "1 lb"}}]}, "step 2, weigh.L: “L” was split in step 1"),
        ({"steps": [THREE, {"split": "A", "into": [{"id": "B", "weight": "1 lb"}]}]}, "step 2, into[0].id"),
        ({"steps": [THREE, {"merge": ["A", "B"], "into": off("M", "4 lb")}]}, "step 2, into.role"),
        ({"steps": [THREE, {"merge": ["A", "B"], "into": {"id": "C", "weight": "4 lb"}}]}, "step 2, into.id"),
        ({"steps": [{"split": "L", "into": [off("A", "1 lb")]}]}, "step 1, into: no piece is left"),
        (
            {"steps": [{"split": "L", "into": [{"id": "A", "weight": "10.11 lb"}]}]},
            "step 1, into: the pieces",
        ),
        ({"steps": [{"split": "L", "into": [{"id": "A", "weight": "9 lb", "worth": "0"}]}]}, "into[0].worth"),
        ({"steps": [{"split": "L", "into": [{"id": "A", "weight": "9 lb", "slices": 0}]}]}, "into[0].slices"),
        ({"steps": [{"split": "L", "into": [off("A", "9 lb", "1.00/each")]}]}, "into[0].worth"),
        ({"steps": [{"weigh": {"L": "1 lb"}, "minutes": -3}]}, "step 1, minutes: the number -3"),
        ({"steps": [{"weigh": {"L": "1 lb"}, "minutes": True}]}, "step 1, minutes: true"),
        ({"steps": [{"weigh": {"L": "1 lb"}, "used": [{"price": "1.00/lb"}]}]}, "step 1, used[0]: either"),
        (
            {"steps": [{"weigh": {"L": "1 lb"}, "used": [{"amount": "2 lb", "price": "3 lb"}]}]},
            "used[0].price",
        ),
        (
            {"steps": [{"weigh": {"L": "1 lb"}, "used": [{"amount": "2 lb", "price": "1/each"}]}]},
            "does not fit",
        ),
        (
            {"steps": [{"weigh": {"L": "1 lb"}, "used": [{"count": 1, "price": "1/each", "group": "meat"}]}]},
            "step 1, used[0].group",
        ),
        (
            {"steps": [{"weigh": {"L": "1 lb"}, "used": [{"count": 1, "price": "1/each", "pieces": ["Q"]}]}]},
            "step 1, used[0].pieces",
        ),
        ({"portion": {"slices": 3, "weight": "1 oz"}}, "portion: needs just one"),
        ({"portion": {"slices": 0}}, "portion.slices"),
        ({"fry_yield": "0"}, "fry_yield"),
        ({"store": [{"paid": "1"}]}, "store[0].weight: is missing"),
        ({"policy": {"fuel": "yes"}}, "policy.fuel: “yes” is neither true nor false"),
        ({"policy": {"by_products": "some"}}, "policy.by_products"),
        ({"format": "dolmetsch-batch/2"}, "format: “dolmetsch-batch/2” is not"),
        ({"lots": [{"id": "h", "from": {"batch": "no", "piece": "x"}}]}, "lots[0].from.batch: no batch"),
        (
            {"batches": [UPSTREAM], "lots": [{"id": "h", "from": {"batch": "ham", "piece": "x"}}]},
            "lots[0].from.piece",
        ),
        (
            {
                "batches": [UPSTREAM],
                "lots": [{"id": "h", "from": {"batch": "ham", "piece": "leg", "weight": "7 lb"}}],
            },
            "lots[0].from.weight: is more than",
        ),
    ],
)
def test_impossible_documents_are_refused_with_their_place(change, message):
    with pytest.raises(DolmetschError) as refused:
        cost(**{"lots": [lot()], **change})
    assert message in str(refused.value)


@pytest.mark.parametrize(
    ("text", "message"),
    [
        (b"\xff", "document: is not UTF-8"),
        ("{", "document: is not JSON: line 1"),
        ("[]", "document: a list is not an object"),
        ('{"lots": NaN}', "document: holds NaN"),
        ('{"a": {"b": 1, "b": 2}}', "a: the key “b” is given twice"),
        ('{"name": "\\ud800"}', "name: holds half a character"),
        ("[" * 100_000, "document: is nested too deeply"),
        ("[" * 60 + "]" * 60, "document: is nested too deeply"),
    ],
)
@pytest.mark.parametrize("answer", [answer_cost, answer_cure])
def test_what_is_no_strict_json_is_refused(answer, text, message):
    with pytest.raises(DolmetschError) as refused:
        answer(text)
    assert message in str(refused.value)


def test_spaces_are_free_nulls_are_absent_and_strangers_are_ignored():
    step = {"weigh": {"L": " 9lb 8 oz "}, "used": [{"amount": "95g", "price": "1.20 / kg", "note": []}]}
    plain = cost(
        lots=[lot()], steps=[{"weigh": {"L": "9.5 lb"}, "used": [{"amount": "95 g", "price": "1.20/kg"}]}]
    )
    assert cost(lots=[lot(solution=None)], steps=[step], store=None, mood="fine") == plain


SLICED = {
    "lots": [lot(weight="1.25 kg")],
    "steps": [{"kind": "slice", "split": "L", "into": [{"id": "S", "weight": "1 kg", "slices": 40}]}],
    "packs": [{"id": "S", "piece": "S", "weight": "250 g", "slices": 10}],
    "gone": [
        {"pack": "S", "as": "sold", "slices": 3, "income": "4.50"},
        {"pack": "S", "as": "eaten", "weight": "25 g", "all": False},
    ],
}


def test_packs_and_where_they_went():
    """1 kg at 20.00 in the document: 250 g is 5.00; a pack may be called like a piece."""
    answer = cost(**SLICED)
    assert answer["packs"] == {
        "S": {
            "weight_g": "250.00",
            "cost": "5.0000",
            "slices": 10,
            "left_g": "150.00",
            "left_cost": "3.0000",
            "left_slices": None,
        }
    }
    assert answer["unpacked"] == {"S": {"weight_g": "750.00", "cost": "15.0000"}}
    assert answer["gone"] == {
        "eaten": {"weight_g": "25.00", "cost": "0.5000", "income": "0.0000"},
        "sold": {"weight_g": "75.00", "cost": "1.5000", "income": "4.5000"},
    }
    assert answer["on_hand"] == {"weight_g": "900.00", "cost": "18.0000"}


def test_without_packs_there_is_nothing_to_say_of_them():
    answer = cost(lots=[lot()], packs=[], gone=None)
    assert [answer[name] for name in ("packs", "unpacked", "gone", "on_hand")] == [None] * 4


@pytest.mark.parametrize(
    ("gone", "place"),
    [
        ({"pack": "S", "as": "lost", "all": True}, "gone[0].as"),
        ({"pack": "S", "as": "eaten"}, "gone[0]"),
        ({"pack": "S", "as": "eaten", "all": False}, "gone[0]"),
        ({"pack": "S", "as": "eaten", "all": True, "slices": 1}, "gone[0]"),
        ({"pack": "S", "as": "eaten", "slices": "1.5"}, "gone[0].slices"),
        ({"pack": "S", "as": "sold", "all": True, "income": "-1"}, "gone[0].income"),
        ({"pack": "S", "as": "eaten", "all": "yes"}, "gone[0].all"),
        ({"pack": "T", "as": "eaten", "all": True}, "gone[0].pack"),
    ],
)
def test_a_fate_that_cannot_be_read_is_refused_at_its_place(gone, place):
    with pytest.raises(DolmetschError) as refused:
        cost(**{**SLICED, "gone": [gone]})
    assert str(refused.value).startswith(f"{place}: ")
    linked = {"id": "one", **SLICED, "gone": [gone]}
    with pytest.raises(DolmetschError):
        cost(lots=[lot()], batches=[linked])


def test_gone_needs_packs():
    with pytest.raises(DolmetschError):
        cost(**{**SLICED, "packs": None})


SMOKED = {"kind": "Smoke", "weigh": {"L": "9 lb"}, "heat": "hot", "inside": {"temp": "66.5", "unit": "C"}}


def test_course_and_heat_change_no_cost_and_may_be_null():
    plain = cost(lots=[lot()], steps=[{"kind": "Smoke", "weigh": {"L": "9 lb"}}])
    more = {"course": "pulled", "courses": {"L": "air_dried", "M": None}}
    assert cost(lots=[lot()], steps=[SMOKED], course="pulled", courses={"L": "air_dried"}) == plain
    nothing = {**SMOKED, "heat": None, "inside": None}
    assert cost(lots=[lot()], steps=[nothing], course=None, courses={"M": None}, batches=[]) == plain
    linked = {"id": "up", "lots": [lot()], "steps": [SMOKED], **more}
    taken = {"id": "L", "from": {"batch": "up", "piece": "L"}}
    assert cost(lots=[taken], batches=[linked])["final"]["cost"] == plain["final"]["cost"]


@pytest.mark.parametrize(
    ("change", "steps", "place"),
    [
        ({"course": "fried"}, [], "course: “fried”"),
        ({"courses": {"L": "fried"}}, [], "courses.L: “fried”"),
        ({"courses": {"Q": "cooked"}}, [], "courses.Q: “Q” is never a piece"),
        ({}, [{**SMOKED, "heat": "warm"}], "step 1, heat: “warm”"),
        ({}, [{**SMOKED, "kind": "cure"}], "step 1, heat: goes only with"),
        ({}, [{"kind": "cure", "weigh": {"L": "9 lb"}, "inside": {"temp": 1}}], "step 1, inside: goes only"),
        (
            {},
            [{"kind": "smoke", "merge": ["L"], "into": {"id": "M", "weight": "9 lb"}, "heat": "hot"}],
            "heat",
        ),
        ({}, [{**SMOKED, "inside": {"temp": "152"}}], "step 1, inside.unit: is missing"),
        ({}, [{**SMOKED, "inside": {"unit": "F"}}], "step 1, inside.temp: is missing"),
        ({}, [{**SMOKED, "inside": {"temp": "1001", "unit": "F"}}], "inside.temp: “1001”"),
        ({}, [{**SMOKED, "inside": {"temp": "-41", "unit": "C"}}], "inside.temp: “-41”"),
        ({}, [{**SMOKED, "inside": {"temp": "1e2", "unit": "F"}}], "inside.temp: “1e2”"),
        ({"batches": [{"id": "up", "lots": [lot()], "steps": [], "course": "fried"}]}, [], "fried"),
    ],
)
def test_a_course_or_heat_that_cannot_be_is_refused_at_its_place(change, steps, place):
    with pytest.raises(DolmetschError) as refused:
        cost(lots=[lot()], steps=steps, **change)
    assert place in str(refused.value), refused.value
