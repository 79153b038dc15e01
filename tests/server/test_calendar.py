"""Days and times in words by country; the web client is held to the same examples."""

import io
import json
import re
import zipfile
from datetime import UTC, date, datetime
from zoneinfo import ZoneInfo

import pytest
from django.utils import timezone

from dolmetsch.command.paths import ROOT
from dolmetsch.server.batches.models import Batch
from dolmetsch.server.kitchens.models import Kitchen
from dolmetsch.server.quantities.calendar import (
    print_clock,
    print_day,
    print_moment,
    print_week_moment,
    print_year_day,
    written_as_in,
)
from dolmetsch.server.quantities.countries import COUNTRIES, find_country
from dolmetsch.server.quantities.printing import sign_of

EXAMPLES = json.loads((ROOT / "web/src/shared/quantity/calendar.examples.json").read_text(encoding="utf-8"))


@pytest.mark.parametrize("example", EXAMPLES, ids=lambda one: one["country"] or "none")
def test_a_country_writes_its_own_days(example):
    moment = datetime(2026, 12, 2, 1, 5, tzinfo=UTC)
    with timezone.override(ZoneInfo("America/Chicago")), written_as_in(COUNTRIES.get(example["country"])):
        assert print_day(moment) == print_day(date(2026, 12, 1)) == example["day"]
        assert print_year_day(moment) == example["year_day"]
        assert print_moment(moment) == example["moment"]
        assert example["moment"].endswith(f", {print_clock('19:05')}")
        assert print_week_moment(moment) == example["week_moment"]
    with timezone.override(ZoneInfo("America/Chicago")):
        assert print_moment(moment) == "1 Dec, 19:05"


@pytest.mark.parametrize("example", EXAMPLES, ids=lambda one: one["country"] or "none")
def test_money_has_the_same_sign_as_in_the_client(example):
    country = COUNTRIES.get(example["country"])
    sign = sign_of("USD" if country is None else country.currency)
    assert re.sub(r"[\d.,\s]", "", example["money"]) == sign.strip()


def test_a_kitchen_without_a_country_is_where_alone_its_money_is_used():
    assert find_country("", "USD").code == "US"
    assert find_country("", "EUR") is None
    assert find_country("DE", "EUR").code == "DE"
    assert find_country("XX", "USD") is None


def test_a_country_is_kept_shown_and_refused(api):
    units = {key: value for key, value in api.get("/units")[1].items() if key != "is_currency_fixed"}
    assert api.call("PUT", "/units", {**units, "country": "DE"})[1]["country"] == "DE"
    assert Kitchen.objects.get(slug=api.slug).in_country.code == "DE"
    for wrong in ("XX", "de", "USA"):
        status, problem = api.call("PUT", "/units", {**units, "country": wrong})
        assert (status, problem["fields"][0]["path"]) == (422, "country")
    assert api.get("/units")[1]["country"] == "DE"


def test_words_of_the_server_go_by_the_kitchens_country(api):
    code = api.started(name="Lantern jowl")
    started = Batch.objects.get(code=code).entries.earliest("happened_at").happened_at

    def said():
        return api.get("/find?words=lantern")[1]["found"][0]["detail"]

    assert f"started {started:%b %-d}" in said()
    # what is written after the answer is no kitchen's any more
    assert print_day(started) == f"{timezone.localtime(started):%-d %b}"
    Kitchen.objects.update(country="DE")
    assert f"started {started:%-d %b}" in said()


def test_a_page_is_printed_on_the_countrys_paper_with_its_days(api):
    code = api.started(name="Lantern jowl")
    today = timezone.localdate()

    def page():
        answer = api.client.get(f"/api/kitchens/{api.slug}/archive/everything.zip")
        content = b"".join(answer.streaming_content) if answer.streaming else answer.content
        with zipfile.ZipFile(io.BytesIO(content)) as held:
            return held.read(f"batches/{code}.html").decode()

    assert "@page { size: letter;" in page()
    assert f"printed {today:%b %-d, %Y}" in page()
    Kitchen.objects.update(country="DE")
    assert "@page { size: a4;" in page()
    assert f"printed {today:%-d %b %Y}" in page()
    Kitchen.objects.update(country="", currency="EUR")
    assert "@page { size: A4;" in page()
