"""The map at the top of docs/how-it-works.md is true: each file is there, and has what is named in it."""

import re
from pathlib import Path

import pytest

ROOT = Path(__file__).resolve().parents[1]
PAGE = (ROOT / "docs" / "how-it-works.md").read_text()
MAP = PAGE[: PAGE.index("## Parts")]
ROWS = re.findall(r"^\| (.+?) \| `(.+?)` \| `(.+?)` \|$", MAP, flags=re.MULTILINE)


def test_the_map_answers_thirty_questions():
    assert len(ROWS) >= 30
    assert len({question for question, _, _ in ROWS}) == len(ROWS)


@pytest.mark.parametrize(("question", "file", "name"), ROWS)
def test_what_the_map_names_is_there(question, file, name):
    path = ROOT / file if file.startswith("web/") else ROOT / "src" / "dolmetsch" / file
    assert re.search(rf"\b(def|class|function|const) {name}\b", path.read_text()), f"{question}: {name}"
