"""Which entries count is decided in one place: ``Entry.current``, and ``list_current`` of what was read."""

import re
from fractions import Fraction as F
from pathlib import Path

import pytest

import dolmetsch.server
from dolmetsch.server.batches.entries.chain import list_current, list_entry_rows
from dolmetsch.server.batches.models import Batch, Entry
from dolmetsch.server.books.unusual import _list_used
from dolmetsch.server.dishes.costing import find_meats
from dolmetsch.server.meals.inputs.record import _sum_bought
from dolmetsch.server.pieces.queries import list_offcuts
from tests.server.conftest import BOUGHT, TRIM, weigh
from tests.server.test_larder import close, pack, stores

pytestmark = pytest.mark.django_db

#: Who reads entries or their lines beside the one place, and why what counts is no matter there, or is asked.
READERS = {
    "archive/checking.py": "looks for times ahead, also in what counts no more",
    "archive/lists.py": "writes out all that was recorded",
    "batches/entries/chain.py": "the one place",
    "batches/entries/sources.py": "a circle is refused also where a line no longer counts",
    "batches/entries/taken.py": "looks for who may take of a batch; what counts is asked of each",
    "batches/models/entry.py": "the one place",
    "batches/record/actions.py": "looks for what a key has made, and writes",
    "batches/record/helping.py": "looks for whose the entry to correct is",
    "history/importing.py": "looks for what a key has made",
    "larder/actions.py": "looks for what a key has made",
    # with Entry.current
    "batches/entries/own_slices.py": "sums up the lines of one such entry",
    "batches/show/uses.py": "",
    "batches/verdict/index.py": "",
    "books/prices.py": "",
    "books/unusual.py": "",
    "dishes/costing.py": "",
    "finding/queries.py": "counts also all that somebody recorded",
    "meals/inputs/record.py": "",
    "pieces/queries.py": "",
    "plans/over.py": "",
}
_LINES = r"\b(?:Weighing|UsedLine|LotLine|FryLine|ExtraLine|ShopPackLine|PortionLine|PolicyLine)\.objects"


def test_nobody_else_reads_what_was_recorded():
    root = Path(dolmetsch.server.__file__).parent
    found = {}
    for path in sorted(root.rglob("*.py")):
        text = path.read_text()
        if "/migrations/" not in str(path) and re.search(rf"{_LINES}|\bEntry\.objects", text):
            found[str(path.relative_to(root))] = text
    assert set(found) == set(READERS)
    for name, why in READERS.items():
        # a reader of lines without a reason asks for those of entries that count
        read = re.findall(rf"{_LINES}\.(?:filter|exclude|all)\(", found[name])
        assert why or found[name].count("Entry.current") + found[name].count("in=counting") >= len(read), name


def test_query_and_rows_say_the_same(api):
    code = api.started()
    for number in range(3):
        api.recorded(code, {"act": "fry", "kept": str(40 + number)})
    api.recorded(code, TRIM)
    entries = list(Entry.objects.filter(batch__code=code).order_by("sequence"))
    for corrected, content in (
        (entries[1], {"act": "fry", "kept": "50"}),
        (entries[1], {"act": "fry", "kept": "60"}),
        (entries[2], {"act": "withdraw"}),
        (entries[3], {"act": "withdraw"}),
        (entries[3], {"act": "fry", "kept": "70"}),
        (entries[1], {"act": "fry", "kept": "65"}),
    ):
        api.recorded(code, content, corrects=corrected.pk, reason="again")
        batch = Batch.objects.get(code=code)
        rows = {row.entry.pk for row in list_current(list_entry_rows(batch))}
        assert set(Entry.current.filter(batch=batch).values_list("pk", flat=True)) == rows
    fries = Entry.current.filter(batch__code=code, act="fry").values_list("fry__ratio", flat=True)
    assert sorted(fries) == [F("0.65"), F("0.70")]


def test_a_frying_corrected_twice_or_canceled_is_what_dishes_use(api):
    stores(api)
    api.code = api.started()
    api.recorded(api.code, TRIM)
    api.recorded(api.code, weigh("smoke", A="4.8 lb", B="2.9 lb"))
    assert close(api, [pack(store="Freezer")])[0] == 201
    kitchen = Batch.objects.get(code=api.code).kitchen

    def fry():
        return find_meats(kitchen, {"jowl,sliced"})["jowl,sliced"].fry

    api.recorded(api.code, {"act": "fry", "kept": "80"})
    first = Entry.objects.latest("pk")
    for kept in ("60", "70"):
        api.recorded(api.code, {"act": "fry", "kept": kept}, corrects=first.pk, reason="misread")
        assert fry() == F(int(kept), 100)
    api.recorded(api.code, {"act": "withdraw"}, corrects=first.pk, reason="never fried")
    assert fry() is None


def test_what_was_canceled_was_not_bought_used_or_cut_off(api):
    code = api.started()
    api.recorded(code, {**BOUGHT, "own_weight": "20 lb", "label_weight": ""})
    lot = Entry.objects.latest("pk")
    smoke = {**weigh("smoke", lot="9 lb"), "used": [{"what": "plum wood", "group": "fuel", "price": "2.00"}]}
    api.recorded(code, smoke)
    burnt = Entry.objects.latest("pk")
    cut = {**TRIM, "cut_off": [{"name": "gland", "material": "waste", "weight": "0.1 lb"}]}
    api.recorded(code, cut)
    trimmed = Entry.objects.latest("pk")
    batch = Batch.objects.get(code=code)
    assert round(_sum_bought({batch.pk})[batch.pk]) == round(30 * F("453.59237"))
    assert _list_used({batch.pk}) == {"plum wood"}
    assert [one.name for one in list_offcuts(batch.kitchen)] == ["gland"]
    for entry in (trimmed, burnt, lot):
        api.recorded(code, {"act": "withdraw"}, corrects=entry.pk, reason="of another batch")
    assert round(_sum_bought({batch.pk})[batch.pk]) == round(10 * F("453.59237"))
    assert (_list_used({batch.pk}), list_offcuts(batch.kitchen)) == (set(), [])
