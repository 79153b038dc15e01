"""Sheets to take away: the drawing for paper, the page's words, the tables."""

import re
import xml.etree.ElementTree as ET
from decimal import Decimal

import pytest
from django.utils import timezone

from dolmetsch.server.batches.entries.chain import build_chain, cost_chain, list_entry_rows
from dolmetsch.server.batches.exchange.papers.page import ENGINE
from dolmetsch.server.batches.exchange.papers.strip_drawing import draw_strip
from dolmetsch.server.batches.exchange.papers.tables import build_tables
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.batches.show.showing import show_batch
from dolmetsch.server.batches.verdict.show_verdict import read_verdict
from dolmetsch.server.quantities.printing import DANGEROUS, make_safe
from dolmetsch.server.tables.writing import write_csv
from tests.server.conftest import TRIM, weigh

SVG = "{http://www.w3.org/2000/svg}"


@pytest.fixture
def shown(api):
    """A batch with an odd name, a shop's kind dearer and one cheaper, and a piece thrown away."""
    code = api.started(name="<b>Salt & smoke</b>")
    api.recorded(code, TRIM)
    for name, paid in (("cheap <kind>", "2.00"), ("best kind", "9.00")):
        api.recorded(code, {"act": "shop_pack", "name": name, "paid": paid, "weight": "1 lb"})
    api.recorded(code, weigh("smoke", A="4 lb", B="3.2 lb"))
    api.recorded(code, {"act": "discard", "pieces": ["B"], "charge": "loss", "why": "sour"})
    batch = Batch.objects.select_related("kitchen").get(code=code)
    rows = list_entry_rows(batch)
    page = show_batch(batch, rows, cost_chain(build_chain(batch, rows)))
    return page, read_verdict(batch, timezone.now()), batch


def words_of(drawing):
    return [text.text for text in ET.fromstring(drawing).iter(f"{SVG}text")]


def test_the_drawing_says_every_step_price_and_what_left(shown):
    page, _, _ = shown
    words = words_of(draw_strip(page.strip, page.shops, unit="lb", sign="$"))
    for column in page.strip.columns:
        assert column.label in words
        assert f"${column.cost.per_lb}" in words
        assert f"{column.weight_out.lb} lb" in words
    assert {"−1.00 lean", "−1.00 lost, not weighed", "−3.20 B", "best kind $9.00"} <= set(words)


def test_the_drawing_is_in_the_kitchens_unit(shown):
    page, _, _ = shown
    words = words_of(draw_strip(page.strip, page.shops, unit="kg", sign="€"))
    assert {"1.814 kg", "€4.41"} <= set(words)


def test_the_drawing_needs_no_colour(shown):
    page, _, _ = shown
    drawing = draw_strip(page.strip, page.shops, unit="lb", sign="$")
    colours = set(re.findall(r"#[0-9a-fA-F]{3,6}", drawing))
    assert all(len(set(colour[1:])) == 1 for colour in colours), "greys only"
    assert "cheap <kind>" not in drawing
    assert "cheap &lt;kind" in drawing


def test_a_gain_is_drawn_as_one_and_many_peels_are_counted(api):
    code = api.started()
    off = [{"name": f"bit {number}", "weight": "1 oz"} for number in range(6)]
    api.recorded(code, {**TRIM, "cut_off": off})
    api.recorded(code, weigh("pump", A="5.5 lb"))
    batch = Batch.objects.get(code=code)
    rows = list_entry_rows(batch)
    page = show_batch(batch, rows, cost_chain(build_chain(batch, rows)))
    words = words_of(draw_strip(page.strip, [], unit="lb", sign="$"))
    assert "+0.50 water" in words
    assert "and 3 more" in words


def test_the_page_states_policy_cautions_and_which_stage_a_price_is_of(shown):
    page, verdict, batch = shown
    from django.template import Context

    context = {"batch": page, "verdict": verdict, "house": verdict.judged.house, "kitchen": batch.kitchen}
    context |= {"sign": "$", "unit": "lb", "started": "Mar 2", "printed": "Mar 3", "strip": "", "size": "9pt"}
    html = ENGINE.get_template("sheet.html").render(Context(context))
    assert "Work not counted, trim credited, fuel, packaging and overhead counted." in html
    assert "a pound, smoked" in html
    assert "ask the local food authority" in html
    assert "<b>Salt" not in html
    assert "&lt;b&gt;Salt &amp; smoke" in html
    assert "9 CFR 424.21(c)" in html


def test_the_tables_add_up_and_name_their_units(shown):
    page, verdict, batch = shown
    tables = dict(build_tables(page, verdict, kitchen=batch.kitchen))
    head, *rows, whole = tables["Bill"]
    assert head == ["part of the bill", "a pound", "a portion", "on the batch"]
    assert sum(row[1] for row in rows) == whole[1]
    assert sum(row[3] for row in rows) == whole[3] == Decimal(page.house.cost)
    ledger_head, bought, trimmed, *_ = tables["Ledger"]
    assert {"weight in, lb", "weight out, kg", "kept of step, %"} <= set(ledger_head)
    assert (bought[0], trimmed[9:11]) == ("Bought", [0, Decimal("2.50")])
    assert [row[0] for row in tables["Shop"]][1:] == ["cheap <kind>", "best kind"]


@pytest.mark.parametrize("start", DANGEROUS)
def test_a_text_that_a_spreadsheet_would_run_is_made_safe(start):
    assert make_safe(f"{start}cmd") == f"'{start}cmd"
    assert make_safe(f"x{start}cmd") == f"x{start}cmd"
    assert make_safe(Decimal("-2.50")) == Decimal("-2.50")
    assert b"'" in write_csv([("T", [[f"{start}1"]])])
