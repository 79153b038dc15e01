"""Schemathesis over the API's document, as an owner: no server error, and no answer outside its schema.

``FUZZ``: examples an operation; a long run is ``FUZZ=60 ./dolmetsch test --only "API document"``.
"""

import os

import pytest
import schemathesis
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis.errors import Unsatisfiable
from schemathesis import GenerationMode
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import (
    content_type_conformance,
    response_schema_conformance,
)

from dolmetsch.server.config.wsgi import application
from tests.server.conftest import TRIM

EXAMPLES = int(os.environ.get("FUZZ", "3"))
#: What an answer may be besides what its operation promises.
REFUSALS = frozenset({400, 401, 403, 404, 409, 413, 422, 429, 503})


def status_is_promised_or_a_refusal(_context, answer, case):
    """The document leaves the status of a refusal open."""
    promised = {int(status) for status in case.operation.definition.raw["responses"] if status.isdigit()}
    assert answer.status_code in promised | REFUSALS


CHECKS = [
    not_a_server_error,
    status_is_promised_or_a_refusal,
    content_type_conformance,
    response_schema_conformance,
]
#: Streams never end; these end the session, or the right to ask.
APART = r"/stream$|/api/session$|/\{kitchen_slug\}/(tablet|people)$|/api/own/password$"


@pytest.fixture
def owner(transactional_db, api):
    """A kitchen with a batch, and its owner's headers."""
    api.recorded(api.started(), TRIM)
    api.client.get("/api/session")
    cookies = {name: morsel.value for name, morsel in api.client.cookies.items()}
    return api.slug, {
        "Cookie": "; ".join(f"{name}={value}" for name, value in cookies.items()),
        "X-CSRFToken": cookies["csrftoken"],
        "Host": "testserver",
        # the answers are read undecoded there
        "Accept-Encoding": "identity",
    }


def test_answers_are_as_documented(owner):
    slug, headers = owner
    document = schemathesis.openapi.from_wsgi("/api/openapi.json", application).exclude(path_regex=APART)
    asked, wrong = 0, []
    for found in document.get_all_operations():
        operation = found.ok()
        asked += 1
        try:
            for mode in GenerationMode:
                ask(operation.as_strategy(generation_mode=mode), slug, headers)
        except Unsatisfiable:
            # nothing can be asked wrongly where nothing is asked
            continue
        except (Exception, BaseExceptionGroup) as error:
            # all of them are of interest, not the first alone
            wrong.append(f"{operation.label}: {error}"[:1500])
    assert asked > 150
    assert not wrong, "\n\n".join(wrong)


def ask(cases, slug, headers):
    """Ask by the examples of one operation."""

    @given(case=cases)
    @settings(
        max_examples=EXAMPLES,
        deadline=None,
        derandomize=True,
        database=None,
        phases=[Phase.explicit, Phase.generate],
        suppress_health_check=list(HealthCheck),
    )
    def run(case):
        if "kitchen_slug" in (case.path_parameters or {}):
            case.path_parameters["kitchen_slug"] = slug
        case.headers = {**(case.headers or {}), **headers}
        case.call_and_validate(checks=CHECKS)

    run()
