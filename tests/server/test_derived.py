"""What a batch keeps of itself: renewed by each write, never out of date."""

from decimal import Decimal
from math import exp

import pytest

from dolmetsch.server.batches.forecast import outlooks
from dolmetsch.server.batches.forecast.derived import renew_stale
from dolmetsch.server.batches.models import Batch, ShopSaving, StepYield
from dolmetsch.server.kitchens.models import Kitchen
from tests.server.conftest import BOUGHT, TRIM, weigh
from tests.server.test_finishing import PACK
from tests.server.test_outlooks import finish


@pytest.fixture
def code(api):
    code = api.started(bought={**BOUGHT, "scale": "5 g"})
    api.recorded(code, {**TRIM, "scale": "5 g"})
    return code


def test_a_program_that_derives_otherwise_renews_the_kitchens_it_has_not_renewed_yet(api, other):
    for kitchen in (api, other):
        done = kitchen.started()
        kitchen.recorded(done, PACK)
        finish(kitchen, done)
    renew_stale()
    Kitchen.objects.filter(slug=api.slug).update(derived_edition="older")
    before = [set(kind.objects.values_list("id", flat=True)) for kind in (StepYield, ShopSaving)]
    assert renew_stale() == 1
    theirs = [kind.objects.filter(kitchen__slug=other.slug) for kind in (StepYield, ShopSaving)]
    for rows, ids in zip(theirs, before, strict=True):
        assert rows.exists()
        assert set(rows.values_list("id", flat=True)) <= ids


def test_what_hangs_where_is_counted_of_one_kitchen(api, other):
    api.started()
    other.started()
    other.started()
    assert api.get("/today")[1]["hanging"] == {"bench": 1, "today": 1}


def test_what_a_batch_saved_is_kept_while_it_is_finished(api):
    code = api.started()
    api.recorded(code, PACK)
    api.recorded(code, {**PACK, "name": "Bacon"})
    api.recorded(code, {**PACK, "name": "bacon"})
    finish(api, code)
    batch = api.get(f"/batches/{code}")[1]
    kept = {one.name: one.saved for one in ShopSaving.objects.all()}
    assert kept == {shop["name"]: Decimal(shop["saved_on_batch"]) for shop in batch["shops"]}
    assert len(kept) == 3
    last = batch["log"][-1]["id"]
    api.recorded(code, {"act": "withdraw"}, corrects=last, reason="not yet")
    assert (ShopSaving.objects.count(), StepYield.objects.count()) == (0, 0)


def test_a_method_whose_last_step_is_done_finishes_the_batch_on_every_page(api):
    code = api.started()
    api.recorded(code, TRIM)
    api.recorded(code, weigh("smoke", A="4 lb", B="2 lb"))
    steps = [{"method": "trim"}, {"method": "hot_smoke"}]
    api.call("POST", "/ways", {"name": "Smoked whole", "steps": steps})
    assert api.call("POST", f"/batches/{code}/way", {"way": "Smoked whole"})[0] == 201
    assert api.get(f"/batches/{code}")[1]["is_finished"]
    assert [one["code"] for one in api.get("/today")[1]["finished"]] == [code]


def test_a_method_chosen_while_another_cook_records_takes_nothing_of_it_back(api, code, monkeypatch):
    def overtaken(write, find, make):
        api.recorded(code, weigh("smoke", A="4 lb", B="2 lb"))
        return once(write, find, make)

    once = outlooks.once
    api.call("POST", "/ways", {"name": "Plain", "steps": [{"method": "trim"}, {"method": "slice"}]})
    monkeypatch.setattr(outlooks, "once", overtaken)
    assert api.call("POST", f"/batches/{code}/way", {"way": "Plain"})[0] == 201
    batch = Batch.objects.get(code=code)
    assert batch.last_sequence == 3
    assert batch.summary["labels"][-1] == "Smoked"


def found(api, query):
    status, body = api.get(f"/batches?{query}")
    assert status == 200, str(body)
    return [batch["code"] for batch in body["batches"]]


def test_batches_are_found_by_word_cut_code_state_and_day(api, other):
    ham = api.started(name="Easter ham", bought={**BOUGHT, "cut": "leg, bone in"})
    jowl = api.started(name="Pepper jowl")
    other.started(name="Easter ham")
    done = api.started(name="Old jowl")
    finish(api, done)
    assert found(api, "") == [done, jowl, ham]
    assert found(api, "words=easter") == [ham]
    assert found(api, "words=bone leg") == [ham]
    assert found(api, f"words={jowl.lower()}") == [jowl]
    assert found(api, "words=jowl pepper") == [jowl]
    assert found(api, "words=%25") == found(api, "words=tuna") == []
    assert found(api, "is_finished=true") == [done]
    assert found(api, "is_finished=false") == [jowl, ham]
    Batch.objects.filter(code=ham).update(started_at="2026-03-01T06:30:00Z")
    assert found(api, "since=2026-03-01&until=2026-03-01") == [ham]
    assert found(api, "until=2026-02-28") == []
    # half past one in the morning there, the evening before here
    api.client.cookies["zone"] = "America/Los_Angeles"
    assert found(api, "since=2026-03-01&until=2026-03-01") == []
    assert found(api, "until=2026-02-28") == [ham]


def test_every_batch_is_on_some_page_and_pages_that_are_not_there_are_the_last(api, code):
    pattern = Batch.objects.get(code=code)
    for number in range(24):
        pattern.pk, pattern.code, pattern._state.adding = None, f"X-{number:02d}", True
        pattern.save()
    pages = [found(api, f"page={page}") for page in (1, 2)]
    assert [len(page) for page in pages] == [20, 5]
    assert len({*pages[0], *pages[1]}) == 25
    assert found(api, "page=99999") == pages[1]
    last = api.get("/batches?page=2")[1]
    assert (last["total"], last["page"], last["pages"]) == (25, 2, 2)


@pytest.mark.parametrize("query", ["since=1999-12-31", "until=9999-12-31", "until=soon", "page=0"])
def test_days_and_pages_that_cannot_be_are_refused(api, query):
    status, problem = api.get(f"/batches?{query}")
    assert (status, problem["code"]) == (422, "bad_request")


def test_a_rind_cut_off_is_the_ages_own_loss_not_a_trim(api):
    """Trimmed to .8 before; aged .75, rind off .8: the age keeps .6, the trim .8."""
    code = api.started()
    api.recorded(code, TRIM)
    api.recorded(code, weigh("dry-age", A="3.75 lb", B="2.25 lb"))
    for mark, pounds in (("A", "3.00"), ("B", "1.80")):
        rind = {"name": "rind", "material": "waste", "weight": f"{float(pounds) / 4:.4f} lb"}
        kept = {"mark": f"{mark}1", "weight": f"{pounds} lb"}
        api.recorded(
            code, {"act": "split", "kind": "trim", "piece": mark, "pieces": [kept], "cut_off": [rind]}
        )
    api.recorded(code, {"act": "finish"})
    kept = {row.method: exp(row.log_ratio) for row in StepYield.objects.filter(batch__code=code)}
    assert kept["dry_age"] == pytest.approx(0.6, abs=0.001)
    assert kept["trim"] == pytest.approx(0.8, abs=0.001)
