"""Quantities in documents: read exactly as they are written, or refused with their place."""

from fractions import Fraction as F

import pytest
from hypothesis import given
from hypothesis import strategies as st

from dolmetsch.core.documents.node import Node
from dolmetsch.core.documents.strict import MAX_TEXT, Written, parse, printable
from dolmetsch.core.errors import DocumentError
from dolmetsch.core.numbers.quantity import Price
from dolmetsch.core.numbers.spelling import spell_price, spell_weight, spell_worth

LB = F("453.59237")


@pytest.mark.parametrize(
    ("text", "grams"),
    [
        ("4.25 lb", F("4.25") * LB),
        ("4 lb 4 oz", F("4.25") * LB),
        ("4lb4oz", F("4.25") * LB),
        ("68 oz", F("4.25") * LB),
        ("1.93 kg", 1930),
        (" 850  g ", 850),
        (".5 g", F("0.5")),
        ("0 lb 8 oz", LB / 2),
        ("0.000000001 g", F(1, 10**9)),
    ],
)
def test_weights(text, grams):
    assert Node(text, "w").weight() == grams


@pytest.mark.parametrize(
    "text",
    [
        *("", " ", "4", "lb", "4 pounds", "4 LB", "4 st", "-4 lb", "+4 lb", "4,5 lb", "1,000 g", "1e3 g"),
        *("4. lb", "4 lb 4", "4.5 lb 4 oz", "4 lb -4 oz", "4 lb 4 oz 4 oz", "0 lb", "0 lb 0 oz", "0.0 g"),
        *("٤ lb", "4 lb", "½ lb", "4 lb\x00", "NaN g", "inf g", "9" * 100 + " g"),
    ],
)
def test_what_is_no_weight(text):
    if text == "4 lb":
        # a space of any kind is a space
        assert Node(text, "w").weight() == 4 * LB
        return
    with pytest.raises(DocumentError) as refused:
        Node(text, "lots[0].weight").weight()
    assert str(refused.value).startswith("lots[0].weight: ")


@pytest.mark.parametrize("value", [None, True, 4, Written("4"), ["4 lb"], {"lb": 4}])
def test_a_weight_is_text(value):
    with pytest.raises(DocumentError):
        Node(value, "w").weight()


@pytest.mark.parametrize(
    ("value", "price"),
    [
        ("3.49/lb", Price(paid=F("3.49"), grams=LB)),
        ("1.20 / kg", Price(paid=F("1.2"), grams=F(1000))),
        ("0.02/g", Price(paid=F("0.02"), grams=F(1))),
        ("0.15/each", Price(paid=F("0.15"), count=F(1))),
        ("0/oz", Price(paid=F(0), grams=LB / 16)),
        ({"paid": "5.00", "for": "8 oz"}, Price(paid=F(5), grams=LB / 2, is_pack=True)),
        ({"paid": "12.00", "for": "100 each"}, Price(paid=F(12), count=F(100), is_pack=True)),
    ],
)
def test_prices(value, price):
    assert Node(value, "p").price() == price


@pytest.mark.parametrize(
    ("value", "place"),
    [
        ("3.49", "p"),
        ("3.49/stone", "p"),
        ("3.49 a lb", "p"),
        ("-1/lb", "p"),
        ("$3/lb", "p"),
        ("/lb", "p"),
        (3.49, "p"),
        ({"paid": "5.00"}, "p.for"),
        ({"for": "8 oz"}, "p.paid"),
        ({"paid": "5.00", "for": "0 oz"}, "p.for"),
        ({"paid": "5.00", "for": "0 each"}, "p.for"),
        ({"paid": "-5", "for": "8 oz"}, "p.paid"),
        ({"paid": "5.00", "for": Written("8")}, "p.for"),
    ],
)
def test_what_is_no_price(value, place):
    with pytest.raises(DocumentError) as refused:
        Node(value, "p").price()
    assert refused.value.field == place


@pytest.mark.parametrize(
    ("value", "number"),
    [(Written("12"), 12), ("12.5", F("12.5")), (Written("0"), 0), (Written("12.50"), F("12.5"))],
)
def test_numbers(value, number):
    assert Node(value, "n").number("minutes") == number


@pytest.mark.parametrize(
    "value", [Written("-1"), Written("1e2"), "1e2", "", True, "twelve", Written("1" * 200)]
)
def test_what_is_no_number(value):
    with pytest.raises(DocumentError):
        Node(value, "n").number("minutes")


@pytest.mark.parametrize(("value", "slices"), [(Written("54"), 54), ("54", 54), (Written("54.0"), 54)])
def test_slices_are_whole(value, slices):
    assert Node(value, "s").whole("slices") == slices
    with pytest.raises(DocumentError):
        Node(Written("2.5"), "s").whole("slices")


