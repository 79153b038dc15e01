"""The map of docs/how-it-works.md and the words of docs/glossary.md are true: what they name is there."""

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


GLOSSARY = (ROOT / "docs" / "glossary.md").read_text()
CODE_WORDS = [
    word
    for row in re.findall(r"^\|[^|]+\|[^|]+\|([^|]+)\|[^|]+\|$", GLOSSARY, flags=re.MULTILINE)
    for word in re.findall(r"`(\w+)`", row)
]
SOURCES = [ROOT / "src", ROOT / "web" / "src"]


@pytest.fixture(scope="module")
def words_of_the_code():
    files = [path for source in SOURCES for path in source.rglob("*") if path.suffix in {".py", ".ts"}]
    return {word for path in files for word in re.findall(r"\w+", path.read_text())}


def test_the_words_of_the_glossary_are_those_of_the_code(words_of_the_code):
    assert len(CODE_WORDS) >= 40
    assert [word for word in CODE_WORDS if word not in words_of_the_code] == []
    assert len(set(CODE_WORDS)) == len(CODE_WORDS)


def test_no_two_shapes_of_the_api_have_one_name():
    """The API document keeps one of each name: of two, the second would silently stand for both."""
    files = (ROOT / "src" / "dolmetsch" / "server").rglob("*.py")
    names = [
        name for file in files for name in re.findall(r"^class (\w+)\(BaseModel", file.read_text(), re.M)
    ]
    assert sorted(name for name in set(names) if names.count(name) > 1) == []
