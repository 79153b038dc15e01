"""``cost``, ``cure``, ``cook`` and ``dry`` as anyone runs them: no database, one line where they refuse."""

import json
import subprocess
import sys

import pytest

from dolmetsch.command import paths
from tests.core.jowl import EXAMPLES


def answer(*words, given=b""):
    # from another folder, with nothing of this project's in the environment
    command = [sys.executable, "-I", str(paths.ROOT / "dolmetsch"), *words]
    done = subprocess.run(
        command, input=given, capture_output=True, cwd="/", env={"LC_ALL": "C"}, check=False
    )
    return done.returncode, done.stdout.decode(), done.stderr.decode()


@pytest.mark.parametrize(
    ("verb", "name"), [("cost", "batch"), ("cure", "cure"), ("cook", "cook"), ("dry", "drying")]
)
def test_a_file_and_standard_input_give_the_same_answer(verb, name):
    expected = json.loads((EXAMPLES / f"{name}.answer.json").read_text())
    document = EXAMPLES / f"{name}.json"
    for status, text, faults in (
        answer(verb, str(document)),
        answer(verb, "-", given=document.read_bytes()),
    ):
        assert (status, faults) == (0, "")
        assert json.loads(text) == expected


def changed(name, **change):
    return json.dumps({**json.loads((EXAMPLES / f"{name}.json").read_text()), **change}).encode()


@pytest.mark.parametrize(
    ("verb", "given", "message"),
    [
        ("cost", b"", "document: is not JSON"),
        ("cost", b"\xff\xfe", "document: is not UTF-8"),
        ("cost", b"[" * 200_000, "document: is nested too deeply"),
        ("cost", changed("batch", lots=[]), "lots: a batch begins with something bought"),
        ("cost", changed("batch", steps=[{"weigh": {"box": "2 stone"}}]), "step 1, weigh.box: “2 stone”"),
        (
            "cost",
            changed("batch", steps=[{"weigh": {"a\nb": "2 lb"}}]),
            "step 1, weigh.a b: there is no piece",
        ),
        ("cure", changed("cure", meat="0 g"), "meat: “0 g” weighs nothing"),
        ("cure", changed("cure", agent_amount="7 g"), "target_ppm: give either"),
        ("cure", changed("cure", water="100 g"), "pump: takes"),
        (
            "cook",
            changed("cook", readings=[{"at": "2026-11-21"}]),
            "readings[0].at: “2026-11-21” is not a time",
        ),
        ("cook", b"[1]", "document: a list is not an object"),
        ("dry", changed("drying", chamber=[{"at": "2026-11-21T09:00:00Z", "humidity": "1.4"}]), "humidity"),
    ],
)
def test_refused_input_is_one_line_and_exit_2(verb, given, message):
    status, out, faults = answer(verb, "-", given=given)
    assert (status, out, faults.count("\n")) == (2, "", 1)
    assert message in faults
    assert "Traceback" not in faults


@pytest.mark.parametrize("path", ["/no/such/file", "/"])
def test_a_file_that_cannot_be_read_is_said(path):
    status, _, faults = answer("cost", path)
    assert (status, faults.count("\n")) == (2, 1)
    assert f"{path} cannot be read" in faults