def test_null_is_absent_and_missing_is_said_with_its_place():
    node = Node({"a": None, "b": "x"}, "lots[0]")
    assert (node.find("a"), node.find("c"), node.get("b").text()) == (None, None, "x")
    with pytest.raises(DocumentError, match=r"^lots\[0\]\.a: is missing$"):
        node.get("a")
    with pytest.raises(DocumentError, match=r"^step 3, into\[1\]\.id: is missing$"):
        Node({}, "into[1]", 3).get("id")


@pytest.mark.parametrize(
    ("value", "found"),
    [
        ("two\nlines", "“two·lines”"),
        ("x" * 100, "“" + "x" * 60 + "…”"),
        (Written("-3"), "the number -3"),
        ([], "a list"),
        ({}, "an object"),
        (False, "false"),
        (None, "null"),
    ],
)
def test_what_was_found_is_told_on_one_line(value, found):
    assert Node(value).found == found


def test_bare_text_limits():
    with pytest.raises(DocumentError):
        Node("x" * 201, "name").text()
    with pytest.raises(DocumentError, match="at least one letter"):
        Node("  ", "id").mark()
    with pytest.raises(DocumentError, match="is longer than 4000 letters"):
        parse('{"name": "' + "x" * (MAX_TEXT + 1) + '"}')
    assert printable("a\tb", most=2) == "a·…"


json_values = st.recursive(
    st.none() | st.booleans() | st.text(st.characters(min_codepoint=32, max_codepoint=126), max_size=8),
    lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.sampled_from("abc"), inner, max_size=3),
    max_leaves=12,
)


@given(json_values)
def test_strict_reading_gives_what_plain_reading_gives(value):
    import json

    assert parse(json.dumps(value)) == value
    assert parse(json.dumps(value).encode()) == value


@pytest.mark.parametrize(
    ("typed", "unit", "spelt"),
    [
        ("4 lb 6 oz", "lb", "4 lb 6 oz"),
        ("4lb6oz", "lb", "4 lb 6 oz"),
        ("4 pounds, 6.5 ounces", "kg", "4 lb 6.5 oz"),
        ("1.98 Kilos", "lb", "1.98 kg"),
        ("70 oz.", "lb", "70 oz"),
        ("2.9", "lb", "2.9 lb"),
        (".5", "kg", ".5 kg"),
        ("850 grams", "lb", "850 g"),
    ],
)
def test_typed_weights_are_spelt_as_documents_spell_them(typed, unit, spelt):
    from dolmetsch.core.numbers.quantity import read_weight

    assert spell_weight(typed, unit) == spelt
    assert Node(spelt, "w").weight() == read_weight(typed, default_unit=unit)


@pytest.mark.parametrize(
    ("price", "amount", "spelt"),
    [
        ("1.20/kg", "95 g", ("amount", "95 g", "1.20/kg")),
        ("1.20 a kilo", "95g", ("amount", "95 g", "1.20/kg")),
        ("$5.00 for 8 oz", "23.5 grams", ("amount", "23.5 g", {"paid": "5.00", "for": "8 oz"})),
        ("18 for 50", "15 bags", ("count", 15, {"paid": "18", "for": "50 each"})),
        ("18.00 for 50 each", "2.5", ("count", "2.5", {"paid": "18.00", "for": "50 each"})),
        ("0.35 each", "4", ("count", 4, "0.35/each")),
        ("1.10", "", ("count", 1, "1.10/each")),
        ("2.40", "9 g", ("amount", "9 g", {"paid": "2.40", "for": "9 g"})),
        ("2.40", "3", ("count", 3, {"paid": "2.40", "for": "3 each"})),
    ],
)
def test_what_was_used_is_spelt_with_its_price(price, amount, spelt):
    assert spell_price(price, amount, "lb") == spelt


def test_what_a_by_product_is_worth_is_spelt():
    assert spell_worth("2.40", "lb") == "2.40/lb"
    assert spell_worth("5 for 3 oz", "lb") == {"paid": "5", "for": "3 oz"}
    for wrong in ("much", "", "5 for much"):
        with pytest.raises(ValueError, match=r"is not a (price|weight)"):
            spell_worth(wrong, "lb")


@pytest.mark.parametrize("text", ["a\\u0000b", "a\\u001fb", "\\u007f", "\\ud800"])
def test_a_text_with_control_characters_or_half_a_letter_is_refused_at_its_place(text):
    with pytest.raises(DocumentError, match=r"control character|half a character") as refused:
        parse(f'{{"lots": [{{"cut": "{text}"}}]}}')
    assert (refused.value.reason, refused.value.field) == ("bad_text", "lots[0].cut")


def test_tabs_and_line_breaks_are_text():
    assert parse('{"note": "a\\tb\\nc\\r"}') == {"note": "a\tb\nc\r"}
